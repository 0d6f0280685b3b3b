"""The demo trips that ship with the application, and how they are loaded."""

"""Work that takes its time, in processes of its own: saves and lists always have a thread."""

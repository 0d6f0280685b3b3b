"""Django management commands of the trips."""

"""The bench: runs that tell what a camera really does, and the figures that they teach."""

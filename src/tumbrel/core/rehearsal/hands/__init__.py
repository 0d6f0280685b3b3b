"""What a pair of hands does, one thing at a time."""

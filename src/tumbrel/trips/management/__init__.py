"""Commands of the trips."""

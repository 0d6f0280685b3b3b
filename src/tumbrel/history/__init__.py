"""What is kept, for whom, in which version, and every step back and forward."""

"""What a rehearsal comes to, as records."""

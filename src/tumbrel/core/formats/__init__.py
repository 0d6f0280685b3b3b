"""Ways in and out beside the plan file."""

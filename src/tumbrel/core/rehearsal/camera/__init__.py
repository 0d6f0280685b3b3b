"""One camera through the trip: what it films, and why not."""

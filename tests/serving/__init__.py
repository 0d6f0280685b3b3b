"""A served Tumbrel, attacked without a browser."""

"""Trips and their plans: kept, opened from files, rehearsed."""

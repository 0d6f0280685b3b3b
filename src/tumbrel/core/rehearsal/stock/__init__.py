"""Batteries, cards and clips: what is used up and filled."""

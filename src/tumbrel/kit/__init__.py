"""Kits: what a person owns and carries, as shelves of cameras, batteries and cards."""

"""How a rehearsal is put away and taken up again."""

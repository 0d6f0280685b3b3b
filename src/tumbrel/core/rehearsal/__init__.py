"""The rehearsal: the whole trip played through with the kit carried.

`outcome.rehearse` is the way in; `engine` plays, `result` is what is told.
"""

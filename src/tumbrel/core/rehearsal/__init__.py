"""The rehearsal: the whole trip played through with the kit carried.

Packages in the order of the work; each imports only those before it: `state`, `trip`, `stock`,
`camera`, `power`, `hands`, `engine`, `result`. What comes out is told by `core.report`.
"""

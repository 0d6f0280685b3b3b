"""Plain sentences made from the core's figures, for every door: page, command line, print."""

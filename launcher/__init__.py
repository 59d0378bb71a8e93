"""What `./hextan` does: install what is missing, build, start, stop, test. Standard library only."""

"""`./hextan soak`: a bounded, seeded run of mixed work against an instance of its own, with kills and a busy neighbour."""

"""Heads of foreign clips and stills, read in a process with limits; of a clip only its first and last bytes are looked at."""

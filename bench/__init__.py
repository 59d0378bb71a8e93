"""Measurements, as ratios within one run: `./hextan bench`."""

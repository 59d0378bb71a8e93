"""Hextan: plans lenses against the scan modes of cinema cameras."""

__version__ = "0.1.0"

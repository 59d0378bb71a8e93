"""Simulated devices from outside that ship with Hextan."""

"""Searches that take seconds, in processes of their own: begun, looked at, stopped; their answers outlive a page."""

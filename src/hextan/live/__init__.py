"""Cameras that are listened to: what they say, checked, thinned, and handed to whoever watches."""

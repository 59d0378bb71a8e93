"""Open formats: bytes in, the core's objects out, and back."""

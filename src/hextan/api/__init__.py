"""FastAPI routers, schemas and errors: parse, call, answer."""

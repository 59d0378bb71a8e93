"""SQLAlchemy models, sessions, migrations and repositories."""

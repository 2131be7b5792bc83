"""The shop file's schema, grown in small steps by Alembic."""

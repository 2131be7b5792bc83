"""The shop file: documents, revisions, daybook, migrations."""

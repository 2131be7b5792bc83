"""Documents with every revision, grouped into acts that can be taken back.

The first form of the shop file: a document points at its current revision,
a revision remembers what it replaces, an act holds the revisions that one
doing of the person made.
"""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "act",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("context", sa.String, nullable=False, index=True),
        sa.Column("says", sa.String, nullable=False),
        sa.Column("at", sa.String, nullable=False),
        sa.Column("state", sa.String, nullable=False),
    )
    op.create_table(
        "revision",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("document_id", sa.String, nullable=False, index=True),
        sa.Column(
            "act_id", sa.Integer, sa.ForeignKey("act.id"), nullable=False, index=True
        ),
        sa.Column("replaces", sa.Integer, sa.ForeignKey("revision.id")),
        sa.Column("body", sa.LargeBinary, nullable=False),
    )
    op.create_table(
        "document",
        sa.Column("id", sa.String, primary_key=True),
        sa.Column("kind", sa.String, nullable=False, index=True),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("stage", sa.String, nullable=False),
        sa.Column("touched_at", sa.String, nullable=False),
        sa.Column("revision_id", sa.Integer, sa.ForeignKey("revision.id")),
    )

"""The daybook, which the file itself keeps from being rewritten.

A record that can be edited later is no record: the triggers refuse any
change of a line, whichever program tries.
"""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "daybook",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("at", sa.String, nullable=False, index=True),
        sa.Column("context", sa.String, nullable=False, index=True),
        sa.Column("says", sa.String, nullable=False),
    )
    if op.get_bind().dialect.name == "sqlite":
        for doing in ("UPDATE", "DELETE"):
            op.execute(
                f"CREATE TRIGGER daybook_no_{doing.lower()} BEFORE {doing} ON daybook "
                "BEGIN SELECT RAISE(ABORT, 'the daybook is only added to'); END"
            )

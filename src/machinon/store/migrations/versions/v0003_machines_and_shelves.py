"""Documents may be machines and shelves from here on.

The tables stay as they are; the number keeps a Machinon that does not know
these documents from opening a file that may hold them.
"""

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    pass

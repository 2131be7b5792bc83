"""The SQLite database under a shop file: its tables, connections and troubles."""

import contextlib
import sqlite3
from collections.abc import Callable
from pathlib import Path
from typing import Any

import sqlalchemy as sa

APPLICATION_ID = 0x4D61636E  # "Macn": tells a shop file from any other database
REMOVED = b""  # the body of a revision that took its document out of the shop

metadata = sa.MetaData()
acts = sa.Table(
    "act",
    metadata,
    sa.Column("id", sa.Integer, primary_key=True),
    sa.Column("context", sa.String),
    sa.Column("says", sa.String),
    sa.Column("at", sa.String),
    sa.Column("state", sa.String),
)
revisions = sa.Table(
    "revision",
    metadata,
    sa.Column("id", sa.Integer, primary_key=True),
    sa.Column("document_id", sa.String),
    sa.Column("act_id", sa.Integer),
    sa.Column("replaces", sa.Integer),
    sa.Column("body", sa.LargeBinary),
)
documents = sa.Table(
    "document",
    metadata,
    sa.Column("id", sa.String, primary_key=True),
    sa.Column("kind", sa.String),
    sa.Column("name", sa.String),
    sa.Column("stage", sa.String),
    sa.Column("touched_at", sa.String),
    sa.Column("revision_id", sa.Integer),
)
lines = sa.Table(
    "daybook",
    metadata,
    sa.Column("id", sa.Integer, primary_key=True),
    sa.Column("at", sa.String),
    sa.Column("context", sa.String),
    sa.Column("says", sa.String),
)

# the statements of an act, built once: every reading goes through them
DROP_UNDONE = (
    sa.update(acts)
    .where(acts.c.context == sa.bindparam("of"), acts.c.state == "undone")
    .values(state="dropped")
)
NEW_ACT = sa.insert(acts)


def _next_act(state: str) -> sa.Select[Any]:
    return (
        sa.select(acts.c.id, acts.c.says)
        .where(acts.c.context == sa.bindparam("of"), acts.c.state == state)
        .order_by(acts.c.id.desc() if state == "done" else acts.c.id)
        .limit(1)
    )


# what undo takes back next, and what redo does again
NEXT_ACT = {state: _next_act(state) for state in ("done", "undone")}
NEW_REVISION = sa.insert(revisions)
NEW_DOCUMENT = sa.insert(documents)
NEW_LINE = sa.insert(lines)
_AS_THEY_ARE = sa.select(
    documents.c.id, revisions.c.id, revisions.c.body, documents.c.name
).join(documents, documents.c.revision_id == revisions.c.id)
NOW = _AS_THEY_ARE.where(documents.c.id == sa.bindparam("document"))
# within one second by which was kept last
LAST_FIRST = documents.c.touched_at.desc(), documents.c.revision_id.desc()
ALL_OF = (
    _AS_THEY_ARE.where(documents.c.kind == sa.bindparam("kind"))
    .order_by(*LAST_FIRST)
    .limit(sa.bindparam("most"))
)
CURRENT = sa.select(documents.c.revision_id).where(
    documents.c.id == sa.bindparam("document")
)
POINT = (
    sa.update(documents)
    .where(documents.c.id == sa.bindparam("document"))
    .values(
        kind=sa.bindparam("kind"),
        name=sa.bindparam("name"),
        touched_at=sa.bindparam("touched_at"),
        revision_id=sa.bindparam("revision_id"),
    )
)


PATIENCE = 0.25  # s: how long a locked file is waited for; the window stands still


def connect(target: str, durable: bool = True) -> sqlite3.Connection:
    """An SQLite connection that leaves transactions to us.

    A rollback journal, not a write-ahead log: between two acts the file is whole
    by itself, so that a copy of it has everything. The journal beside it is emptied
    after each act and deleted when the file is let go of: to make and delete it
    each time took longer than all the rest of an act.
    """
    connection = sqlite3.connect(
        target, timeout=PATIENCE, isolation_level=None, check_same_thread=False
    )
    connection.execute("PRAGMA foreign_keys=ON")
    connection.execute("PRAGMA journal_mode=PERSIST")
    connection.execute(f"PRAGMA synchronous={'EXTRA' if durable else 'OFF'}")
    return connection


def engine_on(creator: Callable[[], sqlite3.Connection]) -> sa.Engine:
    """An engine with one connection, whose transactions begin where we say."""
    engine = sa.create_engine(
        "sqlite://", creator=creator, poolclass=sa.pool.StaticPool
    )

    @sa.event.listens_for(engine, "begin")
    def _begin(connection: sa.Connection) -> None:
        # a writer takes its lock at once, not in the middle of its work
        write = connection.get_execution_options().get("write", True)
        connection.exec_driver_sql("BEGIN IMMEDIATE" if write else "BEGIN")

    @sa.event.listens_for(engine, "close")
    def _nothing_left(connection: sqlite3.Connection, _record: object) -> None:
        with contextlib.suppress(sqlite3.Error):
            connection.execute("PRAGMA journal_mode=DELETE")

    return engine


def migrate(engine: sa.Engine, new: bool = False) -> None:
    """All steps in one transaction: a kill leaves the old file or the new one."""
    # imported here: nine starts in ten find the file up to date
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", "machinon.store:migrations")
    with engine.begin() as connection:
        if new:
            connection.exec_driver_sql(f"PRAGMA application_id={APPLICATION_ID}")
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def copy_all(source: sa.Connection, target: sa.Connection) -> None:
    """All of one database over all of another."""
    ours, theirs = (
        source.connection.driver_connection,
        target.connection.driver_connection,
    )
    assert isinstance(ours, sqlite3.Connection)
    assert isinstance(theirs, sqlite3.Connection)
    ours.backup(theirs)


def last_ids(connection: sa.Connection) -> tuple[int, int, int]:
    """The newest act, revision and daybook line: what changes with any entry."""
    return tuple(  # type: ignore[return-value]
        int(connection.execute(sa.select(sa.func.max(table.c.id))).scalar() or 0)
        for table in (acts, revisions, lines)
    )


def mark_base(connection: sa.Connection) -> None:
    """Note in a shelter where the file stood when it was made."""
    ids = last_ids(connection)
    connection.exec_driver_sql("DROP TABLE IF EXISTS shelter")
    connection.exec_driver_sql(
        "CREATE TABLE shelter (act INTEGER, revision INTEGER, line INTEGER)"
    )
    connection.exec_driver_sql("INSERT INTO shelter VALUES (?, ?, ?)", ids)


def identity(path: Path) -> tuple[int, int] | None:
    """Device and inode of the file that bears a name; None where there is none."""
    try:
        found = path.stat()
    except OSError:
        return None
    return found.st_dev, found.st_ino


def drop_emptied_journal(path: Path) -> None:
    """Take away the emptied journal of a file that no longer bears its name: SQLite
    would not read that file while a journal stands under the name."""
    journal = Path(f"{path}-journal")
    with contextlib.suppress(OSError):
        with journal.open("rb") as opened:
            emptied = opened.read(1) == b"\0"
        if emptied:
            journal.unlink()


def is_trouble(error: sa.exc.DatabaseError) -> bool:
    """Whether the file or the disk is at fault, and not our own statement."""
    return isinstance(error, sa.exc.OperationalError) or (
        type(error) is sa.exc.DatabaseError
    )


_TROUBLES = (
    ("disk is full", "the disk is full"),
    ("locked", "another program keeps the file locked"),
    ("readonly", "the file may not be written"),
    ("unable to open", "the file or its folder may not be written"),
    ("malformed", "the file is damaged"),
    ("not a database", "the file is damaged"),
    ("disk I/O", "the disk does not answer"),
)


def words_of(error: Exception) -> str:
    """The error as a person would say it."""
    cause = getattr(error, "orig", None) or error
    for sign, words in _TROUBLES:
        if sign in str(cause):
            return words
    if isinstance(cause, OSError) and cause.strerror:
        return cause.strerror.lower()
    return str(cause)

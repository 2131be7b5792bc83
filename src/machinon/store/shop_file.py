"""The shop file: every document with its revisions, acts and the daybook.

One doing of the person is one act: it is on disk when `act` returns, can be
taken back and done again, also after the program was closed in between.
"""

import datetime
import os
import sqlite3
import zlib
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

import msgspec
import sqlalchemy as sa

from machinon.core.belongings import Belongings
from machinon.core.errors import MachinonError
from machinon.core.job import STAGES, Job, Stage
from machinon.core.machines import Machine
from machinon.core.shop import Lathe, Piece, Shop
from machinon.core.shop_entry import id_of, unused

Document = Shop | Lathe | Machine | Piece | Belongings | Job

HEAD = "0003"  # the newest migration; a test keeps it true
KNOWN = ("0001", "0002", "0003")
APPLICATION_ID = 0x4D61636E  # "Macn": tells a shop file from any other database

REMOVED = b""  # the body of a revision that took its document out of the shop

_metadata = sa.MetaData()
_act = sa.Table(
    "act",
    _metadata,
    sa.Column("id", sa.Integer, primary_key=True),
    sa.Column("context", sa.String),
    sa.Column("says", sa.String),
    sa.Column("at", sa.String),
    sa.Column("state", sa.String),
)
_revision = sa.Table(
    "revision",
    _metadata,
    sa.Column("id", sa.Integer, primary_key=True),
    sa.Column("document_id", sa.String),
    sa.Column("act_id", sa.Integer),
    sa.Column("replaces", sa.Integer),
    sa.Column("body", sa.LargeBinary),
)
_document = sa.Table(
    "document",
    _metadata,
    sa.Column("id", sa.String, primary_key=True),
    sa.Column("kind", sa.String),
    sa.Column("name", sa.String),
    sa.Column("stage", sa.String),
    sa.Column("touched_at", sa.String),
    sa.Column("revision_id", sa.Integer),
)
_daybook = sa.Table(
    "daybook",
    _metadata,
    sa.Column("id", sa.Integer, primary_key=True),
    sa.Column("at", sa.String),
    sa.Column("context", sa.String),
    sa.Column("says", sa.String),
)

# the statements of an act, built once: every reading goes through them
_DROP_UNDONE = (
    sa.update(_act)
    .where(_act.c.context == sa.bindparam("of"), _act.c.state == "undone")
    .values(state="dropped")
)
_NEW_ACT = sa.insert(_act)
_NEW_REVISION = sa.insert(_revision)
_NEW_DOCUMENT = sa.insert(_document)
_NEW_LINE = sa.insert(_daybook)
_CURRENT = sa.select(_document.c.revision_id).where(
    _document.c.id == sa.bindparam("document")
)
_POINT = (
    sa.update(_document)
    .where(_document.c.id == sa.bindparam("document"))
    .values(
        kind=sa.bindparam("kind"),
        name=sa.bindparam("name"),
        touched_at=sa.bindparam("touched_at"),
        revision_id=sa.bindparam("revision_id"),
    )
)

_decoder = msgspec.json.Decoder(Document)


class ShopFileError(MachinonError):
    """The shop file cannot be used; says which and why."""

    def __init__(self, path: Path, message: str) -> None:
        super().__init__(f"{path}: {message}")
        self.path = path


@dataclass(frozen=True, slots=True)
class Entry:
    """A document in a list, without its body."""

    id: str
    kind: str
    name: str
    stage: str
    touched_at: str


@dataclass(frozen=True, slots=True)
class DaybookLine:
    """One line of the daybook; at: ISO time."""

    at: str
    context: str
    says: str


def local_time() -> str:
    """Now, to the second, with the offset from UTC."""
    return datetime.datetime.now().astimezone().isoformat(timespec="seconds")


class ShopFile:
    """An open shop file. Use `open_shop`; close it when done."""

    def __init__(self, path: Path, engine: sa.Engine, clock: Callable[[], str]) -> None:
        self.path = path
        self._engine = engine
        self._clock = clock
        self._connection: sa.Connection | None = None

    def close(self) -> None:
        """Fold the write-ahead log in and let go of the file."""
        self._engine.dispose()

    @contextmanager
    def together(self) -> Iterator[sa.Connection]:
        """One commit for everything inside: each act is one, an import may be."""
        if self._connection is not None:
            yield self._connection
            return
        try:
            with self._engine.begin() as connection:
                self._connection = connection
                try:
                    yield connection
                finally:
                    self._connection = None
        except sa.exc.OperationalError as error:
            raise ShopFileError(
                self.path,
                f"it could not be written or read ({error.orig}). Is the disk full, or "
                "the file open elsewhere?",
            ) from error

    # -- reading ---------------------------------------------------------

    def entries(self, kind: str) -> list[Entry]:
        """Documents of a kind, last touched first."""
        columns = (
            _document.c.id,
            _document.c.kind,
            _document.c.name,
            _document.c.stage,
            _document.c.touched_at,
        )
        query = (
            sa.select(*columns)
            .where(_document.c.kind == kind, _document.c.revision_id.is_not(None))
            .order_by(_document.c.touched_at.desc(), _document.c.id)
        )
        with self.together() as connection:
            return [Entry(*row) for row in connection.execute(query)]

    def get(self, id: str) -> Document | None:
        """The document as it is now; None if there is none of that id."""
        query = (
            sa.select(_revision.c.body)
            .join(_document, _document.c.revision_id == _revision.c.id)
            .where(_document.c.id == id)
        )
        with self.together() as connection:
            body = connection.execute(query).scalar_one_or_none()
        return None if body is None else _decoder.decode(zlib.decompress(body))

    def shop(self) -> Shop:
        found = self.get("shop")
        return found if isinstance(found, Shop) else Shop()

    def daybook(self, context: str = "", most: int = 500) -> list[DaybookLine]:
        """The newest lines, newest first; of one context or of the whole shop."""
        query = sa.select(_daybook.c.at, _daybook.c.context, _daybook.c.says)
        if context:
            query = query.where(_daybook.c.context == context)
        query = query.order_by(_daybook.c.id.desc()).limit(most)
        with self.together() as connection:
            return [DaybookLine(*row) for row in connection.execute(query)]

    def revisions(self, id: str) -> int:
        """How many revisions of a document are kept."""
        query = sa.select(sa.func.count()).where(_revision.c.document_id == id)
        with self.together() as connection:
            return int(connection.execute(query).scalar_one())

    def new_id(self, name: str) -> str:
        """An id made from a name that no document of any kind has ever had."""
        with self.together() as connection:
            taken = set(connection.execute(sa.select(_document.c.id)).scalars())
        return unused(id_of(name, "item"), taken)

    # -- writing ---------------------------------------------------------

    def act(self, context: str, says: str, *documents: Document) -> None:
        """Keep the documents as they are now, as one act that can be undone.

        context: the job's id, or "shop"; says: the daybook's line. What had
        been taken back in this context can no longer be done again.
        """
        with self._one_act(context, says) as (connection, act_id, at):
            for document in documents:
                self._revise(connection, act_id, at, document)

    def remove(self, context: str, says: str, id: str) -> None:
        """Take a document out of the shop, as one act that can be undone."""
        with self._one_act(context, says) as (connection, act_id, at):
            current = connection.execute(_CURRENT, {"document": id}).scalar_one()
            connection.execute(
                _NEW_REVISION,
                {
                    "document_id": id,
                    "act_id": act_id,
                    "replaces": current,
                    "body": REMOVED,
                },
            )
            connection.execute(
                sa.update(_document)
                .where(_document.c.id == id)
                .values(revision_id=None, touched_at=at)
            )

    def note(self, context: str, says: str) -> None:
        """A daybook line that changes nothing."""
        with self.together() as connection:
            connection.execute(
                _NEW_LINE, {"at": self._clock(), "context": context, "says": says}
            )

    def leave_at(self, job_id: str, stage: Stage) -> None:
        """Remember the stage that a job was left in; no act, nothing to undo."""
        with self.together() as connection:
            connection.execute(
                sa.update(_document).where(_document.c.id == job_id).values(stage=stage)
            )

    @contextmanager
    def _one_act(
        self, context: str, says: str
    ) -> Iterator[tuple[sa.Connection, int, str]]:
        """A new act and its daybook line: the connection, the act's id, its time."""
        at = self._clock()
        with self.together() as connection:
            connection.execute(_DROP_UNDONE, {"of": context})
            act_id = connection.execute(
                _NEW_ACT, {"context": context, "says": says, "at": at, "state": "done"}
            ).lastrowid
            yield connection, act_id, at
            connection.execute(_NEW_LINE, {"at": at, "context": context, "says": says})

    def _revise(
        self, connection: sa.Connection, act_id: int, at: str, document: Document
    ) -> None:
        current = connection.execute(_CURRENT, {"document": document.id}).one_or_none()
        revision_id = connection.execute(
            _NEW_REVISION,
            {
                "document_id": document.id,
                "act_id": act_id,
                "replaces": current[0] if current else None,
                "body": zlib.compress(msgspec.json.encode(document)),
            },
        ).lastrowid
        values = {
            "kind": type(document).__name__.lower(),
            "name": document.name,
            "touched_at": at,
            "revision_id": revision_id,
        }
        if current is None:
            stage = STAGES[0] if isinstance(document, Job) else ""
            connection.execute(
                _NEW_DOCUMENT, {"id": document.id, "stage": stage, **values}
            )
        else:
            connection.execute(_POINT, {"document": document.id, **values})

    def undoable(self, context: str) -> str:
        """What undo would take back, in words; empty if nothing."""
        return self._next_act(context, "done")[1]

    def redoable(self, context: str) -> str:
        """What redo would do again, in words; empty if nothing."""
        return self._next_act(context, "undone")[1]

    def _next_act(self, context: str, state: str) -> tuple[int, str]:
        order = _act.c.id.desc() if state == "done" else _act.c.id.asc()
        query = (
            sa.select(_act.c.id, _act.c.says)
            .where(_act.c.context == context, _act.c.state == state)
            .order_by(order)
            .limit(1)
        )
        with self.together() as connection:
            row = connection.execute(query).one_or_none()
        return (row[0], row[1]) if row else (0, "")

    def undo(self, context: str) -> str:
        """Take back the last act; says which, empty if there is none.

        Raises ShopFileError where another job has changed the same piece
        since: taking back would lose what that job did.
        """
        return self._move(context, "done", "undone", "Taken back: ")

    def redo(self, context: str) -> str:
        """Do again what was taken back last; says what."""
        return self._move(context, "undone", "done", "Done again: ")

    def _move(self, context: str, state: str, to: str, word: str) -> str:
        with self.together() as connection:
            act_id, says = self._next_act(context, state)
            if not act_id:
                return ""
            revisions = connection.execute(
                sa.select(
                    _revision.c.id,
                    _revision.c.document_id,
                    _revision.c.replaces,
                    _revision.c.body == REMOVED,
                ).where(_revision.c.act_id == act_id)
            ).all()
            for own_id, document_id, replaces, removed in revisions:
                revision_id = None if removed else own_id
                have, want = (
                    (revision_id, replaces)
                    if to == "undone"
                    else (replaces, revision_id)
                )
                moved = connection.execute(
                    sa.update(_document)
                    .where(
                        _document.c.id == document_id,
                        _document.c.revision_id.is_(None)
                        if have is None
                        else _document.c.revision_id == have,
                    )
                    .values(revision_id=want, touched_at=self._clock())
                )
                if moved.rowcount != 1:
                    raise ShopFileError(
                        self.path,
                        f"“{says}” cannot be moved: the same "
                        "piece was changed from another job since.",
                    )
                self._refresh(connection, document_id, want)
            connection.execute(
                sa.update(_act).where(_act.c.id == act_id).values(state=to)
            )
            connection.execute(
                sa.insert(_daybook).values(
                    at=self._clock(), context=context, says=word + says
                )
            )
        return says

    def _refresh(
        self, connection: sa.Connection, document_id: str, revision_id: int | None
    ) -> None:
        """Keep the list's name true to the revision now current."""
        if revision_id is None:
            return
        body = connection.execute(
            sa.select(_revision.c.body).where(_revision.c.id == revision_id)
        ).scalar_one()
        document = _decoder.decode(zlib.decompress(body))
        connection.execute(
            sa.update(_document)
            .where(_document.c.id == document_id)
            .values(name=document.name)
        )


def open_shop(
    path: Path, clock: Callable[[], str] = local_time, durable: bool = True
) -> ShopFile:
    """Open a shop file, making it if there is none, and bring it up to date.

    durable: wait for the disk at each act (only a throw-away shop does not).
    Raises ShopFileError for a file that is no shop file, comes from a newer
    Machinon, or cannot be written; such a file is left as it is.
    """
    new = not path.exists() or path.stat().st_size == 0
    if new:
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise ShopFileError(
                path, f"the folder cannot be made ({error.strerror})."
            ) from error
        version = ""
    else:
        version = _version_of(path)
    if path.exists() and not os.access(path, os.W_OK):
        raise ShopFileError(
            path,
            "it may be read but not written. Change its "
            "permissions or open another shop.",
        )
    engine = sa.create_engine(f"sqlite:///{path}", poolclass=sa.pool.StaticPool)

    @sa.event.listens_for(engine, "connect")
    def _prepare(connection: sqlite3.Connection, _record: object) -> None:
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute(f"PRAGMA synchronous={'FULL' if durable else 'OFF'}")
        connection.execute("PRAGMA foreign_keys=ON")

    try:
        if version != HEAD:
            _migrate(engine, new)
    except sa.exc.OperationalError as error:
        engine.dispose()
        raise ShopFileError(path, f"it cannot be written ({error.orig}).") from error
    return ShopFile(path, engine, clock)


def _version_of(path: Path) -> str:
    """The schema version, without touching the file. Raises ShopFileError."""
    try:
        connection = sqlite3.connect(f"file:{path}?mode=ro", uri=True)
        try:
            (application,) = connection.execute("PRAGMA application_id").fetchone()
            if application != APPLICATION_ID:
                raise ShopFileError(
                    path, "this is not a Machinon shop file. It was left as it is."
                )
            (version,) = connection.execute(
                "SELECT version_num FROM alembic_version"
            ).fetchone()
        finally:
            connection.close()
    except (sqlite3.DatabaseError, TypeError) as error:
        raise ShopFileError(
            path,
            "this is not a Machinon shop file, or it is damaged. It was left as it is.",
        ) from error
    if version not in KNOWN:
        raise ShopFileError(
            path,
            "this shop file comes from a newer Machinon. Update "
            "Machinon to open it. It was left as it is.",
        )
    return str(version)


def _migrate(engine: sa.Engine, new: bool) -> None:
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


def copy_shop(source: Path, target: Path) -> None:
    """A consistent copy of a shop file, open or not."""
    with sqlite3.connect(source) as a, sqlite3.connect(target) as b:
        a.backup(b)

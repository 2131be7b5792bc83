"""The shop file: every document with its revisions, acts and the daybook.

One doing of the person is one act: it is on disk when `act` returns, can be
taken back and done again, also after the program was closed in between. Where
the file cannot be written, acts go into a shelter until it can be again.
"""

import contextlib
import datetime
import os
import sqlite3
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from typing import TypeVar

import sqlalchemy as sa
from msgspec import Struct

from machinon.core.errors import MachinonError
from machinon.core.job.job import STAGES, Job, Stage
from machinon.core.shop.entry import id_of, unused
from machinon.core.shop.things import Shop
from machinon.store.database import (
    ALL_OF,
    CURRENT,
    DROP_UNDONE,
    LAST_FIRST,
    NEW_ACT,
    NEW_DOCUMENT,
    NEW_LINE,
    NEW_REVISION,
    NEXT_ACT,
    NOW,
    POINT,
    REMOVED,
    acts,
    connect,
    copy_all,
    documents,
    drop_emptied_journal,
    engine_on,
    identity,
    is_trouble,
    last_ids,
    lines,
    mark_base,
    migrate,
    revisions,
    words_of,
)
from machinon.store.documents import Document, Unreadable, packed, unpacked

T = TypeVar("T")
D = TypeVar("D", bound=Document)


class ShopFileError(MachinonError):
    """The shop file cannot be used; says which and why."""

    def __init__(self, path: Path, message: str) -> None:
        super().__init__(f"{path}: {message}")
        self.path = path


class Damaged(ShopFileError):
    """A document that cannot be read; earlier: a revision before it that can."""

    def __init__(self, path: Path, id: str, name: str, why: str, earlier: int) -> None:
        super().__init__(path, f"“{name}” cannot be read: {why}.")
        self.id, self.name, self.earlier = id, name, earlier


class Stale(ShopFileError):
    """A document that another program has changed since it was read here."""


class _Gone(Exception):
    """The file no longer stands under its name."""


class Entry(Struct, frozen=True):
    """A document in a list, without its body."""

    id: str
    kind: str
    name: str
    stage: str
    touched_at: str


class DaybookLine(Struct, frozen=True):
    """One line of the daybook."""

    at: str  # ISO time
    context: str
    says: str


def local_time() -> str:
    """Now, to the second, with the offset from UTC."""
    return datetime.datetime.now().astimezone().isoformat(timespec="seconds")


class ShopFile:
    """An open shop file. Use `open_shop`; close it when done.

    look_only: nothing can be written. trouble: why entries are not on disk but in
    the shelter, empty while all is well; `on_trouble` is called when it changes.
    """

    def __init__(
        self,
        path: Path,
        engine: sa.Engine,
        clock: Callable[[], str],
        look_only: bool = False,
        shelter: Path | None = None,
        let_go: Callable[[], None] = lambda: None,
    ) -> None:
        self.path = path
        self.look_only = look_only
        self.trouble = ""
        self.on_trouble: Callable[[], None] = lambda: None
        self._engine = engine
        self._clock = clock
        self._let_go = let_go
        self._shelter_path = shelter
        self._shelter: sa.Engine | None = None
        self._connection: sa.Connection | None = None
        # the revision that each document was last read or written at here
        self._seen: dict[str, int | None] = {}
        self._known: dict[str, Document] = {}
        # what was left out of a list because it cannot be read, by its id
        self.damaged: dict[str, Damaged] = {}
        self._stands = identity(path)

    def close(self) -> None:
        """Let go of the file; what is sheltered stays for the next start."""
        if self._shelter is not None and self.retry():
            self._shelter = None
        if self._shelter is not None:
            self._shelter.dispose()
        self._engine.dispose()
        self._let_go()

    @property
    def sheltered_in(self) -> Path | None:
        """The file that holds what is not on disk; None in memory, or nothing."""
        return self._shelter_path if self._shelter is not None else None

    @contextmanager
    def together(self) -> Iterator[sa.Connection]:
        """One commit for everything inside: each act is one, an import may be.

        Raises ShopFileError where it cannot be written: then nothing of it was.
        """
        if self._connection is not None:
            yield self._connection
            return
        with self._reported(), self._begun(self._shelter or self._engine) as connection:
            yield connection

    @contextmanager
    def _begun(self, engine: sa.Engine, write: bool = True) -> Iterator[sa.Connection]:
        if write and self.look_only:
            raise ShopFileError(
                self.path, "it is open to read only: nothing was changed."
            )
        asked = engine if write else engine.execution_options(write=False)
        with asked.begin() as connection:
            self._connection = connection
            try:
                yield connection
            finally:
                self._connection = None

    @contextmanager
    def _reported(self) -> Iterator[None]:
        try:
            yield
        except sa.exc.DatabaseError as error:
            if not is_trouble(error):
                raise
            raise ShopFileError(
                self.path, f"{words_of(error)}. Nothing was changed."
            ) from error

    def _read(self, work: Callable[[sa.Connection], T]) -> T:
        """Runs a query on the file."""
        if self._connection is not None:
            return work(self._connection)
        engine = self._shelter or self._engine
        if self._shelter is None:
            self._why_gone()  # what was moved away can still be read
        with self._reported(), self._begun(engine, write=False) as connection:
            return work(connection)

    # -- trouble ---------------------------------------------------------

    def _write(self, work: Callable[[sa.Connection], T]) -> T:
        """Do a piece of work in one commit: in the file, else in the shelter."""
        if self._connection is not None:
            return work(self._connection)
        if self._shelter is not None:
            self.retry()
        if self._shelter is None:
            done: list[T] = []
            try:
                self._still_there()
                with self._begun(self._engine) as connection:
                    done.append(work(connection))
                self._still_there()
                return done[0]
            except _Gone as error:
                committed = bool(done)
                self._take_shelter(str(error))
                if committed:
                    return done[0]
            except sa.exc.DatabaseError as error:
                if not is_trouble(error):
                    raise
                self._take_shelter(words_of(error))
        assert self._shelter is not None
        with self._reported(), self._begun(self._shelter) as connection:
            return work(connection)

    def _still_there(self) -> None:
        """Raises _Gone unless the open file bears its name."""
        why = "" if self.look_only else self._why_gone()
        if why:
            raise _Gone(why)

    def _why_gone(self) -> str:
        """Why the open file no longer bears its name, empty where it does; its emptied
        journal is taken away then."""
        now = identity(self.path)
        if now == self._stands:
            return ""
        drop_emptied_journal(self.path)
        if now is None:
            return "the file is no longer there"
        return "another file stands in its place"

    def _take_shelter(self, why: str) -> None:
        """Go on in a copy beside the program's own files, or in memory."""
        shelter = None
        if self._shelter_path is not None:
            with contextlib.suppress(OSError, sa.exc.DatabaseError, sqlite3.Error):
                self._shelter_path.parent.mkdir(parents=True, exist_ok=True)
                shelter = self._copied(str(self._shelter_path))
        if shelter is None:
            self._shelter_path = None
            try:
                shelter = self._copied(":memory:")
            except (sa.exc.DatabaseError, sqlite3.Error):
                shelter = self._remembered()
        self._shelter = shelter
        self._say(why)

    def _remembered(self) -> sa.Engine:
        """Entries read before the file became unreadable, from memory."""
        engine = engine_on(lambda: connect(":memory:"))
        migrate(engine, new=True)  # so that a copy of it opens as a shop
        at = self._clock()
        with self._begun(engine) as connection:
            act = {
                "context": "shop",
                "says": "As last read.",
                "at": at,
                "state": "done",
            }
            act_id = connection.execute(NEW_ACT, act).lastrowid
            self._seen.clear()
            for document in self._known.values():
                self._revise(connection, act_id, at, document)
            mark_base(connection)
        return engine

    def _copied(self, target: str) -> sa.Engine:
        """All that can be read of the open file, in a database of its own."""
        engine = engine_on(lambda: connect(target))
        try:
            with self._engine.connect() as ours, engine.connect() as theirs:
                copy_all(ours, theirs)
                with theirs.begin():
                    mark_base(theirs)
        except (sa.exc.DatabaseError, sqlite3.Error):
            engine.dispose()
            raise
        return engine

    def _say(self, why: str) -> None:
        if why != self.trouble:
            self.trouble = why
            self.on_trouble()

    def retry(self) -> bool:
        """Bring what is sheltered into the file; whether all is on disk now."""
        if self._shelter is None:
            return True
        try:
            self._still_there()
            with self._begun(self._engine) as connection:
                ours = last_ids(connection)
            with self._shelter.connect() as sheltered:
                base = sheltered.exec_driver_sql(
                    "SELECT act, revision, line FROM shelter"
                ).one()
            if tuple(base) != ours:
                raise _Gone("another program has changed the file meanwhile")
            with self._shelter.connect() as theirs, self._engine.connect() as mine:
                copy_all(theirs, mine)
                with mine.begin():
                    mine.exec_driver_sql("DROP TABLE IF EXISTS shelter")
            self._still_there()
        except _Gone as error:
            self._say(str(error))
            return False
        except (sa.exc.DatabaseError, sqlite3.Error) as error:
            self._say(words_of(error))
            return False
        self._shelter.dispose()
        self._shelter = None
        if self._shelter_path is not None:
            self._shelter_path.unlink(missing_ok=True)
        self._say("")
        return True

    def left_over(self) -> int:
        """Number of acts that an earlier run had to leave in the shelter; 0 for
        none."""
        path = self._shelter_path
        if self._shelter is not None or path is None or not path.exists():
            return 0
        engine = engine_on(lambda: connect(str(path)))
        try:
            with engine.connect() as connection:
                base = connection.exec_driver_sql("SELECT act FROM shelter").scalar()
                return last_ids(connection)[0] - int(base or 0)
        except (sa.exc.DatabaseError, sqlite3.Error, TypeError):
            return 0
        finally:
            engine.dispose()

    def bring_back(self) -> bool:
        """Bring what an earlier run left in the shelter into the file.

        Whether it is there now; where the file was changed since, the shelter is
        open instead and `trouble` says so, so that a copy of it can be saved.
        """
        if self.left_over():
            path = self._shelter_path
            self._shelter = engine_on(lambda: connect(str(path)))
        done = self.retry()
        self._seen.clear()
        self._known.clear()
        return done

    def save_copy(self, target: Path) -> None:
        """Everything as it is now, sheltered or not, in a new file of its own.

        Raises ShopFileError where that file is there or cannot be written.
        """
        if target.exists():
            raise ShopFileError(target, "it is there already: choose another name.")
        engine = engine_on(lambda: connect(str(target)))
        try:
            source = self._shelter or self._engine
            with source.connect() as ours, engine.connect() as theirs:
                copy_all(ours, theirs)
                with theirs.begin():
                    theirs.exec_driver_sql("DROP TABLE IF EXISTS shelter")
            os.chmod(target, 0o600)
        except (sa.exc.DatabaseError, sqlite3.Error, OSError) as error:
            raise ShopFileError(target, f"{words_of(error)}.") from error
        finally:
            engine.dispose()

    # -- reading ---------------------------------------------------------

    def entries(self, kind: str) -> list[Entry]:
        """Documents of a kind, last touched first."""
        columns = (
            documents.c.id,
            documents.c.kind,
            documents.c.name,
            documents.c.stage,
            documents.c.touched_at,
        )
        query = (
            sa.select(*columns)
            .where(documents.c.kind == kind, documents.c.revision_id.is_not(None))
            .order_by(*LAST_FIRST)
        )
        return self._read(lambda c: [Entry(*row) for row in c.execute(query)])

    def all_of(self, kind: type[D], most: int = -1) -> list[D]:
        """The documents of a kind, last touched first; most: how many, -1 for all.

        One that cannot be read is left out, and noted in `damaged`.
        """
        asked = {"kind": kind.__name__.lower(), "most": most}
        rows = self._read(lambda c: c.execute(ALL_OF, asked).all())
        found = []
        for row in rows:
            try:
                found.append(self._taken(*row))
            except Damaged as error:
                self.damaged[error.id] = error
        return [document for document in found if isinstance(document, kind)]

    def get(self, id: str) -> Document | None:
        """The document as it is now; None if there is none of that id.

        Raises Damaged, naming it, where it cannot be read.
        """
        row = self._read(lambda c: c.execute(NOW, {"document": id}).one_or_none())
        return None if row is None else self._taken(*row)

    def _taken(self, id: str, revision_id: int, body: bytes, name: str) -> Document:
        """A document that was read; Raises Damaged where it cannot be."""
        try:
            document = unpacked(body)
            if document.id != id:
                raise Unreadable(f"it says it is {document.id!r}")
        except Unreadable as error:
            earlier = self._earlier(id, revision_id)
            raise Damaged(self.path, id, str(name), str(error), earlier) from error
        self._seen[id], self._known[id] = revision_id, document
        return document

    def _earlier(self, id: str, revision_id: int) -> int:
        """The newest revision before one that can be read; 0 for none."""
        query = (
            sa.select(revisions.c.id, revisions.c.body)
            .where(revisions.c.document_id == id, revisions.c.id < revision_id)
            .order_by(revisions.c.id.desc())
            .limit(20)
        )
        for earlier, body in self._read(lambda c: c.execute(query).all()):
            with contextlib.suppress(Unreadable):
                if unpacked(body).id == id:
                    return int(earlier)
        return 0

    def go_back(self, damaged: Damaged) -> None:
        """Make a damaged document what it was before; kept as an act.

        Raises ShopFileError where nothing before it can be read.
        """
        query = sa.select(revisions.c.body).where(revisions.c.id == damaged.earlier)
        body = self._read(lambda c: c.execute(query).scalar_one_or_none())
        if body is None:
            raise ShopFileError(self.path, "no earlier revision of it can be read.")
        document = unpacked(body)
        # the damaged one was looked at: it is what this takes the place of
        current = self._read(
            lambda c: c.execute(CURRENT, {"document": damaged.id}).scalar_one()
        )
        self._seen[damaged.id] = current
        self.damaged.pop(damaged.id, None)
        self.act(
            damaged.id if isinstance(document, Job) else "shop",
            f"{damaged.name} was damaged: its revision before is used again.",
            document,
        )

    def mend_shop(self) -> None:
        """Use the revision before of what all pages need, where that is damaged.

        Raises Damaged where there is none.
        """
        try:
            self.shop()
        except Damaged as error:
            if not error.earlier:
                raise
            self.go_back(error)

    def shop(self) -> Shop:
        found = self.get("shop")
        return found if isinstance(found, Shop) else Shop()

    def daybook(self, context: str = "", most: int = 500) -> list[DaybookLine]:
        """The newest lines, newest first; of one context or of the whole shop."""
        query = sa.select(lines.c.at, lines.c.context, lines.c.says)
        if context:
            query = query.where(lines.c.context == context)
        query = query.order_by(lines.c.id.desc()).limit(most)
        return self._read(lambda c: [DaybookLine(*row) for row in c.execute(query)])

    def daybook_with(self, words: Sequence[str], most: int) -> list[DaybookLine]:
        """The newest lines that hold every word, newest first."""
        query = sa.select(lines.c.at, lines.c.context, lines.c.says)
        for word in words:
            query = query.where(lines.c.says.icontains(word, autoescape=True))
        query = query.order_by(lines.c.id.desc()).limit(most)
        return self._read(lambda c: [DaybookLine(*row) for row in c.execute(query)])

    def revisions(self, id: str) -> int:
        """Number of revisions kept of a document."""
        query = sa.select(sa.func.count()).where(revisions.c.document_id == id)
        return int(self._read(lambda c: c.execute(query).scalar_one()))

    def history(self, id: str, most: int = 400) -> list[tuple[DaybookLine, Document]]:
        """A document as each act left it that was not taken back, the newest first;
        what cannot be read any more is left out."""
        query = (
            sa.select(acts.c.at, acts.c.context, acts.c.says, revisions.c.body)
            .join(acts, acts.c.id == revisions.c.act_id)
            .where(revisions.c.document_id == id, acts.c.state == "done")
            .order_by(revisions.c.id.desc())
            .limit(most)
        )
        found = []
        for at, context, says, body in self._read(lambda c: c.execute(query).all()):
            with contextlib.suppress(Unreadable):
                found.append((DaybookLine(at, context, says), unpacked(body)))
        return found

    def new_id(self, name: str) -> str:
        """An id made from a name that no document of any kind has ever had."""
        query = sa.select(documents.c.id)
        taken = self._read(lambda c: set(c.execute(query).scalars()))
        return unused(id_of(name, "item"), taken)

    # -- writing ---------------------------------------------------------

    def act(self, context: str, says: str, *documents: Document) -> None:
        """Keep the documents as they are now, as one act that can be undone.

        context: the job's id, or "shop"; says: the daybook's line. What had
        been taken back in this context can no longer be done again. Raises Stale
        where another program has changed one of them since.
        """

        def work(connection: sa.Connection) -> None:
            with self._one_act(connection, context, says) as (act_id, at):
                for document in documents:
                    self._revise(connection, act_id, at, document)

        self._write(work)

    def remove(self, context: str, says: str, id: str) -> None:
        """Take a document out of the shop, as one act that can be undone."""

        def work(connection: sa.Connection) -> None:
            with self._one_act(connection, context, says) as (act_id, at):
                current = connection.execute(CURRENT, {"document": id}).scalar_one()
                connection.execute(
                    NEW_REVISION,
                    {
                        "document_id": id,
                        "act_id": act_id,
                        "replaces": current,
                        "body": REMOVED,
                    },
                )
                connection.execute(
                    sa.update(documents)
                    .where(documents.c.id == id)
                    .values(revision_id=None, touched_at=at)
                )

        self._write(work)
        self._seen[id] = None
        self._known.pop(id, None)

    def note(self, context: str, says: str) -> None:
        """A daybook line that changes nothing."""
        line = {"at": self._clock(), "context": context, "says": says}
        self._write(lambda connection: connection.execute(NEW_LINE, line))

    def leave_at(self, job_id: str, stage: Stage) -> None:
        """Remember the stage that a job was left in; no act, nothing to undo."""
        if self.look_only:
            return
        query = sa.update(documents).where(documents.c.id == job_id).values(stage=stage)
        self._write(lambda connection: connection.execute(query))

    @contextmanager
    def _one_act(
        self, connection: sa.Connection, context: str, says: str
    ) -> Iterator[tuple[int, str]]:
        """A new act and its daybook line: the act's id, its time."""
        at = self._clock()
        connection.execute(DROP_UNDONE, {"of": context})
        act_id = connection.execute(
            NEW_ACT, {"context": context, "says": says, "at": at, "state": "done"}
        ).lastrowid
        yield act_id, at
        connection.execute(NEW_LINE, {"at": at, "context": context, "says": says})

    def _revise(
        self, connection: sa.Connection, act_id: int, at: str, document: Document
    ) -> None:
        found = connection.execute(CURRENT, {"document": document.id}).one_or_none()
        current = found[0] if found else None
        if current is not None and current != self._seen.get(document.id, current):
            raise Stale(
                self.path,
                f"“{document.name}” was changed by another program since it was read "
                "here. Open the job again to see it; what was typed was not written.",
            )
        revision_id = connection.execute(
            NEW_REVISION,
            {
                "document_id": document.id,
                "act_id": act_id,
                "replaces": current,
                "body": packed(document),
            },
        ).lastrowid
        values = {
            "kind": type(document).__name__.lower(),
            "name": document.name,
            "touched_at": at,
            "revision_id": revision_id,
        }
        if found is None:
            stage = STAGES[0] if isinstance(document, Job) else ""
            connection.execute(
                NEW_DOCUMENT, {"id": document.id, "stage": stage, **values}
            )
        else:
            connection.execute(POINT, {"document": document.id, **values})
        self._seen[document.id] = revision_id
        self._known[document.id] = document

    def undoable(self, context: str) -> str:
        """The act that undo would take back, in words; empty for none."""
        return self._read(lambda c: self._next_act(c, context, "done")[1])

    def redoable(self, context: str) -> str:
        """The act that redo would do again, in words; empty for none."""
        return self._read(lambda c: self._next_act(c, context, "undone")[1])

    @staticmethod
    def _next_act(
        connection: sa.Connection, context: str, state: str
    ) -> tuple[int, str]:
        row = connection.execute(NEXT_ACT[state], {"of": context}).one_or_none()
        return (row[0], row[1]) if row else (0, "")

    def undo(self, context: str) -> str:
        """Take back the last act; says which, empty if there is none.

        Raises ShopFileError where another job has changed the same piece
        since: taking back would lose what that job did.
        """
        return self._move(context, "done", "undone", "Undone: ")

    def redo(self, context: str) -> str:
        """Do again what was taken back last; says what."""
        return self._move(context, "undone", "done", "Redone: ")

    def _move(self, context: str, state: str, to: str, word: str) -> str:
        def work(connection: sa.Connection) -> str:
            act_id, says = self._next_act(connection, context, state)
            if not act_id:
                return ""
            made = connection.execute(
                sa.select(
                    revisions.c.id,
                    revisions.c.document_id,
                    revisions.c.replaces,
                    revisions.c.body == REMOVED,
                ).where(revisions.c.act_id == act_id)
            ).all()
            for own_id, document_id, replaces, removed in made:
                revision_id = None if removed else own_id
                have, want = (
                    (revision_id, replaces)
                    if to == "undone"
                    else (replaces, revision_id)
                )
                moved = connection.execute(
                    sa.update(documents)
                    .where(
                        documents.c.id == document_id,
                        documents.c.revision_id.is_(None)
                        if have is None
                        else documents.c.revision_id == have,
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
                sa.update(acts).where(acts.c.id == act_id).values(state=to)
            )
            connection.execute(
                NEW_LINE,
                {"at": self._clock(), "context": context, "says": word + says},
            )
            return says

        return self._write(work)

    def _refresh(
        self, connection: sa.Connection, document_id: str, revision_id: int | None
    ) -> None:
        """Keep the list's name true to the revision now current."""
        self._seen[document_id] = revision_id
        if revision_id is None:
            return
        body = connection.execute(
            sa.select(revisions.c.body).where(revisions.c.id == revision_id)
        ).scalar_one()
        try:
            document = unpacked(body)
        except Unreadable as error:
            raise ShopFileError(
                self.path, f"what it was before cannot be read: {error}."
            ) from error
        connection.execute(
            sa.update(documents)
            .where(documents.c.id == document_id)
            .values(name=document.name)
        )

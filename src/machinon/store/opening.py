"""Opening a shop: made, brought up to date, backed up, put back, kept to one writer."""

import contextlib
import datetime
import fcntl
import hashlib
import os
import sqlite3
import tempfile
from collections.abc import Callable
from pathlib import Path

import sqlalchemy as sa

from machinon.store.database import (
    APPLICATION_ID,
    connect,
    engine_on,
    identity,
    migrate,
)
from machinon.store.shop_file import ShopFile, ShopFileError, local_time

HEAD = "0003"  # the newest migration; a test keeps it true
KNOWN = ("0001", "0002", "0003")


class ShopBusy(ShopFileError):
    """Another Machinon writes this shop; it can be looked at."""


def open_shop(
    path: Path,
    clock: Callable[[], str] = local_time,
    durable: bool = True,
    look_only: bool = False,
) -> ShopFile:
    """Open a shop file, making it if there is none, and bring it up to date.

    durable: wait for the disk at each act, and shelter entries that cannot be
    written; a throw-away shop does neither. Raises ShopBusy where another Machinon
    writes it and it was not asked to be looked at only; ShopFileError for a file
    that is no shop file, comes from a newer Machinon, or cannot be written: such a
    file is left as it is.
    """
    new = not path.exists() or path.stat().st_size == 0
    if new and look_only:
        raise ShopFileError(path, "there is no such file.")
    if new:
        _make(path)
    version = _version_of(path)
    if look_only:
        if version != HEAD:
            raise ShopFileError(path, "it must be brought up to date first: open it.")
        engine = engine_on(lambda: _reading(path))
        return ShopFile(path, engine, clock, look_only=True)
    if not os.access(path, os.W_OK):
        raise ShopFileError(
            path,
            "it may be read but not written. Change its permissions, open another "
            "shop, or open it to read only.",
        )
    let_go = _alone(path)
    engine = engine_on(lambda: connect(os.fspath(path), durable))
    try:
        # a log left by a kill or an older version is folded in
        with contextlib.closing(connect(os.fspath(path))) as connection:
            connection.execute("PRAGMA journal_mode=DELETE")
        if version != HEAD:
            back_up(path, _free(path.with_name(_dated(path, f"before-{HEAD}"))))
            migrate(engine)
        os.chmod(path, 0o600)
    except ShopFileError:
        engine.dispose()
        let_go()
        raise
    except (sa.exc.DatabaseError, sqlite3.Error, OSError) as error:
        engine.dispose()
        let_go()
        raise ShopFileError(
            path, f"it cannot be written ({getattr(error, 'orig', error)})."
        ) from error
    shelter = shelter_of(path) if durable else None
    return ShopFile(path, engine, clock, shelter=shelter, let_go=let_go)


def shelter_of(path: Path) -> Path:
    """Path for a shop's entries while its file cannot be written."""
    from platformdirs import user_state_path

    key = hashlib.sha256(os.fsencode(path.resolve())).hexdigest()[:12]
    return user_state_path("machinon") / "not-on-disk" / f"{path.stem}-{key}.machinon"


def _make(path: Path) -> None:
    """A new shop file: made aside, whole, before it bears the name."""
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        handle, aside = tempfile.mkstemp(".making", f".{path.name}.", path.parent)
        os.close(handle)
    except OSError as error:
        raise ShopFileError(
            path, f"it cannot be made there ({(error.strerror or '').lower()})."
        ) from error
    made = Path(aside)
    engine = engine_on(lambda: connect(aside))
    try:
        migrate(engine, new=True)
        engine.dispose()
        os.chmod(made, 0o600)
        os.replace(made, path)
    except (sa.exc.DatabaseError, OSError) as error:
        why = getattr(error, "orig", error)
        raise ShopFileError(path, f"it cannot be made there ({why}).") from error
    finally:
        engine.dispose()
        for left in (made, Path(f"{aside}-journal")):
            left.unlink(missing_ok=True)


def _reading(path: Path) -> sqlite3.Connection:
    """A connection that cannot write, whatever signs the path has in it."""
    return sqlite3.connect(
        f"{path.resolve().as_uri()}?mode=ro",
        uri=True,
        timeout=1.0,
        isolation_level=None,
        check_same_thread=False,
    )


def _readable(path: Path) -> sqlite3.Connection:
    """A connection that cannot write, to a file whose last entry is whole: one that a
    kill or a power cut left half written is taken back first, which takes a writer.
    """
    connection = _reading(path)
    try:
        connection.execute("PRAGMA application_id")
    except sqlite3.Error as error:
        connection.close()
        if error.sqlite_errorname != "SQLITE_READONLY_ROLLBACK":
            raise
        with contextlib.closing(sqlite3.connect(path, timeout=1.0)) as writer:
            writer.execute("PRAGMA application_id")
        return _reading(path)
    return connection


def _version_of(path: Path) -> str:
    """The schema version; nothing that was entered is touched. Raises ShopFileError."""
    if not os.access(path, os.R_OK):
        raise ShopFileError(path, "it may not be read: change its permissions.")
    try:
        connection = _readable(path)
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
    except sqlite3.OperationalError as error:
        if "locked" in str(error):
            raise ShopBusy(path, "another program keeps it locked.") from error
        raise ShopFileError(
            path, f"it cannot be read ({error}). It was left as it is."
        ) from error
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


def _alone(path: Path) -> Callable[[], None]:
    """Be the one that writes a shop, until the returned function is called.

    The lock is the kernel's: it goes with the program, however that ends.
    Raises ShopBusy where another has it.
    """
    lock = path.with_name(f".{path.name}.open")
    try:
        handle = os.open(lock, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o600)
    except OSError as error:
        raise ShopFileError(
            path, f"its folder may not be written ({(error.strerror or '').lower()})."
        ) from error
    try:
        fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        held = os.fstat(handle)
        if identity(lock) != (held.st_dev, held.st_ino):
            # let go of between our two steps: its name may be another's by now
            raise BlockingIOError
    except OSError as error:
        os.close(handle)
        raise ShopBusy(
            path, "it is open in another Machinon. Close that, or open it to read only."
        ) from error

    def let_go() -> None:
        with contextlib.suppress(OSError):
            lock.unlink()
        with contextlib.suppress(OSError):
            os.close(handle)

    return let_go


# -- copies ------------------------------------------------------------------


def _dated(path: Path, word: str) -> str:
    now = datetime.datetime.now().strftime("%Y-%m-%d-%H%M%S")
    return f"{path.stem}-{word}-{now}{path.suffix}"


def _free(path: Path) -> Path:
    """The path, numbered where a file of that name is there."""
    number, free = 2, path
    while free.exists():
        free = path.with_stem(f"{path.stem}-{number}")
        number += 1
    return free


def backup_name(path: Path) -> str:
    """Name of a shop's backup today."""
    return _dated(path, "backup")


def back_up(source: Path, target: Path) -> None:
    """A consistent copy of a shop file, open or not.

    Raises ShopFileError where the copy is there already or cannot be written.
    """
    if target.exists():
        raise ShopFileError(target, "it is there already: choose another name.")
    # whole before it bears its name
    aside = target.with_name(f".{target.name}.copying")
    try:
        aside.unlink(missing_ok=True)
        with (
            contextlib.closing(_reading(source)) as ours,
            contextlib.closing(sqlite3.connect(os.fspath(aside))) as theirs,
        ):
            ours.backup(theirs)
            theirs.execute("PRAGMA journal_mode=DELETE")
        os.chmod(aside, 0o600)
        os.replace(aside, target)
    except (sqlite3.Error, OSError) as error:
        aside.unlink(missing_ok=True)
        raise ShopFileError(target, f"it cannot be written ({error}).") from error


def restore(backup: Path, path: Path) -> Path | None:
    """Put a backup in a shop's place; returns where the shop before was kept.

    The shop must be closed. Raises ShopFileError for what is no shop file.
    """
    _version_of(backup)
    kept = None
    if path.exists():
        kept = _free(path.with_name(_dated(path, "before-restore")))
        back_up(path, kept)
    aside = path.with_name(f".{path.name}.restoring")
    aside.unlink(missing_ok=True)
    back_up(backup, aside)
    os.replace(aside, path)
    for end in ("-wal", "-shm", "-journal"):
        Path(f"{path}{end}").unlink(missing_ok=True)
    return kept

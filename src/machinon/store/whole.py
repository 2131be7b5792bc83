"""Files that are written whole or not at all."""

import os
import tempfile
from collections.abc import Callable
from pathlib import Path


def written_whole(path: Path, write: Callable[[Path], object]) -> None:
    """Write a file beside its place under a name nobody knows, then move it there.

    A link that stands in its place is replaced, never followed. Raises OSError.
    """
    handle, name = tempfile.mkstemp(".part", f".{path.name}.", path.parent)
    os.close(handle)
    beside = Path(name)
    try:
        write(beside)
        with beside.open("rb") as done:
            os.fsync(done.fileno())
        os.chmod(beside, 0o644)
        os.replace(beside, path)
    finally:
        beside.unlink(missing_ok=True)

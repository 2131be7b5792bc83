"""Files that take a while: written while the window goes on, and given up at will."""

import contextlib
import os
import threading
from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QObject, Signal

from machinon.core.errors import MachinonError

# kinds of file that no painter is needed for: solids and lines
ASIDE = ("dxf", "stl", "3mf", "jig")


class Writing(QObject):
    """One file on its way; it stands in its place whole, or not at all.

    error: what went wrong, None while nothing did. Signals: ended(writing: object) in
    the window's own time.
    """

    ended = Signal(object)

    def __init__(
        self, parent: QObject, write: Callable[[Path], object], path: Path
    ) -> None:
        super().__init__(parent)  # it goes with the page, in the page's own thread
        self._write, self.path = write, path
        self.error: Exception | None = None
        self._given_up = threading.Event()

    def give_up(self) -> None:
        """Leave no file, whatever is still written."""
        self._given_up.set()

    def begin(self) -> None:
        """A program that ends waits for it."""
        threading.Thread(target=self._run).start()

    def _run(self) -> None:
        beside = self.path.with_name(f".{self.path.name}.begun")
        try:
            self._write(beside)
            if not self._given_up.is_set():
                os.replace(beside, self.path)
        except OSError as trouble:
            self.error = MachinonError(
                f"{self.path} could not be written: {trouble.strerror}."
            )
        except Exception as trouble:  # told where the window can say it
            self.error = trouble
        finally:
            beside.unlink(missing_ok=True)
        with contextlib.suppress(RuntimeError):  # the window is gone
            self.ended.emit(self)

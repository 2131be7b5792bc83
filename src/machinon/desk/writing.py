"""Files that take a while: written while the window goes on, and given up at will."""

import contextlib
import threading
from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QObject, Signal

from machinon.core.errors import MachinonError
from machinon.store.whole import written_whole

# kinds of file that no painter is needed for: solids and lines
ASIDE = ("dxf", "stl", "3mf", "jig")


class _GivenUpError(Exception):
    """It is not wanted any more: nothing is put in its place."""


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

    def _unless_given_up(self, beside: Path) -> None:
        self._write(beside)
        if self._given_up.is_set():
            raise _GivenUpError

    def _run(self) -> None:
        try:
            written_whole(self.path, self._unless_given_up)
        except _GivenUpError:
            pass
        except OSError as trouble:
            self.error = MachinonError(
                f"{self.path} could not be written: {trouble.strerror}."
            )
        except Exception as trouble:  # told where the window can say it
            self.error = trouble
        with contextlib.suppress(RuntimeError):  # the window is gone
            self.ended.emit(self)

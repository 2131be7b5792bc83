"""Faults of our own: said, reported, and survived.

A fault never ends the program and never takes an entry along. The report names
code and versions only: no paths of the person's, no sizes, no names.
"""

import datetime
import functools
import platform
import sys
import traceback
from collections.abc import Callable
from pathlib import Path
from types import TracebackType
from typing import Any, TypeVar

from PySide6 import __version__ as qt_version
from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from machinon import __version__
from machinon.core.errors import MachinonError

MOST_REPORTS = 20  # that are written in one run

W = TypeVar("W", bound=QWidget)


class Faults:
    """Takes every fault of ours. doing: what the person was doing.

    tell: shows a message; folder: where reports go, None for none.
    """

    def __init__(self) -> None:
        self.doing = "starting"
        self.tell: Callable[[str], None] = lambda _: None
        self.folder: Path | None = None
        self.count = 0
        self._seen: set[str] = set()

    def report(self, error: BaseException) -> None:
        """Write a report of a fault, and say so once for each place."""
        trace = self._traced(error)
        place = trace[-1] if trace else type(error).__name__
        self.count += 1
        print("".join(traceback.format_exception(error)), file=sys.stderr)
        if place in self._seen or len(self._seen) >= MOST_REPORTS:
            return
        self._seen.add(place)
        where = self._written(error, trace)
        self.tell(
            f"Something went wrong in Machinon while {self.doing}. Every entry is "
            "kept; you can go on."
            + (
                f"\n\nA report, without any of your data, is in\n{where}"
                if where
                else ""
            )
        )

    @staticmethod
    def _traced(error: BaseException) -> list[str]:
        """The place of an error, by module and line of our own code."""
        found = []
        for frame in traceback.extract_tb(error.__traceback__):
            _, own, module = frame.filename.partition("machinon/")
            if own:
                found.append(f"machinon/{module}, line {frame.lineno}, {frame.name}")
        return found

    def _written(self, error: BaseException, trace: list[str]) -> Path | None:
        if self.folder is None:
            return None
        now = datetime.datetime.now().strftime("%Y-%m-%d-%H%M%S")
        path = self.folder / f"fault-{now}-{len(self._seen)}.txt"
        lines = [
            f"Machinon {__version__}, Qt {qt_version}, Python "
            f"{platform.python_version()}, {platform.system()} {platform.machine()}",
            f"While {self.doing}",
            *trace,
            type(error).__name__,
        ]
        try:
            self.folder.mkdir(parents=True, exist_ok=True)
            path.write_text("\n".join(lines) + "\n", encoding="utf-8")
        except OSError:
            return None
        return path

    def hook(
        self,
        kind: type[BaseException],
        error: BaseException,
        _trace: TracebackType | None,
    ) -> None:
        """Stands in for sys.excepthook: takes an error that leaves a slot or an event
        handler."""
        if issubclass(kind, KeyboardInterrupt):
            sys.__excepthook__(kind, error, _trace)
            return
        if isinstance(error, MachinonError):
            # meant for a person, but nobody was there to show it
            self.tell(str(error))
        else:
            self.report(error)
        # a frame kept alive would keep its painter alive, after its device
        sys.last_value = sys.last_traceback = None  # type: ignore[assignment]


faults = Faults()


def painted(
    paint: Callable[[Any, QPainter, QPaintEvent], None],
) -> Callable[[Any, QPaintEvent], None]:
    """A paintEvent from a method that gets the painter: it is always ended.

    What cannot be drawn says so in its place.
    """

    @functools.wraps(paint)
    def paint_event(widget: QWidget, event: QPaintEvent) -> None:
        painter = QPainter(widget)
        try:
            paint(widget, painter, event)
        except Exception as error:
            faults.report(error)
            painter.resetTransform()
            say_cannot(painter, QRectF(widget.rect()))
        finally:
            painter.end()

    return paint_event


CANNOT = "cannot be drawn"


def say_cannot(painter: QPainter, place: QRectF) -> None:
    """Say in place of a drawing that it cannot be drawn."""
    painter.setClipping(False)
    painter.drawText(
        place, int(Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap), CANNOT
    )

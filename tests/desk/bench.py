"""A real window on a throw-away shop, driven by keys and clicks."""

import atexit
import functools
import os
import shutil
import sys
import tempfile
import time
import unittest
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PySide6.QtCore import QEvent, QObject, QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QApplication,
    QComboBox,
    QDialog,
    QLineEdit,
    QMainWindow,
    QMenu,
    QPushButton,
    QWidget,
)

from machinon.desk.daybook import WorkingWindow
from machinon.desk.faults import faults
from machinon.desk.settings import Settings
from machinon.desk.theme import load_fonts
from machinon.desk.widgets import Typed
from machinon.desk.window import MainWindow
from machinon.store.demo_shop import demo_shop
from machinon.store.opening import open_shop

Typed.AGAIN = 0.0  # a test types as fast as a gauge does


def application() -> QApplication:
    app = QApplication.instance()
    if app is None:
        app = QApplication([])
        load_fonts()
    return app


@functools.cache
def ready_demo() -> Path:
    """A demo shop to be copied: making it is most of a test's beginning."""
    folder = tempfile.mkdtemp()
    atexit.register(shutil.rmtree, folder, ignore_errors=True)
    return demo_shop(Path(folder))


class StrayWindows(QObject):
    """Notes widgets that came up as windows of their own though they are none."""

    def __init__(self):
        super().__init__()
        self.seen: list[str] = []

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if (
            event.type() == QEvent.Type.Show
            and isinstance(watched, QWidget)
            and watched.windowType() == Qt.WindowType.Window
            and not isinstance(watched, QMainWindow | QDialog | WorkingWindow)
        ):
            self.seen.append(f"{type(watched).__name__} {watched.accessibleName()}")
        return False


class WindowCase(unittest.TestCase):
    """Opens a window for each test. demo: on the demo shop, else an empty one.

    FLASHES: whether windows that flash up are looked for, which is slow.
    """

    demo = True
    FLASHES = False

    def setUp(self):
        self.app = application()
        # what leaves a slot or an event handler is a fault, and fails the test
        self.faults: list[BaseException] = []
        hook = sys.excepthook
        sys.excepthook = lambda _kind, error, _trace: self.faults.append(error)
        self.addCleanup(lambda: self.assertEqual(self.faults, [], "faults"))
        self.addCleanup(setattr, sys, "excepthook", hook)
        before = faults.count
        self.addCleanup(lambda: self.assertEqual(faults.count, before, "not drawn"))
        if self.FLASHES:
            stray = StrayWindows()
            self.app.installEventFilter(stray)
            self.addCleanup(
                lambda: self.assertEqual(stray.seen, [], "windows flashed up")
            )
            self.addCleanup(self.app.removeEventFilter, stray)
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.path = self.folder / "shop.machinon"
        if self.demo:
            self.path = Path(shutil.copy(ready_demo(), self.folder))
        self.open_window()

    def open_window(self):
        """A window on the shop file, as at a start."""
        file = open_shop(self.path, durable=False)
        self.window = MainWindow(Settings(None), self.folder)
        self.window.open_file(file)
        self.window.resize(1280, 800)
        self.window.show()
        self.settle()
        self.addCleanup(self.close_window)

    def settle(self):
        """What a running window does between two doings of the person."""
        self.app.processEvents()
        # outside an event loop nothing else lets go of what is to be deleted
        self.app.sendPostedEvents(None, QEvent.Type.DeferredDelete)

    def until(self, what, seconds=8.0):
        """Whether it comes to be so: what follows by itself takes a moment."""
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            self.settle()
            if what():
                return True
            time.sleep(0.005)
        return False

    def close_window(self):
        if self.window is not None:
            self.window.close()
            self.window.deleteLater()
            self.window = None
            self.settle()

    @property
    def job(self):
        return self.window.job

    def stage(self, name: str) -> QWidget:
        """Go to a stage by its command; returns its view."""
        self.window.actions_by_id[f"stage.{name}"].trigger()
        self.settle()
        self.assertEqual(self.window.job_page().stage, name)
        return self.window.job_page().view()

    def type(self, entry: QLineEdit, text: str, enter: bool = True):
        """Type over what stands in an entry, as a person does."""
        entry.setFocus()
        entry.selectAll()
        QTest.keyClick(entry, Qt.Key.Key_Delete)
        QTest.keyClicks(entry, text)
        if enter:
            QTest.keyClick(entry, Qt.Key.Key_Return)
        self.settle()

    def click(self, widget: QWidget, at: QPoint | None = None):
        if at is None:
            QTest.mouseClick(widget, Qt.MouseButton.LeftButton)
        else:
            QTest.mouseClick(
                widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, at
            )
        self.settle()

    def press_in(self, widget: QWidget, words: str):
        """Click the button with these words on it."""
        buttons = widget.findChildren(QPushButton)
        self.click(next(button for button in buttons if button.text() == words))

    def choose(self, combo: QComboBox, data: object):
        """Choose a line of a list by its data."""
        at = combo.findData(data)
        self.assertGreaterEqual(at, 0, f"{data!r} is not in the list")
        combo.setCurrentIndex(at)
        combo.activated.emit(at)
        self.settle()

    def pick(self, menu: QMenu, words: str):
        """Choose a line of a menu, or of one of its parts."""
        lines = list(menu.actions())
        for line in lines:
            if line.menu() is not None:
                lines += line.menu().actions()
        next(action for action in lines if action.text() == words).trigger()
        self.settle()

    def sneak_up(self, start, sign):
        """Work the Cut screen by what it asks, till it asks for the mate.

        The tool takes 0.95 of what stands before it. sign: 1 shaft, -1 bore.
        Returns the size it came to, mm.
        """
        cut = self.window.job_page().view()
        size = start
        for _ in range(40):
            asks = cut.screen.asks
            if asks in ("trial", "done"):
                return size
            if asks == "start":
                self.type(cut.field.edit, f"{start:.3f}")
            elif asks == "touch":
                self.type(cut.field.edit, "0")
            elif asks == "reading":
                self.type(cut.field.edit, f"{size:.3f}")
            else:
                standing = self.job.plan.advice.dial - sign * (start - size) / 2
                size -= sign * 2 * 0.95 * standing
                self.click(cut.enter_button)
        raise AssertionError("it never came to the trial of the mate")

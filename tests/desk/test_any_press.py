"""Whatever is pressed and typed, nothing breaks and the shop can be opened again."""

import random
import sys
from unittest import mock

from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QAbstractButton,
    QComboBox,
    QDialog,
    QFileDialog,
    QLineEdit,
    QMenu,
    QTreeWidget,
    QTreeWidgetItemIterator,
)

from machinon.core.job.job import STAGES
from machinon.desk.widgets import DrawingView
from machinon.store.opening import open_shop
from tests.desk.bench import WindowCase
from tests.trials import SEED, TIMES

TYPED = ("", "12", "12.5", "-3", "1 3/8in", "0.001", "M6", "1e9", "8tpi", "H7/g6")
TYPED += ("steel", "0", "45", "back 90", "200 to 90", "3,4,5", "rubbish")
TYPED += ("= bore.diameter + 2", "= fit1", "1/2-13", "0.5 0 -0.5 0", "brass", "10°")
KEYS = [getattr(Qt.Key, f"Key_{name}") for name in ("Return", "Escape", "Up", "Down")]
KEYS += [getattr(Qt.Key, f"Key_{name}") for name in ("Left", "Right", "Space", "Tab")]
KEYS += [getattr(Qt.Key, f"Key_{name}") for name in ("Backspace", "Delete", "F8")]
KEYS += [getattr(Qt.Key, f"Key_{name}") for name in ("0", "1", "5", "Period", "Minus")]
STAYS = ("desk.quit", "view.machine")  # would end the test, or hide all it presses


class AnyPress(WindowCase):
    """Random, but the same at every run."""

    STEPS, FLASHES = 45, True

    def setUp(self):
        super().setUp()
        self.broken: list[str] = []
        hook = sys.excepthook
        # what a slot raises is shown by Qt's binding, not raised here
        sys.excepthook = lambda kind, error, _: self.broken.append(repr(error))
        self.addCleanup(setattr, sys, "excepthook", hook)
        for name in ("getSaveFileName", "getOpenFileName"):
            patch = mock.patch.object(QFileDialog, name, return_value=("", ""))
            patch.start()
            self.addCleanup(patch.stop)

    def there(self, kind):
        """What of a kind can be seen and used now."""
        found = self.window.findChildren(kind)
        return [widget for widget in found if widget.isVisible() and widget.isEnabled()]

    def press(self, chance: random.Random):
        """One thing that a person could do now."""
        for widget in self.app.topLevelWidgets():
            if isinstance(widget, QMenu) and widget.isVisible():
                acts = [a for a in widget.actions() if a.isEnabled() and a.text()]
                if acts:
                    chance.choice(acts).trigger()
                widget.close()
            elif isinstance(widget, QDialog) and widget.isVisible():
                widget.close()
        acts = [self.go, self.pick_it, self.point_at_it, self.list_it, self.resize_it]
        acts += 2 * [self.type_it, self.click_it, self.key_it]
        chance.choice(acts)(chance)
        self.app.processEvents()

    def go(self, chance):
        commands = [
            action
            for id, action in self.window.actions_by_id.items()
            if id not in STAYS and action.isEnabled()
        ]
        jobs = self.window.file.entries("job")
        if jobs and chance.random() < 0.4:
            self.window.open_job(chance.choice(jobs).id)
            self.window.go(chance.choice(STAGES))
        else:
            chance.choice(commands).trigger()

    def type_it(self, chance):
        entries = self.there(QLineEdit)
        if entries:
            self.type(chance.choice(entries), chance.choice(TYPED))

    def key_it(self, chance):
        for key in chance.choices(KEYS, k=3):
            QTest.keyClick(self.app.focusWidget() or self.window, key)

    def resize_it(self, chance):
        self.window.resize(*chance.choice(((1024, 700), (1280, 800), (1600, 1000))))

    def click_it(self, chance):
        buttons = self.there(QAbstractButton)
        if buttons:
            chance.choice(buttons).click()

    def pick_it(self, chance):
        combos = [combo for combo in self.there(QComboBox) if combo.count()]
        if combos:
            combo = chance.choice(combos)
            at = chance.randrange(combo.count())
            combo.setCurrentIndex(at)
            combo.activated.emit(at)

    def point_at_it(self, chance):
        drawings = [view for view in self.there(DrawingView) if view.drawing().spots]
        if drawings:
            drawing = chance.choice(drawings)
            x, y, w, h = chance.choice(drawing.drawing().spots).rect
            at = QPoint(round(x + w / 2), round(y + h / 2))
            left, none = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
            QTest.mouseClick(drawing, left, none, at)

    def list_it(self, chance):
        for tree in self.there(QTreeWidget):
            walk = QTreeWidgetItemIterator(tree)
            items = []
            while walk.value() is not None:
                items.append(walk.value())
                walk += 1
            if items:
                tree.setCurrentItem(chance.choice(items))
                return

    def test_nothing_breaks(self):
        chance = random.Random(20260303 + SEED)
        for step in range(self.STEPS * TIMES):
            self.press(chance)
            self.assertEqual(self.broken, [], f"at step {step}")
        path = self.window.file.path
        self.close_window()
        file = open_shop(path)
        self.addCleanup(file.close)
        for kind in ("lathe", "machine", "piece", "job"):
            for entry in file.entries(kind):
                self.assertIsNotNone(file.get(entry.id))


class AnyPressInAnEmptyShop(AnyPress):
    demo = False
    STEPS = 30

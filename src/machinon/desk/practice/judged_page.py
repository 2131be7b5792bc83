"""An exercise judged by feel: a thread to its nut, a taper to its blue, a casting."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from machinon.core.errors import BadInput
from machinon.core.practice.judged import Exercise, Judged, by_the_tips
from machinon.core.practice.sneak_up import Coached
from machinon.core.quantity import NUMBER, parse
from machinon.desk.widgets import (
    DrawingView,
    Field,
    Look,
    button,
    label,
    panel,
    set_ink,
)
from machinon.draw.drawing import Drawing
from machinon.draw.judged_drawing import judged_drawing

TITLES = {
    "thread": "A thread to its nut: M24 × 2",
    "taper": "A taper bore to its blue",
    "centring": "A rough casting in four jaws",
}
DOES = {
    "thread": "Take the pass, try the nut",
    "taper": "Turn it, take a light cut, blue it",
    "centring": "Push, read a turn again",
}


class JudgedPage(QWidget):
    """The view at the left, the acts at the right; the debrief at the end."""

    def __init__(
        self,
        look: Look,
        exercise: Exercise,
        coached: Coached,
        ended: Callable[[Judged], None],
        again: Callable[[], None],
        other: Callable[[], None],
    ) -> None:
        super().__init__()
        self.look, self.exercise, self.coached = look, exercise, coached
        self._ended = ended
        px = look.px
        self.head = label("", "say", wrap=True)
        self.large = label("", "large", "measured", wrap=True)
        self.under = label("", "say", wrap=True)
        self.tip = label("", "say", "cut", wrap=True)
        if coached != "on":
            self.tip.hide()
        left = QVBoxLayout()
        left.setContentsMargins(px(16), px(12), px(16), px(12))
        left.addWidget(label(TITLES[exercise.kind], "head", wrap=True))
        self.picture = DrawingView(look, self._picture, "What is seen", 15.0)
        left.addWidget(self.picture, 1)
        for label_ in (self.head, self.large, self.under):
            left.addWidget(label_)
        left.addSpacing(px(8))
        left.addWidget(self.tip)
        self.truths = QWidget()
        self._truths = QGridLayout(self.truths)
        self._truths.setContentsMargins(0, 0, 0, 0)
        left.addWidget(self.truths)
        right = QVBoxLayout()
        right.setContentsMargins(px(12), px(12), px(12), px(12))
        self.fields: dict[str, Field] = {}
        for ask in exercise.asks:
            field = Field(f"{ask.words}, {ask.unit}", None, large=True)
            field.taken.connect(lambda _, key=ask.key: self._taken(key))
            self.fields[ask.key] = field
            right.addWidget(field)
        self.do = button(DOES[exercise.kind], self.act, "main")
        self.do.setMinimumHeight(px(46))
        right.addWidget(self.do)
        self.end = button("End it here", self._finish)
        right.addWidget(self.end)
        right.addStretch(1)
        self.other = button("Another one", other, "main")
        self.again = button("The same once more", again)
        right.addWidget(self.other)
        right.addWidget(self.again)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(panel(left, True), 62)
        whole.addWidget(panel(right, True), 38)
        self.other.hide()
        self.again.hide()
        self.refresh()

    def refresh(self) -> None:
        seen = self.exercise.seen()
        self.head.setText(seen.head)
        self.large.setText(seen.large)
        self.under.setText(seen.under)
        self.tip.setText(self.exercise.tip())
        self.picture.refresh()

    def _picture(self, width: float, height: float, size: float) -> Drawing:
        return judged_drawing(self.exercise, width, height, size)

    def begin(self) -> None:
        next(iter(self.fields.values())).edit.setFocus()

    def _taken(self, key: str) -> None:
        """Enter leads to the next figure, after the last one it is done."""
        keys = list(self.fields)
        after = keys[keys.index(key) + 1 :]
        if after:
            self.fields[after[0]].edit.setFocus()
        else:
            self.act()

    def act(self) -> None:
        """Do it, with the figures that were typed."""
        typed = {}
        for key, field in self.fields.items():
            try:
                text = field.text().strip()
                typed[key] = parse(text, NUMBER, key=key) if text else 0.0
            except BadInput as error:
                field.refuse(error.message)
                return
        try:
            self.exercise.do(typed)
        except BadInput as error:
            self.fields[error.key].refuse(error.message)
            return
        for field in self.fields.values():
            field.clear()
        self.refresh()
        if self.exercise.over:
            self._finish()
        else:
            self.begin()

    def _finish(self) -> None:
        told = self.exercise.ended()
        ink = "proved" if told.inside else "stop" if told.past else "cut"
        set_ink(self.large, ink)
        self.tip.setText(told.lesson)
        self.tip.show()
        exercise = self.exercise
        coach = by_the_tips(
            exercise.kind, exercise.level, exercise.seed, exercise.settings
        )
        ended = "it ends well" if coach.inside else "it ends no better"
        truths = (
            *told.truths,
            ("Following the coach", f"{ended}, {coach.stops} stops"),
        )
        for row, (name, value) in enumerate(truths):
            self._truths.addWidget(label(name, "faint"), row, 0)
            value_label = label(value, "head")
            self._truths.addWidget(value_label, row, 1, Qt.AlignmentFlag.AlignLeft)
        for exercise in (self.do, self.end, *self.fields.values()):
            exercise.hide()
        self.other.show()
        self.again.show()
        self.other.setFocus()
        self._ended(told)

"""What a piece goes with: asked as a job begins, and of one that is under way."""

import functools
from collections.abc import Mapping
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QComboBox, QHBoxLayout, QVBoxLayout, QWidget

from machinon.core.families import family_for
from machinon.core.job.job import MADE_HERE
from machinon.core.job.made_piece import could_be, likely_mate, mate_pieces
from machinon.core.piece.family import Family, Mate, MateSize
from machinon.core.shop.making import Making
from machinon.core.shop.things import Lathe, Piece
from machinon.desk.begin import NEW_MATE, NO_MATE, could_be_mate
from machinon.desk.narrow import Abreast
from machinon.desk.start_page import FormPage
from machinon.desk.widgets import (
    DrawingView,
    Field,
    Look,
    button,
    label,
    panel,
    scrolled,
)
from machinon.draw.body_film import body_picture
from machinon.draw.drawing import Drawing
from machinon.draw.what_is_made import family_picture
from machinon.store.shop_file import ShopFile

if TYPE_CHECKING:
    from machinon.desk.open_job import OpenJob

WHAT_FOLLOWS = (
    "A fit keeps its number, its character and what was cut, and is on the new mate "
    "from then on; what was typed of a mate that goes is dropped with it. Undo brings "
    "all of it back."
)


class AsksMates(FormPage):
    """Entries for the mates of a piece."""

    def __init__(self, look: Look, file: ShopFile) -> None:
        super().__init__(look, file)
        self.mates = QWidget()
        self.mate_lines = QVBoxLayout(self.mates)
        self.mate_lines.setContentsMargins(0, 0, 0, 0)

    def ask_mate(
        self,
        mate: Mate,
        wanted: Piece,
        here: Mapping[str, Piece],
        now: str | None = None,
        typed: Mapping[str, str] | None = None,
    ) -> None:
        """Ask which piece a mate is: one of the shop, one made here, or a new one.

        wanted: a new one; now: the id of what it is so far or NO_MATE, None where that
        is open and the likeliest stands first; typed: what was said of it, by key.
        """
        choices, first = self._choices_of(mate, here)
        made = self.combo(f"mate.{mate.role}", choices)
        made.setCurrentIndex(max(made.findData(first if now is None else now), 0))
        self.mate_lines.addWidget(self.named(wanted.name, made))
        called = self.field(f"name.{mate.role}", "It is called", hint=wanted.name)
        self.mate_lines.addWidget(called)
        said = typed or {}
        sizes = {
            self._typed_size(mate, mate_size): said.get(f"{mate.role}.{mate_size.key}")
            for mate_size in mate.sizes
            if not mate_size.surfaces and not mate_size.optional
        }
        for size in sizes:
            self.mate_lines.addWidget(size)
        asked = functools.partial(_ask_of, made, called, sizes, made.currentData())
        made.currentIndexChanged.connect(asked)
        asked()

    def _choices_of(
        self, mate: Mate, here: Mapping[str, Piece]
    ) -> tuple[list[tuple[str, str]], str]:
        """What a mate can be, the likeliest first; and which it starts as: none that
        only happens to have such surfaces."""
        able = [
            (f"{piece.name}, made here", piece)
            for piece in here.values()
            if could_be(mate, piece)
        ]
        able += [(self._called(it), it) for it in could_be_mate(self.file, mate)]
        able.sort(key=lambda named: not likely_mate(mate, named[1]))
        choices = [(called, piece.id) for called, piece in able]
        choices.append(("a new one, to be measured in Survey", NEW_MATE))
        if mate.optional:
            return [("none", NO_MATE), *choices], NO_MATE
        likely = bool(able) and likely_mate(mate, able[0][1])
        return choices, able[0][1].id if likely else NEW_MATE

    def _called(self, piece: Piece) -> str:
        """A piece by its name; a spindle nose with the lathe that it is of."""
        of = (lathe for lathe in self.file.all_of(Lathe) if lathe.nose == piece.id)
        lathe = next(of, None)
        return f"{piece.name}, {lathe.name}" if lathe else piece.name

    def _typed_size(self, mate: Mate, mate_size: MateSize) -> Field:
        """An entry for what no gauge reads of a mate; it may stay empty."""
        name = f"{mate.called}: {mate_size.words}"
        usual = (
            mate_size.usual
            if isinstance(mate_size.usual, str)
            else f"{mate_size.usual:g}"
        )
        key = f"size.{mate.role}.{mate_size.key}"
        return self.field(key, name, hint=f"{usual}, or later")


class MatesPage(AsksMates):
    """What the piece of an open job that is spoken of goes with."""

    def __init__(self, look: Look, file: ShopFile, job: "OpenJob") -> None:
        super().__init__(look, file)
        self.job = job
        making, px = job.job.making, look.px
        assert making is not None
        self._ask_what_it_is(family_for(making), making)
        self.says = label("", "", "stop", wrap=True)
        self.says.hide()
        asked = scrolled(self.mates)
        self.mate_lines.setSpacing(px(8))
        self.mate_lines.addStretch(1)
        lines = QVBoxLayout()
        lines.setContentsMargins(px(18), px(14), px(14), px(14))
        lines.setSpacing(px(8))
        title = f"{job.job.name}: what it goes with"
        lines.addWidget(label(title, "title", wrap=True))
        lines.addWidget(self.says)
        lines.addWidget(asked, 1)
        back = button("Back to the job", self.left.emit)
        self.go = button("Take these", self.finish, "main")
        lines.addWidget(Abreast(2, back, self.go))
        beside = QVBoxLayout()
        beside.setContentsMargins(px(18), px(14), px(18), px(14))
        beside.addWidget(DrawingView(look, self._draw, "Picture of the piece", 14), 1)
        beside.addWidget(label(WHAT_FOLLOWS, "faint", wrap=True))
        whole = QHBoxLayout(self)
        whole.setContentsMargins(px(24), px(16), px(24), px(16))
        whole.setSpacing(px(16))
        whole.addWidget(panel(lines, True), 55)
        whole.addWidget(panel(beside, True), 45)

    def inch(self) -> bool:
        return self.job.inch

    def _ask_what_it_is(self, family: Family, making: Making) -> None:
        roles = {mate.role: mate for mate in family.mates}
        here = self.job.mates_here()
        for role, wanted in mate_pieces(family).items():
            now = making.mates.get(role, NO_MATE)
            self.ask_mate(roles[role], wanted, here, now, making.sizes)

    def _draw(self, width: float, height: float, size: float) -> Drawing:
        made, making = self.job.plan.made, self.job.job.making
        assert making is not None
        if made is not None:
            return body_picture(made.body, width, height, size)
        return family_picture(family_for(making))(width, height, size)

    def take(self) -> str:
        self.job.choose_mates(self.typed())
        return self.job.job.id

    def refuse_choice(self, key: str, message: str) -> bool:
        self.says.setText(message)
        self.says.show()
        return super().refuse_choice(key, message)


def _ask_of(
    chosen: QComboBox,
    called: Field,
    sizes: dict[Field, str | None],
    now: str,
    _: int = 0,
) -> None:
    """A mate that is new gets a name, one of the shop has it; what is made here says
    its own sizes, and of none nothing is asked. sizes: with what was said of them of
    the mate that it is now."""
    it = str(chosen.currentData())
    told = it.startswith((MADE_HERE, NO_MATE))
    for field, asked in (
        (called, it == NEW_MATE),
        *((size, not told) for size in sizes),
    ):
        field.setVisible(asked)
        field.setEnabled(asked)
    for size, said in sizes.items():
        if said and size.text() == (said if it != now else ""):
            size.edit.setText(said if it == now else "")

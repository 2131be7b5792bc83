"""A new job: drawn cards of what can be made, what it goes on, and its name."""

from collections.abc import Callable, Iterable
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QResizeEvent, QShowEvent
from PySide6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QVBoxLayout,
    QWidget,
)

from machinon.core.families import families
from machinon.core.job.made_piece import (
    made_for,
    mate_pieces,
    role_of,
)
from machinon.core.piece.family import Family
from machinon.core.piece.found_by import (
    Found,
    FoundBy,
    found_by,
    looked_up,
    of_family,
)
from machinon.core.piece.round_sizes import example_in_inches
from machinon.core.shop.things import Piece
from machinon.core.wording import begun
from machinon.desk.begin import (
    begin_job,
    made_before,
)
from machinon.desk.mates_page import AsksMates
from machinon.desk.narrow import Abreast
from machinon.desk.widgets import (
    DrawingView,
    EnterButton,
    Field,
    Look,
    button,
    clear_layout,
    label,
    panel,
    scrolled,
)
from machinon.draw.drawing import Drawing
from machinon.draw.what_is_made import family_picture, fit_picture
from machinon.store.shop_file import ShopFile

if TYPE_CHECKING:
    from machinon.desk.open_job import OpenJob

CARD = 216  # least width of a card
# what else a job is begun for
OTHER = "something other measure only fit register journal bore shaft"


class WhatCard(EnterButton):
    """One thing that can be made: how it looks, what it is called, what it is for."""

    def __init__(
        self,
        look: Look,
        name: str,
        purpose: str,
        by: FoundBy,
        draw: Callable[[float, float, float], Drawing],
    ) -> None:
        """by: what it is found by."""
        super().__init__()
        self.by = by
        self.setProperty("part", "entry")
        self.setCheckable(True)
        self.setAccessibleName(f"{name}: {purpose}")
        self.setMinimumHeight(look.px(212))
        column = QVBoxLayout(self)
        column.setContentsMargins(look.px(10), look.px(8), look.px(10), look.px(8))
        picture = DrawingView(look, draw, name, 11)
        words = label(name, "head", wrap=True), label(purpose, "faint", wrap=True)
        picture.setFixedHeight(look.px(92))
        column.addWidget(picture)
        for widget in (picture, *words):
            widget.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        for text in words:
            column.addWidget(text)
        column.addStretch(1)


class WhatIsMade(QWidget):
    """The cards, found by typing. One is chosen, or none yet.

    Signals: chosen(key: str).
    """

    chosen = Signal(str)

    def __init__(
        self, look: Look, offered: Iterable[Family], others: bool = True
    ) -> None:
        """offered: as they are shown where nothing is typed; others: whether what no
        family makes can be chosen too."""
        super().__init__()
        self.look = look
        self.key = ""
        self.search = Field("Type what it is: nut, arbor, block, bush", None)
        self.search.edit.textChanged.connect(lambda _: self._show_found())
        self.search.taken.connect(lambda _: self._choose_first())
        self.none = label("", "faint", wrap=True)
        self.none.hide()
        self.cards = {
            family.key: WhatCard(
                look,
                family.name,
                family.purpose,
                of_family(family),
                family_picture(family),
            )
            for family in offered
        }
        other = WhatCard(
            look,
            "Anything else",
            "Measure the mates, decide the fits, cut and prove them one by one.",
            found_by("Anything else", OTHER),
            fit_picture,
        )
        if others:
            self.cards["other"] = other
        self.places = QWidget()
        for key, card in self.cards.items():
            card.clicked.connect(lambda _, key=key: self.choose(key))
            card.setParent(self.places)
        self.grid = QGridLayout(self.places)
        self.grid.setContentsMargins(0, 0, look.px(4), 0)
        self.grid.setSpacing(look.px(8))
        self.area = scrolled(self.places)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.search)
        column.addWidget(self.none)
        column.addWidget(self.area, 1)

    def choose(self, key: str) -> None:
        self.key = key
        for other, card in self.cards.items():
            card.setChecked(other == key)
        self.chosen.emit(key)

    @property
    def found(self) -> list[WhatCard]:
        """The cards that what is typed speaks of, what it says best first, and the last
        one; where it speaks of none, those that are nearest, that one and the free
        pieces."""
        return self._cards(self._looked_up())

    def _cards(self, by_words: Found) -> list[WhatCard]:
        """What was looked up, as cards, with those that stand beside it."""
        others = [card for key, card in self.cards.items() if key == "other"]
        found = [*(self.cards[key] for key in by_words.keys), *others]
        if by_words.named:
            return found
        free = (self.cards[f.key] for f in families().values() if f.free)
        return [*found, *(card for card in free if card not in found)]

    def _looked_up(self) -> Found:
        """The cards, but for the last one, that what is typed speaks of."""
        things = ((key, card.by) for key, card in self.cards.items() if key != "other")
        return looked_up(things, self.search.text())

    @property
    def called(self) -> str:
        """What was typed, where that is a name; empty for the beginning of one."""
        text, card = self.search.text().strip(), self.cards.get(self.key)
        if card is None or (self._looked_up().named and not card.by.is_called(text)):
            return ""
        return begun(text)

    def _show_found(self) -> None:
        by_words = self._looked_up()
        found = self._cards(by_words)
        for card in self.cards.values():
            self.grid.removeWidget(card)
            card.setVisible(card in found)
        columns = max(self.area.width() // self.look.px(CARD), 1)
        for at, card in enumerate(found):
            self.grid.addWidget(card, *divmod(at, columns))
        for at in range(self.grid.columnCount()):
            self.grid.setColumnStretch(at, int(at < columns))
        rows = -(-len(found) // columns)
        for at in range(self.grid.rowCount() + 1):
            self.grid.setRowStretch(at, int(at == rows))
        self.none.setVisible(not by_words.named)
        nearest = "; this is nearest. " if by_words.keys else ". "
        self.none.setText(
            f"Nothing here is called “{self.search.text().strip()}” yet{nearest}"
            + (
                "Its fits can be measured, decided and cut all the same, or it is"
                if "other" in self.cards
                else "It can be"
            )
            + " built up feature by feature: turned, or from a plate."
        )

    def _choose_first(self) -> None:
        if not self.found:
            return
        first = self.found[0]
        self.choose(next(key for key, card in self.cards.items() if card is first))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._show_found()


class NewJobPage(AsksMates):
    """The piece to make at the left; its mates, name and reason at the right.

    For an open job: one piece more that it makes. For a piece of the shop: what is made
    to go with it.
    """

    def __init__(
        self,
        look: Look,
        file: ShopFile,
        job: "OpenJob | None" = None,
        piece: Piece | None = None,
    ) -> None:
        super().__init__(look, file)
        self.job, self.piece = job, piece
        self._looked_for = ""  # the name that came from what was looked for
        px = look.px
        offered = made_for(piece) if piece else families().values()
        self.what = WhatIsMade(look, offered, others=not (job or piece))
        self.what.chosen.connect(self._on_what)
        self.what_says = label("", "", "stop", wrap=True)
        self.what_says.hide()
        if job is None:
            self.field("name", "Job", hint="Back plate for the three-jaw")
            self.field("reason", "Reason, in a sentence (may stay empty)")

        title = "New job: what is to be made?"
        back, go = "Back to the jobs", "Begin: to Survey"
        if job is not None:
            title = f"{job.job.name}: what is made besides?"
            back, go = "Back to the job", "Add it to the job"
        if piece is not None:
            title = f"New job: what is made for {piece.name}?"
            back = "Back to the shop"
        left = QVBoxLayout()
        left.setContentsMargins(px(18), px(14), px(14), px(14))
        left.addWidget(label(title, "title", wrap=True))
        left.addWidget(self.what_says)
        left.addWidget(self.what, 1)
        self.example = label("", "faint", wrap=True)
        asked = QWidget()
        lines = QVBoxLayout(asked)
        lines.setContentsMargins(0, 0, px(4), 0)
        lines.setSpacing(px(8))
        for field in self.fields.values():
            lines.addWidget(field)
        lines.addWidget(self.example)
        lines.addWidget(self.mates)
        lines.addStretch(1)
        right = QVBoxLayout()
        right.setContentsMargins(px(18), px(14), px(14), px(14))
        right.setSpacing(px(8))
        right.addWidget(scrolled(asked), 1)
        self.go = button(go, self.finish, "main")
        right.addWidget(Abreast(2, button(back, self.left.emit), self.go))
        whole = QHBoxLayout(self)
        whole.setContentsMargins(px(24), px(16), px(24), px(16))
        whole.setSpacing(px(16))
        whole.addWidget(panel(left, True), 60)
        whole.addWidget(panel(right, True), 40)
        self._ask()

    def typed(self) -> dict[str, str]:
        return {**super().typed(), "what": self.what.key}

    def _on_what(self, _key: str) -> None:
        self.what_says.hide()
        self._ask()
        name = self.fields.get("name")
        if name is None or name.text() not in ("", self._looked_for):
            self.go.setFocus()
            return
        # what was looked for is what it is called, unless that is typed
        self._looked_for = self.what.called
        name.edit.setText(self._looked_for)
        name.edit.selectAll()
        name.edit.setFocus()

    def _ask(self) -> None:
        """Only what matters for what is made."""
        what = self.what.key
        clear_layout(self.mate_lines)
        self.combos.clear()
        for key in [key for key in self.fields if key not in ("name", "reason")]:
            del self.fields[key]
        family = families().get(what)
        self.mates.setVisible(family is not None)
        example = family.example if family else ""
        if self.file.shop().inch:
            example = example_in_inches(example)
        self.example.setText(f"Usually made {example}." if example else "")
        if family is not None:
            if "name" in self.fields:
                self.fields["name"].edit.setPlaceholderText(family.name)
            self._ask_mates(family)

    def _ask_mates(self, family: Family) -> None:
        """Asks how many, and for the mates: pieces of the shop, or new ones."""
        usual = str(family.size(family.many).rule) if family.many else "1"
        self.mate_lines.addWidget(self.field("count", "How many alike", hint=usual))
        roles = {mate.role: mate for mate in family.mates}
        its = role_of(family, self.piece) if self.piece else None
        here = self.job.made_here() if self.job is not None else {}
        for role, wanted in mate_pieces(family).items():
            now = self.piece.id if self.piece and its is roles[role] else None
            self.ask_mate(roles[role], wanted, here, now)
        before = [(f"as in {p.name}", p.id) for p in made_before(self.file, family)]
        if before:
            like = self.combo("like", [("as usual", ""), *before])
            self.mate_lines.addWidget(self.named("Its sizes start", like))

    def _next_after(self, key: str) -> None:
        if key == "reason" and not self.what.key:
            # the question left open, never a job of a kind that nobody chose
            self.refuse_choice("what", "Choose what is to be made: type, or click it.")
            return
        super()._next_after(key)

    def take(self) -> str:
        if self.job is not None:
            self.job.add_work(self.what.key, self.typed())
            return self.job.job.id
        return begin_job(self.file, self.typed()).id

    def refuse_choice(self, key: str, message: str) -> bool:
        if key != "what":
            return super().refuse_choice(key, message)
        self.what.search.edit.setFocus()
        self.what_says.setText(message)
        self.what_says.show()
        return True

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.what.search.edit.setFocus()

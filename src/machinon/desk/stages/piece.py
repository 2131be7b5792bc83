"""Piece, for any family: its sheet with sizes changed in place, and its checks."""

import functools
from collections.abc import Mapping

from PySide6.QtCore import QRectF, Qt, QTimer
from PySide6.QtWidgets import (
    QHBoxLayout,
    QMenu,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.in_inches import in_inches
from machinon.core.job.made_piece import drawn_surface, ruled_by_fits
from machinon.core.materials import materials
from machinon.core.piece.family import Family, MateSize, Size, Value, spoken
from machinon.core.piece.hardware import Hardware
from machinon.core.piece.made import Known, Made
from machinon.core.quantity import ANGLE, LENGTH, as_kept, length_text, trimmed
from machinon.core.reckoning import reckonings
from machinon.core.route.effort import effort
from machinon.core.shop.making import Making
from machinon.core.wording import begun
from machinon.desk.acts.making import Drawn
from machinon.desk.bench import Bench, StageView
from machinon.desk.narrow import Abreast, Combo
from machinon.desk.size_edit import SizeEdit
from machinon.desk.solid_view import SolidView
from machinon.desk.stages.check_list import CheckList
from machinon.desk.widgets import (
    DrawingView,
    EmptyPage,
    Field,
    button,
    clear_layout,
    label,
    panel,
    scrolled,
    set_ink,
)
from machinon.draw.drawing import Drawing
from machinon.draw.piece_sheet import changed_since_then, piece_sheet
from machinon.draw.sheet_figures import said_with


class PieceView(StageView):
    """The sheet at the left with its entry, or the solid; at the right the metal, what
    is still asked of the mates, and the checks."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        px = self.look.px
        self.drawing = DrawingView(self.look, self._drawing, "Drawing of the piece")
        self.drawing.spot_chosen.connect(self._on_spot_chosen)
        self.drawing.setMinimumHeight(px(220))
        self.setMinimumHeight(px(330))
        self.solid = SolidView(self.look)
        self.pages = QStackedWidget()
        self.nothing = EmptyPage(self.look, framed=False)
        self.pages.addWidget(self.nothing)
        self.pages.addWidget(self.drawing)
        self.pages.addWidget(self.solid)
        self.edit = SizeEdit(self.drawing, self.look)
        self.edit.setAccessibleName("Size")
        self.edit.returnPressed.connect(self._on_size_entered)
        self._key, self._fit = "", 0
        self._solid = False
        self._compared: Making | None = None
        self.says = label("", "faint", wrap=True)
        self.open_fit = button("", self._open_fit)
        self.follow = button("Follow its rule again", self._follow)
        self.hold = button("Keep it at this", self._hold)
        self.take_out = button("", self._take_out)
        self.prove = button("", self._prove)
        self.there = button("", self._mark_there)
        self.as_solid = button("As a solid", self._swap_pages)
        self.material = Combo()
        self.material.setAccessibleName("Material")
        for word, metal in materials().items():
            if not metal.ground_only:
                self.material.addItem(word, word)
        self.material.activated.connect(
            lambda _: self.job.set_size("material", self.material.currentData())
        )
        self.many = Field("How many alike", None)
        self.many.taken.connect(self._on_many)
        self.rounds = Combo()
        self.rounds.setAccessibleName("Rounds in")
        self.rounds.setToolTip("What the sizes that follow a rule are round in")
        for word, inch in (("millimetres", False), ("inches", True)):
            self.rounds.addItem(word, inch)
        self.rounds.activated.connect(self._round_in)
        self.rounds_box = QWidget()
        self.add = button("Add a feature…", self._ask_part)
        self.rack = label("", "", "measured", wrap=True)
        self.from_rack = button("draw it so", self._draw_from_rack, "link")
        self.with_it = label("", "", wrap=True)
        self.lengths = button("working", self._open_length, "link")
        # worked out once typing has come to rest: it takes the solid
        self.effort = label("", "faint", wrap=True)
        self.buy = button("Make or buy?", self._make_or_buy)
        self._resting = QTimer(self, interval=400, singleShot=True)
        self._resting.timeout.connect(self.show_effort)
        self.compare = button("Compare…", self._ask_before)
        self.was: dict[str, Value] = {}
        self.asked: dict[str, Field] = {}
        self.asked_box = QWidget()
        self.asked_lines = QVBoxLayout(self.asked_box)
        self.asked_lines.setContentsMargins(0, 0, 0, 0)
        self.checks_title = label("", "head", wrap=True)
        self.checks = CheckList(self.look)
        self._lay_out()

    def _lay_out(self) -> None:
        px = self.look.px
        left = QVBoxLayout()
        left.setContentsMargins(px(8), px(6), px(8), px(6))
        # over the drawing, where it is seen however little room there is
        left.addWidget(self.says)
        left.addWidget(self.pages, 1)
        for widget in self._on_size:
            widget.hide()
        metal = QWidget()
        of = QVBoxLayout(metal)
        of.setContentsMargins(0, 0, 0, 0)
        of.setSpacing(2)
        of.addWidget(label("Material", "faint"))
        of.addWidget(self.material)
        column = QVBoxLayout()
        column.setContentsMargins(px(12), px(10), px(8), px(8))
        rounds = QHBoxLayout(self.rounds_box)
        rounds.setContentsMargins(0, 0, 0, 0)
        rounds.addWidget(label("Rounds in", "faint"))
        rounds.addWidget(self.rounds, 1)
        # beside the drawing, so that it stays as it is while a size is typed
        column.addWidget(Abreast(2, *self._on_size))
        column.addWidget(Abreast(2, metal, self.many))
        column.addWidget(self.rounds_box)
        column.addWidget(Abreast(2, self.as_solid, self.compare, self.add))
        of_rack = QHBoxLayout()
        of_rack.addWidget(self.rack, 1)
        of_rack.addWidget(self.from_rack, 0, Qt.AlignmentFlag.AlignBottom)
        column.addLayout(of_rack)
        bought = QHBoxLayout()
        bought.addWidget(self.with_it, 1)
        bought.addWidget(self.lengths, 0, Qt.AlignmentFlag.AlignBottom)
        column.addLayout(bought)
        column.addSpacing(px(6))
        column.addWidget(self.checks_title)
        below = QWidget()
        lines = QVBoxLayout(below)
        lines.setContentsMargins(0, 0, px(4), 0)
        lines.addWidget(self.checks)
        lines.addWidget(self.asked_box)
        lines.addWidget(self.effort)
        lines.addWidget(self.buy)
        lines.addStretch(1)
        column.addWidget(scrolled(below), 1)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(panel(left, True), 70)
        whole.addWidget(panel(column, True), 30)

    def _swap_pages(self) -> None:
        """Swaps the drawing for the solid, and back."""
        self._solid = not self._solid
        self.edit.close_over()
        self.as_solid.setText("As a drawing" if self._solid else "As a solid")
        self.refresh()
        self.pages.currentWidget().setFocus()

    # -- showing ---------------------------------------------------------

    def refresh(self) -> None:
        plan, making = self.job.plan, self.job.job.making
        assert making is not None
        family = family_for(making)
        usual = family.material
        self.many.setVisible(not family.many)
        if not self.many.edit.hasFocus():
            self.many.put(str(making.count))
        self.material.setCurrentIndex(self.material.findData(making.material or usual))
        self.rounds.setCurrentIndex(self.rounds.findData(making.inch))
        # a shop that has no inches is not asked
        self.rounds_box.setVisible(self.job.inch or making.inch)
        self.add.setVisible(bool(family_for(making).parts))
        self._ask()
        self.rack.setText(self.job.own_stock())
        self.rack.setVisible(bool(self.rack.text()))
        self.from_rack.setVisible(self.job.rack_differs())
        parts = self.job.own_hardware()
        self.with_it.setText(f"To go with it: {'; '.join(parts)}.")
        self.with_it.setVisible(bool(parts))
        self.lengths.setVisible(bool(self._lengths()))
        if making.decided != self._compared:
            self.was = {}
        self.buy.setVisible(plan.made is not None)
        self._resting.start()
        self._show_sheet()

    def _draw_from_rack(self) -> None:
        try:
            self.job.draw_from_rack()
        except BadInput as error:
            self._tell(error.message, "stop")

    def _on_many(self, typed: str) -> None:
        try:
            self.job.set_count(typed)
        except BadInput as error:
            self.many.refuse(error.message)

    def _round_in(self) -> None:
        try:
            self.job.round_in(self.rounds.currentData())
        except BadInput as error:
            self.refresh()
            self._tell(error.message, "stop")

    def _lengths(self) -> list[Hardware]:
        """The bought parts whose length was reckoned."""
        made = self.job.plan.made
        return (
            [hardware for hardware in made.hardware if hardware.asked]
            if made is not None
            else []
        )

    def _open_length(self) -> None:
        """The reckoning of a screw's length; of several, of that which is chosen."""
        found = self._lengths()
        menu = QMenu(self)
        for hardware in found:
            opened = functools.partial(
                self.bench.reckon, "screw-length", hardware.asked
            )
            menu.addAction(hardware.name, opened)
        if len(found) == 1:
            menu.actions()[0].trigger()
        else:
            menu.popup(self.lengths.mapToGlobal(self.lengths.rect().bottomLeft()))

    def show_effort(self) -> None:
        """Shows the effort of the piece, in a line that one can pass over."""
        plan = self.job.plan
        made = plan.made
        self.effort.setText(effort(made, plan.route).says if made else "")

    def _make_or_buy(self) -> None:
        """The reckoning of a bought one, with what this one takes."""
        made = self.job.plan.made
        assert made is not None
        asked = effort(made, self.job.plan.route).asked
        self.bench.reckon("make-or-buy", {**reckonings()["make-or-buy"].usual, **asked})

    def drawn_menu(self) -> QMenu:
        """The times that it was drawn otherwise, the newest first."""
        menu = QMenu(self)
        for drawn in self.job.drawn_before()[:40]:
            day = f"{drawn.at[:10]} {drawn.at[11:16]}"
            act = functools.partial(self._compare, drawn)
            menu.addAction(f"Before {day}: {drawn.says}", act)
        if menu.isEmpty():
            menu.addAction("It has never been drawn differently").setEnabled(False)
        elif self.was:
            menu.addSeparator()
            menu.addAction("Stop comparing", functools.partial(self._compare, None))
        return menu

    def _ask_before(self) -> None:
        self.drawn_menu().popup(
            self.compare.mapToGlobal(self.compare.rect().bottomLeft())
        )

    def _compare(self, drawn: Drawn | None) -> None:
        """Show which sizes were drawn otherwise then."""
        making = self.job.job.making
        self._compared = making.decided if making is not None else None
        self.was = {} if drawn is None else self.job.sizes_then(drawn)
        self._show_sheet()

    def _ask(self) -> None:
        """An entry for each figure of a mate that no gauge reads; and for each typed
        size of the piece while there is no drawing to choose it in."""
        plan, making = self.job.plan, self.job.job.making
        assert making is not None
        family = family_for(making)
        typed = [key for key in making.sizes if key in family.mate_keys]
        own = [key for key in making.sizes if plan.problem and key not in typed]
        wanted = [*own, *typed, *plan.asked]
        if list(self.asked) == wanted:
            return
        clear_layout(self.asked_lines)
        self.asked.clear()
        for key in wanted:
            field = self._entry_of(family, key)
            if key in making.sizes:
                text = making.sizes[key]
                field.put(text if self.job.inch else text.removesuffix("mm"))
            field.taken.connect(lambda _, key=key: self._on_asked(key))
            self.asked[key] = field
            self.asked_lines.addWidget(field)

    def _entry_of(self, family: Family, key: str) -> Field:
        """An entry for a size of a mate, or of the piece itself."""
        size: MateSize | Size
        if key in family.mate_keys:
            size = family.mate_keys[key]
            mate = next(m for m in family.mates if m.role == key.partition(".")[0])
            name, usual = f"{mate.called}: {size.words}", size.usual
        else:
            size = family.size(key)
            name, usual = begun(size.words), "empty: by its rule"
        hint = usual if isinstance(usual, str) else f"{usual:g}"
        kind = None if isinstance(usual, str) else size.kind
        return Field(name, kind, lambda: self.job.inch, hint)

    def _hint(self) -> None:
        plan = self.job.plan
        if plan.made is None:
            self._tell("")
        elif self.was:
            self._tell(_how_it_differs(plan.made, self.was), "cut")
        elif self._solid:
            self._tell("Pull it by the mouse, or turn it by the arrows.")
        else:
            self._tell(
                "Choose a size and type. Each follows its rule or its mate until you "
                "do; = links it to others, = fit2 to a fit."
            )

    def begin(self) -> None:
        if self.asked and self.job.plan.asked:
            self.asked[self.job.plan.asked[0]].edit.setFocus()
        else:
            self.drawing.setFocus()

    def _drawing(self, width: float, height: float, size: float) -> Drawing:
        made = self.job.plan.made
        if made is None:
            return Drawing(width, height, ())
        return piece_sheet(
            made,
            width,
            height,
            size,
            self.job.inch,
            stale=self.job.plan.stale,
            was=self.was,
            first_angle=self.job.shop.first_angle,
        )

    # -- doing -----------------------------------------------------------

    def _on_spot_chosen(self, key: str, place: QRectF) -> None:
        made = self.job.plan.made
        if made is not None and key not in made.sizes:
            self._tell("This one follows from the other sizes: change those.")
        elif made is None or len(said_with(made, key)) == 1:
            self.begin_edit(key, place)
        else:
            menu = self.sizes_menu(key, place)
            menu.popup(self.drawing.mapToGlobal(place.bottomLeft().toPoint()))

    def sizes_menu(self, key: str, place: QRectF) -> QMenu:
        """The sizes that are written together at a hole, each with its figure."""
        menu = QMenu(self)
        made = self.job.plan.made
        assert made is not None
        for figure in said_with(made, key, self.job.inch):
            act = functools.partial(self.begin_edit, figure.key, place)
            menu.addAction(f"{begun(figure.name)}: {figure.text}", act)
        return menu

    def begin_edit(self, key: str, place: QRectF | None = None) -> None:
        """Open the entry on a size of the drawing."""
        made, making = self.job.plan.made, self.job.job.making
        if made is None or making is None or key not in made.sizes:
            return
        self._key = key
        known = made.sizes[key]
        own = making.sizes.get(key, "")
        text = own if own.startswith("=") else self._as_typed(known)
        self.edit.open_over(place or self.drawing.rect_of(key), text, tie=key)
        words = begun(known.size.words)
        how = "Type a size, or = and a sum of others."
        if known.size.choices:
            how = f"Type one of {', '.join(known.size.choices)}."
        ruled = _ruled(known)
        if self.job.inch:
            ruled = in_inches(ruled, fine=True)
        self._tell(f"{words}, {ruled}. {how}")
        by_fits = ruled_by_fits(made).items()
        self._offer_fit(next((n for n, size in by_fits if size == key), 0))
        self.follow.setVisible(bool(own))
        self.hold.setVisible(not own and not self._fit and known.by == "rule")
        self.prove.setText("Do not prove it" if self.job.proves(key) else "Prove it")
        can_be = drawn_surface(made, key) is not None and not self._fit
        self.prove.setVisible(can_be)
        feature = self.job.could_be_there(key)
        cut = feature in making.there
        self.there.setText("It is to be cut" if cut else "It is there already")
        self.there.setVisible(bool(feature))
        part = self._part_at_hand()
        self.take_out.setText(f"Take out {spoken(part)}")
        self.take_out.setVisible(bool(part))

    def _prove(self) -> None:
        """Have the size at hand measured in the proof, or no longer."""
        try:
            self.job.prove_size(self._key)
        except BadInput as error:
            self._tell(error.message, "stop")
            return
        self._close_edit()

    def _mark_there(self) -> None:
        """Leave the cutting of the feature at hand out of the route, or have it."""
        making = self.job.job.making
        assert making is not None
        feature = self.job.could_be_there(self._key)
        self.job.mark_there(feature, feature not in making.there)
        self._close_edit()

    @property
    def _on_size(self) -> tuple[QWidget, ...]:
        """The acts on the size at hand."""
        return (
            *(self.open_fit, self.follow, self.hold),
            *(self.prove, self.there, self.take_out),
        )

    # -- the features of a free piece --------------------------------------

    def _part_at_hand(self) -> str:
        """The part of a free piece whose size is being typed; empty for none."""
        making = self.job.job.making
        name = self._key.partition(".")[0]
        return name if making and name in family_for(making).names else ""

    def part_menu(self) -> QMenu:
        """The further features of a free piece."""
        menu = QMenu(self)
        making = self.job.job.making
        for part in family_for(making).parts if making else ():
            menu.addAction(part.words, functools.partial(self.add_part, part.key))
        return menu

    def _ask_part(self) -> None:
        self.part_menu().popup(self.add.mapToGlobal(self.add.rect().bottomLeft()))

    def add_part(self, key: str) -> None:
        """A feature more, beside the one at hand; its first size is asked at once."""
        at = self._part_at_hand() if self.edit.isVisible() else ""
        self.edit.close_over()
        try:
            name = self.job.add_part(key, at)
        except BadInput as error:
            self._tell(error.message, "stop")
            return
        made = self.job.plan.made
        sizes = (
            [size for size in made.sizes if size.startswith(f"{name}.")] if made else []
        )
        first = next((size for size in sizes if not size.endswith(".end")), "")
        if first:
            self.begin_edit(first)

    def _take_out(self) -> None:
        part = self._part_at_hand()
        try:
            self.job.drop_part(part)
        except BadInput as error:
            self._tell(error.message, "stop")
            return
        self._close_edit()

    def _as_typed(self, known: Known) -> str:
        value = known.value
        if isinstance(value, bool):
            return "yes" if value else "no"
        if isinstance(value, str):
            return known.size.word_again(value, self.job.inch)
        if known.size.kind is LENGTH:
            return trimmed(length_text(value, 0.001, self.job.inch, unit=False))
        return f"{value:g}"

    def _on_asked(self, key: str) -> None:
        field = self.asked[key]
        try:
            self.job.set_size(key, field.text())
        except BadInput as error:
            field.refuse(error.message)
            return
        left = self.job.plan.asked
        if left:
            self.asked[left[0]].edit.setFocus()
        else:
            self.drawing.setFocus()

    def _show_sheet(self) -> None:
        """The drawing, its checks, and the hint unless a size is being typed."""
        plan = self.job.plan
        failed, passed = plan.failed, [check for check in plan.checks if check.passed]
        if not plan.checks:
            self.checks_title.setText("")
        elif failed:
            self.checks_title.setText(
                f"{len(failed)} of {len(plan.checks)} checks fail"
            )
        else:
            self.checks_title.setText(f"All {len(plan.checks)} checks pass")
        self.checks_title.setVisible(bool(plan.checks))
        set_ink(self.checks_title, "stop" if plan.grave else "")
        self.checks.show_checks((*failed, *passed))
        if not self.edit.isVisible():
            self._hint()
        self.as_solid.setEnabled(plan.made is not None)
        if plan.made is None:
            self._say_what_is_wanted()
            self.pages.setCurrentWidget(self.nothing)
        elif self._solid:
            self.solid.show_body(plan.made.body)
            self.pages.setCurrentWidget(self.solid)
        else:
            self.drawing.refresh()
            self.pages.setCurrentWidget(self.drawing)

    def _say_what_is_wanted(self) -> None:
        """Says which sizes keep it from being drawn, and the ways to tell them."""
        missing, ways = self.bench.still_wanted()
        if missing:
            title = "Not drawn yet: this is still to be known"
            self.nothing.say(title, missing, *ways)
        else:
            self.nothing.say(
                "It cannot be made so",
                f"{self.job.plan.problem} Change a size at the right, or read again "
                "what it goes on.",
                ("To the survey", lambda: self.bench.go("survey", 0)),
            )

    def _tell(self, text: str, ink: str = "") -> None:
        self.says.setText(text)
        set_ink(self.says, ink)
        for widget in self._on_size:
            widget.hide()

    def _offer_fit(self, number: int) -> None:
        """The way to the fit that rules the size at hand; 0 for none."""
        self._fit = number
        self.open_fit.setText(f"Open fit {number}")
        self.open_fit.setVisible(bool(number))

    def _on_size_entered(self) -> None:
        if not self.edit.isModified():  # looked at: what rules it goes on doing so
            self._close_edit()
            return
        try:
            self.job.set_size(self._key, self.edit.text())
        except BadInput as error:
            self.edit.refuse()
            self.says.setText(begun(error.message))
            set_ink(self.says, "stop")
            return
        self._close_edit()

    def _close_edit(self) -> None:
        self.edit.close_over()
        self._hint()

    def _open_fit(self) -> None:
        self._close_edit()
        self.bench.go("fits", self._fit)

    def _follow(self) -> None:
        self.job.set_size(self._key, "")
        self._close_edit()

    def _hold(self) -> None:
        """Keep the size at hand as its rule has it, whatever that rests on."""
        made = self.job.plan.made
        assert made is not None
        known = made.sizes[self._key]
        text = self._as_typed(known)
        if known.size.kind in (LENGTH, ANGLE):  # to the last digit
            text = as_kept(float(known.value), known.size.kind)
        self.job.set_size(self._key, text)
        self._close_edit()


def _how_it_differs(made: Made, was: Mapping[str, Value]) -> str:
    """Number of sizes that differ from those drawn then, and those added or gone."""
    changed = changed_since_then(made, was)
    told = f"{len(changed)} {'size differs' if len(changed) == 1 else 'sizes differ'}"
    gone = {spoken(key.partition(".")[0]) for key in was if key not in made.sizes}
    new = {spoken(key.partition(".")[0]) for key in made.sizes if key not in was}
    for names, words in ((new, "new since"), (gone, "taken out since")):
        if names:
            told += f"; {words}: {', '.join(sorted(names))}"
    return f"{told}. What it was stands beside each."


def _ruled(known: Known) -> str:
    """The rule of a size, in words."""
    usual = "as usual"
    if known.because != usual:
        usual += f": {known.because}"
    return {
        "rule": usual,
        "fit": known.because,
        "copy": f"taken over: {known.because}",
        "clearance": f"kept clear: {known.because}",
        "chain": known.because,
        "link": f"linked {known.because}",
        "read": known.because,
        "typed": "as you typed it",
    }[known.by]

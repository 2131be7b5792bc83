"""The Reckoner: found by typing what one would say, worked in a live picture."""

from collections.abc import Callable, Iterable, Iterator, Mapping
from pathlib import Path
from typing import Any

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QGuiApplication, QResizeEvent
from PySide6.QtWidgets import (
    QFileDialog,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QLayout,
    QListWidget,
    QListWidgetItem,
    QMenu,
    QVBoxLayout,
    QWidget,
)

from machinon.core.ask.asking import Found, Understood, found_with, understand
from machinon.core.ask.own_figures import OwnFigures
from machinon.core.ask.sentences import sentence
from machinon.core.errors import MachinonError
from machinon.core.quantity import (
    LENGTH,
    ROUGH,
    Kind,
    in_both_texts,
    length_text,
    other_text,
)
from machinon.core.reckoning import (
    FLAG,
    Answer,
    Input,
    Reckoning,
    Result,
    plain_name,
    reckonings,
)
from machinon.core.wording import begun
from machinon.desk.answer_paper import write_answer
from machinon.desk.daybook import working_of
from machinon.desk.narrow import Abreast
from machinon.desk.piece_paper import write_wrapped
from machinon.desk.question import Question, as_typed
from machinon.desk.rows_dialog import RowsDialog
from machinon.desk.size_edit import SizeEdit
from machinon.desk.widgets import (
    DrawingView,
    Field,
    Look,
    button,
    clear_layout,
    label,
    panel,
    scrolled,
    set_ink,
)
from machinon.draw.answer_rows import cell, columns, entry, in_rows
from machinon.draw.drawing import Drawing
from machinon.draw.pictures import picture_of
from machinon.draw.sketch import figure
from machinon.store.searching import Hit


def _copied(shown: QLabel) -> QLabel:
    """A label whose words can be marked and copied."""
    shown.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
    return shown


class ReckonerPage(QWidget):
    """Search line on top, the picture with its figures, what follows from them.

    Signals: left() to go back; note_wished(text: str) for the job's daybook;
    size_wished(key: str, size: str) for a size of the job's piece;
    found_wished(hit: Hit) to go to what was found in the shop.
    """

    left = Signal()
    found_wished = Signal(object)
    note_wished = Signal(str)
    size_wished = Signal(str, str)

    def __init__(
        self,
        look: Look,
        inch: bool,
        job_name: str,
        sizes: Mapping[str, str],
        name: str,
        own: OwnFigures | None = None,
        given: Mapping[str, Any] | None = None,
        find: Callable[[str], list[Hit]] = lambda _: [],
        ahead: str = "",
    ) -> None:
        """job_name: of the open job, empty without one; sizes: the lengths of its
        piece that can be set, with their words; name: opened at first,
        with `given` or its usual question about the shop's `own`; find: what the
        shop has by that name; ahead: the group of sums that stands first."""
        super().__init__()
        self._ahead = ahead
        self._find_in_shop = find
        self._own = own or OwnFigures()
        self.look, self.inch = look, inch
        self.question: Question | None = None
        self.search = Field(
            "Say what you want to know: tap drill 5/16-18 · 25 h6 · mt3 angle · "
            "7 holes on 62 · dovetail",
            None,
            large=True,
        )
        self.search.edit.textChanged.connect(lambda _: self._find())
        self.search.taken.connect(lambda _: self._open_first())
        self.line = label("", "answer", "measured", wrap=True)
        self.understood = label("", "faint", wrap=True)
        self.offers = QWidget()
        self._offered = QHBoxLayout(self.offers)
        self._offered.setContentsMargins(0, 0, 0, 0)
        self.offers.hide()
        self.list = QListWidget()
        self.list.setAccessibleName("Reckonings found")
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.itemActivated.connect(self._on_item_chosen)
        self.list.itemClicked.connect(self._on_item_chosen)
        self.title = label("", "head", wrap=True)
        self.picture = DrawingView(
            look, self._draw, "Picture of the reckoning", 14, shrinks=True
        )
        self.picture.spot_chosen.connect(self._on_spot_chosen)
        self.edit = SizeEdit(self.picture, look)
        self.edit.setAccessibleName("Figure")
        self.edit.returnPressed.connect(self._on_entered)
        self._key = ""
        self.says = label("", "", wrap=True)
        self.results = QGridLayout()
        self.results.setHorizontalSpacing(look.px(10))
        self.results.setVerticalSpacing(look.px(5))
        self.whose = label("", "", "measured", wrap=True)
        self.notes = label("", "faint", wrap=True)
        self.source = label("", "faint", wrap=True)
        self.working = button("Working and source", self._open_working)
        self.working.setCheckable(True)
        self.under = scrolled(QWidget())
        self.under.setAccessibleName("Working and source")
        self.under.hide()
        self.copy = button("Copy", self._copy)
        self.note = button("Note in the job", self._note)
        self.note.setToolTip(job_name)
        self.use = button("Use as a size…", self._choose_size)
        self.print = button("Print…", self._print)
        self.wrap = button("Template at 1:1…", self._print_template)
        self._in_job, self._sizes = bool(job_name), sizes
        self._lay_out()
        self._find()
        if given is None:
            self.open(name)
        else:
            self._ask(reckonings()[name], dict(given))

    def _lay_out(self) -> None:
        px = self.look.px
        head = QHBoxLayout()
        head.addWidget(self.search, 1)
        head.addWidget(button("Back", self.left.emit), 0, Qt.AlignmentFlag.AlignVCenter)
        middle = QVBoxLayout()
        middle.setContentsMargins(px(12), px(8), px(12), px(8))
        middle.addWidget(self.title)
        middle.addWidget(self.picture, 4)
        middle.addWidget(self.under, 3)
        middle.addWidget(self.says)
        right = QVBoxLayout()
        right.setContentsMargins(px(12), px(8), px(8), px(8))
        inside = QWidget()
        column = QVBoxLayout(inside)
        column.setContentsMargins(0, 0, px(6), 0)
        column.addLayout(self.results)
        column.addWidget(self.whose)
        column.addWidget(self.notes)
        column.addWidget(self.source)
        column.addStretch(1)
        column.addWidget(self.working)
        column.addWidget(
            Abreast(2, self.copy, self.print, self.note, self.use, self.wrap)
        )
        answers = scrolled(inside)
        # a table in large letters may be wider than its share of a small window
        answers.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        right.addWidget(answers, 1)
        self.row = row = QHBoxLayout()
        for part in (self.list, panel(middle, True), panel(right, True)):
            row.addWidget(part)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(px(16), px(10), px(16), px(10))
        whole.addLayout(head)
        whole.addWidget(self.line)
        whole.addWidget(self.understood)
        whole.addWidget(self.offers)
        whole.addLayout(row, 1)
        self.list.setMinimumWidth(px(180))
        self._share(0)

    # -- finding ---------------------------------------------------------

    def _find(self) -> None:
        text = self.search.text()
        told = understand(text, self.inch, self._own)
        found = found_with(told)
        hits = self._find_in_shop(text)
        self.list.clear()
        group = ""
        # with nothing found all sums stand there, by their groups
        everything = not (text.strip() and (found or hits))
        for match in self._all() if everything else found:
            if everything and match.reckoning.group != group:
                group = match.reckoning.group
                self._add_heading(group)
            item = QListWidgetItem(match.reckoning.title)
            item.setData(Qt.ItemDataRole.UserRole, match)
            item.setToolTip(f"machinon reckon {match.reckoning.name}")
            self.list.addItem(item)
        if hits:
            self._add_heading("In your shop")
        for hit in hits:
            words = f"{hit.name}: {hit.detail}" if hit.detail else hit.name
            item = QListWidgetItem(words)
            item.setData(Qt.ItemDataRole.UserRole, hit)
            self.list.addItem(item)
        self._show_told(text, told, bool(found) or bool(hits))

    def _add_heading(self, words: str) -> None:
        head = QListWidgetItem(words)
        head.setFlags(Qt.ItemFlag.NoItemFlags)
        bold = self.list.font()
        bold.setBold(True)
        head.setFont(bold)
        self.list.addItem(head)

    def _show_told(self, text: str, told: Understood, other: bool) -> None:
        """The answer in a sentence and what was understood; else what is like it."""
        asked = bool(text.strip())
        lost = asked and told.answer is None
        self.line.setText(told.sentence)
        wanted = told.found is not None and told.found.wanted
        set_ink(self.line, "cut" if wanted else "stop" if lost else "measured")
        said = f"Understood: {told.understood}." if told.understood else ""
        if told.unused and told.found is not None:
            said += f" Not understood: {', '.join(told.unused)}."
        if lost and not said and not other:
            said = "That was not understood."
        self.understood.setText(said)
        clear_layout(self._offered)
        for phrase in told.offered if lost else ():
            self._offered.addWidget(
                button(phrase, lambda phrase=phrase: self.search.put(phrase), "link")
            )
        self._offered.addStretch(1)
        for widget, shown in (
            (self.line, bool(told.sentence)),
            (self.understood, bool(said)),
            (self.offers, lost),
        ):
            widget.setVisible(shown)
        # a figure that found no place can be put into one there
        if told.found is not None and (told.found.answer is not None or wanted):
            self._open_found(told.found)
        elif asked:
            self._forget()

    def _open_found(self, found: Found) -> None:
        """The sum that was asked; what has still to be said is there to be typed, and
        usual until then."""
        usual = self._own.of(found.reckoning).with_usual(found.reckoning, self.inch)
        wanted = {asked.key: usual[asked.key] for asked in found.wanted}
        self._ask(found.reckoning, {**wanted, **found.inputs}, found.whose)
        if wanted and self.question is not None and self.question.wrong is None:
            names = " and ".join(asked.words for asked in found.wanted)
            self.says.setText(f"Here with a usual {names}: type yours.")
            set_ink(self.says, "cut")

    def _forget(self) -> None:
        """Nothing of an earlier answer stands under another question."""
        self.question = None
        self.edit.hide()
        self.title.setText("Choose at the left")
        self.says.setText("")
        self._show_buttons()
        self.whose.hide()
        self.notes.setText("")
        self.source.setText("")
        self.picture.refresh()
        clear_grid(self.results)
        self._share(0)

    def _show_buttons(self) -> None:
        """Shows the acts on an answer, while there is one."""
        there = self.question is not None
        for widget in (self.working, self.copy, self.print):
            widget.setVisible(there)
        asked = self.question
        self.wrap.setVisible(asked is not None and asked.reckoning.name == "pipe-joint")
        self.note.setVisible(there and self._in_job)
        self.use.setVisible(there and bool(self._sizes))

    def _all(self) -> list[Found]:
        by_group = sorted(
            reckonings().values(), key=lambda reckoning: reckoning.group != self._ahead
        )
        return [Found(reckoning, {}, None) for reckoning in by_group]

    def _open_first(self) -> None:
        item = self.list.item(0)
        if item is not None:
            self._on_item_chosen(item)

    def _on_item_chosen(self, item: QListWidgetItem) -> None:
        found = item.data(Qt.ItemDataRole.UserRole)
        if found is None:  # the heading of a group
            return
        if isinstance(found, Hit):
            self.found_wished.emit(found)
            return
        if found.inputs:
            self._open_found(found)
        else:
            self.open(found.reckoning.name)
        self.picture.setFocus()

    def open(self, name: str) -> None:
        """Open a reckoning with its usual question."""
        reckoning = reckonings()[name]
        own = self._own.of(reckoning)
        self._ask(reckoning, own.with_usual(reckoning, self.inch), own.whose)

    # -- asking ----------------------------------------------------------

    def _ask(
        self, reckoning: Reckoning, given: dict[str, Any], whose: tuple[str, ...] = ()
    ) -> None:
        typed = {key: v for key, v in given.items() if isinstance(v, str)}
        self.question = Question(reckoning, dict(given), typed)
        self.whose.setText("From your shop: " + "; ".join(whose) if whose else "")
        self.whose.setVisible(bool(whose))
        self.question.work_out(self.inch)
        self.edit.hide()
        self._show()

    def _draw(self, width: float, height: float, size: float) -> Drawing:
        asked = self.question
        if asked is None or asked.answer is None:
            return Drawing(width, height, ())
        return picture_of(
            asked.reckoning,
            asked.values,
            asked.answer.results,
            asked.typed,
            width,
            height,
            size,
            self.inch,
        )

    def _show(self) -> None:
        asked = self.question
        assert asked is not None
        self.title.setText(asked.reckoning.title)
        self._show_buttons()
        self.picture.refresh()
        if asked.wrong is not None:
            inputs = {given.key: given.words for given in asked.reckoning.inputs}
            name = inputs.get(asked.wrong.key, asked.wrong.key)
            self.says.setText(f"{name}: {asked.wrong.message}")
            set_ink(self.says, "stop")
        else:
            self.says.setText("Choose a framed figure in the picture and type.")
            set_ink(self.says, "")
        self._fill_results()
        self._open_working()

    def _fill_results(self) -> None:
        clear_grid(self.results)
        answer = self.question.answer if self.question else None
        if answer is None:
            return
        known = {result.key: result for result in reckonings()[answer.reckoner].results}
        self._share(
            max(
                len(value[0])
                for value in [*answer.results.values(), [{}]]
                if isinstance(value, list) and value and isinstance(value[0], dict)
            )
        )
        row = 0
        for key, value in answer.results.items():
            if value in ("", None):
                continue
            result = known[key]
            name = label(result.words, "faint", wrap=True)
            name.setToolTip(result.meaning)
            if isinstance(value, list):
                # a list or a table has the whole width, its name above it
                self.results.addWidget(name, row, 0, 1, 2)
                if value and isinstance(value[0], dict):
                    self.results.addLayout(self._table(result, value), row + 1, 0, 1, 2)
                else:
                    listed = _copied(
                        label(in_rows(value, result.kind, self.inch), wrap=True)
                    )
                    self.results.addWidget(listed, row + 1, 0, 1, 2)
                row += 2
                continue
            self.results.addWidget(name, row, 0, Qt.AlignmentFlag.AlignTop)
            shown, small = self._said(value, result.kind)
            said = _copied(label(shown, "head", wrap=result.kind is not LENGTH))
            self.results.addWidget(said, row, 1, Qt.AlignmentFlag.AlignTop)
            if small:
                row += 1
                self.results.addWidget(label(small, "faint"), row, 1)
            row += 1
        self.results.setColumnStretch(1, 1)
        self.notes.setText("\n".join((*answer.cautions, *answer.notes)))
        self.source.setText("Source: " + "; ".join(answer.sources))

    def _said(self, value: Any, kind: Kind) -> tuple[str, str]:
        """One figure, and the same in the other measure for small print."""
        if not isinstance(value, int | float):
            return figure(value, kind, self.inch), ""
        if kind is LENGTH:
            step = 0.0001 if abs(value) < 1 else 0.001
            first, other = (
                length_text(value, step, i) for i in (self.inch, not self.inch)
            )
            return first, other
        if kind in ROUGH:
            return in_both_texts(value, kind, self.inch)
        return figure(value, kind, self.inch), other_text(value, kind, self.inch)

    def _share(self, columns: int) -> None:
        """The width is shared so that a table of so many columns has room."""
        narrow = self.width() < self.look.px(900)
        self._columns = columns
        # what was answered needs the room more than what else there is
        answered = self.question is not None and bool(self.search.text().strip())
        self.list.setVisible(not (narrow and answered))
        table = max(40 if narrow else 26, 7 * columns + 6)
        for at, share in enumerate((22, 82 - table, table)):
            self.row.setStretch(at, share)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._share(self._columns)

    def _table(self, result: Result, rows: list[dict[str, Any]]) -> QGridLayout:
        """Rows of results under the names of their columns."""
        grid = QGridLayout()
        grid.setHorizontalSpacing(self.look.px(10))
        grid.setVerticalSpacing(self.look.px(2))
        # lines that wrap need a place each; figures stand in one, however many
        apart = any(isinstance(part, str) for part in rows[0].values())
        told = columns(result, rows, self.inch)
        for at, (column, (head, *cells)) in enumerate(zip(rows[0], told, strict=True)):
            grid.addWidget(label(head, "faint", wrap=True), 0, at)
            for down, text in enumerate(cells if apart else ["\n".join(cells)], 1):
                said = isinstance(rows[down - 1].get(column), str)
                grid.addWidget(label(text, wrap=said), down, at)
        return grid

    # -- changing --------------------------------------------------------

    def _input(self, key: str) -> Input:
        assert self.question is not None
        return next(
            given for given in self.question.reckoning.inputs if given.key == key
        )

    def _on_spot_chosen(self, key: str, place: QRectF) -> None:
        given = self._input(key)
        choices = given.choices or (("yes", "no") if given.kind is FLAG else ())
        if choices:
            menu = QMenu(self)
            for word in choices:
                menu.addAction(word, lambda word=word: self.change(key, word))
            menu.popup(self.picture.mapToGlobal(place.bottomLeft().toPoint()))
            return
        self.begin_edit(key, place)

    def begin_edit(self, key: str, place: QRectF | None = None) -> None:
        """Open the entry on a framed figure."""
        asked = self.question
        assert asked is not None
        place = place or self.picture.rect_of(key) or QRectF(0, 0, 10, 10)
        self._key = key
        given = self._input(key)
        value = asked.given.get(key, asked.values.get(key))
        if given.columns:
            self._ask_rows(given, value or ())
            return
        px = self.look.px
        wide = px(620) if given.many else max(px(170), place.width() + px(30))
        self.edit.open_over(place, as_typed(value, given, self.inch), wide)
        self.says.setText(f"{begun(given.meaning)}: type, then Enter.")
        set_ink(self.says, "")

    def _on_entered(self) -> None:
        text = self.edit.text()
        self.change(self._key, text)
        asked = self.question
        if asked is not None and asked.wrong is not None:
            self.edit.refuse()
            return
        self.edit.close_over()

    def change(self, key: str, text: str) -> None:
        """Put in a figure as typed and answer again."""
        asked = self.question
        assert asked is not None
        asked.put(key, text, self.inch)
        self._show()

    def _ask_rows(self, given: Input, rows: Iterable[Mapping[str, Any]]) -> None:
        """Open the rows of an input whose entries have several values."""
        self.rows = RowsDialog(
            self,
            self.look,
            given,
            rows,
            self.inch,
            lambda made: self._put_rows(given.key, made),
        )
        self.rows.open()

    def _put_rows(self, key: str, rows: list[dict[str, Any]]) -> None:
        """Answer again with these rows. Raises BadInput where they do not do."""
        asked = self.question
        assert asked is not None
        before = dict(asked.given)
        asked.given[key] = rows
        asked.work_out(self.inch)
        wrong = asked.wrong
        if wrong is not None:
            asked.given = before
            asked.work_out(self.inch)
        self._show()
        if wrong is not None:
            raise wrong

    # -- taking it along -------------------------------------------------

    def _open_working(self) -> None:
        """Open the working under the picture; it follows what is changed there."""
        answer = self.question.answer if self.question else None
        shown = self.working.isChecked() and answer is not None
        self.under.setVisible(shown)
        if shown:
            assert answer is not None
            self.under.setWidget(working_of(self.look, answer))

    def answer_text(self) -> str:
        """The answer as a line of plain text."""
        asked = self.question
        if asked is None or asked.answer is None:
            return ""
        given = ", ".join(
            f"{key} {as_typed(v, self._input(key), self.inch)}"
            for key, v in asked.given.items()
        )
        lists = "".join(
            f" {known.words}: {'; '.join(self._listed(known, value))}."
            for known in asked.reckoning.results
            if isinstance(value := asked.answer.results.get(known.key), list) and value
        )
        said = sentence(asked.answer, self.inch)
        return f"{asked.reckoning.title} ({given}): {said}{lists}"

    def _listed(self, result: Result, values: list[Any]) -> Iterator[str]:
        """Every entry of a list in words, none left out."""
        for value in values:
            if isinstance(value, dict):
                cells = (
                    f"{plain_name(key)} {cell(part, result.kind_of(key), self.inch)}"
                    for key, part in value.items()
                    if part is not None
                )
                yield ", ".join(cells)
            else:
                yield entry(value, result.kind, self.inch)

    def _copy(self) -> None:
        QGuiApplication.clipboard().setText(self.answer_text())

    def _choose_size(self) -> None:
        """Offer the answer's lengths as sizes of the open job's piece."""
        if self.question and self.question.answer:
            answer, wish = self.question.answer, self.size_wished.emit
            menu = size_menu(self, answer, self.inch, self._sizes, wish)
            menu.popup(self.use.mapToGlobal(self.use.rect().topLeft()))

    def say(self, text: str, wrong: bool = False) -> None:
        self.says.setText(text)
        set_ink(self.says, "stop" if wrong else "")

    def _print(self) -> None:
        asked = self.question
        if asked is None or asked.answer is None:
            return
        path, _ = QFileDialog.getSaveFileName(
            self, "Print", f"{asked.reckoning.name}.pdf", "*.pdf"
        )
        if not path:
            return
        answer = asked.answer
        self._write(
            path, lambda: write_answer(answer, self._draw, Path(path), self.inch)
        )

    def _print_template(self) -> None:
        """The answer as a template to be wrapped round the work."""
        asked = self.question
        if asked is None or asked.answer is None:
            return
        answer = asked.answer
        path, _ = QFileDialog.getSaveFileName(
            self, "Template", f"{asked.reckoning.name}-1-to-1.pdf", "*.pdf"
        )
        if path:
            self._write(path, lambda: write_wrapped(answer, Path(path)))

    def _write(self, path: str, work: Callable[[], None]) -> None:
        try:
            work()
        except MachinonError as error:
            self.say(str(error), wrong=True)
        else:
            self.say(f"Written: {path}")

    def _note(self) -> None:
        if self.answer_text():
            self.note_wished.emit(self.answer_text())
            self.says.setText("Noted in the job's daybook.")


def clear_grid(layout: QLayout) -> None:
    """Take every widget and layout out of a grid and let go of them."""
    while layout.count():
        item = layout.takeAt(0)
        if item is None:
            continue
        widget, inner = item.widget(), item.layout()
        if widget is not None:
            widget.hide()
            widget.deleteLater()
        if inner is not None:
            clear_grid(inner)
            inner.deleteLater()


def size_menu(
    parent: QWidget,
    answer: Answer,
    inch: bool,
    sizes: Mapping[str, str],
    chosen: Callable[[str, str], object],
) -> QMenu:
    """A menu of the answer's lengths, each with the sizes of a piece it could be."""
    menu = QMenu(parent)
    kinds = {
        result.key: result.kind for result in reckonings()[answer.reckoner].results
    }
    for key, value in answer.results.items():
        if kinds[key] is not LENGTH or not isinstance(value, float) or value <= 0:
            continue
        said = length_text(value, 0.001, inch)
        part = menu.addMenu(f"{plain_name(key)} {said} as …")
        for size, words in sizes.items():
            part.addAction(words, lambda size=size, said=said: chosen(size, said))
    if menu.isEmpty():
        menu.addAction("This answer has no length that a piece could take")
    return menu

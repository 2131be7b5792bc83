"""Proof: what was made against what was wanted, how it runs, the verdict."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import (
    QCheckBox,
    QFileDialog,
    QHBoxLayout,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput, MachinonError
from machinon.core.job.proof import ProofLine
from machinon.core.quantity import length_text, plain, small_text
from machinon.core.route.steps import StepTold
from machinon.core.setting_out.runout import OVAL, resolve, tells_oval
from machinon.core.survey.as_typed import warmth_hint
from machinon.desk.bench import Bench, StageView
from machinon.desk.faults import faults, painted
from machinon.desk.narrow import Abreast, narrow_combo
from machinon.desk.painter import paint
from machinon.desk.piece_paper import FILES, write_piece
from machinon.desk.proof_paper import write_proof
from machinon.desk.stages.run_out_line import RunOutLine
from machinon.desk.widgets import (
    DrawingView,
    Field,
    Figure,
    Look,
    MarkView,
    button,
    label,
    panel,
    set_ink,
)
from machinon.desk.writing import ASIDE, Writing
from machinon.draw.charts import rose_drawing
from machinon.draw.drawing import Drawing
from machinon.draw.proof_drawing import VERDICTS, band_drawing


class LineView(QWidget):
    """One line of the proof: wanted band, where the made size lies, the verdict.

    Signals: chosen(key: str).
    """

    chosen = Signal(str)

    def __init__(self, look: Look, line: ProofLine, inch: bool, lit: bool) -> None:
        super().__init__()
        self._look, self._line, self._inch, self._lit = look, line, inch, lit
        self.setMinimumHeight(look.px(74))
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(f"{line.name}: {line.says}")

    def sizeHint(self) -> QSize:
        return QSize(self._look.px(380), self._look.px(74))

    @painted
    def paintEvent(self, painter: QPainter, event: QPaintEvent) -> None:
        look, line = self._look, self._line
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self._lit:
            painter.setPen(QPen(look.theme.ink("cut"), 2))
            painter.drawRect(QRectF(self.rect()).adjusted(1, 1, -1, -1))
        paint(
            painter,
            band_drawing(
                line, self.width(), self.height(), 13 * look.scale, self._inch
            ),
            look.theme,
        )

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.chosen.emit(self._line.key)


class ProofView(StageView):
    """The lines with their entry at the left, run-out in the middle, verdict right."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.at = ""
        self.lines = QVBoxLayout()
        self.lines.setSpacing(self.look.px(4))
        self.reading = Field("", inch=self._instrument_inch, large=False)
        self.reading.from_wire = True
        self.reading.taken.connect(self._on_reading_taken)
        self.instrument = narrow_combo("Instrument")
        self.how = label("", "faint", wrap=True)
        self.again = button("Begin this one again", self._begin_again)
        self.line_says = label("", "", wrap=True)
        self.decide = QWidget()
        deciding = QHBoxLayout(self.decide)
        deciding.setContentsMargins(0, 0, 0, 0)
        deciding.addWidget(label("The mate", "head"))
        self.answers = {}
        for key, words in (
            ("goes on", "Goes on"),
            ("tight", "Tight"),
            ("loose", "Loose"),
        ):
            answer = button(words, lambda key=key: self.job.try_mate(self.at, key))
            answer.setCheckable(True)
            self.answers[key] = answer
            deciding.addWidget(answer)
        self.accept = Field("Or accept it: type why, then Enter", None)
        self.accept.taken.connect(self._on_accepted)
        self.undone = Field("Why steps were left out, then Enter", None)
        self.undone.taken.connect(self._on_undone_said)
        self.thread = QCheckBox("Screwed home, seated")
        self.thread.clicked.connect(bench.job.set_thread_tried)
        self.runout = Field("Run-out in equal steps", None)
        self.runout.taken.connect(self._on_runout_taken)
        self.limit = Field("Run-out allowed", inch=lambda: self.job.inch)
        self.limit.taken.connect(self._on_limit_taken)
        self.rose = DrawingView(self.look, self._rose, "Run-out all round")
        self.expected = RunOutLine(bench)
        self.tir = Figure("Indicator swing")
        self.offset = Figure("Offset")
        self.oval = Figure("Oval, on ⌀")
        self.tir.opened.connect(bench.open_working)
        self.mark = MarkView(self.look, None, 44)
        self.verdict = label("", "title")
        self.says = label("", "", wrap=True)
        self.learn = button("note what went wrong", self.ask_lesson, "link")
        self.kept = label("", "", "proved", wrap=True)
        self.keep = button("Put it into the shop", self._put_into_shop, "main")
        self.sheet = button("Proof sheet…", self.save_sheet)
        self.svg = button("Drawing, SVG…", lambda: self.save_drawing("svg"))
        self.pdf = button("Drawing, PDF…", lambda: self.save_drawing("pdf"))
        self.files = button("For other programs…", self.save_file)
        self.written = label("", "faint", wrap=True)
        self.writing: Writing | None = None  # that is on its way
        self.cancel = button("Cancel", self._give_up)
        self.cancel.hide()
        self._lay_out()

    def _lay_out(self) -> None:
        px = self.look.px
        left = QVBoxLayout()
        left.setContentsMargins(px(12), px(10), px(12), px(8))
        left.addWidget(label("As made, against what the mates want", "head", wrap=True))
        left.addLayout(self.lines)
        left.addWidget(self.how)
        tool = QWidget()
        side = QVBoxLayout(tool)
        side.setContentsMargins(0, 0, 0, 0)
        side.setSpacing(px(2))
        side.addWidget(label("Instrument", "faint"))
        side.addWidget(self.instrument)
        self.reading.setMinimumWidth(px(130))
        self.entry = Abreast(2, self.reading, tool)
        left.addWidget(self.entry)
        left.addWidget(self.line_says)
        left.addWidget(self.decide)
        left.addWidget(self.accept)
        left.addWidget(self.again, 0, Qt.AlignmentFlag.AlignLeft)
        left.addStretch(1)
        left.addWidget(self.thread, 0, Qt.AlignmentFlag.AlignLeft)

        middle = QVBoxLayout()
        middle.setContentsMargins(px(12), px(10), px(12), px(8))
        middle.addWidget(label("How it runs", "head"))
        self.limit.setMinimumWidth(px(110))
        middle.addWidget(Abreast(2, self.runout, self.limit))
        middle.addWidget(self.rose, 1)
        self.rose.setMinimumHeight(px(110))
        middle.addWidget(Abreast(3, self.tir, self.offset, self.oval))
        middle.addWidget(self.expected)

        right = QVBoxLayout()
        right.setContentsMargins(px(14), px(10), px(14), px(8))
        head = QHBoxLayout()
        head.addWidget(self.mark)
        head.addWidget(self.verdict, 1)
        right.addLayout(head)
        right.addWidget(self.says)
        right.addWidget(self.learn, 0, Qt.AlignmentFlag.AlignLeft)
        right.addWidget(self.undone)
        right.addSpacing(px(8))
        right.addWidget(self.keep)
        right.addWidget(self.kept)
        right.addStretch(1)
        for widget in (self.sheet, self.svg, self.pdf, self.files):
            right.addWidget(widget)
        right.addWidget(self.written)
        right.addWidget(self.cancel)

        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(panel(left, True), 41)
        self.runs = panel(middle, True)
        whole.addWidget(self.runs, 41)
        whole.addWidget(panel(right, True), 30)

    # -- showing ---------------------------------------------------------

    def begin(self) -> None:
        self.reading.edit.setFocus()

    def refresh(self) -> None:
        plan, inch = self.job.plan, self.job.inch
        keys = [line.key for line in plan.proof]
        if self.at not in keys and keys:
            self.at = keys[0]
        while self.lines.count():
            old = self.lines.takeAt(0).widget()
            if old is not None:
                old.hide()
                old.deleteLater()
        for line in plan.proof:
            view = LineView(self.look, line, inch, line.key == self.at)
            view.chosen.connect(self.choose)
            self.lines.addWidget(view)
        if not plan.proof:
            says = "No bands to prove yet: finish Survey and Fits first."
            if plan.made is not None:
                says = "No mate rules a size of it: the steps of its route prove it."
            self.lines.addWidget(label(says, "", "cut", wrap=True))
        for widget in (self.entry, self.how, self.again, self.line_says, self.decide):
            widget.setVisible(bool(keys))
        self.accept.setVisible(bool(keys))
        if keys:
            self._show_entry()
        made = plan.made
        slots = made.family.fits if made else ()
        self.thread.setVisible(any(slot.joint == "thread" for slot in slots))
        self.runs.setVisible(bool(made and made.family.runs))
        self.thread.setChecked(self.job.job.proof.thread_tried)
        self._show_runout()
        words = {
            "open": "Open",
            "proved": "Proved",
            "near": "Undecided",
            "failed": "Not proved",
        }
        mark = VERDICTS.get(plan.verdict)
        self.mark.set_kind(mark)
        self.mark.setVisible(mark is not None)
        self.verdict.setText(words[plan.verdict])
        set_ink(self.verdict, mark or "")
        self.says.setText(plan.verdict_says or "Nothing can be proved yet.")
        self.learn.setVisible(self.step_here() is not None)
        kept = self.job.job.kept_as
        self.keep.setEnabled(plan.verdict == "proved" and not kept)
        self.keep.setText("It is in the shop" if kept else "Put it into the shop")
        self.kept.setText(
            "It is an existing piece now, with its readings." if kept else ""
        )
        self.keep.setVisible(plan.job.making is not None)
        self.sheet.setEnabled(bool(plan.verdict_says))
        self.files.setVisible(plan.job.making is not None)
        self.files.setEnabled(made is not None)
        for widget in (self.svg, self.pdf):
            widget.setVisible(plan.job.making is not None)
            widget.setEnabled(made is not None)
        left = [
            step.key
            for up in plan.route
            for step in up.steps
            if step.key not in self.job.job.done
        ]
        self.undone.setVisible(bool(left) and plan.verdict in ("open", "proved"))
        if not self.undone.edit.hasFocus():
            self.undone.put(self.job.job.proof.undone_because)

    def step_here(self) -> StepTold | None:
        """The step that cut a size outside its band."""
        bad = {line.fit for line in self.job.plan.proof if line.verdict == "failed"}
        steps = [
            step
            for up in self.job.plan.route
            for step in up.steps
            if step.fit in bad - {0} and not step.hold
        ]
        return steps[-1] if steps else None

    def show_fit(self, number: int) -> None:
        line = next((line for line in self.job.plan.proof if line.fit == number), None)
        if line is not None:
            self.choose(line.key)

    def _on_accepted(self, reason: str) -> None:
        try:
            self.job.accept_near(self.at, reason)
        except BadInput as error:
            self.accept.refuse(error.message)
        else:
            self.accept.clear()

    def _on_undone_said(self, reason: str) -> None:
        try:
            self.job.leave_steps_out(reason)
        except BadInput as error:
            self.undone.refuse(error.message)

    def _show_entry(self) -> None:
        surface = next(s for s in self.job.job.proof.surfaces if s.id == self.at)
        count = len(surface.readings)
        alike = self.job.job.count
        of = f"of piece {count + 1} of {alike}" if alike > 1 else f"{count + 1} of it"
        self.reading.name.setText(f"Reading {of}, then Enter")
        self.reading.edit.setAccessibleName(f"{surface.name}, reading")
        self.reading.hint(warmth_hint(self.job.inch))
        self.how.setText(surface.how)
        self.again.setVisible(count > 0)
        line = next((line for line in self.job.plan.proof if line.key == self.at), None)
        said = line is not None and (line.verdict != "open" or alike > 1)
        self.line_says.setText(line.says if line and said else "")
        set_ink(self.line_says, VERDICTS.get(line.verdict, "") if line else "")
        self.line_says.setVisible(bool(self.line_says.text()))
        tried = self.job.job.proof.tried.get(self.at, "")
        near = line is not None and line.verdict == "near"
        self.decide.setVisible(near or bool(tried))
        self.accept.setVisible(near and not tried)
        for key, answer in self.answers.items():
            answer.setChecked(key == tried)
        self.instrument.clear()
        gauges = self.job.gauges(surface)
        size = line.lower if line is not None else None
        reaching = [
            instrument
            for instrument in gauges
            if size is None or instrument.reaches(size)
        ]
        for gauge in (
            *reaching,
            *(instrument for instrument in gauges if instrument not in reaching),
        ):
            self.instrument.addItem(gauge.name, gauge.id)
        # the surest that reaches, unless another was begun with
        last = surface.readings[-1].instrument if surface.readings else None
        self.instrument.setCurrentIndex(max(self.instrument.findData(last), 0))

    def _show_runout(self) -> None:
        proof, inch = self.job.job.proof, self.job.inch
        if not self.runout.edit.hasFocus() or proof.runout:
            # as typed habits go: hundredths for a needle in mm, tenths in inches
            factor, places = (1 / 25.4, 4) if inch else (1.0, 3)
            typed = " ".join(
                plain(v * factor, places).replace("−", "-") for v in proof.runout
            )
            self.runout.put(typed)
        unit = "inches" if inch else "mm"
        self.runout.hint(
            f"with blanks between: 0.012 0.008 0.001 0.004, in {unit}; 8 places show "
            "an oval as well"
            if not proof.runout
            else ""
            if len(proof.runout) >= OVAL
            else "8 places show an oval as well"
        )
        self.limit.put(length_text(proof.runout_limit, 0.001, inch))
        self.limit.hint("")
        answer = self.job.plan.runout
        for figure, key in (
            (self.tir, "tir"),
            (self.offset, "eccentricity"),
            (self.oval, "ovality"),
        ):
            if answer is None or (key == "ovality" and not tells_oval(answer)):
                figure.show_text("–")
                continue
            bad = key == "tir" and answer["tir"] > proof.runout_limit
            figure.show_text(
                small_text(answer[key], inch),
                "",
                small_text(answer[key], not inch),
                "stop" if bad else "",
                answer if key == "tir" else None,
            )
        self.rose.refresh()
        self.expected.refresh()

    def _rose(self, width: float, height: float, size: float) -> Drawing:
        proof = self.job.job.proof
        found = resolve(proof.runout) if len(proof.runout) >= 3 else None
        return rose_drawing(
            proof.runout, found, proof.runout_limit, width, height, size, self.job.inch
        )

    # -- doing -----------------------------------------------------------

    def choose(self, key: str) -> None:
        """Bring a line into view for its readings."""
        self.at = key
        self.reading.clear()
        self.refresh()
        self.reading.edit.setFocus()

    def use_instrument(self, id: str) -> None:
        """Read with this instrument from now on, where it can read the line."""
        at = self.instrument.findData(id)
        if at >= 0:
            self.instrument.setCurrentIndex(at)

    def _instrument_inch(self) -> bool:
        id = self.instrument.currentData()
        return bool(id) and self.job.shop.instrument(id).inch

    def _on_reading_taken(self, typed: str) -> None:
        id = self.instrument.currentData()
        if not id:
            self.reading.refuse("No instrument in the shop measures this surface.")
            return
        try:
            self.job.add_proof_reading(self.at, typed, id)
        except BadInput as error:
            self.reading.refuse(error.message)
            return
        self.reading.clear()
        self.reading.edit.setFocus()

    def _begin_again(self) -> None:
        self.job.drop_proof_readings(self.at)

    def _on_runout_taken(self, typed: str) -> None:
        try:
            self.job.set_runout(typed)
        except BadInput as error:
            self.runout.refuse(error.message)

    def _on_limit_taken(self, typed: str) -> None:
        try:
            self.job.set_runout_limit(typed)
        except BadInput as error:
            self.limit.refuse(error.message)

    def _put_into_shop(self) -> None:
        try:
            self.job.put_into_shop()
        except BadInput as error:
            self.kept.setText(error.message)

    # -- writing ---------------------------------------------------------

    def _ask_path(self, name: str, kind: str) -> Path | None:
        chosen, _ = QFileDialog.getSaveFileName(
            self, "Save", f"{self.job.job.id}-{name}.{kind}", f"*.{kind}"
        )
        return Path(chosen) if chosen else None

    def save_sheet(self) -> None:
        path = self._ask_path("proof", "pdf")
        if path:
            self._write(path, lambda: write_proof(self.job.plan, path))

    def save_drawing(self, kind: str) -> None:
        path = self._ask_path("drawing", kind)
        if path:
            self._write_drawing(kind, path)

    def _write_drawing(self, kind: str, path: Path) -> None:
        made = self.job.plan.made
        assert made is not None  # else nothing offers it
        inch, first = self.job.inch, self.job.shop.first_angle

        def write(to: Path) -> None:
            write_piece(made, kind, to, inch, first)

        if kind in ASIDE:
            self._write_aside(path, write)
        else:
            self._write(path, lambda: write(path))

    def _write_aside(self, path: Path, write: Callable[[Path], None]) -> None:
        """Write what takes a while; it can be cancelled until it is there."""
        self._give_up()
        self.writing = Writing(self, write, path)
        self.writing.ended.connect(self._on_written)
        self.written.setText(f"Writing {path.name} …")
        set_ink(self.written, "")
        self.cancel.show()
        self.writing.begin()

    def _give_up(self) -> None:
        if self.writing is not None:
            self.writing.give_up()
            self.writing = None
            self.cancel.hide()
            self.written.setText("Cancelled: nothing was written.")

    def _on_written(self, writing: Writing) -> None:
        writing.deleteLater()
        if writing is not self.writing:
            return  # it was given up
        self.writing = None
        self.cancel.hide()
        self._say_written(writing.path, writing.error)
        if writing.error is not None and not isinstance(writing.error, MachinonError):
            faults.report(writing.error)

    def save_file(self) -> None:
        """Sheet, solid or holes, in the format that is chosen with the name."""
        if self.job.plan.made is None:
            self.written.setText("Only a piece that is drawn is written: see Piece.")
            return
        lines = {f"{name} (*.{end})": kind for kind, (name, end) in FILES.items()}
        chosen, line = QFileDialog.getSaveFileName(
            self, "Save", self.job.job.id, ";;".join(lines), list(lines)[3]
        )
        if chosen:
            self.write_file(lines[line], Path(chosen))

    def write_file(self, kind: str, path: Path) -> None:
        """Write one; the name gets its usual ending where none is typed."""
        if not path.suffix:
            path = path.with_suffix(f".{FILES[kind][1]}")
        self._write_drawing(kind, path)

    def _write(self, path: Path, write: Callable[[], object]) -> None:
        try:
            write()
        except MachinonError as error:
            self._say_written(path, error)
        else:
            self._say_written(path, None)

    def _say_written(self, path: Path, error: Exception | None) -> None:
        self.written.setText(str(error) if error else f"Written: {path}")
        set_ink(self.written, "stop" if error else "")

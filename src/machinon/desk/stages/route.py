"""Route: the film strip of the piece after each step, grouped by holding."""

import functools
from pathlib import Path

from PySide6.QtCore import QEvent, QObject, QRectF, Qt, QTimer, Signal
from PySide6.QtGui import (
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
    QShowEvent,
)
from PySide6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QMenu,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from machinon.core.cutting.speeds import feed_text, speed_text
from machinon.core.errors import BadInput, MachinonError
from machinon.core.quantity import (
    surface_speed_in,
)
from machinon.core.route.duration import minutes_of
from machinon.core.route.own_steps import KINDS, OTHER
from machinon.core.route.steps import HoldingTold, StepTold
from machinon.core.wording import begun
from machinon.desk.bench import LEAST_STAGE, Bench, StageView
from machinon.desk.faults import painted
from machinon.desk.narrow import Abreast, Combo
from machinon.desk.painter import paint, paint_mark
from machinon.desk.route_paper import write_route
from machinon.desk.theme import font
from machinon.desk.widgets import (
    EmptyPage,
    Field,
    Figure,
    Look,
    Maker,
    MarkView,
    area_of,
    bring_into_view,
    button,
    clear_layout,
    label,
    panel,
    set_ink,
    set_part,
)
from machinon.draw.body_film import body_film
from machinon.draw.drawing import Drawing, Mark, MarkKind

FRAME, HEADS, WORDS = 232, 62, 250  # px: a frame, what is about all, words of a step
PICTURE = 140  # px: height of the picture in a frame
SPARED, LEAST = 0.8, 0.45  # shares of that: from where it gives way, and how far
SEEN = 7  # frames beside each other, at least


class FilmFrame(QWidget):
    """One frame of the film: the piece after a step, its title and state.

    Signals: chosen(key: str) by mouse or Enter.
    """

    chosen = Signal(str)

    def __init__(
        self,
        look: Look,
        step: StepTold,
        film: Maker,
        number: int,
        mark: MarkKind | None,
    ) -> None:
        """film: lays out the piece after the step for a width, height and size."""
        super().__init__()
        self._look, self._number = look, number
        self.lit = False
        self._film, self._drawing = film, Drawing(0, 0, ())
        self._laid_out: tuple[Maker, int, int] | None = None
        self.grow(1.0)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.show_step(step, film, mark)

    def show_step(self, step: StepTold, film: Maker, mark: MarkKind | None) -> None:
        """The same frame after a change of the piece; its picture stays until it is to
        `catch_up`."""
        self._step, self._coming, self._mark = step, film, mark
        self.setAccessibleName(f"Step {self._number}: {step.title}")
        self.setToolTip(step.title)

    def catch_up(self) -> None:
        """Show the piece as it is now."""
        self._film = self._coming
        self.update()

    def _picture(self) -> Drawing:
        """Laid out once, however often the frame is uncovered or moved."""
        at = self._film, self._wide, self._tall
        if self._laid_out != at:
            size = 11.0 * self._look.scale
            self._drawing = self._film(self._wide, self._tall, size)
            self._laid_out = at
        return self._drawing

    def grow(self, times: float) -> None:
        """Its picture so many times as large as on a small screen; where there is less
        room than that it is lower alone."""
        px = self._look.px
        self._wide, self._tall = px(148 * max(times, 1.0)), px(PICTURE * times)
        self.setFixedSize(self._wide + px(16), self._tall + px(92))

    def light(self, lit: bool) -> None:
        """Whether this is the step at hand."""
        if lit != self.lit:
            self.lit = lit
            self.update()

    @property
    def key(self) -> str:
        return self._step.key

    @painted
    def paintEvent(self, painter: QPainter, event: QPaintEvent) -> None:
        look = self._look
        px = look.px
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.lit or self.hasFocus():
            painter.setPen(QPen(look.theme.ink("cut" if self.lit else "centre"), 2.5))
            painter.setBrush(look.theme.ink("ground"))
            painter.drawRect(QRectF(self.rect()).adjusted(2, 2, -2, -2))
        painter.save()
        painter.translate(px(8), px(8))
        paint(painter, self._picture(), look.theme)
        painter.restore()
        if self._mark is not None:
            corner = self._wide - px(2), px(18)
            paint_mark(painter, Mark(corner, self._mark, px(15)), look.theme)
        if self._step.hold:
            self._paint_hold(painter)
        painter.setFont(font(13 * look.scale, bold=self.lit))
        painter.setPen(QPen(look.theme.ink("text")))
        painter.drawText(
            QRectF(px(8), self._tall + px(12), self._wide, px(54)),
            int(Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap),
            f"{self._number}  {self._step.title}",
        )
        if self._step.speed is not None:
            painter.setFont(font(13 * look.scale))
            painter.setPen(QPen(look.theme.ink("faint")))
            painter.drawText(
                QRectF(px(8), self._tall + px(66), self._wide, px(20)),
                int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter),
                speed_text(self._step.speed),
            )

    def _paint_hold(self, painter: QPainter) -> None:
        """A step that holds the piece in its place carries a double bar."""
        px = self._look.px
        painter.setPen(QPen(self._look.theme.ink("stop"), px(3)))
        for x in (px(3), self._wide + px(12)):
            painter.drawLine(x, px(8), x, self._tall + px(6))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.chosen.emit(self.key)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.chosen.emit(self.key)
            return
        super().keyPressEvent(event)


class RouteView(StageView):
    """The strip above; the chosen step with its reasons below."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.at = ""
        self.frames: dict[str, FilmFrame] = {}
        self._groups: list[tuple[str, list[str]]] = []
        # frames that an edit changed, painted one by one so that typing never waits
        self._to_paint: list[FilmFrame] = []
        self._painting = QTimer(self)
        self._painting.setInterval(0)
        self._painting.timeout.connect(self._paint_next)
        self.warning = label("", "head", "stop", wrap=True)
        self.nothing = EmptyPage(self.look)
        self.strip = QWidget()
        self.groups = QHBoxLayout(self.strip)
        self.groups.setContentsMargins(0, 0, 0, 0)
        self.groups.setSpacing(self.look.px(10))
        self.area = QScrollArea()
        self.area.setWidget(self.strip)
        self.area.setWidgetResizable(True)
        self.area.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        # once the strip is as wide as its frames
        self.area.horizontalScrollBar().rangeChanged.connect(self._reveal)
        self.title = label("", "head", wrap=True)
        self.reason = label("", "faint", wrap=True)
        self.note = label("", "", wrap=True)
        self.caution = label("", "", "stop", wrap=True)
        self.caution_mark = MarkView(self.look, "stop")
        self.tool = Figure("Tool")
        self.own = label("", "", "measured", wrap=True)
        self.speed = Figure("Speed")
        self.cut_speed = Figure("Surface speed")
        self.speed.opened.connect(bench.open_working)
        self.machine = Combo()
        self.machine.setAccessibleName("Machine")
        self.machine.activated.connect(self._use_machine)
        self.done = button("Done", self._tick_or_go_on, "main")
        self.undone = button("Not done yet", self._toggle)
        self.go = button("", self._go_there)
        # the sizes that the step leaves by a slide
        self.by_dial = [
            button("", functools.partial(self._to_the_dial, n)) for n in range(3)
        ]
        self.earlier = button("Earlier", lambda: self._move(False))
        self.later = button("Later", lambda: self._move(True))
        self.moves = Abreast(2, self.earlier, self.later)
        self.usual = button("All as usual", self._put_back)
        self.add = button("add a step after this", self._ask_step, "link")
        self.take_out = button("Take this step out", self._take_out)
        self.sheet = button("Route sheet…", self.ask_sheet)
        self.added = Field("What is done after this, then Enter", kind=None)
        self.added.taken.connect(self._add)
        self.moved = label("", "faint", wrap=True)
        self.because = Field("Why do it anyway", kind=None)
        self.because.taken.connect(self._move_because)
        self.learn = button("note what went wrong here", self.ask_lesson, "link")
        self.forget = button("take the note away", self._forget, "link")
        self._wanted: bool | None = None
        self._adding = ""  # the kind of step that is being added
        self._times = 0.0
        self._lay_out()

    def _lay_out(self) -> None:
        px = self.look.px
        words = QVBoxLayout()
        words.setSpacing(px(4))
        words.addWidget(self.title)
        words.addWidget(self.note)
        words.addWidget(self.added)
        words.addWidget(self.because)
        warn = QHBoxLayout()
        warn.addWidget(self.caution_mark, 0, Qt.AlignmentFlag.AlignTop)
        warn.addWidget(self.caution, 1)
        words.addLayout(warn)
        words.addWidget(self.reason)
        words.addWidget(self.moved)
        links = QHBoxLayout()
        links.addWidget(self.add)
        links.addWidget(self.learn)
        links.addWidget(self.forget)
        links.addStretch(1)
        words.addLayout(links)
        words.addStretch(1)
        figures = QVBoxLayout()
        figures.addWidget(self.machine)
        figures.addWidget(self.tool)
        figures.addWidget(self.own)
        figures.addWidget(Abreast(2, self.speed, self.cut_speed))
        figures.addStretch(1)
        acts = QVBoxLayout()
        acts.addWidget(self.go)
        acts.addWidget(self.done)
        for widget in self.by_dial:
            acts.addWidget(widget)
        acts.addWidget(self.undone)
        acts.addWidget(self.moves)
        acts.addWidget(self.usual)
        acts.addWidget(self.take_out)
        acts.addWidget(self.sheet)
        acts.addStretch(1)
        below = QHBoxLayout()
        below.setContentsMargins(px(16), px(10), px(16), px(8))
        below.setSpacing(px(20))
        for layout, share in ((words, 6), (figures, 4), (acts, 2)):
            part = QWidget()
            layout.setContentsMargins(0, 0, 0, 0)
            part.setLayout(layout)
            part.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
            below.addWidget(part, share)
        self.detail = panel(below)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(px(6))
        whole.addWidget(self.warning)
        whole.addWidget(self.nothing, 1)
        whole.addWidget(self.area, 10)
        whole.addWidget(self.detail, 1)
        self._fit()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.Resize:
            self._fit()
        return super().eventFilter(watched, event)

    def _fit(self) -> None:
        """The film takes what a tall window has over the words of a step, and gives way
        in a low one, so that what is to be done is seen under it."""
        px = self.look.px
        around = area_of(self)
        seen = around.viewport().height() if around is not None else self.height()
        tall = 1.0 + (seen - px(FRAME + HEADS + WORDS)) / px(PICTURE)
        wide = self.width() / px(SEEN * 164)
        # the words mostly need less than is kept for them
        times = max(tall, LEAST) if tall < SPARED else max(min(tall, wide), 1.0)
        if times == self._times:
            return
        self._times = times
        for frame in self.frames.values():
            frame.grow(times)
        high = px(FRAME + HEADS + PICTURE * (times - 1))
        self.area.setMinimumHeight(min(high, px(FRAME + HEADS)))
        self.area.setMaximumHeight(high)
        self.setMinimumHeight(px(LEAST_STAGE) if times >= 1 else 0)

    # -- showing ---------------------------------------------------------

    def refresh(self) -> None:
        plan = self.job.plan
        grave = plan.grave
        if not plan.route:
            text = ""
            missing, ways = self.bench.still_wanted()
            self.nothing.say(
                "No route yet: this is still to be known" if missing else "No route",
                missing or plan.problem,
                *(ways or [("To the piece", lambda: self.bench.go("piece", 0))]),
            )
        elif grave:
            text = f"Cut nothing yet: {grave[0].says}"
            if len(grave) > 1:
                text += f" And {len(grave) - 1} more, in Piece."
        else:
            text = ""
        self.warning.setText(text)
        self.warning.setVisible(bool(text))
        steps = {step.key: step for up in plan.route for step in up.steps}
        groups = [
            (holding.title, [s.key for s in holding.steps]) for holding in plan.route
        ]
        if groups != self._groups:
            self._groups = groups
            self._make_frames()
        else:
            for key, frame in self.frames.items():
                step = steps[key]
                frame.show_step(step, self._film(step), self._mark_of(step))
            self._repaint_film()
        for widget in (self.area, self.detail):
            widget.setVisible(bool(plan.route))
        self.nothing.setVisible(not plan.route)
        if not plan.route:
            return
        if self.at not in self.frames:
            left = [key for key in self.frames if key not in self.job.job.done]
            self.at = (left or list(self.frames))[0]
        self._show_step()

    def _repaint_film(self) -> None:
        """The frame at hand at once, the others one after another."""
        for frame in self.frames.values():
            if frame.lit:
                frame.catch_up()
        self._to_paint = [frame for frame in self.frames.values() if not frame.lit]
        self._painting.start()

    @property
    def painting(self) -> bool:
        """Whether frames wait to be painted anew."""
        return self._painting.isActive()

    def _paint_next(self) -> None:
        if self._to_paint:
            self._to_paint.pop(0).catch_up()
        else:
            self._painting.stop()

    def _make_frames(self) -> None:
        self._to_paint = []
        clear_layout(self.groups)
        self.frames.clear()
        number = 0
        for set_up in self.job.plan.route:
            number = self._add_set_up(set_up, number)
        self.groups.addStretch(1)

    def _film(self, step: StepTold) -> Maker:
        """The painter of the piece as it is after a step."""
        return functools.partial(body_film, step)

    def _mark_of(self, step: StepTold) -> MarkKind | None:
        if step.fit and any(check.fit == step.fit for check in self.job.plan.grave):
            return "stop"
        if step.key in self.job.plan.changed:
            return "stop"
        return "proved" if step.key in self.job.job.done else None

    def _add_set_up(self, set_up: HoldingTold, number: int) -> int:
        px = self.look.px
        column = QVBoxLayout()
        column.setContentsMargins(px(6), px(6), px(6), px(4))
        column.addWidget(label(set_up.title, "head"))
        row = QHBoxLayout()
        row.setSpacing(px(2))
        for step in set_up.steps:
            number += 1
            mark = self._mark_of(step)
            frame = FilmFrame(self.look, step, self._film(step), number, mark)
            frame.grow(self._times)
            frame.chosen.connect(self.choose)
            self.frames[step.key] = frame
            row.addWidget(frame)
        column.addLayout(row)
        self.groups.addWidget(panel(column))
        return number

    def begin(self) -> None:
        self._reveal()
        if self.at in self.frames:
            self.frames[self.at].setFocus()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        around = area_of(self)
        if around is not None:
            # it may become lower than the stage, which then keeps its size
            around.viewport().installEventFilter(self)
        self._fit()
        self._reveal()

    def _reveal(self) -> None:
        frame = self.frames.get(self.at)
        if frame is not None:
            self.strip.layout().activate()
            self.area.ensureWidgetVisible(frame, self.look.px(180), 0)

    def _step(self) -> tuple[HoldingTold, StepTold]:
        return next(
            (up, step)
            for up in self.job.plan.route
            for step in up.steps
            if step.key == self.at
        )

    def _show_step(self) -> None:
        set_up, step = self._step()
        for frame in self.frames.values():
            frame.light(frame.key == self.at)
        self.title.setText(step.title)
        self.reason.setText(set_up.reason)
        self.note.setText(self._note(step))
        self.note.setVisible(bool(self.note.text()))
        stale = step.key in self.job.plan.changed
        set_ink(self.note, "stop" if step.hold or stale else "")
        self.caution.setText(self.job.cautions(step))
        self.caution.setVisible(bool(self.caution.text()))
        self.caution_mark.setVisible(bool(self.caution.text()))
        self.forget.setVisible(bool(self.job.lessons(step)))
        self._show_machine(set_up)
        minutes = max(round(minutes_of(step)), 1)
        self.tool.show_text(step.tool, "", f"takes about {minutes} min")
        own = self.job.own_tool(step)
        self.own.setText(begun(own.says))
        self.own.setVisible(bool(own.says))
        # what is missing is marked as still to be had
        set_ink(self.own, "measured" if own.item is not None else "cut")
        if step.speed is None:
            self.speed.show_text("by hand")
            self.cut_speed.show_text("–")
        else:
            self.speed.show_text(
                speed_text(step.speed).removesuffix(" rpm"), "rpm", "", "", step.speed
            )
            inch = self.job.inch
            fast, unit = surface_speed_in(step.speed["surface_speed"], inch)
            self.cut_speed.show_text(f"{fast:.0f}", unit, feed_text(step.speed, inch))
        ticked = step.key in self.job.job.done
        self.done.setText(self._onward() if ticked else "Done")
        self.undone.setVisible(ticked)
        own = self.job.own_step(step.key) is not None
        self.moves.setVisible(not ticked and not own)
        self.take_out.setVisible(not ticked and own)
        self._show_moves()
        way, sizes = self.job.way_of(step), self._sizes(step)
        # the way to work a step comes first, ticking it off second
        worked = way != "undecided" and not ticked
        set_part(self.go, "main" if worked else "")
        set_part(self.done, "" if worked else "main")
        other = {"proof": "Prove it now", "undecided": f"Open fit {step.fit}"}
        self.go.setText(other.get(way, "Work it in Cut"))
        for n, by_dial in enumerate(self.by_dial):
            by_dial.setVisible(n < len(sizes))
            if n < len(sizes):
                by_dial.setText(self._dial_words(sizes[n]))

    def _show_machine(self, set_up: HoldingTold) -> None:
        """Where a holding is done, if there are several places to choose from."""
        places = self.job.places_for(set_up.usual)
        self.machine.setVisible(len(places) > 1)
        if len(places) > 1:
            self.machine.clear()
            for id, words in places:
                self.machine.addItem(words, id)

    def _use_machine(self) -> None:
        set_up, _ = self._step()
        self.job.use_machine(set_up.usual, self.machine.currentData())

    def _show_moves(self) -> None:
        """Whether the chosen step stands out of its usual place, and why."""
        self.because.setVisible(self._wanted is not None or bool(self._adding))
        self.added.setVisible(bool(self._adding))
        order = list(self.frames)
        self.earlier.setEnabled(self.at != order[0])
        self.later.setEnabled(self.at != order[-1])
        own = self.job.own_step(self.at)
        why = own.because if own is not None else self.job.moved_because(self.at)
        did = "added" if own is not None else "moved"
        self.moved.setText(f"You {did} it: {why}" if why else f"You {did} it.")
        self.moved.setVisible(why is not None)
        making = self.job.job.making
        self.usual.setVisible(making is not None and bool(making.moved))

    def _note(self, step: StepTold) -> str:
        changed = self.job.plan.changed.get(step.key)
        if changed:
            says = "; ".join(changed.values())
            return f"{begun(says)}. Cut it again, or put the size back."
        passes = self.job.plan.passes
        if not step.fit or step.fit != self.job.job.cutting or step.hold or not passes:
            return step.note
        dial = self.job.dial
        touch = self.job.touch
        planned = ", ".join(
            dial.text(dial.shows(advice.dial, touch)) for advice in passes
        )
        return f"{step.note} Passes to come, on the dial: {planned}."

    def _sizes(self, step: StepTold) -> tuple[str, ...]:
        """Those sizes of a step that can be cut by the dial of a slide."""
        return self.job.sizes_at_dial(step) if self.job.lathe else ()

    def _dial_words(self, key: str) -> str:
        return f"By the dial: {key.partition('.')[2].replace('_', ' ')}"

    # -- doing -----------------------------------------------------------

    def _to_the_dial(self, n: int) -> None:
        """Cut a size of the step at hand by the dial; n: of which button."""
        _, step = self._step()
        self.job.cut_size(self._sizes(step)[n])
        self.bench.go("cut", 0)

    def step_here(self) -> StepTold | None:
        return self._step()[1] if self.job.plan.route else None

    def _forget(self) -> None:
        _, step = self._step()
        self.job.forget(self.job.lessons(step)[0])

    def choose(self, key: str) -> None:
        """Bring a step into view."""
        self.at = key
        self._wanted = None
        self._adding = ""
        self._show_step()
        self._reveal()

    def _next_left(self) -> StepTold | None:
        """The first step after the chosen one, else of all, that is not done."""
        return self.job.next_step(self.at) or self.job.next_step("")

    def _onward(self) -> str:
        left = self._next_left()
        if left is None:
            return "On to Proof"
        return f"On to step {list(self.frames).index(left.key) + 1}"

    def _tick_or_go_on(self) -> None:
        """Tick the chosen step off, or, where that is done, go to what is left."""
        if self.at not in self.job.job.done:
            self._toggle()
        elif left := self._next_left():
            self.choose(left.key)
        else:
            self.bench.go("proof", 0)

    def _toggle(self) -> None:
        ticked = self.at in self.job.job.done
        at = self.at
        order = list(self.frames)
        if not ticked:
            self.at = order[min(order.index(at) + 1, len(order) - 1)]
        try:
            self.job.mark_step(at, not ticked)
        except BadInput as error:
            self.at = at
            self._show_step()
            self.note.setText(error.message)
            self.note.show()
            set_ink(self.note, "stop")
            return
        self._reveal()

    def _move(self, later: bool, because: str = "") -> None:
        self._wanted = None
        try:
            self.job.move_step(self.at, later, because)
        except BadInput as error:
            if error.key == "because":
                self._wanted = later
            self._show_step()
            self._speak_against(error)
            return
        self._reveal()
        self.frames[self.at].setFocus()

    def _speak_against(self, error: BadInput) -> None:
        """Says what speaks against a step's place, and asks for a reason where one
        would do."""
        self.note.setText(error.message)
        self.note.show()
        set_ink(self.note, "stop")
        if error.key == "because":
            self.because.show()
            self.because.clear()
            self.because.edit.setFocus()
            bring_into_view(self.because)

    def _move_because(self, typed: str) -> None:
        if self._adding:
            self._add(self.added.text(), typed)
        elif self._wanted is not None:
            self._move(self._wanted, typed)

    def added_menu(self) -> QMenu:
        """The kinds of step that can be added after the chosen one."""
        menu = QMenu(self)
        for operation, kind in KINDS.items():
            act = functools.partial(self._say_step, operation)
            menu.addAction(f"{kind.words}…", act)
        return menu

    def _ask_step(self) -> None:
        self.added_menu().popup(self.add.mapToGlobal(self.add.rect().topLeft()))

    def _say_step(self, operation: str) -> None:
        """Ask what is done in a step that is added, its usual words there already."""
        self._adding, self._wanted = operation, None
        self.added.put(KINDS[operation].words if operation != OTHER else "")
        self._show_step()
        self.because.hide()
        self.added.edit.setFocus()
        self.added.edit.selectAll()
        bring_into_view(self.added)

    def _add(self, title: str, because: str = "") -> None:
        try:
            key = self.job.add_step(self.at, self._adding, title, because)
        except BadInput as error:
            if error.key == "because":
                self._speak_against(error)
            else:
                self.added.refuse(error.message)
            return
        self.choose(key)

    def _take_out(self) -> None:
        at, order = self.at, list(self.frames)
        self.at = order[max(order.index(at) - 1, 0)]
        self.job.drop_step(at)

    def _put_back(self) -> None:
        self._wanted = None
        self.job.as_planned()
        self._reveal()

    def ask_sheet(self) -> None:
        """Ask where the route shall be written, and write it."""
        path, _ = QFileDialog.getSaveFileName(
            self, "Route sheet", f"{self.job.job.id}-route.pdf", "*.pdf"
        )
        if path:
            self.print_sheet(Path(path))

    def print_sheet(self, path: Path) -> None:
        """The route on paper, with boxes to tick at the machine."""
        try:
            write_route(self.job, path)
        except MachinonError as error:
            self.warning.setText(str(error))
            self.warning.show()
        else:
            self.note.setText(f"Written: {path}")
            set_ink(self.note, "")
            self.note.show()

    def _go_there(self) -> None:
        _, step = self._step()
        lines = self.job.way_of(step) == "lines"
        self.bench.go(self.job.to_step(step), 0 if lines else step.fit)

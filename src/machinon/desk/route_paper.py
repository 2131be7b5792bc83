"""The route on paper, to hang at the machine: the drawing, then every step with its
picture, its figures, and boxes to tick and to write in.
"""

from collections.abc import Iterator
from pathlib import Path

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter, QPen

from machinon.core.cutting.speeds import feed_text, speed_text
from machinon.core.errors import MachinonError
from machinon.core.job.fit_sheet import fit_lines
from machinon.core.route.duration import minutes_of
from machinon.core.route.effort import effort
from machinon.core.route.steps import HoldingTold, StepTold
from machinon.core.route.work.lines import CARRIAGE, WorkLine
from machinon.core.wording import begun
from machinon.desk.open_job import OpenJob
from machinon.desk.painter import paint_mark
from machinon.desk.paper_parts import Part, drawn, gap, rule, words, write_parts
from machinon.desk.sheet import A4_UPRIGHT, CAUTION, put, say
from machinon.desk.theme import PRINT, Role, font
from machinon.draw.body_film import body_film
from machinon.draw.drawing import Mark
from machinon.draw.large_figures import shown_text
from machinon.draw.piece_sheet import piece_sheet
from machinon.draw.stack_drawing import stack_drawing

# in the page's own units: the drawing, the stack and their letters, a step's picture,
# where its words begin, and a box to tick
DRAWING, STACK, LETTERS = 320.0, 96.0, 9.0
PICTURE_WIDE, PICTURE_TALL, WORDS, BOX = 96.0, 78.0, 136.0, 13.0
READS, READ_WIDE = 4, 84.0  # boxes for what a size at the dial measured


def write_route(job: OpenJob, path: Path) -> None:
    """Every step of a job's piece as PDF. Raises MachinonError where there is no route
    yet or it cannot be written."""
    plan = job.plan
    if not plan.route or plan.made is None:
        raise MachinonError("There is no route yet: finish Piece first.")
    lasting = effort(plan.made, plan.route).says
    says = f"{plan.shop.name}   {lasting}"
    foot = [f"{CAUTION} Machinon"]
    write_parts(path, f"{plan.job.name}: route", says, foot, list(_parts(job)))


def _parts(job: OpenJob) -> Iterator[Part]:
    """The drawing, the set-up that the piece belongs to, then holding by holding."""
    plan = job.plan
    made, wide = plan.made, A4_UPRIGHT[0]
    assert made is not None
    first = job.shop.first_angle
    yield drawn(
        piece_sheet(made, wide, DRAWING, LETTERS, job.inch, True, first_angle=first)
    )
    if plan.stack:
        yield drawn(stack_drawing(plan, wide, STACK, LETTERS))
    if plan.grave:
        yield words(f"Cut nothing yet: {plan.grave[0].says}", 12, "stop", True)
    for line in job.own_hardware():
        yield words(f"To have at hand: {line}", 10.5, "text")
    number = 0
    for up in plan.route:
        yield from _holding(job, up)
        for step in up.steps:
            number += 1
            yield from _step(job, step, number)


def _holding(job: OpenJob, up: HoldingTold) -> Iterator[Part]:
    own = job.machines(up.machine)
    on = f", {own[0].name}" if own else ""

    yield gap(6, leads=True)
    yield rule(1.4)
    yield words(f"{up.title}{on}", 14, "text", True, leads=True)
    if up.reason:
        yield words(up.reason, 10.5, "faint", leads=True)
    yield gap(6, leads=True)


def _step(job: OpenJob, step: StepTold, number: int) -> Iterator[Part]:
    """A step: its picture beside its words and first lines, then the other lines."""
    done = step.key in job.job.done
    film = body_film(step, PICTURE_WIDE, PICTURE_TALL, 8.0)
    beside = [words(*text, x=WORDS) for text in _said_of(job, step, number)]
    if job.way_of(step) in ("fit", "size"):
        beside.append(Part(34, _to_read))
    lines = [] if done else _listed(job, step)
    while lines and sum(part.tall for part in beside) < PICTURE_TALL:
        beside.append(lines.pop(0))

    def draw(painter: QPainter, top: float) -> None:
        _box(painter, 0, top + 2, done)
        put(painter, film, top, BOX + 12)
        for part in beside:
            part.paint(painter, top)
            top += part.tall

    tall = max(sum(part.tall for part in beside), PICTURE_TALL)
    yield Part(tall + 8 * (not lines), draw, leads=bool(lines))
    yield from lines
    if lines:
        yield gap(8)


def _said_of(
    job: OpenJob, step: StepTold, number: int
) -> Iterator[tuple[str, float, Role, bool]]:
    """The paragraph of a step: its title, how it is done, its limits, its cautions."""
    yield f"{number}  {step.title}", 12.5, "text", True
    how = [step.tool]
    if step.speed is not None:
        how += [speed_text(step.speed), feed_text(step.speed, job.inch)]
    how += [job.own_tool(step).says, f"about {max(round(minutes_of(step)), 1)} min"]
    yield ", ".join(filter(None, how)), 10.5, "faint", False
    for limits in _limits(job, step):
        yield begun(limits), 11.5, "text", True
    for text, ink in ((step.note, "text"), (job.cautions(step), "stop")):
        if text:
            yield text, 10.5, ink, False


def _limits(job: OpenJob, step: StepTold) -> list[str]:
    """The limits that the fit of a step sets; a thread has those of its bore as well,
    for the step before it."""
    line = next((line for line in fit_lines(job.plan) if line.number == step.fit), None)
    fit = job.plan.fit(step.fit) if line else None
    if line is None or fit is None:
        return []
    wanted = line.to_make
    if fit.thread is not None and len(wanted) > 1:
        threads = step.operation in ("thread", "tap")
        wanted = wanted[:1] if threads else wanted[1:]
    return [piece.says for piece in wanted]


def _to_read(painter: QPainter, top: float) -> None:
    """Boxes for what was measured."""
    say(painter, WORDS, top + 19, "reads", 10, "faint")
    painter.setPen(QPen(PRINT.ink("outline"), 0.8))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    for n in range(READS):
        x = WORDS + 44 + n * (READ_WIDE + 8)
        painter.drawRect(QRectF(x, top + 4, READ_WIDE, 22))


def _listed(job: OpenJob, step: StepTold) -> list[Part]:
    """The lines of a step, those without a note two abreast where they are short; what
    is said of one is not said again of the next like it."""
    lines = job.lines_of(step).lines
    if len(lines) == 1 and not lines[0].figures:
        return []  # it only says its step again
    done = job.job.work.ticked.get(step.key, ())
    room = A4_UPRIGHT[0] - WORDS
    metrics = QFontMetricsF(font(10.5))
    parts: list[Part] = []
    run: list[tuple[str, bool]] = []  # lines without a note, not yet laid out

    def lay_out() -> None:
        longest = max((metrics.horizontalAdvance(text) for text, _ in run), default=0)
        across = 2 if len(run) > 3 and longest < room / 2 - 30 else 1
        down = -(-len(run) // across)  # the first half stands left
        parts.extend(_row(run[n::down], "", room / across) for n in range(down))
        run.clear()

    before: WorkLine | None = None
    for line in lines:
        text = _line_said(line, before, job.inch), line.key in done
        if line.note and (before is None or line.note != before.note):
            lay_out()
            parts.append(_row([text], line.note, room))
        else:
            run.append(text)
        before = line
    lay_out()
    return parts


def _row(texts: list[tuple[str, bool]], note: str, room: float) -> Part:
    """Lines abreast, each with its box; under it what is to be minded."""
    said = [
        words(text, 10.5, "text", x=WORDS + 20 + n * room, room=room - 24)
        for n, (text, _) in enumerate(texts)
    ]
    under = words(note, 10, "faint", x=WORDS + 20, room=room - 24) if note else None
    tall = max(part.tall for part in said)

    def draw(painter: QPainter, top: float) -> None:
        for n, part in enumerate(said):
            _box(painter, WORDS + n * room, top + 1, texts[n][1])
            part.paint(painter, top)
        if under is not None:
            under.paint(painter, top + tall)

    return Part(tall + (under.tall if under else 0.0), draw)


def _line_said(line: WorkLine, before: WorkLine | None, inch: bool) -> str:
    """A line with its figures: `Pass 3: compound to 0.86 mm`; a carriage stop that
    stays where it is, is said once."""
    same = before.figures if before is not None else ()
    figures = (
        " ".join((shown.name, *filter(None, shown_text(shown, inch))))
        for shown in line.figures
        if shown.name != CARRIAGE or shown not in same
    )
    text = ", ".join(figures)
    return f"{line.head}: {text}" if text else line.head


def _box(painter: QPainter, x: float, top: float, done: bool) -> None:
    """A box to tick; ticked where it is done already."""
    if done:
        paint_mark(painter, Mark((x + BOX / 2, top + BOX / 2), "proved", BOX), PRINT)
        return
    painter.setPen(QPen(PRINT.ink("outline"), 1.0))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(QRectF(x, top, BOX, BOX))

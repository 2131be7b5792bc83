"""The fits of a job on paper: each with its gauge picture, readings and band."""

from collections.abc import Iterator
from pathlib import Path

from machinon.core.errors import MachinonError
from machinon.core.job.fit_plan import FitPlan
from machinon.core.job.fit_sheet import FitLine, fit_lines, fit_readings
from machinon.core.job.plan import Plan
from machinon.desk.paper_parts import (
    Part,
    abreast,
    column,
    drawn,
    gap,
    rule,
    words,
    write_parts,
)
from machinon.desk.sheet import A4_UPRIGHT, DOUBT
from machinon.draw.gauge_drawing import gauge_drawing
from machinon.draw.stack_drawing import stack_drawing
from machinon.store.lists import export_fits

# page units: the stack, a gauge picture, and where the words beside it begin
STACK, GAUGE_WIDE, GAUGE_TALL, BESIDE = 94.0, 302.0, 162.0, 316.0


def write_fit_sheet(plan: Plan, path: Path) -> None:
    """The set-up of a job, and every fit in it: mate, readings, what is wanted, the
    band and its gauge.

    The file's ending chooses .pdf or .csv. Raises MachinonError where there is no
    fit yet or it cannot be written.
    """
    if not plan.fits:
        raise MachinonError("There is no fit yet: add one in Fits first.")
    if path.suffix.lower() == ".csv":
        export_fits(plan, path)
        return
    says = f"{plan.shop.name}   {plan.job.reason}"
    parts = list(_parts(plan))
    write_parts(path, f"{plan.job.name}: fits", says, (DOUBT,), parts)


def _parts(plan: Plan) -> Iterator[Part]:
    if plan.stack:
        yield drawn(stack_drawing(plan, A4_UPRIGHT[0], STACK, 9.0))
    for fit, line in zip(plan.fits, fit_lines(plan), strict=True):
        yield rule(below=6)
        yield _fit(plan, fit, line)
        yield gap(8)


def _fit(plan: Plan, fit: FitPlan, line: FitLine) -> Part:
    """A fit: its name and gauge picture, and beside them all that is known of it."""
    taken = fit_readings(plan, fit)
    gauge = gauge_drawing(fit, taken, GAUGE_WIDE, GAUGE_TALL, 9.0, plan.shop.inch)
    name = words(f"{line.number}   {line.name}", 14, bold=True, room=GAUGE_WIDE)
    told = (
        ("Mate", line.mate, False),
        ("Read", "; ".join(line.readings) or "nothing yet", False),
        ("Size", line.measured, False),
        ("Wanted", line.wanted, False),
        *(("To make", piece.says, True) for piece in line.to_make),
        ("Follows", "; ".join(line.follows), False),
        ("Reason", line.reason, False),
        ("Note", line.says, False),
    )
    rows = [
        abreast(
            words(title, 10, "faint", x=BESIDE),
            words(text, 11, bold=bold, x=BESIDE + 54),
        )
        for title, text, bold in told
        if text
    ]
    return abreast(column([name, gap(4), drawn(gauge)]), column(rows))

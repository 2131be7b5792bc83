"""Everything that a stage of a job needs from the desk around it."""

import functools
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from machinon.core.job.job import Stage
from machinon.core.job.made_piece import by_mate
from machinon.core.reckoning import Answer
from machinon.core.route.steps import StepTold
from machinon.desk.name_dialog import ask_name
from machinon.desk.narrow import Roomy
from machinon.desk.open_job import OpenJob
from machinon.desk.widgets import Look, WayOn

TELLS: Mapping[Stage, str] = {
    "survey": "Measure it in Survey",
    "fits": "Decide it in Fits",
    "piece": "Type it in Piece",
}
LEAST_STAGE = 430  # px at 100 %: what a stage needs to show all it has


@dataclass(slots=True)
class Bench:
    """The open job, the look, and the ways to somewhere else."""

    look: Look
    job: OpenJob
    open_working: Callable[[Answer], None]  # shows an answer's working
    # to a stage, and in Fits to a fit by number (0: as it was left)
    go: Callable[[Stage, int], None]
    reckon: Callable[[str, Mapping[str, Any]], None]  # opens a reckoning with inputs

    def still_wanted(self) -> tuple[str, list[WayOn]]:
        """The unknown sizes of the mates, a line each, and the ways to tell them."""
        missing = self.job.plan.missing
        lines = [f"{mate.called}: {words}" for mate, words in by_mate(missing)]
        ways: list[WayOn] = [
            (words, functools.partial(self.go, stage, 0))
            for stage, words in TELLS.items()
            if stage in {wanted.stage for wanted in missing}
        ]
        return "\n".join(lines), ways


class StageView(Roomy):
    """One stage of the open job; `refresh` shows the plan as it now is."""

    at: Any = None  # what is chosen in it, if anything is

    def __init__(self, bench: Bench) -> None:
        super().__init__()
        self.bench = bench
        self.job = bench.job
        self.look = bench.look
        # below this the stage scrolls rather than squeezing its texts
        self.setMinimumHeight(bench.look.px(LEAST_STAGE))

    def refresh(self) -> None:
        raise NotImplementedError

    def begin(self) -> None:
        """Put the keyboard where the next thing is typed or chosen."""

    def step_here(self) -> StepTold | None:
        """The step of the route that it speaks of; None where it speaks of none."""
        return None

    def ask_lesson(self) -> None:
        """Ask what went wrong at that step, so that it comes back there."""
        step = self.step_here()
        if step is not None:
            title = f"What went wrong at “{step.title}”, and what to do instead"
            take = functools.partial(self.job.learn, step.key)
            ask_name(self, self.look, title, "", take)

    def show_fit(self, number: int) -> None:
        """Bring a fit into view, where the stage shows fits."""

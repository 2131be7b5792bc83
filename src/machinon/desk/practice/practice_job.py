"""A job of practice: its acts drive the simulated lathe."""

from collections.abc import Callable
from pathlib import Path

from machinon.core.practice.record import Record
from machinon.core.practice.sneak_up import Coached, SneakUp
from machinon.desk.open_job import OpenJob
from machinon.store.opening import open_shop
from machinon.store.shop_file import ShopFile, local_time


def practice_shop(exercise: SneakUp, folder: Path) -> ShopFile:
    """A throw-away shop with the exercise's job in it and nothing else."""
    path = folder / "practice.machinon"
    path.unlink(missing_ok=True)
    file = open_shop(path, durable=False)
    with file.together():
        file.act("shop", "Practice begins.", exercise.shop)
        job = exercise.job
        file.act(job.id, job.name, exercise.machine, exercise.mate, job)
    return file


class PracticeJob(OpenJob):
    """The job of an exercise. heard: what the last pass sounded like; gauge: what the
    gauge shows, None until it is picked up after a cut."""

    def __init__(
        self,
        file: ShopFile,
        exercise: SneakUp,
        coached: Coached,
        clock: Callable[[], str] = local_time,
    ) -> None:
        self.exercise, self.coached = exercise, coached
        self.heard = ""
        self.gauge: float | None = None
        super().__init__(file, exercise.job.id, clock)

    def cut_made(self, shown: str = "") -> None:
        """The pass is taken on the simulated lathe as well."""
        super().cut_made(shown)
        entry = self.job.log.entries[-1]
        self.heard = self.exercise.obey(entry.dial, bool(entry.spring))
        self.gauge = None
        self.changed()

    def measure(self) -> float:
        """Pick the gauge up: what it shows."""
        self.gauge = self.exercise.read()
        return self.gauge

    def wait(self) -> None:
        """Five minutes go by."""
        self.exercise.wait()
        self.heard = "It has cooled for five minutes."
        self.gauge = None
        self.changed()

    def try_it_on(self) -> None:
        """Try the mate: it goes on as the true sizes let it."""
        self.answer_trial(self.exercise.mate_goes)

    def undo(self) -> str:
        """Metal does not come back."""
        return ""

    def record(self) -> Record:
        """The result as it is remembered."""
        from machinon.core.practice.playing import ended

        sneak_up, outcome = self.exercise, ended(self.exercise)
        return Record(
            sneak_up.kind,
            sneak_up.level,
            sneak_up.seed,
            self.coached,
            outcome.inside,
            outcome.past,
            outcome.stops,
            self._clock()[:10],
        )

"""Changes of the drawing after the step that cuts them was done."""

from collections.abc import Iterable, Iterator, Mapping, Sequence

from machinon.core.job.job import Job, SizesCut, Work
from machinon.core.piece.family import Check
from machinon.core.piece.made import Known, Made
from machinon.core.quantity import text_of
from machinon.core.route.steps import HoldingTold, StepTold

ALIKE = 5e-4  # mm: closer than this a size is the same


def sizes_cut(made: Made, step: StepTold) -> SizesCut:
    """The sizes of what a step cuts, as they are drawn now. What a band rules is left
    out: its line in the proof says how that came out."""
    return {
        key: known.value
        for key, known in made.sizes.items()
        if known.by not in ("fit", "chain")
        and known.size.drawn_at.partition(".")[0] in step.features
    }


def with_done(
    job: Job, made: Made | None, route: Sequence[HoldingTold], keys: Iterable[str]
) -> Job:
    """The job with these steps done, and what their sizes were then."""
    wanted = [key for key in dict.fromkeys(keys) if key not in job.done]
    steps = {step.key: step for up in route for step in up.steps}
    cut = {
        key: sizes_cut(made, steps[key])
        for key in wanted
        if made is not None and key in steps
    }
    return job.with_work(done=(*job.done, *wanted), done_as={**job.work.done_as, **cut})


def without_done(job: Job, key: str) -> Job:
    """The job with a step to do again."""
    return job.with_work(
        done=tuple(step for step in job.done if step != key),
        done_as={name: told for name, told in job.work.done_as.items() if name != key},
    )


def changed_since(
    made: Made, route: Sequence[HoldingTold], work: Work, inch: bool
) -> Mapping[str, Mapping[str, str]]:
    """By finished step, the sizes that were drawn otherwise when it was cut, each with
    the sentence for it."""
    found: dict[str, Mapping[str, str]] = {}
    for step in (step for up in route for step in up.steps):
        if step.key in work.done:
            says = dict(_changes(made, work.done_as.get(step.key, {}), inch))
            if says:
                found[step.key] = says
    return found


def _changes(made: Made, was: SizesCut, inch: bool) -> Iterator[tuple[str, str]]:
    for key, before in was.items():
        known = made.sizes.get(key)
        if known is None or _alike(before, known.value):
            continue
        yield (
            key,
            f"{known.size.words} was {_said(known, before, inch)} when it was cut, now "
            f"it is {_said(known, known.value, inch)}",
        )


def _alike(a: float | str | bool, b: float | str | bool) -> bool:
    if isinstance(a, str) or isinstance(b, str):
        return a == b
    return abs(float(a) - float(b)) < ALIKE


def _said(known: Known, value: float | str | bool, inch: bool) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, str):
        return value
    return text_of(value, known.size.kind, inch=inch)


def changed_checks(
    changed: Mapping[str, Mapping[str, str]], route: Sequence[HoldingTold]
) -> Iterator[Check]:
    """The same as checks, so that the drawing shows them at the feature."""
    for step in (step for up in route for step in up.steps):
        for says in changed.get(step.key, {}).values():
            yield Check(
                f"since-{step.key}",
                step.features[0],
                False,
                f"{step.title}: {says}. Cut it again, or put the size back.",
                grave=False,
            )

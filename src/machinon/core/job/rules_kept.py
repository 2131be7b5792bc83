"""Sizes stay as a job was last kept, whatever a later program's rules make of them.

A rule is part of the program and gets better with it; a piece that is half cut must not
change with it. So what the rules made is kept, with a mark of all that they made it of.
Where the same figures come to something else, the rule has changed, and the size stays
as if it had been typed.
"""

import hashlib
from collections.abc import Iterator, Mapping

from msgspec.structs import replace

from machinon.core.job.job import Job
from machinon.core.piece.made import Known, Made
from machinon.core.quantity import as_kept
from machinon.core.shop.making import Making

TOLD = ("fit", "chain", "link", "read", "typed")  # by what no rule decides


def with_rules_kept(job: Job, bodies: Mapping[str, Made | None]) -> Job:
    """The job with what its rules make of each piece that could be worked out."""
    works = []
    for work in job.works:
        made = bodies.get(work.key)
        if work.making is not None and made is not None:
            making = replace(work.making, ruled=_ruled(made), ruled_of=_mark(made))
            work = replace(work, making=making)
        works.append(work)
    return replace(job, works=tuple(works))


def as_last_kept(job: Job, bodies: Mapping[str, Made | None]) -> tuple[Job, list[str]]:
    """The job with every size as it was kept, and the words of those that the rules
    make otherwise now, of the same figures."""
    works, words = [], []
    for work in job.works:
        made = bodies.get(work.key)
        if work.making is not None and made is not None:
            stay = _changed(work.making, made)
            words += [made.sizes[key].size.words for key in stay]
            making = replace(work.making, sizes={**work.making.sizes, **stay})
            work = replace(work, making=making) if stay else work
        works.append(work)
    return (replace(job, works=tuple(works)) if words else job), words


def _changed(making: Making, made: Made) -> dict[str, str]:
    """Sizes that were otherwise when this was last kept, of the same figures."""
    if not making.ruled or making.ruled_of != _mark(made):
        return {}
    now = _ruled(made)
    return {key: was for key, was in making.ruled.items() if now.get(key, was) != was}


def _ruled(made: Made) -> dict[str, str]:
    """The sizes that a rule decides, as they would be typed."""
    return dict(_texts(made, told=False))


def _mark(made: Made) -> str:
    """A mark of all that the rules make sizes of."""
    family = made.family
    of = (
        (family.key, *family.names),
        (made.material, bool(made.values["inch"])),
        sorted(made.given.items()),
        sorted(_texts(made, told=True)),
    )
    return hashlib.sha256(repr(of).encode()).hexdigest()[:16]


def _texts(made: Made, told: bool) -> Iterator[tuple[str, str]]:
    for key, known in made.sizes.items():
        if (known.by in TOLD) is told:
            yield key, _text(known)


def _text(known: Known) -> str:
    value = known.value
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, str):
        return value
    return as_kept(value, known.size.kind)

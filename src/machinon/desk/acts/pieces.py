"""Acts on the pieces that a job makes: adding them, and which is made to which."""

import re
from collections.abc import Mapping

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import families, family_for, family_of
from machinon.core.job.job import MADE_HERE, Work
from machinon.core.job.made_here import (
    could_turn,
    turned,
    whole_stand_in,
    with_mates_proved,
)
from machinon.core.job.made_piece import mate_pieces, new_work
from machinon.core.job.other_mates import made_to, with_mates
from machinon.core.shop.making import Making
from machinon.core.shop.things import Piece
from machinon.core.wording import within
from machinon.desk.acts.job import JobAtHand
from machinon.desk.begin import chosen_mates, of_many, typed_of_mates


class PieceActs(JobAtHand):
    """Acts on the pieces that are made here."""

    def made_here(self) -> dict[str, Piece]:
        """The pieces that are made here, as mates, by id."""
        works = (work for work in self.job.works if work.making is not None)
        bodies = self.plan.bodies
        return {
            work.as_mate: whole_stand_in(work, bodies.get(work.key)) for work in works
        }

    def add_work(self, key: str, typed: Mapping[str, str]) -> Work:
        """One more piece to be made, of a family. typed: as for a new job, a mate also
        by what stands for a piece that is made here. Raises BadInput naming its entry.
        """
        if key not in families():
            raise BadInput("what", "Choose what is to be made.")
        family = family_of(key)
        mates, new = chosen_mates(self.file, family, typed, self.made_here())
        first = max((fit.number for fit in self.job.fits), default=0) + 1
        name = str(max(int(work.key) for work in self.job.works) + 1)
        making = Making(
            family.key, typed_of_mates(family, typed, self.inch), inch=self.inch
        )
        making = of_many(making, typed.get("count", ""))
        work, fits = new_work(name, making, mates, first)
        works = self.job.works
        if self.job.making is None and len(works) == 1 and not self.job.fits:
            works = ()  # the job was begun with nothing to make
        joining = [
            piece for id, piece in self._existing(mates) if id not in self.pieces
        ]
        job = replace(
            self.job,
            pieces=(*self.job.pieces, *(piece.id for piece in joining)),
            fits=(*self.job.fits, *fits),
            works=(*works, work),
            at=work.key,
        )
        self.pieces |= {piece.id: piece for piece in joining}
        self._keep(
            f"To be made besides: {family.name}.", *new, with_mates_proved(job, work)
        )
        return work

    def mates_here(self) -> dict[str, Piece]:
        """The pieces made here that the one spoken of could be made to, by id: none
        that is made to it."""
        work = self.job.work
        away = made_to(self.job) | {work.as_mate}
        return {id: piece for id, piece in self.made_here().items() if id not in away}

    def has_mates(self) -> bool:
        """Whether there are pieces that the one spoken of goes with."""
        making = self.job.making
        return making is not None and bool(mate_pieces(family_for(making)))

    def choose_mates(self, typed: Mapping[str, str]) -> None:
        """Other mates for the piece that is spoken of. typed: as for a new job. Raises
        BadInput naming its entry."""
        making = self.job.making
        assert making is not None
        family = family_for(making)
        mates, new = chosen_mates(self.file, family, typed, self.mates_here())
        now = {role: piece.id for role, piece in mates.items()}
        job = with_mates(self.job, mates, typed_of_mates(family, typed, self.inch))
        if job == self.job:
            return
        changed = [
            f"{mate.words}: {mates[mate.role].name if mate.role in now else 'none'}"
            for mate in family.mates
            if now.get(mate.role) != making.mates.get(mate.role)
        ]
        known = self.pieces | dict(self._existing(mates))
        self.pieces = {id: known[id] for id in job.pieces}
        says = f"Goes with {'; '.join(changed) or 'what it did'}."
        self._keep(says, *new, job)

    @staticmethod
    def _existing(mates: Mapping[str, Piece]) -> list[tuple[str, Piece]]:
        found = {piece.id: piece for piece in mates.values()}
        return [
            (id, piece) for id, piece in found.items() if not id.startswith(MADE_HERE)
        ]

    def drop_work(self, key: str) -> None:
        """Take a piece that was to be made out of the job again, with its fits.

        Raises BadInput on `work` for the last one, or while another is made to it.
        """
        work = next(work for work in self.job.works if work.key == key)
        others = tuple(work for work in self.job.works if work.key != key)
        if not others:
            raise BadInput("work", "A job makes something: this is its only piece.")
        resting = [
            family_for(other.making).name
            for other in others
            if other.making and work.as_mate in other.making.mates.values()
        ]
        on_it = any(fit.piece == work.as_mate for fit in self.job.fits)
        if resting or on_it:
            who = resting[0] if resting else "A fit"
            raise BadInput("work", f"{who} is made to it: remove that first.")
        own = set(work.fits.values())
        fits = tuple(fit for fit in self.job.fits if fit.number not in own)
        name = family_for(work.making).name if work.making else "What was made"
        self._keep(
            f"No longer made here: {name}.",
            replace(self.job, works=others, fits=fits, at=others[0].key),
        )

    # -- the parts of a free piece ----------------------------------------

    def add_part(self, key: str, after: str = "") -> str:
        """A feature more on a free piece, beside one of its parts; its name.

        Raises BadInput on `parts` where the piece can no longer be made with it.
        """
        making = self.job.making
        assert making is not None
        names = family_for(making).names
        number = 1
        while f"{key}{number}" in names:
            number += 1
        name = f"{key}{number}"
        at = names.index(after) + 1 if after in names else len(names)
        self._keep_parts(making, (*names[:at], name, *names[at:]), making.sizes, name)
        return name

    def drop_part(self, name: str) -> None:
        """A feature less. Raises BadInput on `parts` while something is linked to it,
        or where nothing would be left."""
        making = self.job.making
        assert making is not None
        named = re.compile(rf"\b{name}\.")
        sizes = {k: v for k, v in making.sizes.items() if not named.match(k)}
        linked = next((k for k, v in sizes.items() if named.search(v)), "")
        if linked:
            raise BadInput("parts", f"{linked} is linked to it: change that first.")
        names = tuple(taken for taken in family_for(making).names if taken != name)
        self._keep_parts(making, names, sizes, name)

    def _keep_parts(
        self, making: Making, names: tuple[str, ...], sizes: dict[str, str], name: str
    ) -> None:
        changed = replace(making, parts=names, sizes=sizes)
        family = family_for(making)
        words = f"{family.part(name).words.lower()}, {name}"
        verb = "added" if name in names else "taken out"
        job = self.job.with_work(making=changed)
        self._keep(f"{family.name}: {words}, {verb}.", job, size="parts")

    def can_turn(self, number: int) -> bool:
        """Whether the other half of a fit could be made first."""
        return could_turn(self.job, number)

    def turn_fit(self, number: int) -> None:
        """Make the other half of a fit first: what was cut to it is cut by itself, and
        it is cut to that."""
        self._keep(
            f"Fit {number}, {within(self.job.fit(number).name)}: the other half first.",
            turned(self.job, self.plan.bodies, number),
        )

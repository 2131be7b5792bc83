"""Acts of Piece: its sizes, what it has already, and what the shop has for it."""

import functools
from collections.abc import Iterator

from msgspec import Struct
from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.job.job import Job
from machinon.core.job.made_piece import (
    drawn_surface,
    ruled_by_fits,
    with_size,
)
from machinon.core.job.own_alike import own_alike
from machinon.core.job.rules_kept import as_last_kept
from machinon.core.job.since_cut import with_done
from machinon.core.piece.family import Value, spoken
from machinon.core.route.own_hardware import own_hardware
from machinon.core.route.own_stock import own_stock, sizes_of_rack
from machinon.core.route.own_tools import OwnTool, own_collet, own_tool
from machinon.core.route.steps import StepTold
from machinon.core.shop.belongings import Belongings
from machinon.core.shop.things import Piece
from machinon.core.wording import begun
from machinon.desk.acts.job import JobAtHand
from machinon.desk.begin import of_many


class Drawn(Struct, frozen=True):
    """The job as it was before an act: when that was, and what it did."""

    at: str
    says: str
    job: Job


class MakingActs(JobAtHand):
    """Acts of drawing the piece."""

    def set_size(self, key: str, typed: str) -> None:
        """A size of the piece as typed on the drawing. Raises BadInput on `key`."""
        making = self.job.making
        assert making is not None
        family = family_for(making)
        text = typed.strip()
        name, said = key, text or "follows its rule again"
        if key in family.mate_keys:
            mate = family.mate_keys[key]
            name = mate.words
            text = mate.kept(key, text, self.inch)
        elif key != "material":
            size = family.size(key)
            name = size.words
            if text and not text.startswith("="):
                value = size.read(text, self.inch)
                # as it is whatever the shop's unit will be
                if size.kind is quantity.LENGTH:
                    text = quantity.as_kept(float(value))
                elif size.is_listed:
                    text = str(value)
        changed = with_size(making, key, text)
        if changed == making:
            return
        job = self.job.with_work(making=changed)
        self._keep(f"{family.name}, {name}: {said}.", job, size=key)

    def set_count(self, typed: str) -> None:
        """How many alike are made. Raises BadInput on `count`."""
        making = self.job.making
        assert making is not None
        changed = of_many(making, typed)
        if changed == making:
            return
        job = self.job.with_work(making=changed)
        self._keep(f"{family_for(making).name}: {typed.strip()} alike.", job)

    def round_in(self, inch: bool) -> None:
        """The sizes that follow a rule come out round in inches, or in millimetres.

        Raises BadInput where the piece cannot be made so.
        """
        making = self.job.making
        assert making is not None
        if inch == making.inch:
            return
        job = self.job.with_work(making=replace(making, inch=inch))
        says = f"Its rules round in {'inches' if inch else 'millimetres'}."
        self._keep(f"{family_for(making).name}: {says}", job, size="rounds")

    def proves(self, key: str) -> bool:
        """Whether a size is measured in the proof."""
        return any(surface.id == f"size.{key}" for surface in self.job.proof.surfaces)

    def prove_size(self, key: str) -> None:
        """Measure a size of the drawing in the proof as well, or no longer.

        Raises BadInput on `key` for one that no gauge reads, that its fit proves, or
        that others are made to.
        """
        made, proof = self.plan.made, self.job.proof
        assert made is not None
        words = made.sizes[key].size.words
        surface = drawn_surface(made, key)
        if surface is None:
            raise BadInput(key, f"{words}: no gauge reads that.")
        if key in ruled_by_fits(made).values():
            raise BadInput(key, f"{words}: its fit proves it.")
        if not self.proves(key):
            surfaces = (*proof.surfaces, surface)
        elif any(fit.piece == self.job.work.as_mate for fit in self.job.fits):
            raise BadInput(key, f"{words}: another piece is made to it.")
        else:
            surfaces = tuple(kept for kept in proof.surfaces if kept.id != surface.id)
        said = "proved as well" if len(surfaces) > len(proof.surfaces) else "not proved"
        job = self.job.with_work(proof=replace(proof, surfaces=surfaces))
        self._keep(f"{made.family.name}, {words}: {said}.", job)

    def drawn_before(self) -> list[Drawn]:
        """Earlier drawings of the piece at hand, the newest first: each time that a
        decision of it changed."""
        found: list[Drawn] = []
        at, making, after = self.job.at, None, None
        for line, job in self.file.history(self.job.id):
            work = next((w for w in getattr(job, "works", ()) if w.key == at), None)
            if work is None or work.making is None:
                break  # before it was begun
            decided = work.making.decided
            if after is not None and decided != making:
                assert isinstance(job, Job)
                found.append(Drawn(after.at, after.says, job))
            making, after = decided, line
        return found

    def sizes_then(self, drawn: Drawn) -> dict[str, Value]:
        """The sizes of the piece at hand as it was drawn before, on the mates as they
        are now; empty where it could not be made."""
        job = replace(drawn.job, at=self.job.at)
        pieces = {id: piece for id, piece in self.pieces.items() if id in job.pieces}
        plan = self._planned(job, self.shop, pieces)
        as_then, stayed = as_last_kept(job, plan.bodies)
        if stayed:
            plan = self._planned(as_then, self.shop, pieces)
        made = plan.made
        return {} if made is None else {k: v.value for k, v in made.sizes.items()}

    def could_be_there(self, key: str) -> str:
        """The feature of a size that the piece may have already; empty for none."""
        made = self.plan.made
        assert made is not None
        name = made.sizes[key].size.drawn_at.partition(".")[0]
        cut = {
            feature for up in made.holdings for s in up.steps for feature in s.features
        }
        return name if name in cut else ""

    def mark_there(self, feature: str, there: bool) -> None:
        """Say that a feature is on the piece it is made from, so that no step cuts it;
        or that it is still to be cut."""
        making = self.job.making
        assert making is not None
        kept = tuple(name for name in making.there if name != feature)
        made = replace(making, there=(*kept, feature) if there else kept)
        said = "is there already" if there else "is to be cut"
        self._keep(f"{begun(spoken(feature))} {said}.",
                   self.job.with_work(making=made))  # fmt: skip

    def _with_done(self, *keys: str) -> Job:
        """The job with steps done to the sizes that are drawn now."""
        return with_done(self.job, self.plan.made, self.plan.route, keys)

    def own_tool(self, step: StepTold) -> OwnTool:
        """The tool of the shop's shelf for a step, with its advice."""
        return own_tool(step, self._tools, self.inch)

    def own_stock(self) -> str:
        """Stock of the shop's rack for the piece, a collet for its shank, and the
        features it should share with its other pieces."""
        made = self.plan.made
        if made is None:
            return ""
        said = (
            own_stock(made, self._stock, self.inch),
            own_collet(made, self._holding, self.inch),
            own_alike(made, self._others(), self.inch),
        )
        return " ".join(sentence for sentence in said if sentence)

    def rack_differs(self) -> bool:
        """Whether the stock that the rack has is drawn otherwise."""
        made = self.plan.made
        return made is not None and bool(sizes_of_rack(made, self._stock))

    def draw_from_rack(self) -> None:
        """The stock drawn as the rack has it."""
        made, making = self.plan.made, self.job.making
        assert made is not None
        assert making is not None
        for key, value in sizes_of_rack(made, self._stock).items():
            making = with_size(making, key, quantity.as_kept(value))
        job = self.job.with_work(making=making)
        self._keep(f"{made.family.name}: cut from what the rack has.", job)

    def own_hardware(self) -> tuple[str, ...]:
        """The bought parts of the piece, a line each, with those that are there."""
        made = self.plan.made
        if made is None:
            return ()
        return own_hardware(made, self._hardware, self.inch)

    # read once: they are asked for at every edit, and a job does not change them
    @functools.cached_property
    def _tools(self) -> Belongings | None:
        return self._shelf("tools")

    @functools.cached_property
    def _holding(self) -> Belongings | None:
        return self._shelf("holding")

    @functools.cached_property
    def _hardware(self) -> Belongings | None:
        return self._shelf("hardware")

    @functools.cached_property
    def _stock(self) -> Belongings | None:
        return self._shelf("stock")

    @functools.cached_property
    def _made_here(self) -> tuple[Piece, ...]:
        return tuple(piece for piece in self.file.all_of(Piece) if piece.making)

    def _others(self) -> Iterator[Piece]:
        """Other pieces made in the shop; read when asked for."""
        kept = self.job.work.kept_as
        yield from (piece for piece in self._made_here if piece.id != kept)

    def _shelf(self, id: str) -> Belongings | None:
        found = self.file.get(id)
        return found if isinstance(found, Belongings) else None

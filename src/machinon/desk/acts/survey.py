"""Acts of the Survey: pieces, surfaces, readings."""

from typing import Literal

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.job.as_it_is import to_be_read, with_old_piece
from machinon.core.job.job import Job
from machinon.core.job.made_piece import surface_of
from machinon.core.materials import material as material_named
from machinon.core.shop.entry import words
from machinon.core.shop.things import Piece, Surface
from machinon.core.sizes.likely import Likely
from machinon.core.survey.as_made import read_as_made
from machinon.core.survey.measuring import measure
from machinon.core.survey.surface_kinds import (
    beside,
    form_key,
    is_threaded,
    new_surfaces,
    surface_groups,
)
from machinon.core.survey.surface_sums import read_aid, sum_of, summed
from machinon.core.survey.thread_find import likely_threads
from machinon.core.wording import within
from machinon.desk.acts.job import JobAtHand
from machinon.store.documents import Document


class SurveyActs(JobAtHand):
    """Acts of measuring existing pieces."""

    def surface(self, piece_id: str, surface_id: str) -> Surface:
        found = self.pieces[piece_id].surface(surface_id)
        assert found is not None
        return found

    def add_reading(
        self,
        piece_id: str,
        surface_id: str,
        typed: str,
        instrument_id: str,
        temperature: str = "",
        place: str = "",
    ) -> None:
        """Take a typed reading.

        Raises BadInput on `reading`, `temperature`, `place`, or an aid's key.
        """
        piece, surface = self.pieces[piece_id], self.surface(piece_id, surface_id)
        reading = self._reading(typed, surface, instrument_id, temperature, place)
        made = replace(surface, readings=(*surface.readings, reading))
        self._keep(
            f"{piece.names(surface)}: {self._said(reading)}.",
            self._with(piece, made),
        )

    def _with(self, piece: Piece, made: Surface) -> Piece:
        """The piece with a surface as it was read; spans follow their hole.

        A span over holes was added with the hole in it: what is measured there
        is what stands in the span, now and when it is read again.
        """
        piece = piece.with_surface(made)
        if form_key(made) != "hole":
            return piece
        found = measure(made, self.shop, piece.material)
        for surface in piece.surfaces:
            own = sum_of(surface)
            beside_it = surface.id == beside(made, form_key(surface))
            if found and own and "hole" in own.aids and beside_it:
                aids = {**surface.aids, "hole": round(found.size, 4)}
                piece = piece.with_surface(replace(surface, aids=aids))
        return piece

    def take_as_made(self, piece_id: str, surface_id: str, typed: str) -> None:
        """Take a surface by its standard, as typed. Raises BadInput on `given`."""
        piece, surface = self.pieces[piece_id], self.surface(piece_id, surface_id)
        given = read_as_made(typed, surface, self.inch)
        if surface.given == given:
            return
        made = piece.with_surface(replace(surface, given=given))
        pitch = piece.surface(beside(surface, "thread-pitch"))
        if pitch is not None and is_threaded(surface):
            made = made.with_surface(replace(pitch, given=given))
        self._keep(
            f"{piece.names(surface)}: "
            + (f"taken as {given}, not read." if given else "to be read."),
            made,
        )

    def set_aid(self, piece_id: str, surface_id: str, key: str, typed: str) -> None:
        """Takes a size that stands in a surface's readings. Raises BadInput on
        `key`."""
        piece, surface = self.pieces[piece_id], self.surface(piece_id, surface_id)
        value = read_aid(surface, key, typed, self.inch)
        if surface.aids.get(key) == value:
            return
        made = replace(surface, aids={**surface.aids, key: value})
        for reading in surface.readings:
            if reading.struck:
                continue
            try:
                summed(made, reading.value)
            except BadInput as error:
                raise BadInput(
                    key, f"It does not go with the readings: {error.message}"
                ) from None
        self._keep(
            f"{piece.names(surface)}: {key} {value:g}.",
            piece.with_surface(made),
        )

    def likely(self, piece_id: str, surface_id: str) -> tuple[Likely, ...]:
        """The likely standard of a surface, a thread with its pitch."""
        found = self.plan.measured.get((piece_id, surface_id))
        if found is None or not found.count:
            return ()
        surface = self.surface(piece_id, surface_id)
        if not is_threaded(surface):
            return found.likely
        pitch = self.plan.measured.get((piece_id, beside(surface, "thread-pitch")))
        return likely_threads(
            found.size,
            surface.kind == "inside",
            pitch.size if pitch else None,
            found.uncertainty,
        )

    def add_surface(self, piece_id: str, key: str, name: str = "") -> str:
        """The surfaces of a group for a piece of the job; the first one's id."""
        piece = self.pieces[piece_id]
        added = new_surfaces(piece, key, name)
        for surface in added:
            piece = piece.with_surface(surface)
        names = ", ".join(within(surface.name) for surface in added)
        self._keep(f"{piece.name}: {names} to be measured.", piece)
        return added[0].id

    @property
    def old_sizes(self) -> list[str]:
        """The sizes that could be read on the piece that this one is made from."""
        made, making = self.plan.made, self.job.making
        if made is None or making is None:
            return []
        return to_be_read(made, making, self.plan.route)

    def measure_old_piece(self) -> tuple[str, str]:
        """Have what stays of the piece that this one is made from measured here, with a
        surface for each size; the piece's id and the first surface's."""
        made, making, keys = self.plan.made, self.job.making, self.old_sizes
        assert made is not None
        assert making is not None
        name = f"Old {within(made.family.name)}"
        old = self.pieces.get(making.old) or Piece(
            self.file.new_id(name), name, "other", made.material
        )
        making, old = with_old_piece(made, making, old, keys)
        job = self.job.with_work(making=making)
        if old.id not in job.pieces:
            job = replace(job, pieces=(*job.pieces, old.id))
        says = f"{old.name}: {len(keys)} surfaces to be measured."
        self._keep(says, job, old)
        return old.id, making.read_on[keys[0]]

    def _made_to(self, piece: Piece, surface: Surface) -> bool:
        """Whether a size of what is made comes from a surface."""
        making = self.job.making
        if making is None:
            return False
        family = family_for(making)
        return any(
            surface_of(piece, mate_size) == surface
            for mate in family.mates
            if making.mates.get(mate.role) == piece.id
            for mate_size in mate.sizes
        )

    def drop_surface(self, piece_id: str, surface_id: str) -> None:
        """Take a surface off a piece. Raises BadInput while something rests on it."""
        piece, surface = self.pieces[piece_id], self.surface(piece_id, surface_id)
        if any(
            (fit.piece, fit.surface) == (piece_id, surface_id) for fit in self.job.fits
        ):
            raise BadInput("surface", "A fit depends on it: remove that first.")
        if self._made_to(piece, surface):
            raise BadInput("surface", "A piece made here depends on it, so it stays.")
        kept = tuple(surface for surface in piece.surfaces if surface.id != surface_id)
        self._keep(
            f"{piece.name}: {within(surface.name)} dropped.",
            replace(piece, surfaces=kept),
            self._not_read_on(piece_id, surface_id),
        )

    def _not_read_on(self, piece: str, surface: str) -> Job:
        """The job without the sizes that a surface of an old piece tells."""
        works = []
        for work in self.job.works:
            making = work.making
            if making is not None and making.old == piece:
                kept = {k: v for k, v in making.read_on.items() if v != surface}
                work = replace(work, making=replace(making, read_on=kept))
            works.append(work)
        return replace(self.job, works=tuple(works))

    def rename_surface(self, piece_id: str, surface_id: str, name: str) -> None:
        """Raises BadInput on `name`."""
        piece, surface = self.pieces[piece_id], self.surface(piece_id, surface_id)
        text = words({"name": name}, "name", "what the surface is called", 60)
        self._keep(
            f"{piece.names(surface)} is now called {text}.",
            piece.with_surface(replace(surface, name=text)),
        )

    def rename_piece(self, piece_id: str, name: str) -> None:
        """Raises BadInput on `name`."""
        piece = self.pieces[piece_id]
        text = words({"name": name}, "name", "what the piece is")
        self._keep(f"{piece.name} is now called {text}.", replace(piece, name=text))

    def move_surface(self, piece_id: str, surface_id: str, to: str) -> None:
        """A surface with its readings goes to the piece it belongs to.

        What was added in one go with it goes along. Raises BadInput on `surface`
        while a fit rests on it, or the plate on its piece.
        """
        piece, surface = self.pieces[piece_id], self.surface(piece_id, surface_id)
        goal = self.pieces[to]
        ending = surface_id.removeprefix(form_key(surface))
        group = next(
            surface_group
            for surface_group in surface_groups().values()
            if form_key(surface) in {form.key for form in surface_group.forms}
        )
        together = {form.key + ending for form in group.forms}
        moved = [surface for surface in piece.surfaces if surface.id in together]
        ids = {surface.id for surface in moved}
        if any(fit.piece == piece_id and fit.surface in ids for fit in self.job.fits):
            raise BadInput("surface", "A fit depends on it: remove that first.")
        making = self.job.making
        measured_whole = making is not None and making.old == piece_id
        if self._made_to(piece, surface) or measured_whole:
            raise BadInput("surface", "A piece made here depends on it, so it stays.")
        new = new_surfaces(goal, group.key)
        for old, fresh in zip(moved, new, strict=False):
            goal = goal.with_surface(
                replace(old, id=form_key(old) + fresh.id.removeprefix(form_key(fresh)))
            )
        left = tuple(surface for surface in piece.surfaces if surface.id not in ids)
        names = ", ".join(within(surface.name) for surface in moved)
        self._keep(
            f"{piece.name}, {names}: moved to {goal.name}.",
            replace(piece, surfaces=left),
            goal,
        )

    def take_piece(self, piece_id: str) -> None:
        """A piece of the shop joins the job. Raises BadInput on `piece`."""
        piece = self.file.get(piece_id)
        if not isinstance(piece, Piece) or piece_id in self.pieces:
            raise BadInput("piece", "Choose a piece of the shop that is not here yet.")
        self._join(piece, f"{piece.name} joins the job.")

    def new_piece(self, name: str, material: str = "steel") -> Piece:
        """A piece that the shop did not know joins shop and job."""
        text = words({"name": name}, "name", "what the piece is")
        made = Piece(
            self.file.new_id(text), text, "other", material_named(material).name
        )
        self._join(made, f"{text} entered, and joins the job.", made)
        return made

    def _join(self, piece: Piece, says: str, *new: Document) -> None:
        self.pieces[piece.id] = piece
        job = replace(self.job, pieces=(*self.job.pieces, piece.id))
        self._keep(says, *new, job)

    def strike(self, piece_id: str, surface_id: str, index: int, why: str) -> None:
        """Let a reading count no more; it stays on record with the reason."""
        why = why.strip() or "struck by hand"
        self._mark_reading(piece_id, surface_id, index, "struck", why)

    def let_count(
        self, piece_id: str, surface_id: str, index: int, why: str = ""
    ) -> None:
        """A struck reading counts again, a doubted one is kept for good."""
        why = why.strip() or "looked at and kept"
        self._mark_reading(piece_id, surface_id, index, "counts", why)

    def _mark_reading(
        self,
        piece_id: str,
        surface_id: str,
        index: int,
        how: Literal["struck", "counts"],
        why: str,
    ) -> None:
        piece, surface = self.pieces[piece_id], self.surface(piece_id, surface_id)
        readings = list(surface.readings)
        struck = how == "struck"
        readings[index] = replace(
            readings[index], struck=why if struck else "", kept="" if struck else why
        )
        said = self._said(readings[index])
        word = f"struck: {why}" if struck else "counts"
        self._keep(
            f"{piece.names(surface)}: reading {index + 1} ({said}) {word}.",
            self._with(piece, replace(surface, readings=tuple(readings))),
        )

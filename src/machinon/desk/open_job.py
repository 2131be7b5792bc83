"""The open job: its documents, what follows from them, and every act on them.

Plain Python, no window: the views show `plan` and call the acts; each act is
on disk when it returns and leaves a line in the daybook.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal

from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.back_plate import PARAMETERS, with_size
from machinon.core.coach import CutEntry, Dial
from machinon.core.errors import BadInput
from machinon.core.fit import (
    FitChoice,
    Joint,
    about_play,
    characters,
    wanted_play,
)
from machinon.core.job import Job, Stage
from machinon.core.joints import form_of, is_inside, joint_forms, read_given, takes_fit
from machinon.core.likely import Likely
from machinon.core.materials import material as material_named
from machinon.core.measuring import read_place, read_typed
from machinon.core.plan import Plan, pitch_of, plan_of
from machinon.core.quantity import length_text, small_text
from machinon.core.screw_thread import thread_of
from machinon.core.shop import Instrument, Lathe, Piece, Reading, Shop, Surface
from machinon.core.shop_entry import KIND_WORDS, words
from machinon.core.surface_kinds import likely_joint, new_surfaces
from machinon.core.surface_sums import read_aid, summed
from machinon.core.thread_find import likely_threads
from machinon.core.thread_limits import thread_limits
from machinon.store.shop_file import Document, ShopFile, local_time


@dataclass(frozen=True, slots=True)
class Notes:
    """The line under the stages: open checks, the caution, the saved state."""

    open_checks: str
    caution: str
    saved: str
    grave: bool


class OpenJob:
    """One job with everything that belongs to it."""

    def __init__(
        self, file: ShopFile, job_id: str, clock: Callable[[], str] = local_time
    ) -> None:
        self.file = file
        self._clock = clock
        self.job: Job
        self.shop: Shop
        self.lathe: Lathe | None
        self.pieces: dict[str, Piece]
        self.plan: Plan
        self.changed: Callable[[], None] = lambda: None
        self.load(job_id)

    # -- the whole -------------------------------------------------------

    def load(self, job_id: str) -> None:
        """Read the job and its pieces from the shop file and work it out."""
        job = self.file.get(job_id)
        if not isinstance(job, Job):
            raise BadInput("job", "That job is not in this shop.")
        lathe = self.file.get(job.lathe) if job.lathe else None
        self.job = job
        self.shop = self.file.shop()
        self.lathe = lathe if isinstance(lathe, Lathe) else None
        found = {one: self.file.get(one) for one in job.pieces}
        self.pieces = {id: p for id, p in found.items() if isinstance(p, Piece)}
        self._work_out()

    def _work_out(self) -> None:
        self.plan = plan_of(self.job, self.shop, self.lathe, self.pieces)

    def _keep(self, says: str, *documents: Document) -> None:
        self.file.act(self.job.id, says, *documents)
        for document in documents:
            if isinstance(document, Job):
                self.job = document
            elif isinstance(document, Piece) and document.id in self.pieces:
                self.pieces[document.id] = document
            elif isinstance(document, Shop):
                self.shop = document
        self._work_out()
        self.changed()

    def undo(self) -> str:
        """Take back the last act on this job; says which."""
        says = self.file.undo(self.job.id)
        if says:
            self.load(self.job.id)
            self.changed()
        return says

    def redo(self) -> str:
        says = self.file.redo(self.job.id)
        if says:
            self.load(self.job.id)
            self.changed()
        return says

    @property
    def inch(self) -> bool:
        """Whether inches are shown first in this shop."""
        return self.shop.inch

    def notes(self, stage: Stage) -> Notes:
        """What the notes line says while a stage is open."""
        grave = self.plan.grave
        if grave:
            more = f" (and {len(grave) - 1} more)" if len(grave) > 1 else ""
            checks = f"{grave[0].says}{more}"
        else:
            todo = self.plan.open.get(stage, ())
            checks = todo[0] if todo else "Nothing open in this stage."
        return Notes(checks, _CAUTIONS[stage], "Every entry is on disk", bool(grave))

    # -- Survey ----------------------------------------------------------

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
            f"{surface.name} of {piece.name}: {self._said(reading)}.",
            piece.with_surface(made),
        )

    def _reading(
        self,
        typed: str,
        surface: Surface,
        instrument_id: str,
        temperature: str,
        place: str = "",
    ) -> Reading:
        instrument = self.shop.instrument(instrument_id)
        if surface.kind not in instrument.suits:
            raise BadInput(
                "reading",
                f"The {instrument.name} does not measure {KIND_WORDS[surface.kind]}: "
                "choose one that does.",
            )
        at = read_place(place, surface, instrument.inch)
        value = read_typed(typed, surface, instrument.inch)
        if not instrument.reaches(value):
            reach = " to ".join(
                length_text(end, 0.1, instrument.inch)
                for end in (instrument.least, instrument.most)
            )
            raise BadInput(
                "reading",
                f"The {instrument.name} measures {reach}: choose one that reaches.",
            )
        warm = None
        if temperature.strip():
            warm = quantity.parse(
                temperature, quantity.TEMPERATURE, key="temperature", low=-30, high=200
            )
        return Reading(value, instrument.id, typed.strip(), at, warm, self._clock())

    def _said(self, reading: Reading) -> str:
        instrument = self.shop.instrument(reading.instrument)
        text = length_text(reading.value, instrument.resolution, instrument.inch)
        return f"{text} by {instrument.name}"

    def set_aid(self, piece_id: str, surface_id: str, key: str, typed: str) -> None:
        """What stands in a surface's readings, as typed. Raises BadInput on `key`."""
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
            f"{surface.name} of {piece.name}: {key} {value:g}.",
            piece.with_surface(made),
        )

    def likely(self, piece_id: str, surface_id: str) -> tuple[Likely, ...]:
        """What a surface was most likely made as, a thread with its pitch."""
        found = self.plan.measured.get((piece_id, surface_id))
        if found is None:
            return ()
        if not surface_id.startswith(("thread-major", "thread-minor")):
            return found.likely
        pitch = self.plan.measured.get((piece_id, pitch_of(surface_id)))
        inside = surface_id.startswith("thread-minor")
        return likely_threads(
            found.size, inside, pitch.size if pitch else None, found.uncertainty
        )

    def add_surface(self, piece_id: str, key: str, name: str = "") -> str:
        """The surfaces of a group for a piece of the job; the first one's id."""
        piece = self.pieces[piece_id]
        added = new_surfaces(piece, key, name)
        for surface in added:
            piece = piece.with_surface(surface)
        names = ", ".join(one.name.lower() for one in added)
        self._keep(f"{piece.name}: {names} to be measured.", piece)
        return added[0].id

    def drop_surface(self, piece_id: str, surface_id: str) -> None:
        """Take a surface off a piece. Raises BadInput while something rests on it."""
        piece, surface = self.pieces[piece_id], self.surface(piece_id, surface_id)
        if any(
            (one.piece, one.surface) == (piece_id, surface_id) for one in self.job.fits
        ):
            raise BadInput("surface", "A fit rests on it: drop that first.")
        if self.job.plate is not None and piece.role in ("nose", "chuck"):
            raise BadInput("surface", "The plate rests on this piece: it stays whole.")
        kept = tuple(one for one in piece.surfaces if one.id != surface_id)
        self._keep(
            f"{piece.name}: {surface.name.lower()} dropped.",
            replace(piece, surfaces=kept),
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

    def add_fit(self, piece_id: str, surface_id: str) -> int:
        """A fit on a measured surface, by what it is most likely for; its number.

        Raises BadInput on `surface` for one that nothing can go into or over.
        """
        piece, surface = self.pieces[piece_id], self.surface(piece_id, surface_id)
        if not takes_fit(surface):
            raise BadInput(
                "surface",
                f"{surface.name} has no mate: choose a diameter, a slot or a tongue.",
            )
        number = max((one.number for one in self.job.fits), default=0) + 1
        threaded = surface.id.startswith("thread")
        form = joint_forms()["thread" if threaded else likely_joint(surface)]
        whole = form.key in ("thread", "bolts")  # named for all that is read of it
        words = f"{form.name if whole else surface.name} of {piece.name}"
        fit = FitChoice(
            number,
            words,
            form.kind,
            piece_id,
            surface_id,
            "hole" if is_inside(surface) else "shaft",
            want=form.usual,
            joint=form.key,
        )
        self._keep(
            f"Fit {number} added: {words}.",
            replace(self.job, fits=(*self.job.fits, fit)),
        )
        return number

    def plate_rests_on(self, number: int) -> bool:
        """Whether a fit is one of those that the job's plate is built on."""
        return self.job.plate is not None and number <= PLATE_FITS

    def drop_fit(self, number: int) -> None:
        """Take an added fit away; those that a plate rests on stay."""
        if self.plate_rests_on(number):
            raise BadInput("fit", "The plate rests on this fit: it stays.")
        fit = self.job.fit(number)
        kept = tuple(one for one in self.job.fits if one.number != number)
        self._keep(f"Fit {number} dropped: {fit.name}.", replace(self.job, fits=kept))

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
            f"{surface.name} of {piece.name}: reading {index + 1} ({said}) {word}.",
            piece.with_surface(replace(surface, readings=tuple(readings))),
        )

    # -- Fits ------------------------------------------------------------

    def choose_fit(self, number: int, want: str) -> None:
        """Decide a fit's character by key or code, a thread's by its class.

        Raises BadInput on `want`, or on `internal_class` or `external_class`.
        """
        choice = self.job.fit(number)
        want = want.strip()
        about = about_play(want)
        if about is not None and choice.kind in ("cylinder", "joined"):
            said = f"{want}, half as much more or less"
            made = replace(
                choice, want="own", clearance_min=about[0], clearance_max=about[1]
            )
            self._keep(
                f"Fit {number}, {choice.name.lower()}: {said}.", self.job.with_fit(made)
            )
            return
        if choice.kind in ("cylinder", "joined"):
            mate = self.plan.fit(number).mate
            wanted_play(want, mate.size if mate else 50.0, choice.exists)
        elif choice.kind == "thread" and want:
            thread = self.plan.fit(number).thread
            if thread is None:
                raise BadInput("want", "Which thread it is must be known first.")
            if choice.exists == "shaft":
                thread_limits(thread, internal_class=want)
            else:
                thread_limits(thread, external_class=want)
        words = characters()[want].words if want in characters() else want
        words = words or "usual class"
        self._keep(
            f"Fit {number}, {choice.name.lower()}: {words}.",
            self.job.with_fit(replace(choice, want=want)),
        )

    def set_joint(self, number: int, joint: Joint) -> None:
        """Say what a fit is for; it starts from that joint's usual word."""
        choice = self.job.fit(number)
        form = joint_forms()[joint]
        words = characters()[form.usual].words if form.usual in characters() else ""
        made = replace(choice, joint=joint, kind=form.kind, want=form.usual, given={})
        said = f"{form.name}, {words}" if words else form.name
        self._keep(
            f"Fit {number}, {choice.name.lower()}: {said}.", self.job.with_fit(made)
        )

    def give(self, number: int, key: str, typed: str) -> None:
        """What a fit's joint asks, as typed; empty takes it back.

        Raises BadInput on `key`.
        """
        choice = self.job.fit(number)
        form = form_of(choice)
        kept = read_given(form, key, typed, self.inch)
        if choice.given.get(key, "") == kept:
            return
        given = {k: v for k, v in choice.given.items() if k != key}
        if kept:
            given[key] = kept
        meaning = next(one.meaning for one in form.asks if one.key == key)
        self._keep(
            f"Fit {number}, {meaning}: {typed.strip() or 'not said'}.",
            self.job.with_fit(replace(choice, given=given)),
        )

    def own_play(self, number: int, least: str, most: str) -> None:
        """A fit by its least and most play as typed; negative is interference."""
        choice = self.job.fit(number)
        values = {}
        for key, typed in (("clearance_min", least), ("clearance_max", most)):
            values[key] = quantity.parse(typed, inch=self.inch, key=key, low=-5, high=5)
        if not values["clearance_min"] < values["clearance_max"]:
            raise BadInput(
                "clearance_max",
                "The most play must be more than the least "
                f"({small_text(values['clearance_min'], self.inch)}).",
            )
        said = " to ".join(small_text(v, self.inch) for v in values.values())
        self._keep(
            f"Fit {number}, {choice.name.lower()}: play {said}.",
            self.job.with_fit(replace(choice, want="own", **values)),
        )

    def name_thread(self, number: int, typed: str) -> None:
        """Say the thread instead of finding it; empty: find it from readings."""
        choice = self.job.fit(number)
        name = thread_of(typed, "thread").name if typed.strip() else ""
        self._keep(
            f"Fit {number}: thread {name or 'as the readings say'}.",
            self.job.with_fit(replace(choice, thread=name)),
        )

    def give_reason(self, number: int, reason: str) -> None:
        choice = self.job.fit(number)
        if reason.strip() == choice.reason:
            return
        self._keep(
            f"Fit {number}, why: {reason.strip()}",
            self.job.with_fit(replace(choice, reason=reason.strip())),
        )

    # -- Piece -----------------------------------------------------------

    def set_size(self, key: str, typed: str) -> None:
        """A size of the piece as typed on the drawing. Raises BadInput on `key`."""
        assert self.job.plate is not None
        plate = with_size(self.job.plate, key, typed, self.inch)
        if plate == self.job.plate:
            return
        name = PARAMETERS[key].name if key in PARAMETERS else key.replace("_", " ")
        value = getattr(plate, key)
        if value is None:
            said = "follows its fit again"
        elif isinstance(value, float):
            said = length_text(value, 0.001, self.inch)
        else:
            said = str(value)
        self._keep(f"Plate, {name}: {said}.", replace(self.job, plate=plate))

    # -- Route -----------------------------------------------------------

    def mark_step(self, key: str, done: bool) -> None:
        """Tick a step of the route, or untick it."""
        steps = {step.key: step for up in self.plan.route for step in up.steps}
        left = tuple(one for one in self.job.done if one != key)
        self._keep(
            f"Step {'done' if done else 'to do again'}: {steps[key].title}.",
            replace(self.job, done=(*left, key) if done else left),
        )

    # -- Cut -------------------------------------------------------------

    @property
    def dial(self) -> Dial:
        """The dial of the job's lathe."""
        assert self.lathe is not None
        return Dial(self.lathe.dial_reads, self.lathe.dial_division)

    def measure_start(self, typed: str) -> None:
        """The size before the first cut. Raises BadInput on `start`."""
        gauge = self.shop.instrument(self.job.cut.instrument)
        size = quantity.parse(typed, inch=gauge.inch, key="start", above=0, high=2000)
        state = self.plan.cut_state
        if state is not None and size < state.lower:
            raise BadInput(
                "start",
                f"{size:.3f} mm is already under the band: it must be above "
                f"{state.lower:.3f} mm before the first cut.",
            )
        self._keep(
            f"{length_text(size, gauge.resolution, gauge.inch)} before the first cut.",
            replace(self.job, cut=replace(self.job.cut, start=size, entries=())),
        )

    def touch_at(self, typed: str) -> None:
        """What the dial shows with the tool touching. Raises BadInput on `touch`."""
        at = quantity.parse(typed, key="touch", low=-500, high=500)
        self._keep(
            f"Touched at {at:.2f} on the dial.",
            replace(self.job, cut=replace(self.job.cut, touch=at)),
        )

    @property
    def touch(self) -> float:
        """What the dial showed at touch, as it reads; 0 before it was said."""
        return self.job.cut.touch or 0.0

    def cut_made(self, shown: str = "") -> None:
        """A pass was taken at the advised dial, or at the reading typed."""
        advice = self.plan.advice
        assert advice is not None
        cut = self.job.cut
        before = cut.entries[-1].dial if cut.entries else 0.0
        position = advice.dial
        if shown.strip():
            seen = quantity.parse(shown, inch=False, key="dial", low=-500, high=500)
            position = self.dial.position(seen, self.touch)
            if position < before - 1e-9:
                low = self.dial.shows(before, self.touch)
                raise BadInput(
                    "dial",
                    f"The dial stood at {low:.2f} already: {low:.2f} or more is "
                    "allowed. Take back the last entry if that was the mistake.",
                )
        spring = position <= before + 1e-9
        entry = CutEntry(
            round(position, 6), None, 1 if spring else 0, cut.instrument, self._clock()
        )
        seen = self.dial.shows(position, self.touch)
        self._keep(
            "Spring pass, dial not moved."
            if spring
            else f"Cut taken at {seen:.2f} on the dial.",
            replace(self.job, cut=replace(cut, entries=(*cut.entries, entry))),
        )

    def measured_cut(self, typed: str) -> None:
        """The reading after a cut, or one more of the same surface."""
        cut = self.job.cut
        gauge = self.shop.instrument(cut.instrument)
        size = quantity.parse(typed, inch=gauge.inch, key="reading", above=0, high=2000)
        before = next(
            (e.measured for e in reversed(cut.entries) if e.measured is not None),
            cut.start,
        )
        if before is not None and abs(size - before) > 10:
            raise BadInput(
                "reading",
                f"{size:.3f} mm is more than 10 mm from the last reading "
                f"({before:.3f} mm): a digit slipped? Type it again.",
            )
        entries = list(cut.entries)
        if entries and entries[-1].measured is None:
            entries[-1] = replace(entries[-1], measured=size, instrument=cut.instrument)
        elif entries:
            entries.append(
                CutEntry(entries[-1].dial, size, 0, cut.instrument, self._clock())
            )
        else:
            self._keep(
                f"Measured again before the first cut: {size:.3f} mm.",
                replace(self.job, cut=replace(cut, start=size)),
            )
            return
        self._keep(
            f"Measured {length_text(size, gauge.resolution, gauge.inch)}.",
            replace(self.job, cut=replace(cut, entries=tuple(entries), trial="")),
        )

    def answer_trial(self, answer: Literal["goes on", "tight", "loose"]) -> None:
        """How the mate went on; going on finishes the step and its hold."""
        done = self.job.done
        if answer == "goes on":
            done = tuple(dict.fromkeys((*done, "spigot", "prove-spigot")))
        self._keep(
            f"Trial of the mate: {answer}.",
            replace(self.job, done=done, cut=replace(self.job.cut, trial=answer)),
        )

    def set_cutting(self, key: str, typed: str) -> None:
        """The coach's settings: instrument, school, deepest or least pass."""
        cut = self.job.cut
        if key == "instrument":
            made = replace(cut, instrument=self.shop.instrument(typed).id)
            said = f"measured with {self.shop.instrument(typed).name}"
        elif key == "school":
            made = replace(cut, school=typed)
            said = f"spring passes: {typed}"
        else:
            value = quantity.parse(typed, inch=self.inch, key=key, low=0.002, high=10)
            made = replace(cut, **{key: value})
            said = f"{key} pass {value:g} mm a side"
        if made != cut:
            self._keep(f"At the dial: {said}.", replace(self.job, cut=made))

    # -- Proof -----------------------------------------------------------

    def add_proof_reading(self, key: str, typed: str, instrument_id: str) -> None:
        """A reading of a surface as made. Raises BadInput on `reading`."""
        proof = self.job.proof
        surface = next(one for one in proof.surfaces if one.id == key)
        reading = self._reading(typed, surface, instrument_id, "")
        made = replace(surface, readings=(*surface.readings, reading))
        surfaces = tuple(made if one.id == key else one for one in proof.surfaces)
        self._keep(
            f"Proof, {surface.name.lower()}: {self._said(reading)}.",
            replace(self.job, proof=replace(proof, surfaces=surfaces)),
        )

    def drop_proof_readings(self, key: str) -> None:
        """Begin a surface's proof again; the daybook keeps what was read."""
        proof = self.job.proof
        surfaces = tuple(
            replace(one, readings=()) if one.id == key else one
            for one in proof.surfaces
        )
        self._keep(
            "Proof begun again: " + key.replace("_", " ") + ".",
            replace(self.job, proof=replace(proof, surfaces=surfaces)),
        )

    def set_runout(self, typed: str) -> None:
        """Indicator readings round the plate, typed one after the other.

        Separated by blanks or commas; bare numbers are mm (thou of an inch
        have their word). Raises BadInput on `runout`.
        """
        words = typed.replace(",", " ").replace(";", " ").split()
        values = []
        for word in words:
            values.append(
                quantity.parse(word, inch=self.inch, key="runout", low=-5, high=5)
            )
        if len(values) in (1, 2):
            raise BadInput(
                "runout",
                "Take at least 3 readings round the turn; 8 show an oval as well.",
            )
        self._keep(
            "Run-out round the plate: "
            + (", ".join(small_text(v, self.inch) for v in values) or "cleared")
            + ".",
            replace(self.job, proof=replace(self.job.proof, runout=tuple(values))),
        )

    def set_runout_limit(self, typed: str) -> None:
        value = quantity.parse(typed, inch=self.inch, key="limit", above=0, high=5)
        self._keep(
            f"Run-out allowed: {small_text(value, self.inch)}.",
            replace(self.job, proof=replace(self.job.proof, runout_limit=value)),
        )

    def set_thread_tried(self, tried: bool) -> None:
        self._keep(
            "Thread screwed home to the shoulder."
            if tried
            else "Thread to be tried again.",
            replace(self.job, proof=replace(self.job.proof, thread_tried=tried)),
        )

    def put_into_shop(self) -> Piece:
        """The proved plate becomes an existing piece with its readings."""
        if self.plan.verdict != "proved":
            raise BadInput("verdict", self.plan.verdict_says)
        plate = self.plan.plate
        assert plate is not None
        surfaces = tuple(s for s in self.job.proof.surfaces if s.readings)
        if not any(s.id == "spigot_diameter" for s in surfaces):
            last = self.job.cut.entries[-1]
            assert last.measured is not None
            surfaces = (
                *surfaces,
                Surface(
                    "spigot_diameter",
                    "Spigot",
                    "outside",
                    readings=(
                        Reading(
                            last.measured,
                            last.instrument or self.job.cut.instrument,
                            at=last.at,
                        ),
                    ),
                ),
            )
        piece = Piece(
            self.file.new_id(self.job.name),
            self.job.name,
            "plate",
            plate.material,
            surfaces,
            note=f"Made in this shop; thread {plate.thread_words}.",
        )
        self._keep(
            f"Proved and put into the shop: {piece.name}.",
            piece,
            replace(self.job, kept_as=piece.id),
        )
        return piece

    def gauges(self, surface: Surface) -> tuple[Instrument, ...]:
        """Instruments of the shop that can read a surface, surest first."""
        return self.shop.instruments_for(surface.kind)


PLATE_FITS = 4  # register, thread, spigot and bolts


class OpenPiece(OpenJob):
    """A piece of the shop that is measured by itself, for no job.

    Its acts belong to the shop, and are taken back there.
    """

    def load(self, job_id: str) -> None:
        """Read the piece from the shop file. Raises BadInput on `piece`."""
        piece = self.file.get(job_id)
        if not isinstance(piece, Piece):
            raise BadInput("piece", "That piece is not in this shop.")
        self.job = Job("shop", piece.name, pieces=(piece.id,))
        self.shop = self.file.shop()
        self.lathe = None
        self.pieces = {piece.id: piece}
        self._work_out()


_CAUTIONS: Mapping[Stage, str] = {
    "survey": "Spindle stopped and chuck key out before measuring.",
    "fits": "Edges and chips cut: wipe with a rag, never with the hand.",
    "piece": "Keep to the maker's speed limit of chuck and plate.",
    "route": "A threaded nose unwinds when braked or reversed.",
    "cut": "Stop the spindle before every reading; no gloves, sleeves up.",
    "proof": "Lift the chuck with care: its edges are sharp and it is heavy.",
}

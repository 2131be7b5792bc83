"""Acts of the Proof: the piece measured as made, run out, and put into the shop."""

from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.job.job import Trial
from machinon.core.job.made_here import aids_of, holes_of, read_at_dial
from machinon.core.job.made_piece import named_surfaces, ruled_by_fits, shop_surfaces
from machinon.core.quantity import small_text
from machinon.core.shop.entry import remark, words
from machinon.core.shop.things import Piece, Runs
from machinon.core.survey.as_typed import apart_from_warmth
from machinon.core.wording import within
from machinon.desk.acts.job import JobAtHand

_WENT = {"goes on": "goes on", "tight": "is tight", "loose": "is loose"}


class ProofActs(JobAtHand):
    """Acts of proving the piece."""

    def add_proof_reading(self, key: str, typed: str, instrument_id: str) -> None:
        """A reading of a surface as made, with its temperature beside it where that is
        not 20 °C: `25.41 @ 28`; kept as it is at 20 °C, as at the dial. Raises BadInput
        on `reading` or `temperature`."""
        proof = self.job.proof
        surface = next(surface for surface in proof.surfaces if surface.id == key)
        text, warm = apart_from_warmth(typed)
        reading = self._reading(text, surface, instrument_id)
        said = self._said(reading)
        if warm is not None and surface.kind != "runout":
            value = self._cold(reading.value, warm)
            reading = replace(
                reading, value=value, typed=typed.strip(), temperature=20.0
            )
            said = f"{self._said(reading)}: at 20 °C, as it was read at {warm:g}"
        if self.job.count > 1:  # pieces differ, their readings need not agree
            reading = replace(reading, kept="one of several alike")
        made = replace(surface, readings=(*surface.readings, reading))
        surfaces = tuple(
            made if surface.id == key else surface for surface in proof.surfaces
        )
        self._keep(
            f"Proof, {within(surface.name)}: {said}.",
            self.job.with_work(proof=replace(proof, surfaces=surfaces)),
        )

    def drop_proof_readings(self, key: str) -> None:
        """Begin a surface's proof again; the daybook keeps what was read."""
        proof = self.job.proof
        surfaces = tuple(
            replace(surface, readings=()) if surface.id == key else surface
            for surface in proof.surfaces
        )
        self._keep(
            "Proof begun again: " + key.replace("_", " ") + ".",
            self.job.with_work(proof=replace(proof, surfaces=surfaces)),
        )

    def set_runout(self, typed: str) -> None:
        """Indicator readings all round, typed one after the other.

        Separated by blanks or commas; bare numbers are mm (thou of an inch
        have their word). Raises BadInput on `runout`.
        """
        values = [
            quantity.parse(part, inch=self.inch, key="runout", low=-5, high=5)
            for part in quantity.list_parts(typed)
        ]
        if len(values) in (1, 2):
            raise BadInput(
                "runout",
                "Take at least 3 readings round the turn; 8 show an oval as well.",
            )
        self._keep(
            "Run-out all round: "
            + (", ".join(small_text(v, self.inch) for v in values) or "cleared")
            + ".",
            self.job.with_work(proof=replace(self.job.proof, runout=tuple(values))),
        )

    def set_runout_limit(self, typed: str) -> None:
        value = quantity.parse(typed, inch=self.inch, key="limit", above=0, high=5)
        self._keep(
            f"Run-out allowed: {small_text(value, self.inch)}.",
            self.job.with_work(proof=replace(self.job.proof, runout_limit=value)),
        )

    def set_thread_tried(self, tried: bool) -> None:
        self._keep(
            "Thread screwed home to the shoulder."
            if tried
            else "Thread to be tried again.",
            self.job.with_work(proof=replace(self.job.proof, thread_tried=tried)),
        )

    def try_mate(self, key: str, answer: Trial) -> None:
        """Takes how the mate of a surface went on, which settles a size that no gauge
        can."""
        proof = self.job.proof
        surface = next(surface for surface in proof.surfaces if surface.id == key)
        self._keep(
            f"Proof, {within(surface.name)}: the mate {_WENT[answer]}.",
            self.job.with_work(
                proof=replace(proof, tried={**proof.tried, key: answer})
            ),
        )

    def accept_near(self, key: str, reason: str) -> None:
        """Take a size within the uncertainty, and why. Raises BadInput on `reason`."""
        proof = self.job.proof
        surface = next(surface for surface in proof.surfaces if surface.id == key)
        why = words({"reason": reason}, "reason", "why it is accepted anyway", 200)
        self._keep(
            f"Proof, {within(surface.name)}: within the uncertainty, accepted: {why}.",
            self.job.with_work(
                proof=replace(proof, accepted={**proof.accepted, key: why})
            ),
        )

    def leave_steps_out(self, reason: str) -> None:
        """Why steps that are not done were left out; empty takes it back. Raises
        BadInput on `reason`."""
        reason = remark({"reason": reason}, "reason")
        self._keep(
            f"Steps left out: {reason or 'no longer'}.",
            self.job.with_work(
                proof=replace(self.job.proof, undone_because=reason),
            ),
        )

    def put_into_shop(self) -> Piece:
        """The proved piece becomes an existing one with its readings: it keeps how it
        was made, so that the shop can mate it."""
        if self.plan.verdict != "proved":
            raise BadInput("verdict", self.plan.verdict_says)
        surfaces = []
        for surface in self.job.proof.surfaces:
            log = self.job.cuts.get(self.job.work.log_of(surface.id))
            readings = surface.readings or read_at_dial(log)
            if readings:
                surfaces.append(replace(surface, readings=readings))
        made = self.plan.made
        piece = Piece(
            self.file.new_id(self.job.name),
            self.job.name,
            "other",
            made.material if made else "steel",
            (
                *shop_surfaces(self.job.work, surfaces, self.job.fits, self._holes()),
                *(named_surfaces(made) if made else ()),
            ),
            note="Made in this shop.",
            making=self.job.making,
            runs=self._runs(),
        )
        self._keep(
            f"Proved and put into the shop: {piece.name}.",
            piece,
            self.job.with_work(kept_as=piece.id),
        )
        return piece

    def _runs(self) -> tuple[Runs, ...]:
        """The run-out at the proof."""
        turn = self.job.proof.runout
        return (Runs(turn, self._clock()),) if turn else ()

    def _holes(self) -> dict[str, dict[str, float]]:
        """The figures in the span over made holes, by the surface of its proof."""
        made = self.plan.made
        if made is None:
            return {}
        keys = {f"fit.{number}": key for number, key in ruled_by_fits(made).items()}
        keys |= {f"size.{key}": key for key in made.sizes}
        found = {id: holes_of(made, key) for id, key in keys.items()}
        return {id: aids_of(holes) for id, holes in found.items() if holes}

"""Acts of Fits: adding them, and deciding how they shall go together."""

from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.fits.joints import (
    form_of,
    is_inside,
    joint_forms,
    read_given,
    takes_fit,
)
from machinon.core.quantity import small_text
from machinon.core.shop.entry import words as named
from machinon.core.sizes.fit import (
    FitChoice,
    Joint,
    about_play,
    characters,
    rising_play,
    wanted_play,
)
from machinon.core.survey.surface_kinds import likely_joint
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.thread_limits import thread_limits
from machinon.core.wording import within
from machinon.desk.acts.job import JobAtHand


class FitActs(JobAtHand):
    """Acts of deciding fits."""

    def add_fit(self, piece_id: str, surface_id: str) -> int:
        """A fit on a measured surface, by what it is most likely for; its number.

        Raises BadInput on `surface` for one that nothing can go into or over.
        """
        piece = self.plan.standing[piece_id]
        surface = piece.surface(surface_id)
        assert surface is not None
        if not takes_fit(surface):
            raise BadInput(
                "surface",
                f"{surface.name} has no mate: choose a diameter, a slot or a tongue.",
            )
        number = max((fit.number for fit in self.job.fits), default=0) + 1
        threaded = surface.id.startswith("thread")
        form = joint_forms()["thread" if threaded else likely_joint(surface)]
        whole = form.key in ("thread", "bolts")  # named for all that is read of it
        words = f"{form.name if whole else surface.name} of {piece.name}"
        fit = FitChoice(
            number,
            words,
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

    def drop_fit(self, number: int) -> None:
        """Take an added fit away; those that the piece rests on stay."""
        if self.slot_of(number) is not None:
            raise BadInput("fit", "The piece depends on this fit, so it stays.")
        fit = self.job.fit(number)
        kept = tuple(fit for fit in self.job.fits if fit.number != number)
        self._keep(f"Fit {number} dropped: {fit.name}.", replace(self.job, fits=kept))

    def rename_fit(self, number: int, name: str) -> None:
        """Raises BadInput on `name`."""
        choice = self.job.fit(number)
        text = named({"name": name}, "name", "what the fit is called")
        self._keep(
            f"Fit {number}, {within(choice.name)}, is now called {text}.",
            self.job.with_fit(replace(choice, name=text)),
        )

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
                f"Fit {number}, {within(choice.name)}: {said}.", self.job.with_fit(made)
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
            f"Fit {number}, {within(choice.name)}: {words}.",
            self.job.with_fit(replace(choice, want=want)),
        )

    def set_joint(self, number: int, joint: Joint) -> None:
        """Say what a fit is for; it starts from that joint's usual word."""
        choice = self.job.fit(number)
        form = joint_forms()[joint]
        words = characters()[form.usual].words if form.usual in characters() else ""
        made = replace(choice, joint=joint, want=form.usual, given={})
        said = f"{form.name}, {words}" if words else form.name
        self._keep(
            f"Fit {number}, {within(choice.name)}: {said}.", self.job.with_fit(made)
        )

    def give(self, number: int, key: str, typed: str) -> None:
        """Takes an answer that a fit's joint asks for; empty takes it back.

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
        meaning = next(given.meaning for given in form.asks if given.key == key)
        meaning = meaning.partition(" (")[0]  # without what stands in for it
        self._keep(
            f"Fit {number}, {meaning}: {typed.strip() or 'not said'}.",
            self.job.with_fit(replace(choice, given=given)),
        )

    def own_play(self, number: int, least: str, most: str) -> None:
        """A fit by its least and most play as typed; negative is interference."""
        choice = self.job.fit(number)
        low, high = (
            quantity.parse(typed, inch=self.inch, key=key, low=-5, high=5)
            for key, typed in (("clearance_min", least), ("clearance_max", most))
        )
        rising_play(low, high, "clearance_max", self.inch)
        said = " to ".join(small_text(value, self.inch) for value in (low, high))
        self._keep(
            f"Fit {number}, {within(choice.name)}: play {said}.",
            self.job.with_fit(
                replace(choice, want="own", clearance_min=low, clearance_max=high)
            ),
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

"""The decision on a fit, by its kind, with what it means beside it."""

from PySide6.QtWidgets import (
    QButtonGroup,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.fits.joints import (
    joint_forms,
    joints_on,
)
from machinon.core.job.fit_plan import FitPlan
from machinon.core.piece.family import FitSlot
from machinon.core.quantity import (
    ANGLE,
    COUNT,
    length_text,
    small_range,
    small_text,
)
from machinon.core.shop.making import Making
from machinon.core.sizes.fit import characters, words_for
from machinon.core.wording import begun, within
from machinon.desk.bench import Bench
from machinon.desk.joint_part import Figures, JointPart, band_text
from machinon.desk.narrow import Abreast, Choosing, narrow_combo
from machinon.desk.widgets import Field, Figure, button, label, set_ink


class Choice(QWidget):
    """The decision on one kind of fit and what it means."""

    def __init__(self, bench: Bench) -> None:
        super().__init__()
        self.bench = bench
        self.job = bench.job
        self.fit: FitPlan | None = None
        self.group = QButtonGroup(self)
        self.radios: dict[str, Choosing] = {}
        self.box = QVBoxLayout(self)
        self.box.setContentsMargins(0, 0, bench.look.px(8), 0)
        self.box.setSpacing(bench.look.px(5))

    def number(self) -> int:
        assert self.fit is not None
        return self.fit.choice.number

    def figures(self, *figures: Figure) -> None:
        """Figures abreast, each to be opened to its working."""
        for figure in figures:
            figure.opened.connect(self.bench.open_working)
        self.box.addWidget(Abreast(len(figures), *figures))

    def try_to(self, field: Field, act: object, *given: object) -> None:
        try:
            act(*given)  # type: ignore[operator]
        except BadInput as error:
            field.refuse(error.message)

    def offer(self, key: str, words: str) -> Choosing:
        """One of the characters to choose from."""
        radio = Choosing(words)
        radio.clicked.connect(lambda _=False: self.job.choose_fit(self.number(), key))
        self.group.addButton(radio)
        self.radios[key] = radio
        self.box.addWidget(radio)
        return radio

    def finish(self) -> None:
        """Adds the last rows of each: the advice, and the joint's own part."""
        self.advice = label("", "", "stop", wrap=True)
        self.box.addWidget(self.advice)
        self.part = JointPart(self.bench)
        self.box.addWidget(self.part)
        self.box.addStretch(1)


class PlainChoice(Choice):
    """A fit by what it is for, then plain words, a code, or one's own play."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.head = label("How should it fit?", "head")
        self.box.addWidget(self.head)
        self.joint = narrow_combo("What the fit is for")
        self.joint.activated.connect(
            lambda _: self.job.set_joint(self.number(), self.joint.currentData())
        )
        self.box.addWidget(self.joint)
        for character in characters().values():
            radio = self.offer(character.key, begun(character.words))
            zone = f" ({character.zone})" if character.letter else ""
            radio.setToolTip(character.meaning + zone)
        self.meaning = label("", "faint", wrap=True)
        self.box.addWidget(self.meaning)
        self.code = Field("or by code", None, placeholder="H7/g6")
        self.code.setToolTip(
            "H7/g6 or RC4 is the whole range of both; g6 or G6 alone is laid on the "
            "mate; a thou, or 25um, is about so much play"
        )
        self.code.taken.connect(
            lambda text: self.try_to(
                self.code, self.job.choose_fit, self.number(), text
            )
        )
        inch = lambda: self.job.inch  # noqa: E731
        self.least = Field("or play: least", inch=inch)
        self.most = Field("most", inch=inch)
        for field in (self.least, self.most):
            field.taken.connect(lambda _: self._own_play())
        self.own = Abreast(3, self.code, self.least, self.most)
        self.box.addWidget(self.own)
        self.play = Figure("Play, least to most")
        self.runout = Figure("Run-out allowed")
        self.band = Figure("Band left to land in")
        self.aim = Figure("Aim at")
        self.plain = (self.play, self.runout, self.aim, self.band)
        self.figures(self.aim, self.band)
        self.figures(self.play, self.runout)
        self.bands = Figures(bench, abreast=1)
        self.box.addWidget(self.bands)
        self.finish()

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        self._fill_joints(fit)
        want = fit.choice.want
        words = words_for(fit.choice.joint)
        offered = {character.key for character in words}
        self.group.setExclusive(False)
        for key, radio in self.radios.items():
            radio.setVisible(key in offered)
            radio.setChecked(key == want)
        self.group.setExclusive(True)
        self._say_meaning(want)
        self.meaning.setVisible(bool(words))
        self.own.setVisible(bool(words))
        known = want in characters()
        self.code.put("" if known or want == "own" else want)
        self.code.edit.setPlaceholderText("RC4" if self.job.inch else "H7/g6")
        if want == "own":
            inch = self.job.inch
            self.least.put(length_text(fit.choice.clearance_min, 0.001, inch))
            self.most.put(length_text(fit.choice.clearance_max, 0.001, inch))
        else:
            self.least.clear()
            self.most.clear()
        alone = fit.choice.kind == "cylinder"
        for figure in self.plain:
            figure.setVisible(alone)
        self.bands.setVisible(not alone)
        self.advice.hide()
        if alone:
            self._show_band(fit)
        else:
            self._show_bands(fit)
        self.part.show_fit(fit)

    def _fill_joints(self, fit: FitPlan) -> None:
        """The kinds of fit that make sense on the surface."""
        ruled = self.job.slot_of(fit.choice.number) is not None
        self.head.setVisible(ruled)
        self.joint.setVisible(not ruled)
        surface = self.job.plan.existing(fit)
        forms = list(joints_on(surface)) if surface else []
        own = joint_forms()[fit.choice.joint]
        if own not in forms:
            forms.append(own)
        if [self.joint.itemData(i) for i in range(self.joint.count())] != [
            form.key for form in forms
        ]:
            self.joint.clear()
            for form in forms:
                self.joint.addItem(form.name, form.key)
        self.joint.setCurrentIndex(self.joint.findData(own.key))

    def _say_meaning(self, want: str) -> None:
        known = characters().get(want)
        if known is not None and known.letter:
            self.meaning.setText(f"{known.meaning} Zone {known.zone}, on the mate.")
        elif known is not None:
            self.meaning.setText(known.meaning)
        elif want == "own":
            self.meaning.setText("Your own play, below.")
        else:
            self.meaning.setText(f"By code: {want}.")

    def _show_band(self, fit: FitPlan) -> None:
        """The one band of a plain fit."""
        inch = self.job.inch
        if fit.band is None:
            for figure in self.plain:
                figure.show_text("–")
            return
        low, high = fit.band["clearance_min"], fit.band["clearance_max"]
        grips = high <= 0
        self.runout.setVisible(not grips)
        if grips:
            low, high = -high, -low
        self.play.show_text(
            small_range(low, high, inch),
            "",
            small_range(low, high, not inch),
            "",
            fit.band,
        )
        self.play.set_name(
            "Play, least to most"
            if low >= 0 and not grips
            else ("Interference" if grips else "Play (− is interference)")
        )
        slot = fit.choice.joint == "slot"
        self.runout.set_name("Shake allowed" if slot else "Run-out allowed")
        if fit.play is not None:
            self.runout.show_text(
                small_range(max(low, 0.0), fit.play["tir"], inch),
                "",
                small_range(max(low, 0.0), fit.play["tir"], not inch),
                "",
                fit.play,
            )
        left = fit.band["band"]
        self.band.show_text(
            small_text(left, inch) if left > 0 else "nothing left",
            "",
            small_text(left, not inch) if left > 0 else "",
            "cut" if left > 0 else "stop",
            fit.band,
        )
        sign = "" if slot else "⌀"
        self.aim.show_length(fit.aim, 0.001, inch, "cut", fit.band, sign)
        gauge = fit.gauge.name if fit.gauge else ""
        self.advice.setText(fit.advice or f"It can be proved with: {gauge}.")
        ink = "stop" if left <= 0 else "cut"
        set_ink(self.advice, ink if fit.advice else "")
        self.advice.show()

    def _show_bands(self, fit: FitPlan) -> None:
        """The bands of a joint that has several, each with what can prove it."""
        inch = self.job.inch
        made = [
            band
            for band in (fit.joined.bands if fit.joined else ())
            if not band.measured
        ]
        for figure, band in zip(self.bands.show_count(len(made)), made, strict=True):
            figure.set_name(band.name)
            if band.width <= 0:
                figure.show_text("nothing left", "", "", "stop", band.answer)
            else:
                figure.show_text(
                    band_text(band, inch),
                    "",
                    "" if band.kind is ANGLE else band_text(band, not inch),
                    "cut",
                    band.answer,
                )
                figure.setToolTip(
                    f"The {band.gauge.name} can prove it." if band.gauge else ""
                )
        lines = [band for band in made if band.width > 0 and band.kind is not ANGLE]
        without = [within(band.name) for band in lines if band.gauge is None]
        proved = [
            f"{within(band.name)} with {within(band.gauge.name)}"
            for band in lines
            if band.gauge
        ]
        if without:
            self.advice.setText(
                f"No instrument in the shop can prove the {', '.join(without)}: keep "
                "the mate, or a plug turned to size, at hand and finish by trial."
            )
        elif proved:
            self.advice.setText(f"It can be proved: {', '.join(proved)}.")
        set_ink(self.advice, "cut" if without else "")
        self.advice.setVisible(bool(without or proved))

    def _own_play(self) -> None:
        if not self.least.text().strip():
            self.least.edit.setFocus()
            return
        if not self.most.text().strip():
            self.most.edit.setFocus()
            return
        try:
            self.job.own_play(self.number(), self.least.text(), self.most.text())
        except BadInput as error:
            field = self.least if error.key == "clearance_min" else self.most
            field.refuse(error.message)


class ThreadChoice(Choice):
    """A thread: as the readings say, or as the person says, and its class."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.box.addWidget(label("Which thread is it?", "head"))
        self.found = Figure("By the readings", "large")
        self.box.addWidget(self.found)
        self.name = Field(
            "Say it yourself (empty: by the readings)", None, placeholder="M45x4.5"
        )
        self.name.taken.connect(
            lambda text: self.try_to(
                self.name, self.job.name_thread, self.number(), text
            )
        )
        self.grade = Field("Class (empty: the usual)", None)
        self.grade.taken.connect(
            lambda text: self.try_to(
                self.grade, self.job.choose_fit, self.number(), text
            )
        )
        self.near = tuple(button("", lambda i=i: self._take_near(i)) for i in (0, 1))
        self.box.addWidget(Abreast(2, *self.near))
        self.box.addWidget(self.name)
        self.box.addWidget(self.grade)
        self.means = label("", "head", wrap=True)
        self.box.addWidget(self.means)
        self.bore = Figure("Bore before threading")
        self.bore_to = Figure("at most")
        self.pitch = Figure("Pitch diameter, least")
        self.pitch_to = Figure("at most")
        self.figures(self.bore, self.bore_to)
        self.figures(self.pitch, self.pitch_to)
        self.finish()

    def _take_near(self, which: int) -> None:
        """One of the threads that the readings leave is what the gauge shows."""
        assert self.fit is not None
        self.job.name_thread(self.number(), self.fit.could_be[which])

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        self.part.show_fit(fit)
        inch = self.job.inch
        self.name.edit.setPlaceholderText("1 1/2-8" if inch else "M45x4.5")
        self.name.put(fit.choice.thread)
        self.grade.put(fit.choice.want)
        self.advice.setText(fit.advice)
        self.advice.setVisible(bool(fit.advice))
        for i, choice in enumerate(self.near):
            there = i < len(fit.could_be)
            choice.setText(f"It is {fit.could_be[i]}" if there else "")
            choice.setVisible(there)
        nut = fit.choice.exists == "shaft"
        self.bore.set_name("Bore before threading" if nut else "Over the crests, least")
        if fit.thread is None or fit.band is None:
            self.found.show_text("not known yet", ink="stop")
            for figure in (self.bore, self.bore_to, self.pitch, self.pitch_to):
                figure.show_text("–")
            return
        unread = fit.mate is not None and fit.mate.by_standard
        found = "By its standard" if unread else "By the readings"
        self.found.set_name("As said" if fit.choice.thread else found)
        self.found.show_text(fit.thread.says, ink="measured")
        named = f", class {fit.thread_class}" if fit.thread_class else ""
        self.means.setText(
            f"What that means for the {'nut' if nut else 'screw'}{named}"
        )
        for figure, part, end in (
            (self.bore, "crest", "min"),
            (self.bore_to, "crest", "max"),
            (self.pitch, "pitch", "min"),
            (self.pitch_to, "pitch", "max"),
        ):
            size = fit.thread_limit(part, end)
            figure.show_length(size, 0.001, inch, "cut", fit.band, "⌀")


class BoltChoice(Choice):
    """The bolts: how free they sit, and whether they find their holes."""

    WORDS = (
        ("close", "Close: laid out by read-out, nothing to spare"),
        ("normal", "Normal: what most work wants"),
        ("loose", "Loose: laid out by hand"),
    )

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.box.addWidget(label("How free are the screws?", "head"))
        for key, words in self.WORDS:
            self.offer(key, words)
        self.holds = label("", "faint", wrap=True)
        self.box.addWidget(self.holds)
        self.count = Field("How many bolts hold it", COUNT)
        self.count.taken.connect(self._on_count)
        self.box.addWidget(self.count)
        self.hole = Figure("Clearance hole")
        self.circle = Figure("Bolt circle by span and screw")
        self.room = Figure("Room round a screw")
        self.need = Figure("Room wanted")
        self.box.addWidget(label("What that means", "head"))
        self.figures(self.hole, self.circle)
        self.figures(self.room, self.need)
        self.carried = Figures(bench)
        self.box.addWidget(self.carried)
        self.finish()

    def _counted(self, slot: FitSlot | None, making: Making | None) -> str:
        """The figure of the mate that says how many screws hold it; empty for none."""
        if slot is None or making is None:
            return ""
        typed = family_for(making).mate_keys
        return next((key for key in slot.rests if key in typed), "")

    def _on_count(self, typed: str) -> None:
        self.count.accept()
        slot, work = self.job.slot_of(self.number()), self.job.resting_on(self.number())
        assert work is not None
        self.job.choose_work(work.key)
        try:
            self.job.set_size(self._counted(slot, work.making), typed)
        except BadInput as error:
            self.count.refuse(error.message)

    def show_fit(self, fit: FitPlan) -> None:
        self.fit = fit
        slot = self.job.slot_of(fit.choice.number)
        self.part.setVisible(slot is None)
        centres, play = "Something else", "its"
        if slot is not None and slot.centred:
            centres, play = f"The {slot.centred}", f"the {slot.centred}'s"
        self.holds.setText(
            f"{centres} must centre the two parts; the screws only hold them. Their "
            f"holes must leave room for drilling and for {play} play."
        )
        work = self.job.resting_on(fit.choice.number)
        making = work.making if work is not None else None
        counted = self._counted(slot, making)
        self.count.setVisible(bool(counted))
        if counted and making is not None and not self.count.refused:
            self.count.put(making.sizes.get(counted, ""))
            self.count.hint("")
        if slot is None:
            self.part.show_fit(fit)
        inch = self.job.inch
        for key, radio in self.radios.items():
            radio.setChecked(key == fit.choice.want)
        self.advice.setText(fit.advice)
        # without a slot they stand in the joint's own part
        carried = fit.joined.effects if fit.joined and slot is not None else ()
        self.carried.show_effects(carried, inch)
        if fit.room is None or fit.circle is None:
            for figure in (self.hole, self.circle, self.room, self.need):
                figure.show_text("–")
            return
        tapped = fit.room.inputs["new"] == "tapped"
        self.hole.set_name("Tapping drill" if tapped else "Clearance hole")
        self.hole.show_length(fit.room["hole"], 0.1, inch, "cut", fit.room, "⌀")
        self.circle.show_length(
            fit.circle["diameter"], 0.01, inch, "measured", fit.circle, "⌀"
        )
        ok = fit.bolt_room >= fit.bolt_need
        ink = "" if ok else "stop"
        self.room.show_length(fit.bolt_room, 0.01, inch, ink, fit.room)
        self.need.show_length(fit.bolt_need, 0.01, inch, "", fit.room)

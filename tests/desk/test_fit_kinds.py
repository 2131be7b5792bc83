from tests.desk.bench import WindowCase

MICROMETER, BORE, CALIPER, SLIPS = "micrometer", "bore-gauge", "caliper", "slips"


class EveryKindOfFit(WindowCase):
    """From a job with nothing in it to the band of each kind of fit, by typing.

    Doubts, two sigma, as the survey works them out: 2 √(gauge² + scatter²/n +
    step²/12 + heat²), for one reading of steel at 25 mm by micrometer
    2 √(2² + 1.5² + 1/12 + 0.166²) = 5.04 µm; three readings make it 4.41 µm.
    """

    def setUp(self):
        super().setUp()
        self.window.actions_by_id["job.new"].trigger()
        page = self.window.pages.currentWidget()
        self.click(page.what.cards["other"])
        self.type(page.fields["name"].edit, "Any fit")
        self.type(page.fields["reason"].edit, "To see what it must be.")
        self.survey = self.window.job_page().view()
        self.survey._ask_new_piece()
        self.type(self.survey.new_piece.edit, "The half that exists")

    def measure(self, group, *surfaces, **aids):
        """Add a group of surfaces and type each one's gauge and readings."""
        self.pick(self.survey.surface_menu(), group)
        for gauge, *readings in surfaces:
            for key, text in aids.items():
                if key in self.survey.aids:
                    self.type(self.survey.aids[key].edit, text)
            self.choose(self.survey.instrument, gauge)
            for reading in readings:
                if isinstance(reading, tuple):
                    reading, place = reading
                    self.type(self.survey.place.edit, place)
                self.type(self.survey.reading.edit, reading)
            self.click(self.survey.next)

    def fit(self, surface, joint="", word="", **given):
        """Add the fit, say what it is for and how, and what it asks."""
        self.view = self.stage("fits")
        self.pick(self.view.fit_menu(), f"{surface} of The half that exists")
        choice = self.view.cylinder
        if joint:
            self.choose(choice.joint, joint)
        if word:
            self.click(choice.radios[word])
        for key, text in given.items():
            self.type(choice.part.fields[key].edit, text)
        plan = self.job.plan.fit(self.view.number())
        self.assertEqual(plan.problem, "")
        self.assertEqual(self.job.plan.open["survey"], ())
        return plan

    def band(self, plan, name, lower, upper, places=4):
        found = {band.name: band for band in plan.joined.bands}[name]
        self.assertAlmostEqual(found.lower, lower, places=places)
        self.assertAlmostEqual(found.upper, upper, places=places)

    def effects(self):
        """What follows, as it is shown."""
        return self.view.cylinder.part.effects.texts()

    def test_press(self):
        """Bore 25 ± 5.5 µm; r6 at 25 is +28 to +41: shaft 25.0335 to 25.0355.

        In a hub of 60 × 30: p = 0.041 · 207 000 / (25 · (1.4202 + 0.29 + 0.71))
        = 140.3 MPa, 0.12 p π 25 · 30 = 39.7 kN to press it; at 0.028 it is
        27.1 kN, which carries 27.1 · 25 / 2 = 339 N·m.
        """
        self.measure("Bore", (BORE, "25", "25", "25"))
        plan = self.fit("Bore", "press", "press-firm", length="30", hub_outside="60")
        self.assertAlmostEqual(plan.lower, 25.0335, places=4)
        self.assertAlmostEqual(plan.upper, 25.0355, places=4)
        shown = self.effects()
        self.assertEqual(shown["To press it home, most"], "39.7 kN")
        self.assertEqual(shown["To press it home, least"], "27.1 kN")
        self.assertEqual(shown["Carries at least"], "339 N·m")
        self.assertEqual(shown["The lathe turns at most"], "233 N·m")
        self.assertIn("press's rating", self.view.cylinder.part.caution.text())

    def test_shrink(self):
        """s6 at 50 is +43 to +59; with 50 µm to drop it on, 109 µm in all:
        20 + 0.109 / (50 · 11.5e-6) = 210 °C, under the 300 that hurt steel."""
        self.measure("Bore", (BORE, "50", "50", "50"))
        self.fit("Bore", "shrink", "shrink-firm")
        shown = self.effects()
        self.assertEqual(shown["Heat the hub to"], "210 °C")
        self.assertIn("s", shown["Time once round it"])
        self.type(self.view.cylinder.part.fields["assembly_clearance"].edit, "0.15")
        self.assertIn("harmed", self.view.cylinder.part.advice.text())

    def test_bond(self):
        """Shaft 25 ± 4.4 µm, gap 30 to 100 µm: bore 25.0344 to 25.0956.
        15 MPa over π · 25 · 30 with half in hand: 17.7 kN, 221 N·m."""
        self.measure("Shaft or journal", (MICROMETER, "25", "25", "25"))
        plan = self.fit("Shaft or journal", "bond", "bond-usual", length="30")
        self.assertAlmostEqual(plan.lower, 25.0344, places=4)
        self.assertAlmostEqual(plan.upper, 25.0956, places=4)
        self.assertEqual(self.effects()["Holds along"], "17.7 kN")
        self.assertEqual(self.effects()["Carries"], "221 N·m")

    def test_bearing(self):
        """Bearing's bore 24.997 ± 5.5 µm, seat 0 to −16 µm: 25.0025 to 25.0075.
        Eight tenths of 16 µm go off the 5 µm of play it has at least: −7.8."""
        self.measure("Bore", (BORE, "24.997", "24.997", "24.997"))
        self.fit("Bore", "bearing", "ring-turns")
        choice = self.view.cylinder
        self.type(choice.least.edit, "-0.016")
        self.type(choice.most.edit, "0")
        plan = self.job.plan.fit(1)
        self.assertAlmostEqual(plan.lower, 25.0025, places=4)
        self.assertAlmostEqual(plan.upper, 25.0075, places=4)
        shown = self.effects()
        self.assertEqual(shown["Bearing's play left, least"], "−7.8 µm")
        self.assertEqual(shown["Bearing's play left, most"], "20 µm")
        self.assertIn("squeezed", choice.part.advice.text())

    def test_taper(self):
        """23.825 and 21.315 are 50 mm apart: 0.0502, so a Morse 3 of 0.050196.

        Half of it is 1.4377°; a film of 3 µm over 50 mm is 0.0034°. Half a
        millimetre in or out is 25.1 µm, less 8.7 of doubt: ±16.4 µm.
        """
        self.measure("Taper outside", (MICROMETER, ("23.825", "0"), ("21.315", "50")))
        self.type(self.survey.place.edit, "", enter=False)
        self.type(self.survey.reading.edit, "22.5")
        self.assertIn("how far from", self.survey.place.message.text())
        self.assertEqual(self.survey.nominal.text(), "MT3")
        plan = self.fit("Taper outside", taper="MT3")
        self.band(plan, "Half angle", 1.4343, 1.4411)
        self.band(plan, "Large end", 23.8086, 23.8414)
        self.assertIn("Blue", self.view.cylinder.part.advice.text())

    def test_bolt_circle(self):
        """Four holes of 6.6 with a span of 80: (80 − 6.6) / sin 45° = 103.80.
        M6 has 0.3 mm round it; drilling 0.1, half of 52 µm and half of 0.1 of
        play want 0.176."""
        self.measure(
            "Bolt circle", (CALIPER, "6.6"), (CALIPER, "80"), hole="6.6", holes="4"
        )
        self.fit("Span over two neighbours")
        bolts = self.view.bolts
        self.assertEqual(bolts.circle.text(), "⌀103.80")
        self.type(bolts.part.fields["thread"].edit, "M6")
        self.type(bolts.part.fields["play"].edit, "0.1")
        self.assertEqual(bolts.hole.text(), "⌀6.6")
        plan = self.job.plan.fit(1)
        self.assertAlmostEqual(plan.bolt_room, 0.3, places=3)
        self.assertAlmostEqual(plan.bolt_need, 0.176, places=3)

    def test_dowels(self):
        """Dowel 6 ± 4.4 µm. g7 leaves 4 to 16 µm: it slides in 6.0084 to 6.0116;
        n7 keeps it: 5.9844 to 5.9876. 80 apart it shakes 2 · 16 = 32 µm."""
        self.measure("Dowel", (MICROMETER, "6", "6", "6"))
        self.view = self.stage("fits")
        self.pick(self.view.fit_menu(), "Dowel of The half that exists")
        self.assertIn("Type this first", self.view.problem.text())
        choice = self.view.cylinder
        self.click(choice.radios["dowel-easy"])
        self.type(choice.part.fields["distance"].edit, "80")
        plan = self.job.plan.fit(1)
        self.band(plan, "Hole it slides in", 6.0084, 6.0116)
        self.band(plan, "Hole that keeps it", 5.9844, 5.9876)
        self.assertEqual(self.effects()["Shake, stop to stop"], "32 µm")
        self.assertIn("ream them together", choice.part.advice.text())
        self.type(choice.part.fields["placing"].edit, "0.003")
        self.assertEqual(choice.part.advice.text(), "")

    def test_key(self):
        """Keyway 8.02 ± 4.3 µm; f7 at 8 is 13 to 28 µm: key 7.9963 to 8.0027.
        That is 2.7 µm over 8, and so is the hub's JS9: 7.9847 to 8.0207.
        On 25 × 30 it carries 100 · 3.5 · 30 · 25 / 2000 = 131 N·m."""
        self.measure("Keyway", (SLIPS, "8.02"), (CALIPER, "28.3"))
        plan = self.fit("Keyway width", "", "glides", diameter="25", length="30")
        self.band(plan, "Key", 7.9963, 8.0027)
        self.band(plan, "Keyway in the hub", 7.9847, 8.0207)
        shown = self.effects()
        self.assertEqual(shown["Carries"], "131 N·m")
        self.assertEqual(shown["Bore to keyway floor"], "28.30")
        self.assertEqual(shown["Bought key, least play"], "20 µm")

    def test_t_nut(self):
        """Neck 14.03 ± 4.3 µm; d9 is 50 to 93 µm: tongue 13.9327 to 13.9757."""
        self.measure(
            "T-slot",
            (SLIPS, "14.03"),
            (CALIPER, "24.1"),
            (CALIPER, "10.1"),
            (CALIPER, "12.1"),
        )
        plan = self.fit("T-slot neck", "", "free")
        self.band(plan, "Tongue", 13.9327, 13.9757)
        self.band(plan, "Head, width", 22.6, 23.1)
        self.band(plan, "Head, thickness", 9.35, 9.6)
        self.assertEqual(self.effects()["Standard slot"], "14 mm, stud M12")

    def test_dovetail(self):
        """Over pins of 10: 137.32 − 10 (1 + cot 30°) = 109.9995 at the root.
        The slot's floor is 2 · 14 / tan 60° = 16.1658 wider; f7 is 36 to 71 µm,
        the doubt 5.4: between its pins 98.8861 to 98.9104."""
        self.measure(
            "Dovetail outside", (MICROMETER, "137.32"), pin="10", angle="60", depth="14"
        )
        self.assertEqual(self.survey.size.text(), "109.999")
        plan = self.fit("Dovetail over two pins", "", "dove-slides")
        self.band(plan, "New half between its pins", 98.8861, 98.9104)

    def test_detent(self):
        """A rim of 4.08 under a ball of 6 is 3 − √(9 − 2.04²) = 0.80 deep; 10 N
        of spring let go at 10 · 2.04 / 2.2 = 9.27 N, 0.232 N·m at 25 mm."""
        self.measure("Ball recess", (CALIPER, "4.08"), ball="6")
        self.assertEqual(self.survey.size.text(), "0.80")
        plan = self.fit("Ball recess across its rim", "", "", spring="10", radius="25")
        self.assertEqual(self.effects()["Pushes out at"], "9.27 N")
        self.assertEqual(self.effects()["Clicks over at"], "0.232 N·m")
        self.band(plan, "Ball's hole", 6.02, 6.08)

    def test_dimple(self):
        """Dimples of M6: a fifth to two fifths of it deep; a screw of 12."""
        self.measure("Shaft or journal", (MICROMETER, "60"))
        self.view = self.stage("fits")
        self.pick(self.view.fit_menu(), "Shaft or journal of The half that exists")
        choice = self.view.cylinder
        self.choose(choice.joint, "dimple")
        for key, text in (("screw", "M6"), ("wall", "2"), ("around", "12")):
            self.type(choice.part.fields[key].edit, text)
        self.assertIn("Above 2.40 mm of wall", self.view.problem.text())
        self.type(choice.part.fields["wall"].edit, "8")
        plan = self.job.plan.fit(1)
        self.band(plan, "Dimple, depth", 1.2, 2.4)
        self.assertEqual(self.effects()["Screw to buy, long"], "12.00")
        self.assertEqual(self.effects()["Holds against pulling"], "9000 N")

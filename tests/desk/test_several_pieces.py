from PySide6.QtWidgets import QMessageBox

from machinon.desk.fit_choices import BoltChoice
from machinon.draw.stack_parts import groups_of
from tests.desk.test_made_pieces import MadePieces


class CarrierAndPlate(MadePieces):
    """A chuck without a shank, its carrier, and the plate under it, in one job.

    Register of the carrier as it came out, by bore gauge ±5 µm with a scatter of 2:
    67.018, 67.022, 67.020. Doubt of the mean, with a digit of 1 µm and 1 K apart:
        2 √(2.5² + 2²/3 + 1²/12 + (67.02 · 11.5e-3 / √3)²) = 5.60 µm.
    "Slides" is g6 at 67, 10 to 29 µm of play, so that the spigot is
        67.020 + 0.0056 − 0.029 = 66.9966 to 67.020 − 0.0056 − 0.010 = 67.0044;
    while the register was only drawn, 67.000, it was 66.971 to 66.990.
    """

    demo = False
    DIAL = "0.005"

    def begin_both(self):
        self.set_up()
        self.begin("carrier", "Collet chuck on the lathe", held="new")
        self.read(
            ("held", "shaft", "micrometer", "60.004", "60.006"),
            ("held", "shoulder", "caliper", "40"),
        )
        self.add_piece("back-plate", "made:1")
        self.read(
            ("nose", "register", "micrometer", "45.993", "45.993"),
            ("nose", "register-length", "depth-gauge", "12.02"),
            ("nose", "thread-major", "micrometer", "44.86"),
            ("nose", "thread-pitch", "thread-gauge", "4.5"),
            ("nose", "nose-length", "depth-gauge", "36.05"),
        )

    def add_piece(self, what, chuck):
        page = self.window.job_page()
        self.click(page.more)
        self.settle()
        page = self.window.pages.currentWidget()
        self.click(page.what.cards[what])
        self.choose(page.combos["mate.chuck"], chuck)
        self.assertFalse(page.fields["size.chuck.bolts"].isVisible(), "it knows them")
        self.click(page.go)
        self.settle()

    def choose_work(self, name):
        line = self.window.job_page().work_line
        links = [line.itemAt(i).widget() for i in range(line.count())]
        self.click(next(link for link in links if link and link.text() == name))

    def spigot(self):
        return self.job.plan.fit(4)

    def test_a_piece_more_that_was_not_chosen_is_asked_for_where_it_is_chosen(self):
        self.set_up()
        self.begin("carrier", "Collet chuck on the lathe", held="new")
        self.click(self.window.job_page().more)
        page = self.window.pages.currentWidget()
        self.click(page.go)
        self.assertTrue(page.what_says.isVisible())
        self.assertIn("what is to be made", page.what_says.text())
        self.assertEqual(len(self.job.job.works), 1)

    def test_pieces_that_do_not_meet_stand_apart_each_on_its_own_mate(self):
        self.set_up()
        self.begin("carrier", "Collet chuck on the lathe", held="new")
        self.read(
            ("held", "shaft", "micrometer", "60.004", "60.006"),
            ("held", "shoulder", "caliper", "40"),
        )
        self.click(self.window.job_page().more)
        page = self.window.pages.currentWidget()
        self.click(page.what.cards["knob"])
        self.click(page.go)
        self.settle()
        self.read(
            ("stud", "thread-major", "micrometer", "5.98"),
            ("stud", "length", "caliper", "9"),
        )
        piece = self.stage("piece")
        self.type(piece.asked["stud.thread"].edit, "M6")
        groups = groups_of(self.job.plan)
        names = [sorted(part.name.split(",")[0] for part in group) for group in groups]
        self.assertEqual(
            names,
            [["Chuck carrier", "Chuck without a shank"],
             ["Its screw or stud", "Knurled knob"]],
        )  # fmt: skip

    def test_the_second_is_cut_to_the_first_as_made(self):
        self.begin_both()
        self.assertEqual(self.value("bolts.screw"), "M6", "as the carrier is tapped")
        self.assertEqual(self.value("bolts.count"), 4)
        self.assertEqual(self.value("flange.diameter"), 105, "as wide as the carrier")
        self.assertEqual(self.value("bolts.circle"), 83)
        self.assertEqual(self.value("spigot.height"), 3.3, "clear of a register of 4")
        self.assertEqual(self.job.plan.failed, ())
        self.assertAlmostEqual(self.spigot().lower, 66.971, places=4)
        self.assertAlmostEqual(self.spigot().upper, 66.990, places=4)
        route = self.stage("route")
        route.choose("spigot")
        self.assertEqual(
            route.go.text(), "Open fit 4", "there is nothing to cut to yet"
        )
        self.carrier_is_made()
        self.assertAlmostEqual(self.spigot().lower, 66.9966, places=4)
        self.assertAlmostEqual(self.spigot().upper, 67.0044, places=4)
        self.plate_is_made()
        plate, carrier = (
            self.window.file.get(work.kept_as) for work in self.job.job.works[::-1]
        )
        self.assertEqual(plate.making.family, "back-plate")
        self.assertEqual(carrier.surface("bolt-circle").aids["hole"], 6, "over screws")
        self.assertEqual(carrier.surface("recess").readings[0].value, 67.018)

    def carrier_is_made(self):
        self.choose_work("Chuck carrier")
        proof = self.stage("proof")
        for line, gauge, *sizes in (
            ("fit.1", "bore-gauge", "60.07", "60.071"),
            ("size.register.diameter", "bore-gauge", "67.018", "67.022", "67.020"),
            ("size.bolts.circle", "caliper", "64.69"),
        ):
            proof.choose(line)
            self.choose(proof.instrument, gauge)
            for size in sizes:
                self.type(proof.reading.edit, size)
        self.type(proof.runout.edit, "0.002 0 -0.002 0")
        self.tick_all()
        self.stage("proof")
        self.assertEqual(self.job.plan.verdict, "proved", self.job.plan.verdict_says)
        self.click(proof.keep)
        self.choose_work("Back plate")

    def plate_is_made(self):
        proof = self.stage("proof")
        proof.choose("fit.2")
        for size in ("46.010", "46.009"):
            self.type(proof.reading.edit, size)
        self.click(proof.answers["goes on"])
        route = self.stage("route")
        route.choose("spigot")
        self.assertEqual(route.go.text(), "Work it in Cut")
        self.click(route.go)
        size = self.sneak_up(68.03, 1)
        self.assertTrue(66.9966 <= size <= 67.0044, size)
        self.click(self.window.job_page().view().answers["goes on"])
        proof = self.stage("proof")
        proof.choose("fit.5")
        self.choose(proof.instrument, "caliper")
        # 83 sin 45° over plain holes of 6.6
        self.type(proof.reading.edit, "65.29")
        self.click(proof.thread)
        self.type(proof.runout.edit, "0.003 0 -0.003 0")
        self.tick_all()
        self.stage("proof")
        self.assertEqual(self.job.plan.verdict, "proved", self.job.plan.verdict_says)
        self.click(proof.keep)

    def test_a_fit_belongs_to_its_piece_whichever_is_at_hand(self):
        """The plate's screws are counted, and its register is cut, at the plate."""
        self.begin_both()
        self.choose_work("Chuck carrier")
        fits = self.stage("fits")
        fits.show_fit(5)
        bolts = next(
            bolt_choice
            for bolt_choice in fits.findChildren(BoltChoice)
            if bolt_choice.isVisible()
        )
        self.type(bolts.count.edit, "3")
        carrier, plate = (work.making.sizes for work in self.job.job.works)
        self.assertEqual(plate["chuck.bolts"], "3")
        self.assertNotIn("chuck.bolts", carrier)
        self.choose_work("Chuck carrier")
        fits.show_fit(2)
        self.click(fits.cut_it)
        self.assertEqual(self.job.job.making.family, "back-plate")
        self.assertEqual(self.window.job_page().stage, "cut")
        self.assertEqual([work.cutting for work in self.job.job.works], [0, 2])

    def test_the_other_half_can_be_made_first(self):
        """The spigot stands at its 66.9805 as drawn; the register is bored to it."""
        self.begin_both()
        fits = self.stage("fits")
        fits.show_fit(4)
        self.click(fits.turn)
        fit = self.spigot()
        self.assertEqual((fit.choice.piece, fit.choice.exists), ("made:2", "shaft"))
        self.assertEqual(self.value("spigot.diameter"), 66.98)
        self.choose_work("Chuck carrier")
        self.assertEqual(self.job.plan.made.sizes["register.diameter"].by, "link")
        self.assertAlmostEqual(self.spigot().lower, 66.990, places=3)
        # once the spigot is read, it rules
        self.choose_work("Back plate")
        proof = self.stage("proof")
        proof.choose("size.spigot.diameter")
        self.choose(proof.instrument, "micrometer")
        for size in ("66.972", "66.973"):
            self.type(proof.reading.edit, size)
        self.choose_work("Chuck carrier")
        self.assertAlmostEqual(self.spigot().lower, 66.9725 + 0.010 + 0.0047, places=3)
        route = self.stage("route")
        route.choose("bore-register")
        self.assertEqual(route.go.text(), "Work it in Cut")
        fits = self.stage("fits")
        fits.show_fit(4)
        self.click(fits.turn)
        self.assertEqual(self.spigot().choice.piece, "made:1", "and back again")
        self.assertEqual(self.job.job.works[1].fits["spigot"], 4)

    def test_what_the_first_came_to_at_the_dial_rules_the_second(self):
        """The register is bored by the dial, 67 with 0.3 to either side: whatever it
        reads, less 29 and 10 µm of play and the gauge's doubt, is the spigot."""
        self.begin_both()
        self.choose_work("Chuck carrier")
        route = self.stage("route")
        route.choose("bore-register")
        self.click(route.go)
        self.choose(self.window.job_page().view().tools.instrument, "bore-gauge")
        size = self.sneak_up(65.9, -1)
        self.click(self.window.job_page().view().finished)
        self.choose_work("Back plate")
        doubt = self.spigot().mate.uncertainty
        self.assertGreater(doubt, 0.004)
        self.assertAlmostEqual(self.spigot().upper, round(size, 3) - 0.010 - doubt, 3)
        self.assertAlmostEqual(self.spigot().lower, round(size, 3) - 0.029 + doubt, 3)

    def test_a_piece_is_taken_out_again_unless_another_is_made_to_it(self):
        self.begin_both()
        made = [work.making.family for work in self.job.job.works]
        self.choose_work("Chuck carrier")
        self.take_out()
        [box] = self.window.findChildren(QMessageBox)
        self.assertIn("made to it", box.text())
        box.close()
        self.choose_work("Back plate")
        self.take_out()
        self.assertEqual(len(self.job.job.works), 1)
        self.assertNotIn("spigot", str(self.job.job.fits))
        self.window.actions_by_id["edit.undo"].trigger()
        self.settle()
        self.assertEqual([w.making.family for w in self.job.job.works], made)

    def take_out(self):
        self.window.actions_by_id["job.less"].trigger()
        self.settle()

    def test_a_piece_is_chosen_in_the_stack_and_by_its_name(self):
        self.begin_both()
        page = self.window.job_page()
        self.stage("piece")
        self.assertEqual(self.job.plan.made.family.key, "back-plate")
        page._on_stack_chosen("made:1", None)
        self.assertEqual(self.job.plan.made.family.key, "carrier")
        self.choose_work("Back plate")
        self.assertEqual(self.job.plan.made.family.key, "back-plate")
        ties = {spot.tie for spot in page.stack.drawing().spots}
        self.assertLessEqual({"made:1", "made:2", "fit.1", "fit.4", "fit.5"}, ties)


class SpindleAndArbor(MadePieces):
    """A spindle and the arbor that goes in its socket, in one job: what the spindle is
    bored to is known from its drawing."""

    demo = False

    def test_an_arbor_has_the_taper_of_the_spindle_that_is_made_with_it(self):
        self.set_up()
        self.begin("draw-in-spindle", "Spindle and arbor")
        self.read(
            ("front_bearing", "bore", "bore-gauge", "30.0", "30.0"),
            ("front_bearing", "width", "caliper", "16.0"),
            ("rear_bearing", "bore", "bore-gauge", "30.0", "30.0"),
            ("rear_bearing", "width", "caliper", "16.0"),
            ("bearings", "shoulder", "caliper", "48.0"),
            ("locknut", "thickness", "caliper", "8.0"),
            ("shank", "taper-out", "micrometer", ("17.78", "0"), ("15.283", "50")),
            ("draw_bar", "shaft", "micrometer", "10.0", "10.0"),
        )
        piece = self.stage("piece")
        self.type(piece.asked["locknut.thread"].edit, "M27x1.5")
        self.assertEqual(self.value("socket.taper"), "MT2")
        self.click(self.window.job_page().more)
        self.settle()
        page = self.window.pages.currentWidget()
        self.click(page.what.cards["taper-arbor"])
        self.choose(page.combos["mate.socket"], "made:1")
        self.choose(page.combos["mate.cutter"], "new")
        self.click(page.go)
        self.settle()
        self.read(
            ("cutter", "bore", "bore-gauge", "22.012", "22.010"),
            ("cutter", "width", "micrometer", "3.0"),
        )
        self.assertEqual(self.job.plan.missing, ())
        self.assertEqual(self.value("shank.taper"), "MT2")
        # both faces stand as far apart as the arbor's collar is to clear the socket
        (group,) = groups_of(self.job.plan)
        spindle, arbor = (next(p for p in group if p.tie == f"made:{n}") for n in "12")
        mouth = spindle.at + spindle.made.body.feature("socket").end
        collar = arbor.at + arbor.made.body.feature("shank").end
        self.assertAlmostEqual(collar - mouth, self.value("shank.off"), delta=0.05)

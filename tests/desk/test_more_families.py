"""Pieces of the other families, from the new job to the shop, as a user would."""

from machinon.desk.shop_cards import PieceCard
from machinon.draw.drawing import Shape
from machinon.draw.stack_drawing import stack_drawing
from tests.desk.test_made_pieces import MadePieces


class OfTheFamilies(MadePieces):
    """Readings by micrometer are ±4 µm, by bore gauge ±6; the play is set to 20 to 90
    µm before the machine, so that its coarse dial lands in it."""

    def make(self, what, *readings, typed=(), grave=()):
        """Begin a piece with every mate new; read and type what it asks. grave: what
        stands against it at first: no play wanted leaves a band."""
        mates = {role for role, *_ in readings}
        self.begin(what, what, **dict.fromkeys(mates, "new"))
        self.read(*readings)
        piece = self.stage("piece")
        for key, text in typed:
            self.type(piece.asked[key].edit, text)
        self.assertEqual(self.job.plan.missing, ())
        self.assertEqual(self.job.plan.problem, "")
        found = [check.says.split(":")[0] for check in self.job.plan.grave]
        self.assertEqual(found, list(grave))

    def band(self, key):
        """Of a fit or a chain."""
        return next(fit for fit in self.job.plan.made.fits if fit.slot.key == key)

    def finish_by(self, *cuts, proof=()):
        """Cut every fit the route cuts, in its order: (start, 1 outside or -1 inside);
        read what is left, (line, gauge, reading), and put it into the shop."""
        for number in self.job.job.work.fits.values():
            if self.job.plan.fit(number).choice.joint in ("thread", "bolts"):
                continue
            self.window.job_page().show_stage("fits", number)
            view = self.window.job_page().view()
            self.type(view.cylinder.least.edit, "0.02")
            self.type(view.cylinder.most.edit, "0.09")
        cut = set()
        for start, sign in cuts:
            steps = [s for up in self.job.plan.route for s in up.steps]
            ways = ((self.job.way_of(s), s) for s in steps if s.fit not in cut)
            step = next(s for way, s in ways if way == "fit")
            cut.add(step.fit)
            route = self.stage("route")
            route.choose(step.key)
            self.click(route.go)
            self.sneak_up(start, sign)
            self.click(self.window.job_page().view().answers["goes on"])
        self.tick_all()
        view = self.stage("proof")
        for key, gauge, reading in proof:
            view.choose(key)
            self.choose(view.instrument, gauge)
            self.type(view.reading.edit, reading)
            if view.answers["goes on"].isVisible():
                self.click(view.answers["goes on"])
        if view.thread.isVisible():  # of what screws onto a nose
            self.click(view.thread)
        if self.job.plan.made.family.runs:
            self.type(view.runout.edit, "0 0.002 0.004 0.001")
        return self.finish()


class BarsHubsAndKeys(OfTheFamilies):
    def test_a_boring_bar_for_a_holder_and_two_bits(self):
        """The bits of 8 stand 1.5 × 8 = 12 from the end and 24 apart; a bar of 20 cuts
        ⌀32 with its bit 6 mm out."""
        self.make(
            "single-point-bar",
            ("holder", "bore", "bore-gauge", "20.012", "20.012"),
            ("bit", "shaft", "micrometer", "8.00", "8.00"),
            typed=[("work.bore", "32")],
        )
        self.size("bits.count", "2")
        places = [self.job.plan.made.body.feature(f"bit{i}").z for i in (1, 2)]
        long = self.value("bar.length")
        self.assertEqual(places, [long - 12, long - 36])
        # in the stack each bit has its set screw: M4, 5 long, from 4 off the axis
        stack = stack_drawing(self.job.plan, 540, 150)
        screws = [shape.points for shape in stack.items
                  if isinstance(shape, Shape) and shape.role == "measured"]  # fmt: skip
        tall = [max(y for _, y in screw) - min(y for _, y in screw) for screw in screws]
        wide = [max(x for x, _ in screw) - min(x for x, _ in screw) for screw in screws]
        self.assertEqual(len(screws), 2)
        self.assertAlmostEqual(tall[0] / wide[0], 5 / 4)
        self.finish_by((20.8, 1), proof=[("fit.2", "bore-gauge", "8.05")])

    def test_a_hub_for_a_wheel_on_a_keyed_shaft(self):
        """Key for 20 by the table: 6 wide, 2.8 in the hub. Four holes of 6.4 that span
        38.92 over two: 38.92 − 6.4 = 32.52, so the circle is 32.52 √2 = 45.99; past
        M6's drills of 5 the flange is 46 + 15 = 61. In its
        own holes stand M6 screws: 32.53 + 6 = 38.53 over two."""
        self.begin("hub-adapter", "Hub", shaft="new", wheel="new", key_bar="new")
        wheel = self.job.job.making.mates["wheel"]
        self.read(
            ("shaft", "shaft", "micrometer", "20.00", "20.00"),
            ("shaft", "shoulder", "depth-gauge", "30.0"),
            ("wheel", "bore", "bore-gauge", "30.02", "30.02"),
            ("wheel", "thickness", "caliper", "8.0"),
            ("key_bar", "tongue", "micrometer", "5.99", "5.99"),
        )
        self.job.set_aid(wheel, "bolt-circle", "holes", "4")
        self.job.set_aid(wheel, "bolt-circle", "hole", "6.4")
        self.read(("wheel", "bolt-circle", "caliper", "38.92"))
        piece = self.stage("piece")
        self.type(piece.asked["machine.clear"].edit, "60")
        self.assertEqual((self.job.plan.missing, self.job.plan.problem), ((), ""))
        self.assertEqual(self.value("key.depth"), 2.8)
        keyed = self.band("key")
        self.assertTrue(5.99 < keyed.lower < self.value("key.width") < keyed.upper)
        self.assertAlmostEqual(self.value("bolts.circle"), 46.0, delta=0.02)
        self.assertEqual(self.value("flange.diameter"), 61)
        hub = self.finish_by(
            (19.5, -1),
            (31.0, 1),
            proof=[("fit.3", "caliper", "38.53"), ("fit.4", "slips", "6.04")],
        )
        self.assertEqual(hub.runs[0].readings, (0.0, 0.002, 0.004, 0.001))
        self.window.show_shop()
        page = self.window.pages.currentWidget()
        page.choose("piece", hub.id)
        card = page.findChild(PieceCard)
        self.type(card.fields["runs"].edit, "0 0.02 0.04 0.02")
        self.assertEqual(len(self.window.file.get(hub.id).runs), 2)

    def test_a_key_for_a_square_socket(self):
        """Corners of 0.5 on the socket: sharp they would stand at √2 across, the round
        takes 2 × 0.5 (√2 − 1) = 0.41 off, and a tenth clears it. 2 × 250 N on half of
        100 mm: 25 Nm."""
        self.make(
            "socket-key",
            ("socket", "slot", "slips", "8.05"),
            ("socket", "depth", "depth-gauge", "14.0"),
            typed=[
                ("socket.sides", "4"),
                ("socket.torque", "25"),
                ("machine.clear", "120"),
            ],
        )
        self.assertAlmostEqual(
            self.value("point.round"),
            self.value("point.across") * 2**0.5 - (2**0.5 - 1) - 0.1,
            delta=0.006,
        )
        self.assertEqual(self.value("handle.length"), 100)
        self.finish_by(proof=[("fit.1", "micrometer", "7.99")])

    def test_a_screw_with_a_hexagon_for_a_nut_in_hand(self):
        """M16 and 20 of nut: the thread is 20 + 4 × 2 long, the head 24 across."""
        self.make(
            "hexagon-screw",
            ("nut", "depth", "depth-gauge", "20.0"),
            ("hole", "bore", "bore-gauge", "17.00", "17.00"),
            ("hole", "thickness", "caliper", "20.0"),
            typed=[("nut.thread", "M16")],
        )
        self.assertEqual(self.value("thread.length"), 28)
        self.assertEqual(self.value("head.across"), 24)
        self.finish_by((18.0, 1))

    def test_a_stud_through_a_tool_post_by_a_chain(self):
        """Foot 12, post 75, washer 2, nut 8.4: 97.4; two threads of 1.5 to 5 mm stand
        out: 100.4 to 102.4, less what the readings doubt and the 0.2 that its foot may
        be off by the drawing."""
        self.make(
            "stud",
            ("below", "depth", "depth-gauge", "16.0"),
            ("below", "thickness", "caliper", "12.0"),
            ("held", "length", "caliper", "75.0"),
            ("held", "bore", "bore-gauge", "11.0", "11.0"),
            ("nut", "thickness", "caliper", "8.4"),
            ("washer", "thickness", "caliper", "2.0"),
            typed=[("below.thread", "M10"), ("nut.thread", "M10")],
        )
        chain = self.band("length")
        self.assertTrue(100.6 < chain.lower < 100.8, chain.lower)
        self.assertTrue(102.0 < chain.upper < 102.2, chain.upper)
        fits = self.stage("fits")
        self.assertIn(f"{chain.lower:.2f} to {chain.upper:.2f} mm", fits.how.text())
        self.finish_by(proof=[("chain.length", "caliper", "101.4")])


class KnobsAndSpindles(OfTheFamilies):
    def test_a_knob_whose_teeth_come_out_even(self):
        """π × 24 / 1 = 75.4: 75 teeth, so ⌀ 75 / π = 23.87."""
        self.make(
            "knob",
            ("stud", "thread-major", "micrometer", "5.98", "5.98"),
            ("stud", "length", "caliper", "9.0"),
            typed=[("stud.thread", "M6")],
        )
        self.size("head.about", "24")
        self.assertAlmostEqual(self.value("head.diameter"), 23.87)
        self.finish_by()

    def test_a_collet_spindle_in_its_tube(self):
        """25 at 8° over 16 mm: 25 − 2 × 16 tan 8° = 20.50 at its small end."""
        self.make(
            "collet-spindle",
            ("tube", "bore", "bore-gauge", "30.012", "30.012"),
            ("tube", "length", "caliper", "60.0"),
            ("nut", "length", "caliper", "12.0"),
            ("collet", "shaft", "micrometer", "25.0", "25.0"),
            ("collet", "length", "caliper", "20.0"),
            typed=[
                ("nut.thread", "M32x1.5"),
                ("collet.half_angle", "8"),
                ("collet.largest", "16"),
            ],
        )
        seat = self.job.plan.made.body.feature("seat")
        self.assertAlmostEqual(seat.start_diameter, 20.503, places=3)
        self.finish_by((31.0, 1))

    def test_a_collet_chuck_for_the_tailstock(self):
        """Morse 2 is 18.030 at the collar, 5 mm off its socket. Nose 12 + 3 × 1.5 =
        16.5 and collar 12 are 28.5; the seat 14 × 0.8 = 11, the bar 10 and 1 more are
        22 of it. The bore ends in the taper's plane: 28.5 behind the front."""
        self.make(
            "collet-chuck",
            ("socket", "taper-in", "bore-gauge", ("17.78", "0"), ("15.283", "50")),
            ("nut", "length", "caliper", "12.0"),
            ("collet", "shaft", "micrometer", "17.0", "17.0"),
            ("collet", "length", "caliper", "14.0"),
            typed=[
                ("nut.thread", "M22x1.5"),
                ("collet.half_angle", "8"),
                ("collet.largest", "10"),
            ],
        )
        self.assertEqual(self.value("shank.taper"), "MT2")
        self.assertEqual(self.value("draw.thread"), "M10")
        self.assertEqual((self.value("bore.depth"), self.value("bore.diameter")),
                         (28.5, 10.5))  # fmt: skip
        body = self.job.plan.made.body
        self.assertAlmostEqual(body.feature("bore").start, body.feature("shank").end)
        self.size("bore.depth", "75")
        self.assertIn("holes-meet", [check.key for check in self.job.plan.failed])
        self.size("bore.depth", "")
        steps = [step.key for up in self.job.plan.route for step in up.steps]
        self.assertLess(steps.index("prove-shank"), steps.index("taper-seat"))
        self.finish_by()

    def test_a_collet_chuck_for_the_lathe_s_own_nose(self):
        """The nose's thread, read 44.86 over its crests at 4.5, is M45; 0.45 of it and
        9 of relief behind 13 of register are 42.5 deep."""
        self.make(
            "nose-chuck",
            ("spindle", "register", "micrometer", "45.992", "45.994"),
            ("spindle", "register-length", "depth-gauge", "12.02"),
            ("spindle", "thread-major", "micrometer", "44.86"),
            ("spindle", "thread-pitch", "thread-gauge", "4.5"),
            ("spindle", "nose-length", "depth-gauge", "36.05"),
            ("nut", "length", "caliper", "12.0"),
            ("collet", "shaft", "micrometer", "25.0", "25.0"),
            ("collet", "length", "caliper", "20.0"),
            typed=[
                ("nut.thread", "M32x1.5"),
                ("collet.half_angle", "8"),
                ("collet.largest", "16"),
            ],
        )
        self.assertEqual(self.value("thread.thread"), "M45x4.5")
        self.assertEqual(self.value("core.depth"), 42.5)
        fit = self.band("register")
        self.assertTrue(45.993 < fit.lower < fit.upper < 46.02)
        self.finish_by((45.2, -1))

    def test_an_arbor_that_a_die_holder_slides_on(self):
        """Its sleeve of 16.02 makes it a round, 20 to 90 µm under that."""
        self.make(
            "chuck-arbor",
            ("socket", "taper-in", "bore-gauge", ("23.825", "0"), ("21.315", "50")),
            ("sleeve", "bore", "bore-gauge", "16.020", "16.022"),
            grave=["Round in what slides on it"],
        )
        self.assertEqual(self.value("shank.taper"), "MT3")
        self.assertEqual(self.value("front.kind"), "round")
        self.size("spindle.length", "100")
        self.finish_by((17.0, 1))

    def test_a_tube_centre_on_a_morse_3_shank(self):
        """60 across at a tip of 20, 30° a side: 20 / tan 30° = 34.64 long."""
        self.make(
            "lathe-centre",
            ("socket", "taper-in", "bore-gauge", ("23.825", "0"), ("21.315", "50")),
        )
        self.size("collar.diameter", "60")
        self.size("point.tip", "20")
        point = self.job.plan.made.body.feature("point")
        self.assertAlmostEqual(point.end - point.start, 34.64, places=2)
        self.assertEqual(self.value("stock.diameter"), 62)
        tapers = {o.id: o.given for o in self.finish_by().surfaces}
        self.assertEqual(tapers["taper-out"], "MT3")

    def test_a_die_holder_on_its_arbor(self):
        """Arbor and die come first, the holder is bored to both."""
        self.make(
            "die-holder",
            ("arbor", "shaft", "micrometer", "15.99", "15.992"),
            ("die", "shaft", "micrometer", "25.00", "25.00"),
            ("die", "thickness", "caliper", "9.0"),
        )
        self.assertEqual(self.value("guide.length"), 40)
        self.assertEqual(self.value("screws.thread"), "M5")
        self.finish_by((15.0, -1), (24.0, -1))

    def test_a_sleeve_for_morse_2_drills_in_a_morse_3_spindle(self):
        """Morse 3 is 24.076 at the collar, 5 mm off; with a tang the slot for the drift
        is 6.3 + 0.3 wide, 62 from the mouth, and the collar 12.5 long."""
        self.make(
            "taper-sleeve",
            ("socket", "taper-in", "bore-gauge", ("23.825", "0"), ("21.315", "50")),
            ("tool", "taper-out", "micrometer", ("17.78", "0"), ("15.283", "50")),
        )
        self.assertEqual((self.value("shank.taper"), self.value("seat.taper")),
                         ("MT3", "MT2"))  # fmt: skip
        self.size("shank.end", "tang")
        slot = self.job.plan.made.body.feature("drift")
        self.assertEqual((slot.width, slot.mouth - slot.end), (6.6, 62))
        self.assertEqual(self.value("collar.length"), 12.5)
        self.assertEqual(self.job.plan.failed, ())
        self.size("collar.length", "5")
        self.assertEqual([c.key for c in self.job.plan.failed], ["holes-meet"])
        self.size("collar.length", "")
        sleeve = self.finish_by()
        tapers = {o.id: o.given for o in sleeve.surfaces if o.id.startswith("taper")}
        self.assertEqual(tapers, {"taper-out": "MT3", "taper-in": "MT2"})

    def test_a_draw_in_spindle_on_two_bearings(self):
        """Morse 2 is 17.780 at 1:20.020, 64 deep and 3 past its gauge, from the table:
        its small end stands over a draw bar's hole of 10.5. The housing keeps the rings
        48 apart: 0.2 to 1.0 less from seat to seat, and the nut bears on the ring; the
        seats may be 0.05 off each, which the rest pays."""
        self.make(
            "draw-in-spindle",
            ("front_bearing", "bore", "bore-gauge", "30.0", "30.0"),
            ("front_bearing", "width", "caliper", "16.0"),
            ("rear_bearing", "bore", "bore-gauge", "30.0", "30.0"),
            ("rear_bearing", "width", "caliper", "16.0"),
            ("bearings", "shoulder", "caliper", "48.0"),
            ("locknut", "thickness", "caliper", "8.0"),
            ("shank", "taper-out", "micrometer", ("17.78", "0"), ("15.283", "50")),
            ("draw_bar", "shaft", "micrometer", "10.0", "10.0"),
            typed=[("locknut.thread", "M27x1.5")],
        )
        chain = self.band("rings")
        self.assertTrue(47.1 < chain.lower < chain.upper < 47.7)
        socket = self.job.plan.made.body.feature("socket")
        self.assertAlmostEqual(socket.end_diameter, 17.78)
        self.assertAlmostEqual(
            socket.start_diameter, 17.78 - self.value("socket.depth") / 20.02, places=3
        )
        proof = [("chain.rings", "caliper", "47.4")]
        self.finish_by((31.0, 1), (31.0, 1), proof=proof)

    def test_a_draw_tube_sleeve_with_sprung_balls(self):
        """At 45° a bevel from 38 down to 29 stands 1.5 in a bore of 32: 62.0 and 1.5,
        less a washer of 2.0 and 0.1 to 0.4 of float, is 61.1 to 61.4. A ball of 4.5
        passes M6's crests of 4.917 and not a mouth of 0.9 × 4.5 = 4.05."""
        self.make(
            "draw-tube-sleeve",
            ("tube", "shaft", "micrometer", "20.0", "20.0"),
            ("spindle", "bore", "bore-gauge", "32.0", "32.0"),
            ("spindle", "depth", "depth-gauge", "62.0"),
            ("washer", "thickness", "micrometer", "2.0"),
            typed=[("float.least", "0.1"), ("float.most", "0.4")],
        )
        chain = self.band("length")
        self.assertTrue(61.1 < chain.lower < chain.upper < 61.4)
        self.assertEqual(self.value("balls.thread"), "M6")
        self.assertEqual(self.value("balls.diameter"), 4.5)
        self.finish_by((19.4, -1), proof=[("chain.length", "caliper", "61.25")])


class ArborsCoversAndStops(OfTheFamilies):
    def test_an_expanding_arbor_for_a_bore(self):
        """M8 at 10° to the axis: a turn draws 1.25, which widens 2 × 1.25 tan 10°, 0.44
        mm, past any play of a close nose."""
        self.make(
            "slit-arbor",
            ("work", "bore", "bore-gauge", "20.01", "20.01"),
            ("work", "depth", "depth-gauge", "25.0"),
            ("collet", "bore", "bore-gauge", "16.0", "16.0"),
            grave=["Shank in what holds it"],
        )
        grows = next(c for c in self.job.plan.made.checks if c.key == "grows")
        self.assertAlmostEqual(grows.have, 0.4408, places=4)
        self.finish_by((16.8, 1), (20.9, 1))

    def test_a_drill_plate_for_a_bolt_circle(self):
        """Six of 6.8 on 60: neighbours stand 30 apart, 23.2 of metal between."""
        self.make(
            "drill-plate",
            ("part", "bore", "bore-gauge", "40.02", "40.02"),
            ("part", "recess-depth", "depth-gauge", "12.0"),
            typed=[
                ("pattern.count", "6"),
                ("pattern.circle", "60"),
                ("pattern.drill", "6.8"),
            ],
        )
        between = next(c for c in self.job.plan.made.checks if c.key == "between-holes")
        self.assertAlmostEqual(between.have, 23.2)
        self.finish_by((41.0, 1))

    def test_a_cover_that_pinches_a_bearing_by_a_chain(self):
        """6.0 from face to ring and 20 to 80 µm of pinch: a lip of 6.02 to 6.08."""
        self.make(
            "housing-cover",
            ("housing", "bore", "bore-gauge", "52.02", "52.02"),
            ("housing", "recess-depth", "depth-gauge", "6.0"),
            ("shaft", "shaft", "micrometer", "25.0", "25.0"),
            typed=[
                ("housing.ring_bore", "45"),
                ("housing.inner_ring", "32"),
                ("housing.bolts", "4"),
                ("housing.circle", "64"),
                ("pinch.least", "0.02"),
                ("pinch.most", "0.08"),
            ],
        )
        chain = self.band("pinch")
        self.assertTrue(6.02 < chain.lower < chain.upper < 6.08)
        self.finish_by((53.0, 1), proof=[("chain.pinch", "depth-gauge", "6.05")])

    def test_a_dovetail_stop_for_a_measured_slide(self):
        """Over pins of 8 at 60°: 81.86 − 8 (1 + cot 30°) = 60.003 between its corners.
        A slot 12.3 deep is 2 × 12.3 / tan 60° = 14.20 wider at its floor; between its
        pins it reads 21.86 less than that, and the play."""
        self.begin("dovetail-stop", "Stop", slide="new")
        slide = self.job.job.making.mates["slide"]
        for key, text in (("pin", "8"), ("angle", "60"), ("depth", "12")):
            self.job.set_aid(slide, "over-pins", key, text)
        self.read(("slide", "over-pins", "micrometer", "81.86"))
        self.assertEqual((self.job.plan.missing, self.job.plan.problem), ((), ""))
        band = self.band("slot")
        between = 81.86 - 8 * (1 + 3**0.5) + 2 * 12.3 / 3**0.5 - 8 * (1 + 3**0.5)
        self.assertTrue(between < band.lower < band.upper < between + 0.1)
        self.assertEqual(self.job.plan.fit(1).lower, band.lower)
        slot = self.job.plan.made.body.feature("slot")
        self.assertAlmostEqual(slot.floor - slot.mouth, 2 * 12.3 / 3**0.5, places=3)
        self.assertAlmostEqual(slot.half_angle, 30, places=3)
        middle = (band.lower + band.upper) / 2
        self.finish_by(proof=[("fit.1", "slips", f"{middle:.3f}")])

    def test_a_keeper_whose_vee_presses_its_round(self):
        """In a vee of 90°, 23.8 wide and 11.9 deep, a round of 20 goes 10 + 11.9 −
        10 √2 = 7.76 in; where it stands 8.0 over its seat, 0.24 is left under it."""
        self.make(
            "keeper",
            ("round", "shaft", "micrometer", "20.0", "20.0"),
            ("round", "length", "caliper", "8.0"),
        )
        checks = {check.key: check for check in self.job.plan.made.checks}
        self.assertAlmostEqual(checks["presses"].have, 8 - 21.9 + 10 * 2**0.5)
        self.finish_by(proof=[("size.block.height", "caliper", "24.0")])


class ClampsAndSpanners(OfTheFamilies):
    def test_a_strap_clamp_for_a_stud(self):
        """M12 and 12.0 across: a strap 24 high, its window 14, as cutters are."""
        self.make(
            "strap-clamp",
            ("stud", "shaft", "micrometer", "12.0", "12.0"),
            typed=[("stud.thread", "M12"), ("stud.torque", "40")],
        )
        self.assertEqual(self.value("block.height"), 24)
        self.assertEqual(self.value("pocket1.width"), 14)
        self.finish_by(proof=[("size.block.height", "caliper", "24.0")])

    def test_a_carriage_stop_for_a_bed(self):
        """A vee of 90° with a flat of 4.0, 10.0 high: a groove 20 wide, 10 deep, that
        leaves 2.0 over the flat."""
        self.make(
            "carriage-stop",
            ("bed", "thickness", "caliper", "4.0"),
            ("bed", "depth", "depth-gauge", "10.0"),
            typed=[("bed.angle", "90"), ("bed.room", "70")],
        )
        self.assertEqual(self.value("vee1.width"), 20)
        checks = {check.key: check for check in self.job.plan.made.checks}
        self.assertAlmostEqual(checks["over-the-crest"].have, 2.0)
        self.finish_by(proof=[("size.block.height", "caliper", "40.0")])

    def test_a_spanner_with_pins_for_a_nut(self):
        """Two holes of 4.2, 30 apart: pins of 4."""
        self.make(
            "ring-nut-spanner",
            ("nut", "shaft", "micrometer", "40.0"),
            ("nut", "slot", "slips", "5.0"),
            ("nut", "depth", "depth-gauge", "2.5"),
            ("nut", "thickness", "caliper", "8.0"),
            typed=[
                ("nut.pitch", "30"),
                ("nut.hole", "4.2"),
                ("nut.torque", "25"),
                ("machine.clear", "20"),
            ],
        )
        self.size("head.kind", "pins")
        self.assertEqual(self.value("pins.diameter"), 4)
        self.finish_by(proof=[("size.plate.thickness", "caliper", "8.0")])

    def test_an_angle_block_for_work_at_20_degrees(self):
        """5 and 80 tan 20° = 29.118."""
        self.make("sloped-block", typed=[("work.angle", "20")])
        self.assertAlmostEqual(self.value("block.height"), 34.12)
        ends = ("size.slope.low", "5.0"), ("size.block.height", "34.12")
        self.finish_by(proof=[(end, "caliper", read) for end, read in ends])


class PlatesAndArms(OfTheFamilies):
    def test_a_clamp_plate_over_what_it_pinches(self):
        """20.3 high over a floor of 20.0: 0.3 of pinch; of 20.05 it would have none."""
        self.make(
            "clamp-plate",
            ("clamped", "thickness", "micrometer", "20.3", "20.3"),
            ("clamped", "depth", "depth-gauge", "20.0"),
        )
        checks = {check.key: check for check in self.job.plan.made.checks}
        self.assertAlmostEqual(checks["pinch"].have, 0.3)
        self.size("block.height", "6")
        self.assertIn("bows", [check.key for check in self.job.plan.failed])
        self.size("block.height", "")
        self.finish_by(proof=[("size.block.height", "caliper", "12.0")])

    def test_a_detent_plate_for_a_lever_of_three_places(self):
        """A ball of 6 sunk 0.9: its rim is 2 √(0.9 × 5.1) = 4.28; on 45 and 30° apart
        places stand 45 sin 15° = 11.65 from each other, 7.36 of land."""
        self.make(
            "detent-plate",
            ("shaft", "shaft", "micrometer", "12.0", "12.0"),
            ("ball", "ball", "micrometer", "6.0", "6.0"),
            typed=[
                ("ball.spring", "20"),
                ("lever.places", "3"),
                ("lever.throw", "30"),
                ("lever.holds", "0.2"),
            ],
        )
        checks = {check.key: check for check in self.job.plan.made.checks}
        self.assertAlmostEqual(
            checks["lands"].have, 45 * 0.258819 - 2 * (0.9 * 5.1) ** 0.5, places=3
        )
        recesses = self.job.plan.made.body.feature("recesses")
        self.assertEqual([round(x, 2) for x, _ in recesses.points], [11.25, 0, -11.25])
        self.finish_by((11.4, -1))

    def test_a_pair_of_arms_for_a_fork(self):
        """Over two holes of 8 a span of 68, so 60 from hole to hole; an eye of 18, 9
        past each, makes 78. A tenth under the fork: 10.0 thick, and no thicker than
        0.05 under it."""
        self.begin("hinged-arm", "Arms", pin="new", fork="new", place="new")
        place = self.job.job.making.mates["place"]
        self.job.set_aid(place, "hole-span", "hole", "8")
        self.read(
            ("pin", "shaft", "micrometer", "8.0", "8.0"),
            ("fork", "slot", "slips", "10.1"),
            ("place", "hole-span", "caliper", "68.0"),
        )
        piece = self.stage("piece")
        self.type(piece.asked["place.opens"].edit, "90")
        self.type(piece.asked["place.clear"].edit, "80")
        self.assertEqual((self.job.plan.missing, self.job.plan.problem), ((), ""))
        self.assertEqual(self.value("arm.length"), 78)
        self.assertEqual(self.value("arm.thickness"), 10)
        proof = self.stage("proof")
        proof.choose("size.arm.thickness")
        self.type(proof.reading.edit, "10.08")
        line = next(o for o in self.job.plan.proof if o.key == "size.arm.thickness")
        self.assertEqual(
            (line.verdict, line.lower, line.upper), ("failed", 9.85, 10.05)
        )
        self.job.undo()
        self.finish_by(
            proof=[
                ("fit.1", "bore-gauge", "8.05"),
                ("size.arm.thickness", "micrometer", "9.97"),
            ]
        )

    def test_a_vee_block_for_rounds_of_12_to_40(self):
        """A vee of 90°, 44 wide, is 22 deep; a round of 40 touches it 20 cos² 45° / sin
        45° = 14.14 above its bottom, 7.86 below the mouth."""
        self.make("vee-block", typed=[("rounds.least", "12"), ("rounds.largest", "40")])
        checks = {check.key: check for check in self.job.plan.made.checks}
        self.assertAlmostEqual(checks["largest-in-vee"].have, 22 - 20 / 2**0.5)
        self.finish_by(proof=[("size.block.height", "caliper", "50.0")])


class ChuckPlates(OfTheFamilies):
    """Plates for spindles with a flange: three holes of 9 that span 76.55 over two of
    them lie on (76.55 − 9) / sin 60° = 78.00; the chuck's, over M8 screws of 7.9 that
    span 103.1, on 95.2 / sin 60° = 109.93. M8 screws in the new threads span 67.55 + 8
    = 75.55, its new holes of 9 span 95.2 + 9 = 104.2."""

    chuck = (
        ("chuck", "body", "caliper", "130.0"),
        ("chuck", "recess", "bore-gauge", "95.02", "95.02"),
        ("chuck", "recess-depth", "depth-gauge", "4.2"),
        ("chuck", "bolt-hole", "caliper", "7.9"),
    )
    span = "103.1"
    flange = (
        ("spindle", "shaft", "caliper", "92.0"),
        ("spindle", "hole", "caliper", "9.0"),
        ("spindle", "bore", "caliper", "26.0"),
    )

    def plate(self, what, *nose):
        self.begin(what, what, spindle="new", chuck="new")
        mates = self.job.job.making.mates
        self.read(*nose, *self.flange, *self.chuck)
        self.job.set_aid(mates["spindle"], "bolt-circle", "holes", "3")
        self.job.set_aid(mates["spindle"], "bolt-circle", "hole", "9")
        self.read(
            ("spindle", "bolt-circle", "caliper", "76.55"),
            ("chuck", "bolt-span", "caliper", self.span),
        )
        self.stage("fits").show_fit(self.job.job.work.fits["bolts"])
        self.type(self.window.job_page().view().bolts.count.edit, "3")
        self.assertEqual((self.job.plan.missing, self.job.plan.problem), ((), ""))
        self.assertAlmostEqual(self.value("nose.circle"), 78.0, delta=0.05)
        self.assertAlmostEqual(self.value("bolts.circle"), 109.93, delta=0.05)

    def test_a_plate_for_a_flange_with_a_register(self):
        self.plate(
            "flange-plate",
            ("spindle", "register", "micrometer", "63.99", "63.99"),
            ("spindle", "register-length", "depth-gauge", "4.0"),
        )
        # the nose ends half a millimetre before the floor: the flange seats
        self.assertEqual(self.value("register.depth"), 4.5)
        spans = [("fit.2", "caliper", "75.55"), ("fit.4", "caliper", "104.2")]
        plate = self.finish_by((63.0, -1), (96.0, 1), proof=spans)
        self.assertEqual(plate.runs[0].readings, (0.0, 0.002, 0.004, 0.001))

    def test_a_plate_for_the_screws_that_stood_in_the_chuck(self):
        """9.9 over one in its tapped hole is M10: holes of 11 in the plate. The span
        is 95.2 + 9.9; those of the flange pass M8."""
        self.chuck = (*self.chuck[:-1], ("chuck", "bolt-hole", "caliper", "9.9"))
        self.span = "105.1"
        self.plate(
            "flange-plate",
            ("spindle", "register", "micrometer", "63.99", "63.99"),
            ("spindle", "register-length", "depth-gauge", "4.0"),
        )
        self.assertEqual(self.value("bolts.screw"), "M10")
        self.assertEqual(self.value("nose.screw"), "M8")
        bolts = self.job.plan.fit(self.job.job.work.fits["bolts"])
        self.assertEqual(bolts.room["hole"], 11)

    def test_a_plate_for_a_short_taper(self):
        """1:4, and by hand 0.02 off the flange: 63.513 − 0.02/4 = 63.508."""
        self.plate(
            "taper-plate",
            ("spindle", "register", "micrometer", "63.513", "63.513"),
            ("spindle", "register-length", "depth-gauge", "10.0"),
        )
        self.assertAlmostEqual(self.value("seat.diameter"), 63.508, places=3)
        self.finish_by(
            (96.0, 1),
            proof=[
                ("fit.1", "caliper", "75.55"),
                ("fit.3", "caliper", "104.2"),
                ("size.seat.depth", "depth-gauge", "11.0"),
            ],
        )

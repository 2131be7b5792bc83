import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.families import family_of
from machinon.core.in_inches import in_inches
from machinon.core.piece.made import make
from machinon.core.route.steps import route_told
from machinon.core.route.work.listed import work_list

# ⌀20 × 30, ⌀40 × 12, ⌀25 × 20
COLLAR = {
    "step1.length": "30",
    "step1.diameter": "20",
    "step2.length": "12",
    "step2.diameter": "40",
    "step3.length": "20",
    "step3.diameter": "25",
}


def turned(parts="", **given):
    sizes = {
        name if "." in name else name.replace("_", ".", 1): text
        for name, text in given.items()
    }
    parts = f"step step step {parts}".strip()
    return make(family_of("turned-piece"), {"parts": parts, **COLLAR, **sizes})


def failed(made):
    return {check.key for check in made.checks if not check.passed}


def cut_in(holding, operation):
    return [s.features[0] for s in holding.steps if s.operation == operation]


class TurnedPieces(unittest.TestCase):
    def test_its_volume_is_that_of_its_steps(self):
        wanted = math.pi / 4 * (20**2 * 30 + 40**2 * 12 + 25**2 * 20)
        self.assertAlmostEqual(turned().body.volume / wanted, 1, places=5)

    def test_a_taper_is_a_frustum(self):
        """20 to 16 over 25: π/12 · 25 · (400 + 320 + 256)."""
        made = make(family_of("turned-piece"), {"parts": "taper"})
        wanted = math.pi / 12 * 25 * (20**2 + 20 * 16 + 16**2)
        self.assertAlmostEqual(made.body.volume / wanted, 1, places=4)

    def test_a_taper_by_its_name_has_the_ends_of_its_standard(self):
        """Morse 3 is 23.825 at its large end and 1:19.922, so 4.064 less 80.963 on; it
        is small where it goes into its socket."""
        given = {"taper1.taper": "Morse 3"}
        for parts, left, right in (
            ("taper", 23.825, 19.761),
            ("step taper", 23.825, 19.761),
            ("taper step", 19.761, 23.825),
        ):
            with self.subTest(parts):
                made = make(family_of("turned-piece"), given | {"parts": parts})
                cone = made.body.feature("taper1")
                self.assertEqual(cone.taper, "MT3")
                self.assertAlmostEqual(cone.end - cone.start, 80.963)
                self.assertAlmostEqual(cone.start_diameter, left, places=3)
                self.assertAlmostEqual(cone.end_diameter, right, places=3)
                self.assertNotIn("taper1-slope", failed(made))
        # one of no size of its own goes by the end that is typed
        spigot = turned("taper", taper1_taper="1:10", taper1_left="30")
        self.assertAlmostEqual(spigot.values["taper1.right"], 27.5)
        wrong = turned("taper", **given, taper1_right="20")
        self.assertIn("taper1-slope", failed(wrong))
        with self.assertRaises(BadInput) as no:
            turned("taper", taper1_taper="steep")
        self.assertEqual(no.exception.key, "taper1.taper")

    def test_a_nut_of_hexagon_bar_keeps_the_flats_that_it_has(self):
        """24 across, 13 high, bored for M16: √3/2 · 24² less a round of 13.835; no
        tool comes to the flats, and its corners lie at 24 / cos 30°."""
        given = {
            "parts": "bar nut",
            "stock.shape": "hexagon",
            "bar1.across": "24",
            "bar1.length": "13",
            "nut1.thread": "M16x2",
            "nut1.depth": "0",
        }
        nut = make(family_of("turned-piece"), given)
        bore = nut.body.feature("nut1").bore
        wanted = 13 * (math.sqrt(3) / 2 * 24**2 - math.pi / 4 * bore**2)
        self.assertAlmostEqual(nut.body.volume / wanted, 1, places=3)
        self.assertEqual(nut.sizes["stock.diameter"].value, 24)
        self.assertEqual(nut.body.stock.says, "hexagon 24 × 16")
        self.assertAlmostEqual(nut.body.largest, 27.713, places=3)
        cut = {
            f for holding in route_told(nut) for s in holding.steps for f in s.features
        }
        self.assertNotIn("bar1", cut)
        self.assertEqual(failed(nut), set())
        wrong = make(family_of("turned-piece"), given | {"stock.diameter": "27"})
        self.assertEqual(failed(wrong), {"bar1-across"})

    def test_what_is_turned_lies_within_the_flats_of_its_bar(self):
        """A step of 26 has no metal all round in a hexagon of 24; one of 22 has."""
        given = {
            "parts": "step bar",
            "stock.shape": "hexagon",
            "bar1.across": "24",
        }
        for wide, good in (("22", True), ("26", False)):
            made = make(family_of("turned-piece"), given | {"step1.diameter": wide})
            self.assertEqual("stock-diameter" not in failed(made), good, wide)
        notes = [s.note for holding in route_told(made) for s in holding.steps]
        self.assertTrue(any("corners knock" in note for note in notes))

    def test_flats_carry_no_thread_and_no_knurl(self):
        """36 over its corners, a hexagon of 31.177 is no round for M36."""
        given = {
            "parts": "bar knurl thread",
            "stock.shape": "hexagon",
            "bar1.across": "31.177",
            "bar1.length": "40",
            "thread1.thread": "M36",
        }
        made = make(family_of("turned-piece"), given)
        self.assertAlmostEqual(made.body.largest, 36, places=2)
        self.assertLessEqual({"knurl1-on-a-step", "thread1-crest"}, failed(made))

    def test_a_hole_from_the_side_is_measured_from_the_flat_that_it_starts_on(self):
        """12 deep in a square of 20, from its flat and not from its corner."""
        made = make(
            family_of("turned-piece"),
            {
                "parts": "bar cross",
                "stock.shape": "square",
                "bar1.across": "20",
                "bar1.length": "30",
                "cross1.from_end": "15",
                "cross1.diameter": "6",
                "cross1.depth": "12",
            },
        )
        solid = make(
            family_of("turned-piece"),
            {
                "parts": "bar",
                "stock.shape": "square",
                "bar1.across": "20",
                "bar1.length": "30",
            },
        )
        point = 3 / math.tan(math.radians(59))
        drilled = math.pi * 9 * (12 + point / 3)
        lost = solid.body.volume - made.body.volume
        self.assertAlmostEqual(lost / drilled, 1, places=2)

    def test_round_bar_is_left_as_it_is_between_what_is_turned(self):
        made = make(
            family_of("turned-piece"),
            {"parts": "step bar step", "bar1.across": "40", "bar1.length": "25"},
        )
        self.assertEqual(made.sizes["stock.diameter"].value, 40)
        self.assertEqual(failed(made), set())
        cut = {
            f for holding in route_told(made) for s in holding.steps for f in s.features
        }
        self.assertLessEqual({"step1", "step2"}, cut)
        self.assertNotIn("bar1", cut)

    def test_a_socket_is_bored_to_its_taper_from_the_bore_behind_it(self):
        """Morse 2, 68 deep: 17.780 − 68 / 20.020 = 14.383 at its bottom; a bore of 12
        leads there, one of 16 leaves no seat, and with none it is solid. Morse 3 has a
        mouth of 23.825 and goes deeper."""
        sleeve = {"step1_diameter": "40", "step1_length": "100"}
        made = turned("bore socket", bore1_diameter="12", **sleeve)
        self.assertNotIn("socket1", " ".join(failed(made)))
        socket = made.body.feature("socket1")
        self.assertAlmostEqual(socket.start_diameter, 14.383, delta=0.001)
        larger = turned("bore socket", socket1_taper="MT3", **sleeve).values
        self.assertEqual(larger["socket1.mouth"], 23.825)
        self.assertGreater(larger["socket1.depth"], 80)
        self.assertEqual(socket.end_diameter, 17.78, "its mouth is in the right end")
        tools = [s.tool for up in route_told(made) for s in up.steps
                 if s.operation == "taper"]  # fmt: skip
        self.assertEqual(set(tools), {"boring bar, compound set over"})
        for parts, sizes, wrong in (
            ("socket", {}, "socket1-begins"),
            ("bore socket", {"bore1_diameter": "16"}, "socket1-bears"),
            ("bore socket", {"socket1_mouth": "18.5"}, "socket1-mouth"),
            ("bore socket", {"step3_diameter": "20"}, "socket1-wall"),
        ):
            given = {**sleeve, **({"bore1_diameter": "12"} if "bore" in parts else {})}
            self.assertIn(wrong, failed(turned(parts, **{**given, **sizes})))

    def test_the_largest_step_and_all_to_its_right_are_turned_first(self):
        first, second, _ = route_told(turned())
        self.assertEqual(cut_in(first, "turn"), ["step2", "step3"])
        self.assertEqual(cut_in(second, "turn"), ["step1"])

    def test_over_a_thin_wall_the_outside_is_finished_once_it_is_bored(self):
        """A bush of 40: bored to 37 its wall of 1.5 gives, to 30 that of 5 does not;
        knurling wheels want it whole."""
        for bore, more, order in (
            ("37", "", ["rough-step1", "bore-bore1", "turn-step1"]),
            ("30", "", ["turn-step1", "bore-bore1"]),
            ("37", " knurl", ["turn-step1", "bore-bore1"]),
        ):
            with self.subTest(bore=bore, more=more):
                given = {"parts": f"step bore{more}", "step1.diameter": "40"}
                given |= {"bore1.diameter": bore, "stock.diameter": "45"}
                made = make(family_of("turned-piece"), given)
                keys = [s.key for s in route_told(made)[0].steps if s.key in order]
                self.assertEqual(keys, order)
                first = next(s for s in route_told(made)[0].steps if s.key == order[0])
                self.assertEqual(first.leaves, 0.25 if len(order) > 2 else 0)

    def test_a_step_without_length_is_left_out_and_one_has_to_stay(self):
        made = turned(step2_length="0")
        self.assertEqual((made.body.largest, made.body.ends), (25, (0, 50)))
        none = {f"step{n}_length": "0" for n in (1, 2, 3)}
        with self.assertRaises(BadInput) as caught:
            turned(**none)
        self.assertIn("has a length", caught.exception.message)

    def test_a_bore_leaves_a_wall_and_a_thread_its_crest(self):
        """M16: root of the screw 13.546 at most; a bore of 12 leaves 0.7 round it."""
        studs = {"step3_diameter": "16", "thread1_thread": "M16"}
        self.assertEqual(failed(turned("thread bore", **studs)), set())
        wide = turned("thread bore", **studs, bore1_diameter="12")
        self.assertIn("bore1-wall", failed(wide))
        self.assertIn("thread1-crest", failed(turned("thread")), "the step is 25")
        self.assertEqual(turned("thread").values["thread1.thread"], "M24")

    def test_a_chamfer_in_a_bore_is_a_ring_of_its_triangle(self):
        """A leg of 2 at 30° rises 1.1547: a triangle of 1.1547 with its middle at 8 +
        1.1547 / 3 from the axis, once round; of the outside as far in from 25."""
        sizes = {"step3_diameter": "50", "bore1_diameter": "16"}
        plain = turned("bore", **sizes).body.volume
        for of, radius in (("bore", 8 + 1.1547 / 3), ("outside", 25 - 1.1547 / 3)):
            edge = {"edge1_leg": "2", "edge1_angle": "30", "edge1_of": of}
            made = turned("bore edge", **sizes, **edge)
            wanted = 2 * math.pi * radius * 2 * 1.1547 / 2
            self.assertAlmostEqual((plain - made.body.volume) / wanted, 1, 2)
        with self.assertRaisesRegex(BadInput, "Nothing is bored in the right end"):
            turned("edge", edge1_of="bore")
        wide = turned("bore edge", **sizes, edge1_of="bore", edge1_leg="18")
        self.assertIn("edge1-room", failed(wide))

    def test_a_rounded_edge_takes_off_what_lies_outside_of_its_arc(self):
        """(1 − π/4) 4² = 3.434 mm², whose middle lies 0.2234 · 4 = 0.894 from the sharp
        corner: 2π (12.5 − 0.894) · 3.434 = 250.4 mm³."""
        less = turned().body.volume - turned("round", round1_radius="4").body.volume
        self.assertAlmostEqual(less, 250.4, delta=3)
        self.assertIn("round1-room", failed(turned("round", round1_radius="13")))
        step = next(
            s
            for up in route_told(turned("round", round1_radius="4"))
            for s in up.steps
            if s.features == ("round1",)
        )
        self.assertEqual(step.title, "Round the right edge, R4")

    def test_a_ball_ends_on_its_neck_and_is_cut_last_on_its_shank(self):
        """⌀20 on ⌀12: 10 + √(10² − 6²) = 18 long, and π · 18² (10 − 18 / 3) = 4071.5
        mm³ of it; before a step of its own diameter it is half a ball."""
        sizes = {"step1.diameter": "12", "step1.length": "40"}

        def ended(parts, **given):
            given = {name.replace("_", "."): text for name, text in given.items()}
            return make(family_of("turned-piece"), {"parts": parts, **sizes, **given})

        ball = ended("ball step")
        self.assertEqual(ball.values["ball1.length"], 18)
        wanted = 4071.5 + math.pi / 4 * 12**2 * 40
        self.assertAlmostEqual(ball.body.volume / wanted, 1, delta=0.003)
        self.assertEqual(
            ended("ball step", ball1_diameter="12").values["ball1.length"], 6
        )
        self.assertEqual(failed(ball), set())
        alone = make(family_of("turned-piece"), {"parts": "ball taper"})
        self.assertIn("ball-held", failed(alone))
        first, then, _ = route_told(ended("step ball"))
        self.assertEqual(first.title, "In the chuck, left end out")
        self.assertEqual(cut_in(first, "turn"), ["step1"])
        self.assertEqual(cut_in(then, "bevel"), ["ball1"])
        for length in ("17", "30"):
            self.assertIn(
                "ball1-length", failed(ended("ball step", ball1_length=length))
            )
        for parts, wrong in (("ball ball step", "ball1.diameter"),
                             ("step ball edge", "edge1.end")):  # fmt: skip
            with self.assertRaises(BadInput) as told:
                ended(parts)
            self.assertEqual(told.exception.key, wrong)
        steps = [step.title for step in route_told(ball)[1].steps]
        self.assertEqual(
            steps[1:],
            [
                "Turn the blank of ball 1 to ⌀20.1",
                "Turn ball 1 in steps and file it to ⌀20",
            ],
        )

    def test_a_knurl_wants_whole_teeth_and_lies_on_one_step(self):
        """78 teeth of 1 come out even on 78 / π = 24.83: 25 is off by a sixth of one
        tooth, 24.83 by none."""
        knurl = {"knurl1_from_end": "44", "knurl1_length": "15"}
        self.assertIn("knurl1-even", failed(turned("knurl", **knurl)))
        even = turned("knurl", step3_diameter="24.83", **knurl)
        self.assertEqual(failed(even), set())
        long = turned("knurl", step3_diameter="24.83", knurl1_from_end="44",
                      knurl1_length="19")  # fmt: skip
        self.assertIn("knurl1-on-a-step", failed(long))
        right = route_told(even)[0]
        self.assertEqual(cut_in(right, "knurl"), ["knurl1"])

    def test_a_keyway_goes_through_the_bore_that_goes_through(self):
        """4 wide, 1.8 deep from a round of 12, over 62, but where it is 16 for 10 of
        them: at least 52 × 4 × 1.8, and less than 62 × 7.7 with its corners."""
        sizes = {"bore1_diameter": "12", "bore2_diameter": "16", "bore2_depth": "10"}
        key = {"bore_keyway1.width": "4", "bore_keyway1.depth": "1.8"}
        bored = turned("bore bore", **sizes)
        keyed = turned("bore bore bore_keyway", **sizes, **key)
        keyway = keyed.body.feature("bore_keyway1")
        self.assertEqual((keyway.diameter, keyway.end), (12, 62))
        less = bored.body.volume - keyed.body.volume
        self.assertLess(less, 62 * 7.7)
        self.assertGreater(less, 52 * 7.2)
        with self.assertRaisesRegex(BadInput, "none goes through"):
            turned("bore bore_keyway", bore1_depth="20")

    def test_slits_leave_something_to_hold_them_together(self):
        """Two of 1.5 through ⌀25 less a bore of 8, over 10: 2 × 8.5 × 1.5 × 10."""
        bored = turned("bore").body.volume
        slit = turned("bore slit", slit1_length="10")
        self.assertAlmostEqual((bored - slit.body.volume) / 255, 1, delta=0.02)
        self.assertEqual(failed(slit), set())
        self.assertIn("slit1-holds", failed(turned("slit", slit1_length="61")))

    def test_a_cross_hole_keeps_off_the_shoulder(self):
        self.assertEqual(failed(turned("cross", cross1_from_end="15")), set())
        near = turned("cross", cross1_from_end="29")
        self.assertIn("cross1-on-a-step", failed(near))

    def test_a_screw_from_the_side_has_thread_as_far_as_the_bore(self):
        """⌀40 of steel, M6: 11 to a bore of 18, 4 to one of 32, which M6 goes short of;
        with no bore across, all of ⌀20 for its M12."""
        given = {"cross1_from_end": "36", "cross1_thread": "M6"}
        for bore, thread in (("18", 11.0), ("32", 4.0)):
            made = turned("cross bore", **given, bore1_diameter=bore,
                          step1_diameter="36", step3_diameter="36")  # fmt: skip
            (check,) = [c for c in made.checks if c.key == "cross1-thread"]
            self.assertAlmostEqual(check.have, thread, delta=0.1)
            self.assertEqual(check.passed, thread > 6)
        solid = turned("cross", cross1_from_end="15", cross1_thread="M12")
        (check,) = [c for c in solid.checks if c.key == "cross1-thread"]
        self.assertAlmostEqual(check.have, 20, delta=0.1)

    def test_a_hole_from_the_side_ends_where_it_is_told_to(self):
        """⌀5 to 12 in ⌀20, the point 1.502 past that: 6.5 to the far side; 18 deep it
        would come out."""
        whole = turned("cross", cross1_from_end="15").body.volume
        blind = turned("cross", cross1_from_end="15", cross1_depth="12")
        self.assertEqual(failed(blind), set())
        taken = turned().body.volume - blind.body.volume
        self.assertLess(taken, turned().body.volume - whole)
        self.assertAlmostEqual(taken / (math.pi * 2.5**2 * 12.5), 1, delta=0.04)
        deep = turned("cross", cross1_from_end="15", cross1_depth="18")
        self.assertEqual(failed(deep), {"cross1-floor"})

    def test_holes_begin_at_the_angle_that_they_are_told(self):
        sizes = {"cross1_from_end": "15", "cross1_start": "180", "ring1_start": "45"}
        made = turned("cross ring", **sizes)
        self.assertEqual(made.body.feature("cross1").angles, [180])
        self.assertAlmostEqual(made.body.feature("ring1").angles[0], 45)

    def test_a_groove_is_cut_from_the_end_it_is_nearer_by(self):
        first, second, _ = route_told(
            turned(
                "groove groove",
                groove1_from_end="10",
                groove1_diameter="17",
                groove2_from_end="50",
                groove2_diameter="22",
            )
        )
        self.assertEqual(cut_in(first, "groove"), ["groove2"])
        self.assertEqual(cut_in(second, "groove"), ["groove1"])

    def test_a_lead_screw_is_threaded_between_its_journals(self):
        """Journals of 10 beside Tr16 × 4, whose root is 11.5: it needs no groove."""
        given = {"step1_diameter": "10", "step1_length": "40", "step2_diameter": "16",
                 "step2_length": "150", "step3_diameter": "10", "step3_length": "30",
                 "thread1_end": "right", "thread1_from_end": "30",
                 "thread1_thread": "Tr16x4", "thread1_length": "150"}  # fmt: skip
        made = turned("centre centre thread", centre2_end="left", **given)
        self.assertEqual([c.says for c in made.checks if c.grave and not c.passed], [])
        screw = made.body.feature("thread1")
        self.assertEqual((screw.start, screw.end, screw.runs_out), (40, 190, ""))
        (step,) = (
            step
            for up in route_told(made)
            for step in up.steps
            if step.operation == "thread"
        )
        lines = {line.key: line for line in work_list(step).lines}
        self.assertIn("thinner than the thread's root", lines["ends"].note)
        # thicker beside it, it has one; and it must lie on its step
        thick = turned("thread", **{**given, "step1_diameter": "14"})
        self.assertEqual(thick.body.feature("thread1").runs_out, "left")
        off = turned("thread", **{**given, "thread1_from_end": "25"})
        self.assertIn("thread1-length", failed(off))

    def test_a_thread_behind_a_register_is_drilled_once_for_both(self):
        """A cap: M45 × 4.5 is bored to 40.129, 46 over its mouth; no drill is over 25,
        and it ends in the metal."""
        given = {"bore1_diameter": "46", "bore1_depth": "12", "bore1_floor": "flat",
                 "nut1_thread": "M45x4.5", "nut1_depth": "36",
                 "step2_length": "40", "step2_diameter": "60"}  # fmt: skip
        first = route_told(turned("bore nut", **given))[0]
        self.assertEqual(cut_in(first, "drill"), ["nut1"])
        self.assertEqual(cut_in(first, "bore"), ["nut1", "bore1"])
        drilled = next(s for s in first.steps if s.operation == "drill")
        self.assertAlmostEqual(2 * drilled.after.radii(55)[0], 25)
        self.assertIn("tailstock", drilled.caution)
        last = work_list(drilled).lines[-1]
        self.assertAlmostEqual(last.figures[0].value, 36 - 0.3)  # its floor is flat
        # its thread is drawn once it is cut
        self.assertFalse(drilled.after.feature("nut1").threaded)
        cut = next(s for s in first.steps if s.operation == "thread")
        self.assertTrue(cut.after.feature("nut1").threaded)
        bored = first.steps[first.steps.index(drilled) + 1]
        self.assertAlmostEqual(2 * bored.after.radii(55)[0], 40.129, 3)
        through = {**given, "nut1_depth": "0"}
        first = route_told(turned("bore nut", **through))[0]
        (drilled,) = (s for s in first.steps if s.operation == "drill")
        self.assertIn("breaks through", drilled.caution)

    def test_a_thread_ends_where_a_bore_from_the_other_end_is_wider(self):
        """A jack: M16 through 62, 22 by 15 from below. 47 long: 23.5 turns; its drill
        goes right through, no shoulder stops it. Of M36 × 2 the page says what is bored
        for it, 25 to 33.835, and that the tool may run on behind it."""
        wide = {"step1_diameter": "50", "step3_diameter": "50", "bore1_end": "left",
                "bore1_depth": "15", "nut1_depth": "0"}  # fmt: skip
        small = turned("bore nut", bore1_diameter="22", nut1_thread="M16", **wide)
        self.assertEqual(small.body.feature("nut1").start, 15)
        first = route_told(small)[0]
        drill, tap = (s for s in first.steps if s.operation in ("drill", "tap"))
        turns = work_list(tap).lines[0].figures[-1]
        self.assertEqual((turns.name, turns.value), ("Turns", 23.5))
        said = {
            figure.name for line in work_list(drill).lines for figure in line.figures
        }
        self.assertNotIn("To the shoulder", said)
        # behind a recess it has as many turns less as that is deep, 20 in 30
        behind = {**wide, "bore1_end": "right", "bore1_depth": "10", "nut1_depth": "30"}
        made = turned("bore nut", bore1_diameter="22", nut1_thread="M16", **behind)
        (tap,) = (s for s in route_told(made)[0].steps if s.operation == "tap")
        self.assertEqual(work_list(tap).lines[0].figures[-1].value, 10)
        large = turned("bore nut", bore1_diameter="40", nut1_thread="M36x2", **wide)
        first, last = route_told(large)[:2]
        bore, thread = (s for s in first.steps if s.operation in ("bore", "thread"))
        dialled = [line.figures[1].value for line in work_list(bore).lines[1:]]
        self.assertEqual(sorted(dialled), dialled)
        self.assertAlmostEqual(dialled[-1], 33.835, 3)
        self.assertIn("bored wider there later", work_list(thread).lines[0].note)
        # it is open already where the wider bore begins
        self.assertEqual(cut_in(last, "drill"), [])

    def test_a_hole_through_a_flange_ends_behind_it(self):
        """6 on 48 through a flange of 10, no hub of 30 behind it: to 11.65 by the
        point of 5.5, and not the length of the piece."""
        given = {"step1_diameter": "60", "step1_length": "10", "step2_diameter": "30",
                 "step3_diameter": "20", "ring1_end": "left", "ring1_circle": "48",
                 "ring1_count": "6", "ring1_diameter": "5.5",
                 "ring1_depth": "0"}  # fmt: skip
        made = turned("ring", **given)
        self.assertEqual(made.body.feature("ring1").through, 10)
        (step,) = (
            step
            for up in route_told(made)
            for step in up.steps
            if step.features == ("ring1",)
        )
        line = next(line for line in work_list(step).lines if "drill 5.5" in line.head)
        self.assertAlmostEqual(line.figures[-1].value, 11.652, 3)

    def test_holes_begin_on_the_floor_of_a_recess(self):
        """M5 on 48 in a recess of 60 by 8 round a bore of 36, in 80: its outside is
        60 − 48 − 4.2 away, its inside 48 − 36 − 4.2, half of each; 30 − 8 go through.
        A recess has a flat floor, a hole that is deeper than wide a drill's."""
        disc = {f"step{n}_diameter": "80" for n in (1, 2, 3)}
        disc |= {f"step{n}_length": "10" for n in (1, 2, 3)}
        given = {**disc, "bore1_diameter": "36", "bore1_depth": "0",
                 "bore2_diameter": "60", "bore2_depth": "8", "bore2_end": "left",
                 "ring1_end": "left", "ring1_circle": "48", "ring1_thread": "M5",
                 "ring1_depth": "0"}  # fmt: skip
        made = turned("bore bore ring", **given)
        ring = made.body.feature("ring1")
        self.assertEqual((ring.level, ring.through), (8, 22))
        (check,) = (check for check in made.checks if check.key == "ring1-edges")
        self.assertAlmostEqual(check.have, 3.9)
        (step,) = (
            step
            for up in route_told(made)
            for step in up.steps
            if step.key == "drill-ring1"
        )
        self.assertIn("floor of bore 2: it lies 8 mm under the face", step.note)
        self.assertIn("floor of bore 2: it lies 0.315 in", in_inches(step.note))
        floors = [
            turned("bore", **disc, bore1_diameter=wide, bore1_depth=deep)
            for wide, deep in (("12", "20"), ("12", "5"), ("26", "28"), ("12", "0"))
        ]
        said = [made.values["bore1.floor"] for made in floors]
        self.assertEqual(said, ["drilled", "flat", "flat", "drilled"])

    def test_a_bearing_housing_is_bored_out_of_its_bore(self):
        """Recesses of 32 by 9 at both ends of a bore: out of 24 they are bored at once,
        into 12 a drill of 25 goes, no other before it. The groove for a circlip is
        cut after the recess that it is in, from the left."""
        disc = {f"step{n}_diameter": "60" for n in (1, 2, 3)}
        ends = {"bore2_end": "right", "bore3_end": "left", "bore1_depth": "0"}
        ends |= {f"bore{n}_{key}": size for n in (2, 3)
                 for key, size in (("diameter", "32"), ("depth", "9"))}  # fmt: skip
        groove = {"undercut1_from_end": "2", "undercut1_width": "1.3",
                  "undercut1_diameter": "33.7"}  # fmt: skip
        for wide, drills in (("24", []), ("12", [(25,), (25,)])):
            made = turned("bore bore bore undercut", bore1_diameter=wide, **disc,
                          **ends, **groove)  # fmt: skip
            steps = [step for up in route_told(made) for step in up.steps]
            opened = [step.drills for step in steps if step.operation == "drill"]
            self.assertEqual(opened[1:], drills)
            cut = [step.key for step in steps]
            self.assertGreater(cut.index("groove-undercut1"), cut.index("bore-bore3"))

    def test_holes_round_a_hub_begin_on_its_flange(self):
        """Heads of 10 on 66, round a hub of 40 by 20, in a flange of 90 by 12: half of
        90 − 66 − 10 or of 66 − 40 − 10, and 12 go through."""
        given = {"step1_diameter": "40", "step1_length": "20", "step2_diameter": "90",
                 "step2_length": "12", "ring1_end": "left", "ring1_circle": "66",
                 "ring1_diameter": "5.5", "ring1_counterbore": "10",
                 "ring1_counterbore_depth": "5.4", "ring1_depth": "0"}  # fmt: skip
        made = turned("ring", **given)
        ring = made.body.feature("ring1")
        self.assertEqual((ring.level, ring.through), (20, 12))
        (check,) = (check for check in made.checks if check.key == "ring1-edges")
        self.assertEqual(check.have, 7)

    def test_holes_from_the_side_go_through_the_wall_of_a_collar(self):
        """50 outside, 28 bored: a wall of 11. One plain hole goes through both."""
        given = {"bore1_diameter": "28", "bore1_depth": "0", "step2_diameter": "50",
                 "step2_length": "30", "cross1_from_end": "45"}  # fmt: skip
        for more, deep in (
            ({"cross1_count": "3", "cross1_thread": "M6"}, 11),
            ({"cross1_count": "1", "cross1_thread": "M6"}, 11),
            ({"cross1_count": "1", "cross1_diameter": "5"}, 50),
        ):
            made = turned("bore cross", **{**given, "step1_diameter": "40", **more})
            self.assertEqual(made.body.feature("cross1").through, deep)

    def test_a_drill_stops_short_of_a_floor_that_is_bored_flat(self):
        """20 × 15 over a hole of 12: the drill of 19.5 may go in by the 3.605 of its
        point that lie in that hole, less 0.3; without the hole by none of it."""
        given = {"bore1_diameter": "20", "bore1_depth": "15", "bore1_floor": "flat",
                 "step2_length": "40"}  # fmt: skip
        for parts, more, point in (
            ("bore", {}, 14.7),
            ("bore bore", {"bore2_diameter": "12", "bore2_depth": "0"}, 18.305),
        ):
            first = route_told(turned(parts, **given, **more))[0]
            step = next(
                s
                for s in first.steps
                if s.operation == "drill" and s.features == ("bore1",)
            )
            last = work_list(step).lines[-1]
            self.assertAlmostEqual(last.figures[0].value, point, 2)
            self.assertIn("short of the flat floor", last.note)

    def test_a_cone_by_its_angle_is_tried_by_a_gauge_and_not_by_blue(self):
        """The cup of a jack: 60° included, 18 at its mouth and 4 deep; 30° a side ends
        at 18 - 8 tan 30° = 13.381. An angle alone is not taken for either."""
        cup = {"step1_diameter": "30", "step3_diameter": "30", "bore1_diameter": "12",
               "socket1_taper": "60° included", "socket1_mouth": "18",
               "socket1_depth": "4"}  # fmt: skip
        made = turned("bore socket", **cup)
        self.assertAlmostEqual(made.body.feature("socket1").start_diameter, 13.381, 3)
        (step,) = (
            step
            for up in route_told(made)
            for step in up.steps
            if step.features == ("socket1",)
        )
        lines = {line.key: line for line in work_list(step).lines}
        self.assertNotIn("blue", lines)
        self.assertAlmostEqual(lines["gauge"].figures[0].value, 60)
        self.assertEqual(lines["depth"].figures[0].value, 18)
        with self.assertRaises(BadInput):
            turned("bore socket", **{**cup, "socket1_taper": "60°"})

    def test_a_hole_from_the_side_begins_square_on_metal(self):
        """On top of a hexagon is a corner, at 60° a flat. On a cone from 40 to 20 in 40
        the metal falls 1.5 across a hole of 6: an end mill goes down 0.75 first, on a
        slim taper none does."""

        def lines(parts, **given):
            sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
            made = make(family_of("turned-piece"), {"parts": parts, **sizes})
            (step,) = (s for up in route_told(made) for s in up.steps
                       if s.features == ("cross1",))  # fmt: skip
            return made, {line.key: line for line in work_list(step).lines}

        bar = {"stock_shape": "hexagon", "bar1_across": "30", "bar1_length": "30",
               "step1_diameter": "20", "cross1_from_end": "15"}  # fmt: skip
        made, found = lines("bar step cross", **bar)
        self.assertEqual(made.values["cross1.start"], 60)
        self.assertNotIn("cross1-wall-to", failed(made))
        self.assertIn("of the flat", found["zero"].head)
        stock = {
            "stock_diameter": "36",
            "stock_length": "60",
        }  # and the holes come first
        made, _ = lines("cross bar step", **bar, **stock)
        self.assertEqual(made.values["cross1.start"], 60)
        cone = {"step1_length": "30", "step1_diameter": "40", "taper1_left": "40",
                "taper1_right": "20", "taper1_length": "40", "cross1_from_end": "50",
                "cross1_diameter": "6"}  # fmt: skip
        made, found = lines("step taper cross", **cone)
        self.assertEqual(made.values["cross1.start"], 90)
        self.assertAlmostEqual(found["flat"].figures[0].value, 0.75)
        _, found = lines("step taper cross", **{**cone, "taper1_right": "38"})
        self.assertNotIn("flat", found)

    def test_a_taper_is_turned_once_its_small_end_is_free(self):
        """From 10 to 20 over 30 behind a step of 10: that first, for the tool starts
        there; and no socket of such a taper is there to blue it by."""
        given = {"step1_diameter": "10", "taper1_length": "30", "taper1_left": "10",
                 "taper1_right": "20", "step2_diameter": "24"}  # fmt: skip
        sizes = {**COLLAR, **{k.replace("_", ".", 1): v for k, v in given.items()}}
        sizes["parts"] = "step taper step step"
        made = make(family_of("turned-piece"), sizes)
        second = next(up for up in route_told(made) if "taper1" in cut_in(up, "taper"))
        turned_then = [s.features[0] for s in second.steps if s.operation != "face"]
        self.assertLess(turned_then.index("step1"), turned_then.index("taper1"))
        step = next(s for s in second.steps if s.operation == "taper")
        heads = [line.head for line in work_list(step).lines]
        self.assertFalse([head for head in heads if "Blue" in head])
        self.assertIn("Bring it to size", heads)

    def test_a_step_alone_has_stock_for_the_jaws(self):
        """30 long: a quarter more and 10, parted off; of a disc of 150 both faces."""
        for wide, long, off in (("50", 48, ["left_end"]), ("150", 33, [])):
            given = {"parts": "step bore", "step1.length": "30", "step1.diameter": wide}
            made = make(family_of("turned-piece"), given)
            self.assertEqual(made.values["stock.length"], long)
            self.assertEqual(cut_in(route_told(made)[0], "part"), off)

    def test_a_step_that_is_threaded_all_along_is_there(self):
        made = turned("thread", step3_diameter="24", thread1_length="20")
        self.assertEqual(
            [c.says for c in made.checks if "Nothing is left" in c.says], []
        )

    def test_an_inside_thread_is_tapped_or_cut_by_its_size(self):
        """M10: drill 8.5. M24: bored to its basic 20.752 and cut on the lathe."""
        small = route_told(turned("nut", nut1_thread="M10"))[0]
        self.assertEqual([s.drill for s in small.steps if s.drill], [8.5])
        self.assertEqual(cut_in(small, "tap"), ["nut1"])
        made = turned("nut", nut1_thread="M20", step3_diameter="40")
        self.assertEqual(cut_in(route_told(made)[0], "thread"), ["nut1"])
        # few shops have a trapezoidal tap: its bar goes into 12 mm, and not into 8
        for thread, how in (("Tr16x4", "thread"), ("Tr10x2", "tap")):
            first = route_told(turned("nut", nut1_thread=thread))[0]
            self.assertEqual(cut_in(first, how), ["nut1"])

    def test_with_a_centre_at_each_end_it_is_turned_between_them(self):
        """Faced, centred and bored in the chuck; then end for end, the thread last, so
        that no dog stands on it. A long bar is parted off: it stays in the chuck."""
        given = {"centre2_end": "left", "centre1_mouth": "3", "centre2_mouth": "3",
                 "step1_diameter": "20", "step3_diameter": "30",
                 "thread1_length": "10"}  # fmt: skip
        made = turned("centre centre thread", **given)
        ends, between, last = route_told(made)
        self.assertEqual(between.held, "centres")
        centred = [s.operation for s in ends.steps]
        self.assertEqual(centred, ["face", "centre", "face", "centre"])
        cut = [(s.operation, s.out) for s in between.steps if s.operation != "bevel"]
        self.assertEqual(cut[0], ("mount", "left"))
        self.assertEqual(cut[-1], ("thread", "right"))
        self.assertEqual([s.operation for s in last.steps], ["deburr"])
        parted = turned("centre centre thread", stock_length="150", **given)
        self.assertEqual(route_told(parted)[0].held, "jaws")

    def test_an_inside_thread_is_cut_in_the_bore_that_is_there(self):
        """M30 × 2 has a minor of 27.835, up to 28.21: bored to 28 it keeps its crests,
        and nothing is drilled for it. 29.5 leaves it none."""
        given = {"step1_diameter": "40", "step3_diameter": "50",
                 "bore1_diameter": "28", "nut1_thread": "M30x2",
                 "nut1_depth": "15"}  # fmt: skip
        made = turned("bore nut", **given)
        self.assertEqual(failed(made), set())
        self.assertEqual(made.body.feature("nut1").bore, 28)
        cuts = [s.operation for up in route_told(made) for s in up.steps
                if "nut1" in s.features]  # fmt: skip
        self.assertEqual(cuts, ["thread"])
        wide = turned("bore nut", **given | {"bore1_diameter": "29.5"})
        self.assertIn("nut1-crest", failed(wide))

    def test_an_inside_thread_that_ends_at_a_floor_has_room_to_run_out(self):
        """M30 × 3.5: two threads are 7. A groove there is cut before it."""
        bare = {"step2_length": "60", "step2_diameter": "60", "nut1_thread": "M30",
                "nut1_depth": "30"}  # fmt: skip
        self.assertIn("nut1-runs-out", failed(turned("nut", **bare)))
        bored = turned("nut bore", bore1_diameter="27", **bare)
        self.assertNotIn("nut1-runs-out", failed(bored))
        floor = 30 + 60 + 20 - 30  # from the left end
        made = turned("nut undercut", undercut1_from_end=f"{floor}",
                      undercut1_width="8", undercut1_diameter="31", **bare)  # fmt: skip
        self.assertNotIn("nut1-runs-out", failed(made))
        steps = [step for up in route_told(made) for step in up.steps]
        order = [
            s.operation for s in steps if s.features[:1] in (("nut1",), ("undercut1",))
        ]
        self.assertEqual(order, ["drill", "bore", "groove", "thread"])

    def test_what_does_not_turn_is_cut_last(self):
        made = turned("flat keyway ring", ring1_circle="17", ring1_diameter="3")
        last = route_told(made)[-1]
        self.assertEqual(last.machine, "mill")
        operations = [step.operation for step in last.steps]
        self.assertEqual(operations, ["drill", "mill", "keyway", "deburr"])
        edge = turned("ring", ring1_circle="22", ring1_diameter="3")
        self.assertIn("ring1-edges", failed(edge))

    def test_holes_in_a_face_are_counterbored_and_holes_from_the_side_reamed(self):
        """Four of ⌀4 through 62, opened to ⌀7 for 3: 4 × 3 × π (3.5² − 2²)."""
        given = {
            "ring1_circle": "17",
            "ring1_diameter": "4",
            "ring1_depth": "0",
            "step3_diameter": "36",
        }
        plain = turned("ring", **given)
        sunk = {"ring1_counterbore": "7", "ring1_counterbore_depth": "3"}
        made = turned("ring cross", **given, **sunk, cross1_reamed="yes",
                      cross1_from_end="52")  # fmt: skip
        taken = plain.body.volume - turned("ring", **given, **sunk).body.volume
        self.assertAlmostEqual(taken / (12 * math.pi * (3.5**2 - 2**2)), 1, 2)
        operations = [step.operation for step in route_told(made)[-1].steps]
        self.assertEqual(
            operations, ["drill", "counterbore", "drill", "ream", "deburr"]
        )
        wide = turned("ring", **given, ring1_counterbore="18")
        self.assertIn("ring1-edges", failed(wide))

    def test_a_blind_bore_leaves_metal_past_the_point_of_its_drill(self):
        """62 long, ⌀8: its point goes 8 / (2 tan 59°) = 2.404 past its depth, so 59
        leaves 0.6 and 58.5 leaves 1.1; one to the far face is a bore that goes
        through, and one that meets another has no floor."""
        for depth, ends in (("58.5", False), ("59", True), ("62", False)):
            made = turned("bore", bore1_depth=depth)
            self.assertIs("bore1-floor" in failed(made), ends, depth)
        met = turned("bore bore", bore1_depth="59", bore2_end="left", bore2_depth="5")
        self.assertFalse({"bore1-floor", "bore2-floor"} & failed(met))
        near = turned("bore bore", bore1_depth="54", bore2_end="left", bore2_depth="5",
                      bore2_floor="flat")  # fmt: skip
        self.assertIn("bore1-floor", failed(near))

    def test_holes_in_a_face_leave_metal_below_their_points(self):
        """⌀4 on 34 in an end of ⌀45, 20 long, with ⌀30 behind it: 19 deep the points,
        1.2 long, come out at the shoulder."""
        for depth, thin in (("16", False), ("19", True)):
            made = turned("ring", ring1_circle="34", ring1_diameter="4",
                          step3_diameter="45", step2_diameter="30",
                          ring1_depth=depth)  # fmt: skip
            self.assertIs("ring1-floor" in failed(made), thin, depth)

    def test_one_flat_or_three_are_read_to_the_far_side_of_the_round(self):
        """On ⌀20, 18.5 to the far side: 1.5 deep, so the flat is 8.5 off the axis. No
        flat goes past the axis: 10 mm would be it."""
        for count in ("1", "3"):
            made = turned("flat", flat1_count=count, flat1_across="18.5")
            flats = made.body.feature("flat1")
            self.assertEqual((flats.across, flats.read), (17, 18.5))
            mill = next(
                step
                for up in route_told(made)
                for step in up.steps
                if step.features == ("flat1",)
            )
            self.assertEqual(mill.title, "Mill flat 1, 18.5 to the far side")
            turned("flat", flat1_count=count, flat1_across="10.01")
            with self.assertRaisesRegex(BadInput, "more than 10 mm"):
                turned("flat", flat1_count=count, flat1_across="10")
        flats = turned("flat", flat1_count="2", flat1_across="18.5").body
        self.assertEqual(flats.feature("flat1").across, 18.5)

    def test_what_is_milled_or_cut_in_a_face_stays_in_its_metal(self):
        """On ⌀20 × 30, ⌀40 × 12, ⌀25 × 20: sound as it is given first, and said once
        one size of it is wrong."""
        for parts, given, wrong, key in (
            ("keyway", {}, {"keyway1_depth": "6"}, "keyway1-deep"),
            ("keyway", {}, {"keyway1_width": "9"}, "keyway1-narrow"),
            ("keyway", {}, {"keyway1_from_end": "20"}, "keyway1-on-a-step"),
            (
                "keyway bore",
                {"bore1_diameter": "10"},
                {"bore1_diameter": "14"},
                "keyway1-floor",
            ),
            ("flat", {}, {"flat1_across": "20"}, "flat1-deep"),
            ("flat bore", {}, {"bore1_diameter": "15.5"}, "flat1-wall"),
            ("groove", {}, {"groove1_from_end": "30.3"}, "groove1-land"),
            (
                "groove groove",
                {"groove1_from_end": "35"},
                {"groove1_from_end": "34.4"},
                "groove1-land",
            ),
            (
                "bore undercut",
                {"bore1_diameter": "10"},
                {"undercut1_from_end": "0.3"},
                "undercut1-land",
            ),
            (
                "trepan bore",
                {
                    "bore1_end": "left",
                    "bore1_diameter": "14",
                    "bore1_depth": "50",
                    "bore1_floor": "flat",
                },
                {"bore1_depth": "58.5"},
                "trepan1-floor",
            ),
            ("trepan", {}, {"trepan1_depth": "21"}, None),
            ("trepan", {}, {"trepan1_outer": "24"}, "trepan1-wall"),
            ("trepan bore", {}, {"bore1_diameter": "11"}, "trepan1-core"),
            (
                "centre bore",
                {"bore1_diameter": "4"},
                {"bore1_diameter": "5"},
                "centre1-face",
            ),
            ("edge", {}, {"edge1_leg": "13"}, "edge1-room"),
            (
                "bore undercut",
                {"bore1_diameter": "10"},
                {"bore1_diameter": "12"},
                "undercut1-deep",
            ),
            (
                "undercut bore",
                {"bore1_diameter": "10"},
                {"bore1_depth": "5"},
                "undercut1-deep",
            ),
            (
                "nut bore",
                {"bore1_diameter": "6.8"},
                {"bore1_diameter": "8"},
                "nut1-crest",
            ),
        ):
            with self.subTest(parts, check=key):
                self.assertNotIn(key, failed(turned(parts, **given)))
                found = failed(turned(parts, **given | wrong))
                self.assertIn(key, found) if key else self.assertEqual(found, set())

    def test_holes_in_a_face_do_not_run_out_of_the_step_behind_it(self):
        """In a flange of 40 that is 12 thick, on a hub of 25: on 32 they pass it by
        3.5 − 2.5 = 1, on 26 they break out of its side."""
        given = {"parts": "step step ring", "ring1.end": "right"}
        given |= {"step1.diameter": "25", "step2.diameter": "40", "step2.length": "12"}
        for circle, depth, passes in (
            ("32", "0", True),
            ("26", "0", False),
            ("26", "10", True),
            ("14", "20", True),
        ):
            with self.subTest(circle, depth=depth):
                sizes = given | {"ring1.circle": circle, "ring1.depth": depth}
                made = make(family_of("turned-piece"), sizes)
                self.assertEqual("ring1-sides" not in failed(made), passes)

    def test_parts_get_their_numbers_and_what_is_unknown_is_refused(self):
        made = turned("groove groove", groove2_from_end="50", groove2_diameter="22")
        self.assertIn("groove2", {feature.name for feature in made.body.features})
        for parts, says in (("widget", "not known"), ("step1", "listed twice")):
            with self.subTest(parts), self.assertRaises(BadInput) as no:
                turned(parts)
            self.assertEqual(no.exception.key, "parts")
            self.assertIn(says, no.exception.message)

import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.families import families, family_of
from machinon.core.piece.made import make
from machinon.core.quantity import INCH
from machinon.core.reckoning import TEXT
from machinon.core.route.duration import minutes_of
from machinon.core.route.steps import route_told
from machinon.core.route.work.lines import Machines
from machinon.core.route.work.listed import note_besides, work_list
from machinon.core.route.work.set_true import read_round, set_true
from machinon.core.shop.machines import Machine
from machinon.core.shop.things import Lathe

LATHE = Lathe("lathe", "Lathe", 165, 700, 190, (45, 110, 290, 740), "",
              lead_screw=4.0, wheels=(20, 24, 28, 32, 36, 40, 48, 56, 64))  # fmt: skip
TABLE = Machine("table", "Table", "rotary table",
                {"worm": "90", "plates": "15,16,20,21"})  # fmt: skip
HEAD = Machine("head", "Head", "dividing head", {"worm": "40", "plates": "15,18,21"})

RING = {
    "parts": "ring",
    "block.length": "120",
    "block.width": "120",
    "ring1.kind": "through",
    "ring1.screw": "M8",
    "ring1.circle": "80",
    "ring1.count": "6",
}


def step_of(family, step, given=()):
    """One step of a piece."""
    made = make(family_of(family), dict(given))
    steps = [s for up in route_told(made, LATHE.speed_choices) for s in up.steps]
    return next(told for told in steps if told.key == step)


def listed(family, step, given=(), at=None, **ways):
    """The lines of one step of a piece."""
    return work_list(step_of(family, step, given), at or Machines(LATHE), ways).lines


def figures(line):
    return {
        figure.name: figure.value
        if figure.kind is TEXT
        else round(float(figure.value), 3)
        for figure in line.figures
    }


class PastTheEnd(unittest.TestCase):
    """What is parted off or faced later is cut past, or a skin is left there."""

    def test_a_sleeve_is_turned_bored_and_drilled_past_where_it_is_parted(self):
        """44.96 long, parted with 1 mm left: all go 2 mm on; the point of a drill of 19
        is 9.5 / tan 59° = 5.708 long."""
        for step in ("bore-bore", "turn-sleeve"):
            touch = listed("spacer-sleeve", step)[0]
            self.assertEqual(figures(touch)["Carriage stops at"], 46.96)
            self.assertIn("2.0 mm past an end that is cut later", touch.note)
        drilled = listed("spacer-sleeve", "drill-bore")[-1]
        self.assertEqual(figures(drilled)["Point at"], 52.668)

    def test_little_metal_behind_a_bore_is_bored_right_through(self):
        """A hub sawn 2.5 over its 39 mm: through that, and a millimetre on."""
        touch = listed("hub-adapter", "bore-bore")[0]
        self.assertEqual(figures(touch)["Carriage stops at"], 42.5)
        self.assertIn("clear of the chuck's face", touch.note)
        blind = listed("spacer-sleeve", "bore-bore")[0]  # it ends in the bar
        self.assertNotIn("chuck", blind.note)

    def test_what_was_bored_through_is_open_until_it_is_faced(self):
        """6.5 mm over a plate's front are drilled and bored with its core, as whoever
        screws it on its nose will see; a bar that is parted off keeps its end."""
        for family, key, beyond, open_to in (
            ("back-plate", "thread", 43.9, 40.46),
            ("spacer-sleeve", "bore-bore", -2.1, 0),
        ):
            step = step_of(family, key)
            with self.subTest(family):
                self.assertAlmostEqual(2 * step.after.radii(beyond)[0], open_to)

    def test_metal_before_a_cut_is_no_end_to_go_past(self):
        """The front of a back plate is faced after its spigot is roughed."""
        touch = listed("back-plate", "rough-spigot")[0]
        self.assertEqual(figures(touch)["Carriage stops at"], 9.5)
        self.assertNotIn("past", touch.note)

    def test_a_shoulder_that_stays_is_not_cut_into(self):
        touch = listed("knob", "turn-boss")[0]
        self.assertEqual(figures(touch)["Carriage stops at"], 4)
        self.assertNotIn("past", touch.note)


class Turned(unittest.TestCase):
    def test_what_a_tool_passes_on_its_way_is_turned_as_well(self):
        """⌀17 of a key: its head at the jaws turned to 16 from the tip on, so that the
        shank begins at 16, and its point at the 11 of the shank."""
        begins = {
            step: figures(listed("socket-key", step)[0])["⌀ now"]
            for step in ("turn-head", "turn-shank", "turn-point_round")
        }
        self.assertEqual(
            begins, {"turn-head": 17.0, "turn-shank": 16.0, "turn-point_round": 11.0}
        )

    def test_a_flange_is_turned_from_the_end_that_stands_out(self):
        """A back plate on its nose: nothing stops the carriage behind its flange, and
        its front is roughed from the flange's 130, not from the casting's 135."""
        flange = figures(listed("back-plate", "flange")[0])
        self.assertEqual(flange, {"⌀ now": 135.0})
        front = figures(listed("back-plate", "rough-spigot")[0])
        self.assertEqual(front["⌀ now"], 130.0)

    def test_what_is_turned_on_its_way_is_not_turned_twice(self):
        """The rear of a spindle stands where its front was turned to from that end."""
        (line,) = listed("draw-in-spindle", "turn-rear")
        self.assertIn("Nothing more comes off", line.note)

    def test_what_is_parted_off_long_is_told_by_its_length(self):
        """A length has one side, a diameter two."""
        made = make(family_of("spacer-sleeve"), {})
        (told,) = [s for up in route_told(made) for s in up.steps
                   if s.operation == "part"]  # fmt: skip
        long = float(work_list(told).lines[0].figures[0].value)
        self.assertAlmostEqual(long - float(made.sizes["sleeve.length"].value), 1.0)
        self.assertIn("leave 1 mm", told.title)

    def test_a_ball_is_stepped_from_its_neck_and_from_its_tip(self):
        """⌀20 on ⌀12, its neck at the right: √(10² − 6²) = 8 behind its middle. Ridges
        of 0.4 at most: 0.64 of its square in 0.0816 at a time are 8, all of it 13; the
        widest from the tip is 20 √(12 / 13) over 10 (1 − √(1 / 13))."""
        given = {"parts": "ball step", "step1.diameter": "12", "step1.length": "40"}
        *steps, last = listed("turned-piece", "bevel-ball1", given)
        right = [
            figures(step) for step in steps if step.head.startswith("From the right")
        ]
        left = [
            figures(step) for step in steps if step.head.startswith("From the left")
        ]
        self.assertEqual((len(right), len(left)), (7, 12))
        self.assertEqual(right[0], {"⌀": 19.183, "Length": 5.172})
        self.assertEqual(left[0], {"⌀": 19.215, "Length": 7.226})
        self.assertEqual(figures(last), {"⌀": 20})
        # a large one in ridges a file can take, not in hundreds of steps
        large = {**given, "ball1.diameter": "400", "step1.diameter": "20"}
        steps = listed("turned-piece", "bevel-ball1", large)
        self.assertLess(len(steps), 55)

    def test_a_band_that_is_only_skimmed_says_how(self):
        """A journal of 200 wants a steady, its band is where the collar will be."""
        (band,) = listed("collet-spindle", "band", {"journal.length": "200"})
        self.assertIn("as wide as the fingers", band.note)

    def test_a_groove_lies_from_the_end_that_stands_out(self):
        """11.05 through a cover, its inner side out: a groove of 2 in its bore."""
        groove = figures(listed("housing-cover", "groove-groove")[0])
        self.assertEqual((groove["From the right end"], groove["Width"]), (5.275, 2.0))

    def test_a_nut_s_thread_counts_from_its_bore(self):
        """The plate's is 40.46, in the middle of its band: 2.608 along the compound."""
        passes = [
            line for line in listed("back-plate", "thread") if "Pass" in line.head
        ]
        self.assertEqual(figures(passes[-1])["Compound to"], 2.608)

    def test_a_thread_is_cut_on_its_own_outside_with_its_groove(self):
        """M32 × 1.5 6g is at most 31.968; from 38, at 1.5 deep, three passes. Its
        groove is 0.3 under its root of 30.16, two threads wide."""
        outside, groove, *_ = listed("collet-spindle", "thread-nose")
        self.assertEqual(
            figures(outside),
            {"⌀ now": 38.0, "⌀ after": 31.968, "Not under": 31.732,
             "Passes, about": 3.0,
             "Carriage stops at": 16.5},
        )  # fmt: skip
        self.assertEqual(figures(groove), {"⌀ of its floor": 29.86, "Width": 3.0})

    def test_a_thread_without_a_groove_says_where_it_ends(self):
        """A stud's foot is threaded for 12 mm, on a bar of its own diameter."""
        outside, ends, *_ = listed("stud", "thread-lower")
        self.assertEqual(figures(outside)["Carriage stops at"], 12)
        self.assertEqual(figures(ends), {"Thread length": 12})

    def test_a_thread_of_any_form_is_cut_on_its_own_outside(self):
        """The largest it may be where the tables have limits, else its nominal size:
        1/4-20 UNC 2A is at most 0.2489 in, Tr20 is cut on 20, 1/2 BSW on half an inch.
        """
        shank = {"parts": "step thread", "step1.diameter": "40", "step1.length": "80"}
        outsides = {"1/4-20": 6.322, "1/2 BSW": 12.7, "Tr20x4": 20.0, "2BA": 4.7,
                    "1-5 Acme": 25.4, "G1/2": 20.955}  # fmt: skip
        for thread, outside in outsides.items():
            with self.subTest(thread):
                given = {**shank, "thread1.thread": thread}
                first = listed("turned-piece", "thread-thread1", given)[0]
                self.assertEqual(figures(first)["⌀ after"], outside)


class Tapers(unittest.TestCase):
    def test_a_taper_is_cut_straight_first_so_that_the_compound_has_little_left(self):
        """A Morse 3 shank, 24.076 at its large end, from 37: to 26.076 along the
        carriage (1 for the taper and twice the 0.5 that its rough leaves); a seat of
        20.503 at its small end from a bore of 16.5."""
        shank, setting, *_ = listed("taper-arbor", "taper-shank")
        now = figures(shank)
        self.assertEqual((now["⌀ now"], now["⌀ after"]), (37.0, 26.076))
        self.assertIn("in two settings of the carriage, or", setting.note)
        seat, setting, *_ = listed("collet-spindle", "taper-seat")
        self.assertEqual(seat.head, "Bore it straight first")
        self.assertLess(figures(seat)["⌀ after"], 20.503)
        self.assertNotIn("two settings", setting.note)


class Drilled(unittest.TestCase):
    def test_a_drill_goes_as_deep_as_from_the_face_that_it_goes_in_at(self):
        """The core of a plate 37.5 long, from the nose's side, through the 6.5 that are
        faced off its front later and 1 on; ⌀25 has a point of 7.51. The screw's hole of
        an arbor, 63 long, ends 19 from its back."""
        deep = figures(listed("back-plate", "drill")[-1])
        self.assertEqual(
            deep["Point at"],
            round(37.5 + 6.5 + 1 + 12.5 / math.tan(math.radians(59)), 3),
        )
        blind = figures(listed("slit-arbor", "drill-screw_hole")[-1])
        self.assertEqual(blind["To the shoulder"], 63 - 19)

    def test_no_drill_goes_into_the_metal_behind_a_core(self):
        """42.5 deep over the 16.5 of a collet chuck: the point of 25 may go in by the
        4.957 that lie in that hole, less 0.3; in a bore right through by all of it."""
        core = listed("nose-chuck", "drill")[-1]
        self.assertAlmostEqual(figures(core)["Point at"], 42.5 + 4.957 - 0.3, 2)
        through = listed("hub-adapter", "drill-bore")[-1]
        self.assertNotIn("flat floor", through.note)

    def test_a_drill_that_ends_in_the_metal_breaks_through_nowhere(self):
        for family, key, says in (
            ("slit-arbor", "drill-clear_hole", "seat its taper well"),
            ("slit-arbor", "drill-screw_hole", "seat its taper well"),
            ("spacer-sleeve", "drill-bore", "breaks through"),
        ):
            self.assertIn(says, step_of(family, key).caution)

    def test_no_bar_bores_where_its_drill_did_not_come(self):
        """130 long and 2 to be faced; a drill of 13.5 has flutes of 108 and goes 94."""
        given = {"parts": "step bore", "step1.length": "130", "step1.diameter": "60",
                 "bore1.diameter": "14", "bore1.depth": "0"}  # fmt: skip
        touch = listed("turned-piece", "bore-bore1", given)[0]
        self.assertIn("went 94 mm deep from here", touch.note)
        short = {**given, "step1.length": "80"}
        touch = listed("turned-piece", "bore-bore1", short)[0]
        self.assertNotIn("from here", touch.note)
        # a tube was never drilled, nor does a drill make a hole of 60
        tube = {**given, "stock.bore": "10"}
        touch = listed("turned-piece", "bore-bore1", tube)[0]
        self.assertNotIn("from here", touch.note)
        twice = {"parts": "step bore bore", "step1.length": "150",
                 "step1.diameter": "120", "bore1.diameter": "60", "bore1.depth": "0",
                 "bore2.diameter": "80", "bore2.depth": "0"}  # fmt: skip
        touch = listed("turned-piece", "bore-bore2", twice)[0]
        self.assertEqual(figures(touch)["⌀ now"], 60)
        self.assertNotIn("from here", touch.note)

    def test_a_tapped_hole_is_drilled_three_threads_deeper_than_its_thread(self):
        """M10 × 1.5, 16 deep in a turned piece: drilled 20.5, tapped 16, ten and a half
        turns, as eleven are too many."""
        given = {"parts": "step nut", "step1.length": "40", "nut1.thread": "M10",
                 "nut1.depth": "16"}  # fmt: skip
        drill = figures(listed("turned-piece", "drill-nut1", given)[-1])
        self.assertEqual(drill["To the shoulder"], 20.5)
        taper = listed("turned-piece", "tap-nut1", given)[0]
        tap = figures(taper)
        self.assertEqual((tap["Thread depth"], tap["Turns"]), (16.0, 10.5))
        self.assertNotIn("against the clock", taper.note)
        left = {**given, "nut1.thread": "M10 LH"}
        taper = listed("turned-piece", "tap-nut1", left)[0]
        self.assertIn("against the clock", taper.note)

    def test_no_drill_goes_deeper_than_its_flutes_carry_chips(self):
        """104 long: 10.5 has flutes of 87 and goes 76, its pilot of 5.2 with 52 goes
        46; the rest comes from the other end: 114 + 1 − 76 with the stock that is on,
        and 3.155 that its point is short of its width."""
        lines = {line.key: line for line in listed("draw-in-spindle", "drill-draw")}
        self.assertEqual(figures(lines["5.2"])["Point at"], 46)
        self.assertIn("the next drill goes on", lines["5.2"].note)
        self.assertEqual(figures(lines["10.5"])["Point at"], 76)
        self.assertAlmostEqual(figures(lines["behind"])["Left, about"], 42.155, 3)
        short = {line.key: line for line in listed("hub-adapter", "drill-bore")}
        self.assertNotIn("behind", short)
        # into the end of a block 76 long: 9 with 81 goes 72, its pilot 4.5 with 47 42
        block = {"parts": "hole", "block.length": "76", "block.height": "50",
                 "hole1.face": "right", "hole1.depth": "0"}  # fmt: skip
        through = {**block, "hole1.kind": "through", "hole1.screw": "M8"}
        *_, pilot, last = listed("plate-block", "drill-hole1", through)
        self.assertEqual(figures(pilot)["Point at"], 42)
        self.assertEqual(figures(last)["Point at"], 72)
        self.assertIn("from the other side", last.note)
        blind = {**block, "hole1.kind": "tapped", "hole1.screw": "M6",
                 "hole1.depth": "60"}  # fmt: skip
        *_, last = listed("plate-block", "drill-hole1", blind)
        self.assertEqual(figures(last)["To the shoulder"], 60)
        self.assertIn("by a long one", last.note)

    def test_the_rest_of_a_hole_with_a_floor_is_drilled_from_where_it_opens(self):
        """180 deep of 200: a drill of 25 has flutes of 160 and goes 135; nothing is
        open behind its floor, so a long drill follows in the hole."""
        given = {"parts": "step bore", "step1.length": "200", "step1.diameter": "60",
                 "bore1.diameter": "30", "bore1.depth": "180"}  # fmt: skip
        last = listed("turned-piece", "drill-bore1", given)[-1]
        self.assertEqual((last.key, figures(last)["Point at"]), ("25", 179.7))
        self.assertIn("by a long one", last.note)
        self.assertIn("flat floor", last.note)

    def test_no_point_of_a_drill_goes_below_a_flat_floor(self):
        """A bore of 24, 20 deep: opened 2 under size, its drill's point at 20."""
        given = {"parts": "bore", "bore1.diameter": "24", "bore1.depth": "20"}
        for line in listed("plate-block", "drill-bore1", given)[2:]:
            self.assertEqual(figures(line)["Point at"], 20.0)
        self.assertIn("22 mm", line.head)

    def test_a_hole_wider_than_25_is_drilled_to_it_and_bored(self):
        """No home shop has a drill of 40; the boring head goes right through 20."""
        given = {"hole1.diameter": "40", "hole1.kind": "through"}
        step = step_of("strap-clamp", "drill-hole1", given)
        self.assertEqual(step.title, "Drill 25 mm, bore to ⌀40, hole 1")
        self.assertEqual(step.drills, (6.2, 12.5, 25.0))
        *_, drilled, bored = listed("strap-clamp", "drill-hole1", given)
        self.assertEqual((drilled.key, bored.key), ("25-1", "bored-1"))
        self.assertEqual(figures(bored)["Through"], 20)
        small = listed("strap-clamp", "drill-hole1", {"hole1.diameter": "24"})
        self.assertNotIn("bored-1", [line.key for line in small])

    def test_a_bore_begins_at_what_its_drill_left(self):
        """Under 20.03 by at least 1: a drill of 19."""
        first = figures(listed("draw-tube-sleeve", "bore-bore")[0])
        self.assertEqual(first["⌀ now"], 19.0)


class Blocks(unittest.TestCase):
    def test_a_plate_bought_to_its_thickness_is_not_milled_on_its_faces(self):
        keys = [line.key for line in listed("ring-nut-spanner", "square-plate")]
        self.assertEqual(keys, ["second", "third", "fifth", "sixth"])

    def test_ends_as_round_as_they_are_wide_are_two_not_four_corners(self):
        arm = listed("hinged-arm", "mill-ends")
        self.assertEqual([line.head for line in arm], ["End 1 of 2", "End 2 of 2"])
        self.assertEqual(figures(arm[0]), {"Radius": 9.0})
        corners = {"parts": "corner", "corner1.radius": "5"}
        self.assertEqual(len(listed("plate-block", "mill-corner1", corners)), 4)

    def test_a_slope_is_as_deep_as_it_is_square_to_its_face(self):
        """Its high edge stands 21.436 over a low end of 5; it lies aslant by 15°,
        and the spindle goes square to the slope: 21.436 × cos 15° = 20.706."""
        lines = listed("sloped-block", "mill-slope", {"block.height": "26.436"})
        self.assertEqual(lines[1].key, "touch")
        slips = float(lines[0].figures[1].value)
        self.assertAlmostEqual(slips, 100 * math.sin(math.radians(15)), places=3)
        (place, *_) = listed("sloped-block", "mill-slope", sine="127")
        self.assertAlmostEqual(float(place.figures[1].value) / slips, 1.27, places=4)
        deepest = float(lines[-1].figures[0].value)
        self.assertAlmostEqual(deepest, 21.436 * math.cos(math.radians(15)), places=3)

    def test_a_window_as_wide_as_its_cutter_is_not_gone_round(self):
        (_, place, *_) = listed("strap-clamp", "mill-pocket1")
        self.assertIn("as wide as a cutter of 12 mm", place.note)
        (start, place, *_) = listed("clamp-plate", "mill-pocket1")
        self.assertEqual(figures(start), {"X": 50, "Y": 35, "Depth": 12})
        self.assertIn("With a cutter of 8 mm", place.note)


class Taps(unittest.TestCase):
    def test_a_machine_s_tap_pushes_its_chips_ahead_or_draws_them_out(self):
        """Out of a clamp's hole they go through; a carrier's bolts end blind, and the
        last thread of a T-nut stays whole."""
        for family, step, says in (
            ("strap-clamp", "tap-hole1", "spiral-point"),
            ("carrier", "tap-bolts", "spiral-flute"),
            ("t-nut-strip", "tap-thread", "spiral-flute"),
        ):
            by_hand = listed(family, step)[1]
            self.assertNotIn("spiral", by_hand.note)
            self.assertIn(says, listed(family, step, tap="power")[1].note)


class Notes(unittest.TestCase):
    def test_what_a_step_minds_is_said_at_the_machine_where_no_line_says_it(self):
        """A strip's last thread stays whole; its drills are lines already, and so is
        how a journal is tried."""
        for family, key, says in (
            ("t-nut-strip", "tap-thread", "the last thread stays whole"),
            ("hub-adapter", "tap-grub", "Not over the keyway"),
            ("collet-arbor", "drill-screw_hole", ""),
            ("taper-plate", "prove-seat", ""),
        ):
            made = make(families()[family], {})
            steps = [s for up in route_told(made) for s in up.steps]
            step = next(s for s in steps if s.key == key)
            told = note_besides(step, work_list(step))
            with self.subTest(key):
                self.assertTrue(says in told if says else not told, told)


class Vees(unittest.TestCase):
    def test_a_right_angled_vee_is_cut_by_the_corner_of_an_end_mill(self):
        """22 deep: 22 cos 45° down and across, flutes 22 / cos 45°. A pin of 23 stands
        out 11.5 (1 + 1 / sin 45°) − 22."""
        lines = {line.key: line for line in listed("vee-block", "mill-vee1")}
        least = figures(lines["place"])["Cutter's flutes, at least"]
        self.assertEqual(least, 31.113)
        last = figures(lines["pass-9"])
        self.assertEqual(last, {"Down and across, each": 15.556})
        self.assertEqual(figures(lines["try"]), {"Pin ⌀": 23, "Stands out": 5.763})
        own = Machines(LATHE, pins=(8.0, 20.0, 30.0))
        lines = {line.key: line for line in listed("vee-block", "mill-vee1", at=own)}
        self.assertEqual(figures(lines["try"])["Pin ⌀"], 30)

    def test_another_vee_needs_its_angle_cutter(self):
        for given, ways in (({}, {"vee": "cutter"}), ({"vee1.angle": "60"}, {})):
            lines = listed("carriage-stop", "mill-vee1", given, **ways)
            place = next(line for line in lines if line.key == "place")
            self.assertIn("angle cutter only has its flanks left", place.note)
            self.assertIn("Half angle", figures(place))


class Threads(unittest.TestCase):
    def test_a_left_hand_thread_is_begun_at_its_inner_end(self):
        given = {"thread.thread": "M16x2-LH", "nut.thread": "M16x2-LH"}
        lines = listed("hexagon-screw", "thread-thread", given)
        (hand,) = (line for line in lines if line.key == "hand")
        self.assertIn("away from the headstock", hand.note)
        right = listed("hexagon-screw", "thread-thread")
        self.assertNotIn("hand", [line.key for line in right])

    def test_a_thread_of_two_starts_is_geared_for_its_lead_and_cut_twice(self):
        """Tr20x8P4: 8 a turn, 4 from start to start, half a turn; on a lead screw of
        4 the half-nuts find every second thread."""
        given = {"parts": "step, thread", "step1.diameter": "20",
                 "step1.length": "60", "thread1.thread": "Tr20x8P4"}  # fmt: skip
        lines = {o.key: o for o in listed("turned-piece", "thread-thread1", given)}
        self.assertEqual(figures(lines["gears"])["Lead"], 8)
        self.assertEqual(figures(lines["scratch"])["Over 10 turns"], 80)
        nxt = figures(lines["starts"])
        self.assertEqual(nxt["Work turned on by"], 180)
        self.assertEqual(nxt["or the tool moved along by"], 4)
        made = make(families()["turned-piece"], given)
        steps = [s for up in route_told(made) for s in up.steps]
        self.assertEqual(
            minutes_of(next(s for s in steps if s.operation == "thread")), 30
        )

    def test_the_tool_of_an_inside_thread_has_somewhere_to_stop(self):
        """A plate of 37.5 with 6.5 behind it: right through that, 1 and a thread of 4.5
        on. A chuck of 67 has a relief behind its thread. M30 × 2, 15 deep in a longer
        bore: the tool is drawn out."""
        given = {"parts": "step step bore nut", "step1.diameter": "50",
                 "step2.diameter": "60", "bore1.diameter": "28",
                 "nut1.thread": "M30x2", "nut1.depth": "15"}  # fmt: skip
        for family, key, sizes, head, stop in (
            ("back-plate", "thread", {}, "behind the work", 49.5),
            ("nose-chuck", "thread", {}, "in the relief", 35.75),
            ("turned-piece", "thread-nut1", given, "where it ends", 15),
        ):
            lines = {line.key: line for line in listed(family, key, sizes)}
            with self.subTest(family):
                self.assertIn(head, lines["ends"].head)
                self.assertEqual(figures(lines["ends"])["Carriage stops at"], stop)


class Proved(unittest.TestCase):
    """A step that proves or sets something tells what it should come to."""

    def test_every_size_that_is_to_be_read_stands_on_its_page(self):
        for family in families().values():
            for up in route_told(make(family, family.full)):
                for step in up.steps:
                    if step.operation == "prove":
                        lines = work_list(step).lines
                        shown = [line for line in lines if line.figures]
                        self.assertTrue(shown, (family.key, step.key))

    def test_a_block_by_the_square_then_by_its_three_sizes(self):
        """90 × 60 × 30 without a fit: ±0.3, ±0.3 and ±0.2 by ISO 2768-1 medium."""
        given = {"block.length": "90", "block.width": "60", "block.height": "30"}
        square, sizes = listed("plate-block", "prove-block", given)
        self.assertEqual(square.figures, ())
        self.assertEqual(list(figures(sizes).values()), [90, 60, 30])
        self.assertIn("±0.3 mm, ±0.3 mm, ±0.2 mm", sizes.note)

    def test_a_slope_is_level_over_slips_of_its_sine(self):
        """80 long at 15°: 80 sin 15° = 20.706."""
        (line,) = listed("sloped-block", "prove-slope")
        self.assertEqual(figures(line)["Slips under its low end"], 20.706)

    def test_both_seats_are_read_before_their_rings_are_tried(self):
        front, rear, tried = listed("draw-in-spindle", "prove-front")
        self.assertEqual((front.head, rear.head), ("Front", "Rear"))
        self.assertLess(figures(rear)["⌀ to"], figures(front)["⌀ from"])
        self.assertEqual(tried.figures, ())

    def test_what_the_drawing_allows_is_proved_from_its_least_to_its_most(self):
        """A sleeve by its chain, a tongue by its slot, an arm by its fork of 10.1, less
        0.05 to 0.25; of the arm's other two sizes ISO 2768-1 tells."""
        for family, step, name in (
            ("spacer-sleeve", "prove-sleeve", "Length"),
            ("t-nut-strip", "prove-rebate_front", "Tongue"),
        ):
            made = make(families()[family], {})
            (ends,) = (b for b in made.fits if b.slot.key in ("length", "tongue"))
            told = figures(listed(family, step)[0])
            self.assertEqual(told[f"{name} from"], round(ends.lower, 3))
            self.assertEqual(told[f"{name} to"], round(ends.upper, 3))
        _, sizes = listed("hinged-arm", "prove-arm")
        told = figures(sizes)
        self.assertEqual((told["Height from"], told["Height to"]), (9.85, 10.05))
        self.assertIn("±0.3 mm, ±0.2 mm where", sizes.note)

    def test_a_slide_is_proved_over_forty_millimetres_of_a_true_bar(self):
        """Short taper 1:4: the slide stands at 7.125°, and over 40 of its own travel
        40 sin 7.125° = 4.961 are read, where 40 along the axis would give 5."""
        (line,) = listed("taper-plate", "set-slide")
        told = figures(line)
        self.assertAlmostEqual(told["against a true bar it reads"], 4.961, places=3)
        self.assertAlmostEqual(told["From the axis"], 7.125, places=3)
        keys = [line.key for line in listed("taper-plate", "taper-seat")]
        self.assertEqual(keys, ["straight", "rough"], "it is set already")

    def test_in_an_inch_shop_a_taper_is_proved_over_round_inches(self):
        """Morse 3, 0.6023 in per foot: 0.0502 over an inch, 0.0050 over a tenth; its
        slide wound by 1.5 of its own travel."""
        given = {"socket.taper": "MT3", "chuck.taper": "JT33"}
        told = {}
        for line in listed("chuck-arbor", "taper-shank", given, Machines(inch=True)):
            told |= figures(line)
        self.assertAlmostEqual(told["Slide wound by"] / INCH, 1.5)
        self.assertAlmostEqual(told["Between the places"] / INCH, 1.0)
        self.assertAlmostEqual(told["Difference on ⌀"] / INCH, 0.0502, places=4)


class Dovetails(unittest.TestCase):
    def test_its_trial_is_no_cutting_again(self):
        lines = listed("dovetail-stop", "prove-slot")
        self.assertEqual([line.key for line in lines], ["pins", "whole"])
        cut = figures(listed("dovetail-stop", "flanks")[2])
        self.assertEqual(figures(lines[0]), cut)

    def test_the_second_flank_is_cut_by_what_the_pins_read(self):
        """Its foot 74.247 wide at 60°, pins of 8 as it is proved over: 74.247 −
        8 (1 + cot 30°) = 52.391 between; at 52.000 there is 0.391 to come off."""
        lines = listed("dovetail-stop", "flanks")
        keys = [line.key for line in lines]
        self.assertEqual(keys, ["depth", "first", "pins", "climb", "try"])
        pins = figures(lines[2])
        self.assertEqual((pins["Pins ⌀"], pins["Between them it should read"]),
                         (8.0, 52.391))  # fmt: skip
        made = make(families()["dovetail-stop"], {})
        self.assertEqual(made.values["slot.pins"], 52.391, "what Proof wants")
        read = listed("dovetail-stop", "flanks", **{"flanks.between": "52"})[2]
        self.assertEqual(figures(read)["Still to come off"], 0.391)
        own = Machines(LATHE, pins=(3.0, 5.5, 40.0))
        small = listed("dovetail-stop", "flanks", at=own, **{"flanks.pins": "5.5"})[2]
        self.assertAlmostEqual(figures(small)["Between them it should read"],
                               74.247 - 5.5 * (1 + math.sqrt(3)), 2)  # fmt: skip

    def test_of_one_that_stands_up_the_pins_read_less_with_each_cut(self):
        """40 over pins of 6, 30 from the edge: its foot, 40 − 6 (1 + cot 30°) = 23.608
        wide, begins at 18.196. At 40.3 there is 0.3 to come off."""
        given = {"parts": "dovetail", "dovetail1.form": "male"}
        read = {"flanks-dovetail1.between": "40.3"}
        lines = listed("plate-block", "flanks-dovetail1", given, **read)
        self.assertEqual(figures(lines[1])["Its foot from the edge"], 18.196)
        pins = figures(lines[2])
        self.assertEqual((pins["Pins ⌀"], pins["Over them it should read"]), (6, 40))
        self.assertEqual(pins["Still to come off"], 0.3)
        self.assertEqual(lines[2].asks[1], "Read over the pins")

    def test_the_head_of_a_t_slot_is_cut_from_its_floor_up(self):
        """Of 14 by the standard: 23 deep, lips of 14, the head 9 high and 23 wide."""
        given = {"parts": "tee", "tee1.neck": "14"}
        neck = listed("plate-block", "neck-tee1", given)
        self.assertEqual(figures(neck[-1])["Depth"], 22.7)
        floor, _, lips, sides, _ = listed("plate-block", "head-tee1", given)
        self.assertEqual(figures(floor), {"Depth": 23})
        self.assertEqual(figures(lips), {"Head's height": 9, "Lips": 14})
        self.assertEqual(figures(sides), {"Head's width": 23})

    def test_a_plain_slot_is_roughed_half_a_millimetre_inside_the_mouth(self):
        """The mouth is 60.045 wide, the slot 12.3 deep."""
        place, *passes = listed("dovetail-stop", "rough-slot")
        self.assertEqual(figures(place)["Width"], 59.045)
        self.assertEqual(figures(passes[-1])["Depth"], 11.8)


class Stacked(unittest.TestCase):
    def test_what_goes_through_one_goes_through_all(self):
        """A pair of 10 mm, drilled 7.8: the point stands 2.343 below 20 mm."""
        for count, deep in (("1", 12.343), ("2", 22.343)):
            lines = listed("hinged-arm", "drill-pivot", {"arm.count": count})
            self.assertEqual(figures(lines[-1])["Point at"], deep)


class Hexagons(unittest.TestCase):
    def test_what_the_first_flat_reads_sets_the_others(self):
        """27.713 round, 24 across: 1.856 down, 25.856 to the far side. It reads 25.9:
        the others go 0.044 deeper."""
        for read, down in (({}, 1.856), ({"mill-hexagon.far": "25.9"}, 1.9)):
            lines = listed("hexagon-screw", "mill-hexagon", **read)
            self.assertEqual(lines[1].asks[0], "mill-hexagon.far")
            self.assertEqual(figures(lines[1])["Down"], 1.856)
            self.assertEqual(figures(lines[2])["Down"], down)
        across = [figures(line).get("Across two") for line in lines[1:]]
        self.assertEqual(across, [None] * 3 + [24] * 3, "once its opposite is cut")


class AsItIsDrawn(unittest.TestCase):
    def test_a_flat_outside_of_its_bar_has_no_figures_and_says_why(self):
        """A point of 24 across cannot stand on a bar of 17: a check says so too."""
        given = {"point.across": "24.09", "handle.length": "200"}
        made = make(family_of("socket-key"), given)
        self.assertTrue(any(not check.passed for check in made.checks))
        steps = [step for up in route_told(made) for step in up.steps]
        lists = [work_list(step) for step in steps]
        bare = [
            work_list.lines[0]
            for work_list in lists
            if "no figures" in work_list.lines[0].note
        ]
        self.assertEqual(len(bare), 1)
        self.assertEqual(bare[0].figures, ())


class WhatMayNotBeHurried(unittest.TestCase):
    def test_a_ground_nose_is_read_cold_and_sparked_out(self):
        """0.2 left on a side of 20: 0.19 of it in passes of 10 µm, the last 20 µm on
        the diameter in fours of 2.5; ten degrees warm it is 11e-6 × 10 × 20 = 2.2 µm
        larger."""
        wheel = {"wheel": "150", "wheel_speed": "3400"}
        at = Machines(LATHE, grinder=Machine("grinder", "Grinder", "grinder", wheel))
        lines = listed("slit-arbor", "grind-nose", {"nose.hard": "yes"}, at)
        # 0.15 π 3400 / 60 = 26.7 m/s; 15 m/min on ⌀20 are 239 turns
        ready = {"A full wheel's rim": "27 m/s, 5260 ft/min", "Work turns, rpm": 240}
        self.assertEqual(figures(lines[0]), ready)
        keys = [line.key for line in lines]
        self.assertEqual(
            keys, ["clean", "bow", "taper", "rough", "cool", "last", "spark"]
        )
        self.assertEqual(figures(lines[3])["Passes, about"], 19)
        self.assertEqual(figures(lines[4])["Hand-warm it reads larger by"], 0.002)
        self.assertEqual(figures(lines[5])["Passes, about"], 4)

    def test_a_bush_is_pressed_cold_or_shrunk_with_the_seconds_it_has(self):
        bushed = {"bush.outside": "12", "holes.circle": "70"}
        pressed = [line.key for line in listed("drill-plate", "bushes", bushed)]
        self.assertEqual(pressed, ["ready", "start", "home", "look"])
        ways = {"press.how": "shrunk", "press.seconds": "20"}
        home = listed("drill-plate", "bushes", bushed, **ways)[2]
        self.assertEqual((home.key, home.seconds), ("home", 20))

    def test_what_is_tempered_by_its_colour_has_the_heats_of_it(self):
        """Purple comes at 520 to 550 °F, after brown and before blue."""
        lines = {o.key: o for o in listed("socket-key", "harden")}
        self.assertEqual(lines["temper"].figures, ())
        purple = {"harden.colour": "purple", "harden.temper": "3600"}
        lines = {o.key: o for o in listed("socket-key", "harden", **purple)}
        said = figures(lines["temper"])
        self.assertEqual(said["Plain steel to"], "purple")
        self.assertLess(said["from"], (520 - 32) / 1.8)
        self.assertGreaterEqual(said["to"], (550 - 32) / 1.8 - 0.5)
        self.assertEqual(lines["temper"].seconds, 3600)

    def test_mild_steel_has_its_skin_hardened_and_cast_iron_nothing(self):
        mild = {"material": "mild steel"}
        keys = [line.key for line in listed("socket-key", "harden", mild)]
        self.assertEqual(keys, ["ready", "heat", "case", "quench", "file"])
        case = listed("socket-key", "harden", mild, **{"harden.case": "300"})[2]
        self.assertEqual(case.seconds, 300)
        (line,) = listed("socket-key", "harden", {"material": "cast iron"})
        self.assertEqual(line.head, "Heat hardens no cast iron")

    def test_what_is_welded_is_read_before_it_is_cut_again(self):
        """The seats have 0.3 to a side left; it may not have moved by more."""
        welded = {"head.welded": "yes"}
        lines = listed("draw-in-spindle", "weld", welded, **{"weld.cool": "1800"})
        self.assertEqual([line.key for line in lines],
                         ["ready", "warm", "tack", "weld", "cool", "read"])  # fmt: skip
        self.assertEqual(lines[4].seconds, 1800)
        self.assertEqual(figures(lines[5]), {"Left over, to a side": 0.3})

    def test_what_rusts_is_oiled_or_blued_and_heat_moves_it(self):
        for rust, keys in (
            ("", ["whole"]),
            ("chemical", ["whole", "clean", "blue", "oil"]),
            ("heat", ["whole", "may", "clean", "heat", "oil"]),
        ):
            lines = listed("stud", "deburr", rust=rust)
            self.assertEqual([line.key for line in lines], keys)
        self.assertIn("bows what is finished to a band", lines[1].note)
        brass = listed("stud", "deburr", {"material": "brass"}, rust="heat")
        self.assertEqual([line.key for line in brass], ["whole"])


class HolesAreWalked(unittest.TestCase):
    def test_a_circle_by_laps_from_the_corner_of_its_block(self):
        """M8 goes through 9: drills 4.5 and 9. Hole 2 at 150°: 60 − 40 cos 30° and
        60 + 40 sin 30°."""
        lines = listed("plate-block", "drill-ring1", RING)
        keys = [line.key for line in lines]
        self.assertEqual(keys[:3], ["zero", "spot-1", "spot-2"])
        self.assertEqual(keys[7:10], ["check", "4.5-1", "4.5-2"])
        self.assertEqual(keys[14], "9-1")
        self.assertEqual(len(lines), 1 + 3 * 6 + 1)
        second = figures(lines[9])
        self.assertEqual((second["X"], second["Y"]), (25.359, 80.0))
        # 30 through and the point of 4.5: 2.25 / tan 59°
        self.assertEqual(second["Point at"], 31.352)

    def test_the_rule_check_speaks_of_the_outsides_of_the_holes(self):
        """Neighbours on a six-hole circle of 80 are 40 apart, the furthest 80: spotted
        9.4 wide, before a drill goes in; hole by hole when all are drilled to 9."""
        lines = {line.key: line for line in listed("plate-block", "drill-ring1", RING)}
        over = {"Over two neighbours": 49.4, "Over the furthest": 89.4}
        self.assertEqual(figures(lines["check"]), over)
        last = listed("plate-block", "drill-ring1", RING, order="holes")[-1]
        over = {"Over two neighbours": 49, "Over the furthest": 89}
        self.assertEqual(figures(last), over)

    def test_a_spot_drill_breaks_the_edge_of_what_is_not_cut_wider(self):
        """A through hole of 9 is spotted to 9.4, 4.7 deep at 90°; one tapped M8 over
        its thread; a counterbored one, piloted 4.5, only starts. What is opened further
        has its start."""
        for kind, mouth in (("through", 9.4), ("tapped", 8.4), ("counterbored", 3.6)):
            lines = listed("plate-block", "drill-ring1", RING | {"ring1.kind": kind})
            with self.subTest(kind):
                self.assertEqual(figures(lines[1])["Point at"], mouth / 2)
                self.assertIn(f"{mouth} mm across", lines[1].note)
                broken = "edge is broken" in lines[1].note
                self.assertEqual(broken, kind != "counterbored")
        opened = listed("draw-tube-sleeve", "drill-balls")
        self.assertNotIn("spot-1", [line.key for line in opened])

    def test_hole_by_hole_and_from_the_middle(self):
        lines = listed("plate-block", "drill-ring1", RING, order="holes", zero="centre")
        keys = [line.key for line in lines][1:5]
        self.assertEqual(keys, ["spot-1", "4.5-1", "9-1", "spot-2"])
        first = figures(lines[1])
        self.assertEqual((first["X"], first["Y"]), (0, 40))

    def test_a_bore_that_is_in_already_is_found_by_the_indicator(self):
        """The bore at 40, 30; four holes 15 from the sides of 100 × 60: the first 25 to
        the left of it and 15 nearer."""
        given = {"parts": "bore holes", "holes1.screw": "M6"}
        lines = listed("plate-block", "drill-holes1", given, zero="bore1")
        self.assertEqual(lines[0].head, "Zero on bore 1")
        first = next(line for line in lines[1:] if "X" in figures(line))
        self.assertEqual((figures(first)["X"], figures(first)["Y"]), (-25, -15))
        told = step_of("plate-block", "drill-bore1", given)
        ways = {w.key: w for w in work_list(told).ways}
        self.assertEqual([key for key, _ in ways["zero"].answers], ["corner", "centre"])

    def test_without_a_mill_they_are_marked_out_and_punched(self):
        """Three on a circle of 110 are 110 sin 60° apart; a block's are marked from two
        edges. The holes themselves have no places to wind to then."""
        no_mill = Machines(LATHE, marks_out=True)
        lines = {o.key: o for o in listed("back-plate", "holes", at=no_mill)}
        scribed = {"Circle's radius": 55, "Hole to hole": 95.263}
        self.assertEqual(figures(lines["scribe"]), scribed)
        self.assertIn("not for dowels", lines["punch"].note)
        self.assertNotIn("X", figures(lines["spot-1"]))
        self.assertIn("check", lines)
        lines = listed("plate-block", "drill-ring1", RING, places="marked")
        keys = [line.key for line in lines[:8]]
        self.assertEqual(keys, [*(f"mark-{n}" for n in range(1, 7)), "punch", "spot-1"])
        from_edges = {"From the left edge": 25.359, "From the near edge": 80.0}
        self.assertEqual(figures(lines[1]), from_edges)

    def test_the_mill_says_whether_it_has_a_read_out(self):
        for axes, words in (
            ("", "by the read-out or dials"),
            ("0", "by the dials"),
            ("3", "by the read-out"),
        ):
            mill = Machine(
                "mill", "Mill", "mill", {"readout_axes": axes} if axes else {}
            )
            step = step_of("plate-block", "drill-ring1", RING)
            (way, *_) = work_list(step, Machines(LATHE, mill=mill), {}).ways
            self.assertEqual(way.answers[0], ("axes", words))

    def test_on_a_rotary_table_they_are_turns_of_its_handle(self):
        """90 turns over six holes are 15; over seven 12 and 18 holes of 21."""
        at = Machines(LATHE, TABLE)
        lines = listed("plate-block", "drill-ring1", RING, at, places="turned")
        self.assertEqual(figures(lines[0]), {"From the axis": 40})
        self.assertEqual(figures(lines[2])["Table at"], "60°00′00″")
        self.assertEqual(figures(lines[2])["Turn on by"], "15 turns")
        seven = {**RING, "ring1.count": "7"}
        lines = listed("plate-block", "drill-ring1", seven, at, places="turned")
        arms = {"Circle of holes": 21, "Spaces between the arms": 18}
        self.assertEqual(figures(lines[1]), arms)
        self.assertEqual(figures(lines[3])["Turn on by"], "12 turns + 18 of 21")

    def test_patterns_of_one_piece_are_turned_from_one_mark(self):
        """From the top of the drawing, clockwise: a detent's recesses 30° to either
        side of it and its screws opposite, at 180°, and 120° on; the dowels of a hub
        half a pitch from its four screws."""
        for family, given, steps in (
            (
                "detent-plate",
                {},
                {
                    "mill-recesses": ["330°00′00″", "0°00′00″", "30°00′00″"],
                    "drill-screws": ["60°00′00″", "180°00′00″", "300°00′00″"],
                },
            ),
            (
                "hub-adapter",
                {"dowels.diameter": "5"},
                {"drill-dowels": ["45°00′00″", "225°00′00″"]},
            ),
        ):
            for step, angles in steps.items():
                lines = listed(family, step, given, places="turned")
                told = [figures(line).get("Table at") for line in lines]
                with self.subTest(family, step=step):
                    self.assertEqual([at for at in told if at][: len(angles)], angles)

    def test_a_hole_from_the_side_says_how_it_stands_to_the_rest(self):
        for family, step, says in (
            ("hub-adapter", "drill-grub", "It stands 180° round from the key."),
            ("carrier", "drill-grubs", "They stand 45° round from the bolts."),
            ("socket-key", "drill-handle", "It stands in line with a flat."),
        ):
            self.assertIn(says, listed(family, step, {})[0].note)

    def test_a_face_that_was_turned_over_is_read_as_one_looks_at_it(self):
        """20 from the left as drawn from above is 80 from the left of what is under
        it, turned over left for right."""
        given = {
            "parts": "hole",
            "hole1.face": "bottom",
            "hole1.kind": "through",
            "hole1.screw": "M4",
            "hole1.from_side": "20",
        }
        lines = listed("plate-block", "drill-hole1", given)
        self.assertEqual(figures(lines[1])["X"], 80)
        self.assertIn("turned over", lines[0].note)

    def test_a_tapped_hole_says_its_turns(self):
        """M10 has a pitch of 1.5; a hole of 24 is tapped 19.5 deep, 13 turns."""
        given = {"parts": "hole", "hole1.screw": "M10", "hole1.depth": "24"}
        (_, line) = listed("plate-block", "tap-hole1", given)
        self.assertEqual(figures(line), {**figures(line), "Thread depth": 19.5,
                                         "Turns": 13.0})  # fmt: skip


class Aslant(unittest.TestCase):
    def test_a_hole_that_leans_right_stands_upright_once_the_left_edge_is_raised(self):
        """30° on a sine bar of 100: slips of 50. Its flat is whole once an end mill of
        9 is 4.5 tan 30° = 2.598 below the mark; it is through at 30 / cos 30° + 2.598
        and the point of 2.704."""
        given = {"parts": "hole", "hole1.kind": "through", "hole1.lean": "30"}
        lines = {line.key: line for line in listed("plate-block", "drill-hole1", given)}
        self.assertEqual(list(lines)[:4], ["mark-1", "punch", "lean", "flat-1"])
        self.assertEqual(lines["lean"].head, "Raise its left edge")
        self.assertEqual(figures(lines["lean"])["Slips under the sine bar"], 50)
        self.assertEqual(figures(lines["flat-1"]), {"Down from the mark": 2.598})
        through = 34.641 + 2.598 + 2.704
        self.assertAlmostEqual(
            figures(list(lines.values())[-1])["Point at"], through, places=2
        )

    def test_turned_over_it_leans_the_other_way(self):
        given = {"parts": "hole", "hole1.face": "bottom", "hole1.lean": "20"}
        lines = listed("plate-block", "drill-hole1", given)
        self.assertIn("Raise its right edge", [line.head for line in lines])

    def test_a_slot_that_is_turned_is_set_by_two_spots_on_its_middle(self):
        """Its ends 40 apart at 30°: 34.641 along and 20 across; from below, left is
        where it was right."""
        for face, left, right in (
            ("top", (10, 30), (44.641, 50)),
            ("bottom", (55.359, 50), (90, 30)),
        ):
            given = {"parts": "slot", "slot1.face": face, "slot1.length": "40",
                     "slot1.turn": "30"}  # fmt: skip
            first, second, turn, *_ = listed("plate-block", "mill-slot1", given)
            with self.subTest(face):
                self.assertEqual(tuple(figures(first).values()), left)
                self.assertEqual(tuple(figures(second).values()), right)
                self.assertEqual(figures(turn), {"Turned by": 30, "Apart": 40})


class PassesAreCounted(unittest.TestCase):
    def test_turning_ends_on_the_size_and_on_the_dial_that_it_means(self):
        """From 37 to 35 by a dial that counts the diameter: 2.00 off. The shank behind
        it is roughed, so that nothing is in the carriage's way."""
        lines = listed("taper-arbor", "turn-collar")
        self.assertEqual(figures(lines[0]), {"⌀ now": 37})
        self.assertEqual(figures(lines[-1]), {"Dial to": "2.00", "⌀ after": 35})

    def test_the_last_pass_is_told_as_fine_as_its_band(self):
        """A spigot of 94.990 to 95.004 comes to 94.997; what is roughed, to a
        hundredth."""
        *_, before, last = listed("back-plate", "spigot")
        self.assertEqual(
            [line.figures[1].step for line in (before, last)], [0.01, 0.001]
        )
        rough = listed("back-plate", "hub")[-1]
        self.assertEqual(rough.figures[1].step, 0.01)

    def thread(self, **ways):
        """An M27 × 1.5 nut thread on a spindle's rear end."""
        return {
            line.key: line for line in listed("draw-in-spindle", "thread-nut", **ways)
        }

    def test_a_thread_along_its_flank_comes_to_its_depth_on_the_compound(self):
        """0.6134 × 1.5 = 0.9202 deep, over cos 29.5° = 1.0572; the wheels 24 and 64
        make 1.5 of a lead screw of 4."""
        lines = self.thread()
        self.assertEqual(figures(lines["gears"])["Drivers / driven"], "24/64")
        self.assertEqual(figures(lines["compound"]), {"From square across": 29.5})
        self.assertEqual(figures(lines["scratch"]), {"Over 10 threads": 15})
        self.assertIn("Keep the half-nuts closed", lines["nuts"].note)
        last = max(int(k[5:]) for k in lines if k.startswith("pass-"))
        self.assertEqual(figures(lines[f"pass-{last}"])["Compound to"], 1.057)

    def test_straight_in_it_is_fed_by_the_cross_dial(self):
        """Counted on the diameter: twice 0.9202."""
        lines = self.thread(infeed="plunge")
        self.assertNotIn("compound", lines)
        self.assertEqual(figures(lines["spring-1"])["Cross slide to"], "1.84")

    def test_over_three_wires_it_says_both_ends_of_its_class(self):
        """Best wire 1.5 / (2 cos 30°) = 0.866."""
        shown = figures(self.thread(tried="wires")["try"])
        self.assertEqual(shown["Wire"], 0.866)
        self.assertLess(shown["Not under"], shown["Not over"])

    def test_the_flat_on_the_crest_tells_how_deep_it_is(self):
        """M16 on 15.962: at its pitch diameter of 14.663 a tooth is 1.0 wide, and on
        the crest 1.0 − (15.962 − 14.663) tan 30° = 0.25; at 14.503 it is 0.158."""
        given = {"parts": "step, thread", "step1.diameter": "16",
                 "step1.length": "60", "thread1.thread": "M16"}  # fmt: skip
        *_, last = listed("turned-piece", "thread-thread1", given, tried="flat")
        shown = figures(last)
        self.assertAlmostEqual(shown["Not over"], 0.25, delta=0.001)
        self.assertAlmostEqual(shown["Not under"], 0.158, delta=0.001)

    def test_a_taper_is_proved_by_indicator_and_by_two_places(self):
        """Morse 3 is 0.05020 of its length, 1.438° a side: 40 sin 1.438° = 1.004 over
        40 of the slide, 1.255 on ⌀ over 25. With the tailstock set over the carriage
        winds along the axis: 40 × 0.0251."""
        lines = {line.key: line for line in listed("taper-arbor", "taper-shank")}
        self.assertAlmostEqual(figures(lines["indicator"])["It should read"], 1.004, 3)
        self.assertAlmostEqual(figures(lines["rough"])["Difference on ⌀"], 1.255, 3)
        self.assertNotIn("blue", lines, "metal is left on it yet")
        over = listed("taper-arbor", "taper-shank", taper="tailstock")
        read = figures(next(line for line in over if line.key == "indicator"))
        self.assertIn("Carriage wound by", read)
        self.assertAlmostEqual(read["It should read"], 1.004, 3)
        finish = [line.key for line in listed("taper-arbor", "taper-shank-2")]
        self.assertEqual(finish, ["blue", "depth"])

    def test_a_slide_is_proved_along_a_good_taper_or_a_sine_bar_too(self):
        """100 sin 1.4377° = 2.509 of slips; along what lies so already the indicator
        stands still."""
        for by, slips in (("taper", None), ("sine", 2.509)):
            lines = listed("taper-arbor", "taper-shank", proved=by)
            (shown,) = (line for line in lines if line.key == "indicator")
            told = figures(shown)
            self.assertEqual(told["From end to end it reads"], 0)
            self.assertEqual(told.get("Slips under its end"), slips)
            self.assertEqual(shown.asks, ("", ""))

    def test_what_the_needle_read_says_how_much_steeper(self):
        """0.98 for 1.004 over 40: asin(1.004 / 40) − asin(0.98 / 40), 2.0 minutes."""
        ways = {"taper-shank.needle": "0.98"}
        lines = {o.key: o for o in listed("taper-arbor", "taper-shank", **ways)}
        self.assertEqual(figures(lines["indicator"])["Steeper by"], "2.0′")

    def test_where_the_blue_rubbed_says_which_way_and_by_how_much(self):
        """A gap of 0.01 over the 81 of a Morse 3 shank: 0.4 minutes, 5 µm over 40. Of a
        shank that rubs at its large end the taper is too steep; of a socket too
        little."""
        (shank, _) = listed("taper-arbor", "taper-shank-2", rubbed="large")
        said = figures(shank)
        self.assertIn("Less steep by", said)
        long = 0.01 * 40 / said["that is"]
        self.assertAlmostEqual(
            float(said["Less steep by"].strip("′")),
            math.degrees(math.atan(0.01 / long)) * 60,
            delta=0.06,
        )
        socket = listed("draw-in-spindle", "taper-socket-2", rubbed="large")[0]
        self.assertIn("Steeper by", figures(socket))
        hollow = listed("taper-arbor", "taper-shank-2", rubbed="hollow")[0]
        self.assertIn("centre height", hollow.note)


class KeysAndFlats(unittest.TestCase):
    def test_in_a_bore_the_corners_of_the_tool_touch_first(self):
        """A keyway w wide in a bore ⌀d: the corners stand r − √(r² − w²/4) back."""
        made = make(family_of("hub-adapter"), {})
        way = next(f for f in made.body.features if f.kind == "keyway")
        step = next(
            s.key
            for up in route_told(made)
            for s in up.steps
            if s.operation == "keyway"
        )
        lines = listed("hub-adapter", step)
        r = way.diameter / 2
        drop = r - math.sqrt(r**2 - way.width**2 / 4)
        shown = figures(lines[0])
        self.assertEqual(shown["Corner drop"], round(drop, 3))
        self.assertEqual(shown["Feed in all"], round(way.depth + drop, 3))
        across = next(line for line in lines if line.key == "across")
        self.assertEqual(
            figures(across), {"To its floor": round(way.diameter + way.depth, 3)}
        )

    def test_a_hexagon_is_read_after_its_first_flat_and_across_the_fourth(self):
        """A sixth of 40 turns is 6 and 10 of 15."""
        made = make(family_of("hexagon-screw"), {})
        flats = next(f for f in made.body.features if f.kind == "flats")
        step = next(
            s for up in route_told(made) for s in up.steps if flats.name in s.features
        )
        _, radius = step.before.radii((flats.start + flats.end) / 2)
        lines = listed("hexagon-screw", step.key, at=Machines(LATHE, HEAD))
        first, second, fourth = (figures(lines[n]) for n in (2, 3, 5))
        self.assertEqual(first["Flat to far side"], round(radius + flats.across / 2, 3))
        self.assertEqual(second["Turn on by"], "6 turns + 10 of 15")
        self.assertEqual(fourth["Across two"], flats.across)


class SetTrue(unittest.TestCase):
    """0, 0.12, 0.30, 0.18 at four jaws: half of 0.30 − 0 from jaw 3, half of 0.18 −
    0.12 from jaw 4."""

    TURN = (0.0, 0.12, 0.30, 0.18)

    def test_the_high_jaws_push_by_half_of_what_the_indicator_differs(self):
        line, _ = set_true(self.TURN, 0.01, "four")
        shown = {"Indicator swing": 0.3, "Jaw 3 pushes": 0.15, "Jaw 4 pushes": 0.03}
        self.assertEqual(figures(line), shown)
        self.assertIn("oosen jaw 1, push with jaw 3", line.note)

    def test_a_shim_under_one_of_three_jaws_is_half_as_much_again(self):
        """The middle lies √(0.15² + 0.03²) = 0.153 off; 1.5 times that."""
        line, _ = set_true(self.TURN, 0.01, "three")
        self.assertAlmostEqual(figures(line)["Shim"], 0.229, places=3)

    def test_within_what_is_wanted_it_is_true(self):
        line, _ = set_true((0.0, 0.004, 0.009, 0.005), 0.01, "four")
        self.assertEqual(line.key, "true")

    def test_an_oval_is_not_chased(self):
        """0.05 high at two opposite places: no jaw takes that out."""
        line, _ = set_true((0.05, 0.0, 0.05, 0.0), 0.01, "four")
        self.assertEqual(line.key, "round")
        self.assertEqual(figures(line)["Residual"], 0.05)

    def test_two_readings_are_no_turn(self):
        with self.assertRaisesRegex(BadInput, "three readings or more"):
            read_round([0.0, 0.1])


class EveryStepHasLines(unittest.TestCase):
    def test_of_every_family_each_line_has_its_own_name_and_sound_figures(self):
        at = Machines(LATHE, TABLE)
        for family in families().values():
            made = make(family, family.full)
            for step in (s for up in route_told(made) for s in up.steps):
                with self.subTest(family=family.key, step=step.key):
                    lines = work_list(step, at).lines
                    keys = [line.key for line in lines]
                    self.assertEqual(len(keys), len(set(keys)))
                    self.assertTrue(keys)
                    for shown in (f for line in lines for f in line.figures):
                        if not isinstance(shown.value, str):
                            self.assertTrue(math.isfinite(shown.value), shown)

import math
import unittest

from msgspec.structs import replace

from machinon.core.job.fit_plan import with_bolts
from machinon.core.job.job import ProofLog
from machinon.core.job.made_piece import told_of, with_size
from machinon.core.reckoning import reckon
from machinon.core.shop.things import Reading
from tests.scenario import (
    BOLTS,
    CHUCK,
    LATHE,
    NOSE,
    REGISTER,
    SHOP,
    SPIGOT,
    THREAD,
    back_plate,
    planned,
    with_cuts,
)


class FromReadingsToThePlate(unittest.TestCase):
    def test_every_size_comes_from_its_mate(self):
        """Recess 95.020 ± 0.0057 with g6 (−34, −12): 94.992 to 95.002.

        The span over two screws less one screw is the chord: 103.15 − 7.89 =
        95.26, and 95.26 / sin 60° = 110.00.
        """
        plan = planned()
        spigot = plan.fit(SPIGOT)
        self.assertAlmostEqual(spigot.lower, 94.9917, places=3)
        self.assertAlmostEqual(spigot.upper, 95.0023, places=3)
        self.assertEqual(plan.made.values["spigot.diameter"], 94.997)
        self.assertEqual(plan.fit(THREAD).thread.name, "M45x4.5")
        self.assertEqual(plan.made.values["bolts.circle"], 110.0)
        self.assertEqual(plan.failed, ())
        self.assertLess(45.993, plan.made.values["register.diameter"])

    def test_one_reading_moves_band_drawing_route_and_passes_at_once(self):
        """The recess 0.3 larger: the spigot, its step and its passes follow."""
        before = planned()
        chuck = {**CHUCK, "recess": ("bore-gauge", 95.318, 95.322, 95.320)}
        started = with_cuts(back_plate(), 96.0)
        after = planned(started, chuck=chuck)
        moved = after.fit(SPIGOT).aim - before.fit(SPIGOT).aim
        self.assertAlmostEqual(moved, 0.3, places=6)
        self.assertAlmostEqual(after.made.values["spigot.diameter"], 95.297, places=6)
        self.assertAlmostEqual(
            after.made.values["spigot.diameter"] / 2, _turned(after), 6
        )
        self.assertAlmostEqual(
            after.cut_state.aim, after.made.values["spigot.diameter"]
        )
        less, more = after.passes, planned(started).passes
        self.assertAlmostEqual(more[-1].dial - less[-1].dial, 0.3 / 2 / 0.97, places=1)

    def test_a_typed_spigot_that_contradicts_the_recess_is_flagged(self):
        plan = planned(back_plate({"spigot.diameter": "95.03"}))
        self.assertIn("28 µm over the band", plan.fit(SPIGOT).contradiction)
        self.assertEqual([check.place for check in plan.grave], ["spigot"])
        self.assertEqual(plan.grave[0].fit, SPIGOT)
        self.assertIn("piece", plan.grave_stages)
        self.assertTrue(plan.open["fits"])

    def test_a_typed_size_within_the_band_is_no_contradiction(self):
        self.assertEqual(planned(back_plate({"spigot.diameter": "95.0"})).failed, ())

    def test_an_inch_nose_is_found_and_never_guessed(self):
        """1 1/2-8 read 38.0 over the crests: BSF or UN, only the flanks tell.

        UN, class 2B: bore 1.5 − 1.0825/8 = 1.365 in, and 0.25/8 − 0.4/64 = 0.025
        more at most: 1.390 in, the middle of it 34.99 mm. BSF has no limits here:
        its basic bore is 1.5 − 1.2807/8 = 1.33992 in or 34.03 mm.
        """
        nose = {
            **NOSE,
            "register": ("micrometer", 39.992, 39.994),
            "thread-major": ("micrometer", 38.0),
            "thread-pitch": ("thread-gauge", 25.4 / 8),
        }
        unsure = planned(nose=nose)
        self.assertIn("flanks decide: 55° or 60°", unsure.fit(THREAD).problem)
        self.assertIsNone(unsure.made)
        job = back_plate()
        said = replace(job.fit(THREAD), thread="1 1/2-8 UN")
        plan = planned(job.with_fit(said), nose=nose)
        self.assertEqual(plan.made.values["thread.thread"], "1 1/2-8 UN")
        self.assertEqual(plan.fit(THREAD).thread_class, "2B")
        self.assertAlmostEqual(plan.made.values["core.diameter"], 34.99, places=2)
        self.assertAlmostEqual(plan.fit(THREAD).lower, 1.365 * 25.4)
        self.assertAlmostEqual(plan.fit(THREAD).upper, 1.390 * 25.4)
        said = replace(job.fit(THREAD), thread="1 1/2 BSF")
        plan = planned(job.with_fit(said), nose=nose)
        self.assertEqual(plan.made.values["thread.thread"], "1 1/2 BSF")
        self.assertAlmostEqual(plan.made.values["core.diameter"], 34.03, places=2)
        self.assertIn("No limits are kept", plan.fit(THREAD).advice)

    def test_without_a_reading_it_says_what_is_missing(self):
        chuck = {key: value for key, value in CHUCK.items() if key != "recess"}
        plan = planned(chuck=chuck)
        self.assertIsNone(plan.made)
        self.assertEqual(told_of(plan.missing), "the chuck (its recess)")
        self.assertEqual(plan.missing[0].stage, "survey")
        self.assertIn("rear recess: measure it", plan.fit(SPIGOT).problem)
        self.assertTrue(any("rear recess" in line for line in plan.open["survey"]))

    def test_a_caliper_leaves_nothing_of_a_close_fit(self):
        chuck = {**CHUCK, "recess": ("caliper", 95.02, 95.02)}
        fit = planned(chuck=chuck).fit(SPIGOT)
        self.assertIsNone(fit.lower)
        self.assertIn("bore gauge", fit.advice, "it says what would help")
        self.assertTrue(planned(chuck=chuck).grave)

    def test_bolts_that_might_bind_are_pointed_out(self):
        chuck = {**CHUCK, "bolt-span": ("caliper", 103.15, 103.75)}
        job = back_plate()
        close = job.with_fit(replace(job.fit(BOLTS), want="close"))
        self.assertTrue(planned(close, chuck=chuck).fit(BOLTS).advice)
        self.assertFalse(planned().fit(BOLTS).advice)

    def test_what_the_screws_carry_stands_beside_what_the_lathe_turns(self):
        """A register only centres: three M8 on 110 hold the chuck by friction."""
        fit = planned().fit(BOLTS)
        carries, turns = fit.joined.effects
        asked = {"bolts": 3, "thread": "M8", "circle": fit.circle["diameter"]}
        self.assertEqual(carries.value, reckon("bolts-carry", asked)["carries"])
        self.assertEqual(turns.name, "The lathe turns at most")

    def test_screws_that_slip_before_the_belt_does_are_pointed_out(self):
        """They slip at twice what they carry. 1.1 kW at 45 rpm is 233 N·m."""
        fit = planned().fit(BOLTS)
        holds = reckon("bolts-carry", fit.joined.effects[0].answer.inputs)["carries"]
        for torque, says in ((0.9, ""), (1.1, "twice over"), (2.1, "drive pins")):
            with self.subTest(torque):
                power = torque * holds * 45 * 2 * math.pi / 60 / 1000
                lathe = replace(
                    LATHE,
                    speeds=(45.0,),
                    figures={**LATHE.figures, "power": f"{power}"},
                )
                advice = " ".join(planned(lathe=lathe).fit(BOLTS).joined.advice)
                self.assertEqual(says in advice, True)
                self.assertEqual(bool(advice), bool(says))

    def test_of_screws_that_no_grade_is_kept_for_nothing_is_said(self):
        fit = planned().fit(BOLTS)
        told = {fit.choice.number: {"thread": "M42", "holes": 3}}
        huge = with_bolts(fit, told, (), None)
        self.assertIsNone(huge.joined, "8.8 goes up to M39")
        self.assertEqual(huge.room.inputs["thread"], "M42")

    def test_the_thread_may_be_said_instead_of_found(self):
        job = back_plate()
        job = job.with_fit(replace(job.fit(THREAD), thread="M45x4"))
        self.assertEqual(planned(job).made.values["thread.thread"], "M45x4")
        nose = {**NOSE, "thread-pitch": ("thread-gauge", 3.175)}
        self.assertIn("no thread known here", planned(nose=nose).fit(THREAD).problem)


def _turned(plan) -> float:
    """Radius of the spigot in the picture of the step that finishes it."""
    step = next(s for up in plan.route for s in up.steps if s.key == "spigot")
    return step.after.radii(step.after.ends[1] - 1)[1]


class Checks(unittest.TestCase):
    def test_each_check_can_fail_and_points_at_its_place(self):
        for sizes, key, place in (
            ({"hub.diameter": "55"}, "wall", "hub"),
            ({"hub.diameter": "55"}, "wall-register", "register"),
            ({"register.depth": "4"}, "register-length", "register"),
            ({"register.depth": "12.2"}, "register-clears", "register"),
            ({"register.depth": "20"}, "thread-length", "thread"),
            ({"flange.thickness": "15"}, "nose-inside", "front"),
            ({"spigot.height": "4.5"}, "spigot-recess", "spigot"),
            ({"spigot.height": "1.5"}, "spigot-length", "spigot"),
            ({"bolts.circle": "58.0"}, "hole-bore", "bolts"),
            ({"bolts.circle": "103.0"}, "hole-spigot", "bolts"),
            ({"flange.thickness": "10"}, "flange-thin", "flange"),
            ({"stock.diameter": "131"}, "stock-diameter", "stock"),
            ({"stock.length": "40"}, "stock-length", "stock"),
            ({"flange.diameter": "127"}, "heads-edge", "bolts"),
            ({"hub.diameter": "96"}, "heads-hub", "bolts"),
            ({"flange.thickness": "14"}, "under-head", "bolts"),
            (
                {"bolts.bolting": "into", "flange.thickness": "11"},
                "engagement",
                "bolts",
            ),
            ({"bolts.bolting": "into", "flange.diameter": "120"}, "hole-edge", "bolts"),
        ):
            with self.subTest(key):
                self.assertNotIn(key, [c.key for c in planned().failed])
                failed = {c.key: c for c in planned(back_plate(sizes)).failed}
                self.assertIn(key, failed)
                self.assertEqual(failed[key].place, place)
                self.assertIn("wanted", failed[key].says)

    def test_a_small_lathe_does_not_swing_it(self):
        small = replace(LATHE, centre_height=65.0, swing_over_slide=100.0)
        keys = [check.key for check in planned(lathe=small).failed]
        self.assertEqual(keys, ["swing", "swing-slide"])

    def test_an_empty_entry_puts_a_ruled_size_back_under_its_fit(self):
        making = back_plate().making
        typed = with_size(making, "spigot.diameter", "95.4mm")
        self.assertEqual(typed.sizes["spigot.diameter"], "95.4mm")
        self.assertEqual(with_size(typed, "spigot.diameter", ""), making)


class Route(unittest.TestCase):
    def setUp(self):
        self.plan = planned()
        self.keys = [s.key for up in self.plan.route for s in up.steps]

    def test_the_order_of_work(self):
        """Nose side first, spigot on the own spindle, holes last."""
        order = ["register", "thread", "prove-nose", "mount", "spigot", "prove-spigot"]
        places = [self.keys.index(key) for key in (*order, "holes", "deburr")]
        self.assertEqual(places, sorted(places))
        for set_up in self.plan.route:
            self.assertTrue(set_up.reason)

    def test_it_is_held_until_the_fit_is_proved(self):
        holds = [s.key for up in self.plan.route for s in up.steps if s.hold]
        self.assertEqual(holds, ["prove-nose", "prove-spigot"])

    def test_speeds_are_the_lathes_own(self):
        """Cast iron, HSS at 22 m/min on ⌀94.997: 73.7, so 70 rpm."""
        speeds = {
            s.key: s.speed["rpm"] for up in self.plan.route for s in up.steps if s.speed
        }
        self.assertEqual(speeds["spigot"], 70)
        for key in ("face-hub", "hub", "bore", "register", "thread", "seat"):
            self.assertIn(speeds[key], LATHE.speeds)

    def test_bolts_into_the_plate_are_tapped_in_the_set_up_of_the_hole(self):
        plan = planned(back_plate({"bolts.bolting": "into"}))
        keys = [s.key for up in plan.route for s in up.steps]
        self.assertEqual(keys[keys.index("holes") + 1], "tap")
        drill = next(s for up in plan.route for s in up.steps if s.key == "holes")
        self.assertIn("not the clearance drill", drill.note)


GOES_ON = {"fit.1": "goes on", "fit.4": "goes on"}


class ProofOfThePlate(unittest.TestCase):
    def proved(
        self, register=46.01, tir=0.01, tried=True, steps_done=True, mates=GOES_ON
    ):
        """The plate cut to 94.998, measured, and its mates tried."""
        job = with_cuts(back_plate(), 96.0, (0.51, 94.998))
        surfaces = {s.id: s for s in job.proof.surfaces}
        for key, tool, size in (
            ("fit.1", "bore-gauge", register),
            ("fit.4", "caliper", 104.26),
        ):
            reading = (Reading(size, tool),)
            surfaces[key] = replace(surfaces[key], readings=reading)
        half = tir / 2
        proof = ProofLog(
            tuple(surfaces.values()), tried, (half, 0, -half, 0), tried=mates
        )
        steps = [step.key for up in planned().route for step in up.steps]
        done = tuple(steps) if steps_done else ()
        job = job.with_log(replace(job.log, trial="goes on"))
        return planned(job.with_work(proof=proof, done=done))

    def test_all_in_its_band_is_proved(self):
        """Span over two ⌀9 holes on 110: 110 sin 60° + 9 = 104.263."""
        plan = self.proved()
        self.assertEqual(plan.verdict, "proved")
        bolts = next(line for line in plan.proof if line.fit == BOLTS)
        self.assertAlmostEqual(bolts.size, 109.997, places=3)

    def test_what_is_not_done_is_named(self):
        plan = self.proved(tried=False)
        self.assertEqual(plan.verdict, "open")
        self.assertIn("thread tried home", plan.verdict_says)

    def test_a_loose_register_fails_and_a_doubtful_one_is_near(self):
        self.assertEqual(self.proved(register=46.05).verdict, "failed")
        high = planned().fit(REGISTER).upper
        near = self.proved(register=high + 0.003, mates={})
        self.assertEqual(near.verdict, "near")

    def test_run_out_over_the_limit_fails_whatever_the_sizes_say(self):
        plan = self.proved(tir=0.05)
        self.assertEqual(plan.verdict, "failed")
        self.assertIn("mount it again", plan.verdict_says)

    def test_a_gauge_coarser_than_the_band_leaves_it_to_the_mate(self):
        line = self.proved(mates={}).proof[0]
        self.assertEqual(line.verdict, "near")
        self.assertIn("the mate decides", line.says)
        self.assertEqual(self.proved().proof[0].verdict, "proved")
        tight = self.proved(mates={"fit.1": "tight"})
        self.assertEqual(tight.proof[0].verdict, "near")
        self.assertIn("mate is tight", tight.proof[0].says)

    def test_nothing_is_proved_with_steps_undone_unless_it_is_said_why(self):
        plan = self.proved(steps_done=False)
        self.assertEqual(plan.verdict, "open")
        self.assertIn("Steps not done", plan.verdict_says)
        proof = replace(plan.job.proof, undone_because="made on another lathe")
        said = planned(plan.job.with_work(proof=proof))
        self.assertEqual(said.verdict, "proved")
        self.assertIn("made on another lathe", said.verdict_says)

    def test_a_size_within_the_doubt_is_taken_with_a_reason(self):
        high = planned().fit(REGISTER).upper
        near = self.proved(register=high + 0.003, mates={})
        proof = replace(near.job.proof, accepted={"fit.1": "warm that day"})
        line = planned(near.job.with_work(proof=proof)).proof[0]
        self.assertEqual(line.verdict, "proved")
        self.assertIn("warm that day", line.says)

    def test_in_an_inch_shop_sentences_are_in_inches_but_not_what_a_person_typed(self):
        """0.05 mm of run-out is 2.0 thou; "0.010 over" is the person's own."""
        inch = replace(SHOP, inch=True)
        wobbles = planned(self.proved(tir=0.05).job, shop=inch)
        self.assertIn("it runs out 2.0 thou", wobbles.verdict_says)
        typed = "left 0.010 over to lap"
        high = planned().fit(REGISTER).upper
        near = self.proved(register=high + 0.003, mates={}, steps_done=False)
        proof = replace(near.job.proof, accepted={"fit.1": typed}, undone_because=typed)
        said = planned(near.job.with_work(proof=proof), shop=inch)
        self.assertIn(typed, said.proof[0].says)
        self.assertIn(typed, said.verdict_says)

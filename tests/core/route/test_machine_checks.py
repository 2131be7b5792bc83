"""What the jaws hold, and how far a bar sticks out before it springs."""

import unittest

from msgspec.structs import replace

from machinon.core.families import families
from machinon.core.job.job import Job
from machinon.core.job.planning import plan_of
from machinon.core.materials import materials
from machinon.core.piece.made import make
from machinon.core.reckoning import reckon
from machinon.core.route.duration import minutes_of
from machinon.core.route.effort import effort
from machinon.core.route.machine_checks import (
    along_the_route,
    by_the_motor,
    held_well,
    on_the_drill_press,
    on_the_grinder,
    on_the_lathe,
    on_the_mill,
)
from machinon.core.route.no_mill import NoMill
from machinon.core.route.steps import route_told
from machinon.core.route.work.lines import Machines
from machinon.core.route.work.listed import work_list
from machinon.core.shop.machines import Machine, machine_of
from machinon.core.shop.making import Making
from machinon.core.shop.things import Lathe, Shop


def checks(key, **given):
    sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
    route = route_told(make(families()[key], sizes))
    return {check.key: check for check in held_well(route)}


class HardMetal(unittest.TestCase):
    def test_hardened_steel_takes_hours_and_no_tap(self):
        """42 to 30.5 over 60 mm is 39,300 mm³; at 30 m/min, 0.05 of feed and 0.15 deep
        225 mm³ a minute come off at most: three hours for the journal."""
        minutes = {}
        for metal in ("alloy steel", "hardened steel"):
            given = {"stock.diameter": "42", "material": metal}
            made = make(families()["collet-spindle"], given)
            route = route_told(made)
            step = next(
                s for up in route for s in up.steps if s.features == ("journal",)
            )
            minutes[metal] = minutes_of(step)
            failed = [c.key for c in along_the_route(route) if c.key[:5] == "hard-"]
            self.assertEqual(bool(failed), metal == "hardened steel")
        self.assertGreater(minutes["hardened steel"], 174)
        self.assertLess(minutes["alloy steel"], 25)

    def test_a_long_spindle_gets_a_band_for_the_steady_first(self):
        for long, band in (("60", False), ("200", True)):
            given = {"journal.length": long}
            made = make(families()["collet-spindle"], given)
            keys = [step.key for step in made.holdings[0].steps]
            self.assertEqual("band" in keys, band, keys)


class ThinWalls(unittest.TestCase):
    def test_three_jaws_press_a_thin_tube_out_of_round(self):
        """⌀60.5 × 2.25, turned on its other end: a ring of r 29.1 and 58.3 bears, I is
        55.3 mm⁴; 0.0302 · 1000 · 29.1³ / (E · I) is 65 µm in steel. Where it is only
        faced, it springs back flat; a wall of 10 gives nothing."""
        tube = {"parts": "step step bore", "step1.diameter": "60",
                "step1.length": "30", "step2.diameter": "60.5", "step2.length": "60",
                "bore1.diameter": "56", "bore1.depth": "0"}  # fmt: skip

        def pressed(**other):
            made = make(families()["turned-piece"], {**tube, **other})
            found = {c.key: c for c in held_well(route_told(made))}
            return [c for key, c in found.items() if key.startswith("squeeze")]

        thick, thin = pressed()
        self.assertLess(thick.need, thin.need)
        self.assertFalse(thin.passed)
        modulus = materials()["mild steel"].modulus
        ring = 0.0302 * 1000 * 29.125**3 / (modulus * 2 * 29.125 * 2.25**3 / 12)
        self.assertAlmostEqual(thin.need, ring, 4)
        self.assertIn("plug in it", thin.says)
        self.assertEqual(pressed(**{"bore1.diameter": "40"}), [])
        del tube["step2.diameter"], tube["step2.length"]
        self.assertEqual(pressed(parts="step bore"), [])


class ThroughTheSpindle(unittest.TestCase):
    def told(self, long, bore):
        lathe = Lathe("lathe", "Lathe", 165, 700, 190, (60.0,), "nose")
        lathe = replace(lathe, figures={"spindle_bore": bore} if bore else {})
        sizes = {"parts": "step", "step1.diameter": "38", "stock.diameter": "40"}
        made = make(families()["turned-piece"], {**sizes, "stock.length": long})
        return {check.key: check for check in on_the_lathe(made, lathe)}.get(
            "spindle-bore"
        )

    def test_a_bar_that_does_not_go_in_stands_out_of_the_chuck(self):
        """⌀40 in a chuck 50 deep: 200 mm, five diameters, may stand out."""
        self.assertTrue(self.told("245", "26").passed)
        check = self.told("260", "26")
        self.assertFalse(check.passed)
        self.assertIn("210 mm stand out", check.says)
        for long, bore in (("260", "42"), ("260", ""), ("49", "26")):
            self.assertIsNone(self.told(long, bore))


class Rim(unittest.TestCase):
    def told(self, metal, diameter):
        lathe = Lathe("lathe", "Lathe", 250, 700, 250, (60.0, 2000.0), "nose")
        sizes = {"parts": "step", "step1.diameter": diameter, "material": metal}
        made = make(families()["turned-piece"], sizes)
        return {check.key: check for check in on_the_lathe(made, lathe)}.get("rim")

    def test_cast_iron_of_320_bursts_before_the_lathe_runs_out_of_speed(self):
        """30 m/s at its rim: 30 · 60 / (π · 0.32) = 1790 rpm."""
        check = self.told("cast iron", "320")
        self.assertFalse(check.passed)
        self.assertIn("30 m/s at most, that is 1790 rpm", check.says)
        self.assertIn("98 ft/s at most, that is 1790 rpm", check.says_in_inches)
        self.assertTrue(self.told("cast iron", "250").passed)

    def test_steel_goes_by_its_strength(self):
        self.assertIsNone(self.told("steel", "320"))


class Held(unittest.TestCase):
    def test_a_step_all_along_the_bar_leaves_nothing_for_the_jaws(self):
        """A step of 20 from 23 of bar: 1 mm to face the end, 2 behind it."""
        told = checks("turned-piece", parts="step", stock_length="23")["grip-right"]
        self.assertFalse(told.passed)
        self.assertLess(told.have, 3)

    def test_a_longer_bar_is_held_and_parted_off(self):
        given = {"parts": "step", "stock_length": "35"}
        self.assertTrue(checks("turned-piece", **given)["grip-right"].passed)
        sizes = {"parts": "step", "stock.length": "35"}
        route = route_told(make(families()["turned-piece"], sizes))
        self.assertEqual(route[0].steps[-1].operation, "part")

    def test_the_longer_the_more_is_held(self):
        """A fifth of what sticks out: 100 and its clean-up out wants some 20."""
        given = {"parts": "step", "step1_length": "100", "step1_diameter": "40"}
        short = checks("turned-piece", **given, stock_length="112")["grip-right"]
        long = checks("turned-piece", **given, stock_length="125")["grip-right"]
        self.assertAlmostEqual(short.need, 20.2, delta=0.3)
        self.assertEqual((short.passed, long.passed), (False, True))

    def test_between_centres_a_bar_bends_by_no_more_than_its_length(self):
        """250 of ⌀12; a thin end of 40 beside 210 of 30 as a bar of 80 does."""
        centres = {"centre1_end": "left", "centre2_end": "right"}
        for parts, sizes, bends in (
            ("step", {"step1_length": "250", "step1_diameter": "12"}, "250 mm of ⌀12"),
            (
                "step step",
                {"step1_length": "40", "step1_diameter": "8", "step2_length": "210",
                 "step2_diameter": "30"},
                "80 mm of ⌀8",
            ),
        ):  # fmt: skip
            told = checks("turned-piece", parts=f"{parts} centre centre", **centres,
                          **sizes)  # fmt: skip
            (straight,) = (c for key, c in told.items() if key.startswith("straight"))
            self.assertIn(f"Bends as {bends} between centres", straight.says)

    def test_a_thin_end_is_judged_by_what_it_carries(self):
        """A pin of 8 may stick out 40: five times its diameter."""
        given = {"parts": "step step", "step1_diameter": "30", "step2_diameter": "8"}
        for length, holds in (("39", True), ("41", False)):
            told = checks("turned-piece", **given, step2_length=length)
            self.assertEqual(told["straight-right"].passed, holds, told)

    def test_a_centre_at_its_end_carries_it_further(self):
        given = {"step1_diameter": "30", "step2_diameter": "8", "step2_length": "80"}
        alone = checks("turned-piece", parts="step step", **given)
        centred = checks("turned-piece", parts="step step centre", **given)
        self.assertFalse(alone["straight-right"].passed)
        self.assertTrue(centred["straight-right"].passed)

    def test_a_short_thread_at_the_end_does_not_bend_an_arbor(self):
        """Between centres only the middle bends: M10 of 20 mm at the end as 40."""
        made = families()["collet-arbor"]
        way = next(w for w in made.ways if "nut" in str(w))
        told = {
            check.key: check
            for check in held_well(route_told(make(made, {**made.full, **way})))
        }
        self.assertTrue(told["straight-between-centres"].passed)

    def test_a_plate_held_by_its_flange_has_enough(self):
        """A blank 45 long, its hub of 16 turned: 28 of the flange are left."""
        told = checks("back-plate")["grip-nose-side"]
        self.assertAlmostEqual(told.have, 28.0)
        self.assertTrue(told.passed)


class OnTheMill(unittest.TestCase):
    MILL = Machine("mill", "Mill", "mill", {"vise_opens": "62", "travel_x": "120"})

    def told(self, mill, **given):
        sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
        made = make(families()["plate-block"], sizes)
        return {check.key: check for check in on_the_mill(made, mill)}

    def test_sawn_stock_must_go_into_the_vise_and_the_cutter_run_off_its_ends(self):
        """100 × 60 × 30 sawn 1.5 over all round: held by its 33 or its 63, and 103 with
        half a cutter of 20 at both ends."""
        told = self.told(self.MILL)
        self.assertEqual((told["vise"].need, told["vise"].passed), (33, True))
        self.assertEqual((told["travel-x"].need, told["travel-x"].passed), (123, False))
        thick = self.told(self.MILL, block_height="70", block_width="65")
        self.assertFalse(thick["vise"].passed)

    def test_what_is_not_known_of_a_mill_is_not_judged(self):
        self.assertEqual(self.told(Machine("mill", "Mill", "mill")), {})
        self.assertEqual(self.told(None), {})


class BoringBars(unittest.TestCase):
    """A bar takes up three quarters of the hole and sticks out by the bore's depth."""

    def told(self, shaft):
        sizes = {"shaft.diameter": shaft, "gap.between": "45.03"}
        route = route_told(make(families()["spacer-sleeve"], sizes))
        return {check.key: check for check in along_the_route(route)}.get(
            "bar-bore-bore"
        )

    def test_a_slender_bar_is_pointed_out_before_it_chatters(self):
        """45 out of a hole drilled 4 is 15 times its 3 mm, 7.5 from either end; out of
        one drilled 3 it is more than that; of one drilled 11 it is 5.4."""
        thin = self.told("4")
        self.assertEqual((thin.passed, thin.grave), (False, False))
        self.assertAlmostEqual(thin.need / (thin.have / 8), 45 / 2.25, delta=0.1)
        self.assertIn("Ream it or lap it", thin.says)
        self.assertIn("⌀0.0886 in at most, 1.7", thin.says_in_inches)
        halves = self.told("5")
        self.assertTrue(halves.passed)
        self.assertIn("from both ends", halves.says)
        stout = self.told("12")
        self.assertTrue(stout.passed)
        self.assertIn("5.4 times as long as thick", stout.says)
        self.assertIsNone(self.told("20"), "nothing is said of one that is stiff")

    def test_the_page_of_the_bore_says_what_to_do_about_it(self):
        given = {"shaft.diameter": "12"}
        step = next(
            step
            for up in route_told(make(families()["spacer-sleeve"], given))
            for step in up.steps
            if step.key == "bore-bore"
        )
        found = work_list(step)
        self.assertIn("equal last passes", found.lines[0].note)
        self.assertIn("boring-bar", [answer.reckoner for answer in found.answers])

    def bars(self, family, **given):
        """By feature; and what the pages say where they speak of a bar, by step."""
        route = route_told(make(families()[family], given))
        checks = {c.place: c for c in along_the_route(route) if c.key[:4] == "bar-"}
        pages = {
            step.key: " ".join(line.note for line in work_list(step).lines)
            for up in route
            for step in up.steps
        }
        return checks, {k: says for k, says in pages.items() if "A bar of" in says}

    def test_a_socket_is_bored_by_what_its_small_end_lets_in(self):
        """A Morse 2 socket is 66 deep over a hole of 14.5: 6 times a bar of 10.9, once
        for its two steps; of the draw-in spindle a drill has opened the way."""
        checks, pages = self.bars("taper-sleeve")
        self.assertEqual(list(checks), ["seat"])
        self.assertIn("⌀10.9 mm at most, 66 mm out, 6.0 times", checks["seat"].says)
        self.assertEqual(list(pages), ["taper-seat"])
        self.assertIn("of steel it chatters, of carbide", pages["taper-seat"])
        small = {"socket.taper": "MT1", "draw.diameter": "6"}
        opened = self.bars("draw-in-spindle", **small)[0]["socket"]
        self.assertTrue(opened.passed)
        self.assertIn("finish it with a taper reamer", opened.says)

    def test_so_is_the_bar_of_an_inside_thread(self):
        """80 deep in a nut of M20 × 2.5, bored 17.4."""
        nose = {"nose.thread": "M20 x 2.5", "nose.register": "21", "nose.length": "80"}
        checks, pages = self.bars("back-plate", **nose)
        self.assertIn("⌀13.1 mm at most", checks["thread"].says)
        self.assertIn("thread", pages)
        self.assertEqual(self.bars("back-plate"), ({}, {}), "3 times is stiff")


class ByTheMotor(unittest.TestCase):
    """A 19 mm drill in mild steel at 290 rpm, 0.19 a turn; the 9.5 before it took a
    quarter of the metal."""

    def told(self, kilowatts, **given):
        figures = {"power": kilowatts} if kilowatts else {}
        speeds = (45, 70, 110, 180, 290, 460, 740, 1200)
        lathe = Lathe("l", "Lathe", 165, 700, 190, speeds, "n", figures=figures)
        made = make(families()["spacer-sleeve"], given)
        route = route_told(made, speeds)
        return {check.key: check for check in by_the_motor(route, {"lathe": lathe})}

    def test_the_heaviest_cut_is_held_against_the_motor(self):
        asked = {"material": "mild steel", "operation": "drill", "rpm": 290}
        whole = reckon("cutting-power", {**asked, "diameter": 19})["motor"]
        weak = self.told("0.55", material="mild steel")["motor-lathe"]
        self.assertFalse(weak.passed)
        self.assertIn("550 W; at a usual feed", weak.says)
        self.assertIn(f"it takes about {0.75 * whole:.2f} kW", weak.says)
        self.assertIn("one more drill", weak.says)
        self.assertFalse(weak.grave)
        hp = "0.74 hp; at a usual feed it takes about 1.6 hp"
        self.assertIn(hp, weak.says_in_inches)
        # at half of the feed it still cuts
        slow = self.told("0.75", material="mild steel")["motor-lathe"]
        self.assertTrue(slow.passed)
        self.assertIn("Feed it gently.", slow.says)
        strong = self.told("1.5", material="mild steel")["motor-lathe"]
        self.assertNotIn("gently", strong.says)

    def test_the_page_of_the_drill_says_to_feed_it_gently(self):
        """The 9.5 before it is within the motor, the 19 is not."""
        made = make(families()["spacer-sleeve"], {"material": "mild steel"})
        (step,) = [
            step
            for up in route_told(made)
            for step in up.steps
            if step.key == "drill-bore"
        ]
        small = Lathe(
            "l", "Lathe", 165, 700, 190, (290.0,), "n", figures={"power": "0.55"}
        )
        found = work_list(step, Machines(small))
        gently = [line.key for line in found.lines if "Fed gently" in line.note]
        self.assertEqual(gently, ["19"])
        self.assertEqual([a.reckoner for a in found.answers], ["cutting-power"])
        self.assertEqual(work_list(step).answers, ())

    def test_a_softer_metal_takes_less_and_what_is_not_known_is_not_judged(self):
        self.assertTrue(self.told("0.75", material="acetal")["motor-lathe"].passed)
        self.assertEqual(self.told(""), {})

    def test_a_motor_is_typed_in_kilowatts_or_horse_power(self):
        for typed, kept in (("0.75", 0.75), ("750W", 0.75), ("1hp", 0.7457)):
            mill = machine_of({"name": "Mill", "power": typed}, "mill", "mill", True)
            self.assertAlmostEqual(mill.number("power"), kept, places=4)


class OnTheDrillPress(unittest.TestCase):
    PRESS = Machine("drill", "Press", "drill", {"largest": "13", "travel_z": "50"})

    def told(self, press, wide="12mm", high="30mm"):
        given = {
            "parts": "hole",
            "hole1.face": "top",
            "hole1.diameter": wide,
            "block.height": high,
        }
        made = make(families()["plate-block"], given)
        route = route_told(made, no_mill=NoMill(None, press))
        return {check.key: check for check in on_the_drill_press(route, press)}

    def test_its_largest_drill_and_the_way_of_its_quill_are_held_against_the_holes(
        self,
    ):
        """Through 30, 5 from over it and the point of a 12 drill, 6 / tan 59° = 3.605;
        through 45 it goes no more in one."""
        told = self.told(self.PRESS)
        self.assertTrue(told["largest-drill"].passed)
        self.assertEqual((told["quill"].have, told["quill"].passed), (50, True))
        self.assertAlmostEqual(told["quill"].need, 38.605, places=3)
        self.assertFalse(self.told(self.PRESS, high="45mm")["quill"].passed)
        self.assertFalse(self.told(self.PRESS, wide="14mm")["largest-drill"].passed)

    def test_what_is_not_known_of_a_press_is_not_judged(self):
        self.assertEqual(self.told(Machine("drill", "Press", "drill")), {})
        self.assertEqual(self.told(None), {})

    def test_it_drills_at_its_own_speeds_where_there_is_no_mill(self):
        """A 10 drill in steel wants 637 rpm at 20 m/min: 500 is the press's next below,
        510 that of a mill, which goes before it."""
        sizes = {"hole1.diameter": "10mm"}
        making = Making("plate-block", parts=("hole1",), sizes=sizes)
        job = Job("j", "Job").with_work(making=making)
        press = Machine("d", "Press", "drill", {"speeds": "300,500,850"})
        mill = Machine("m", "Mill", "mill", {"speeds": "325,510,810"})
        for machine, rpm in ((None, 500), (mill, 510)):
            plan = plan_of(job, Shop(), None, {}, machine, None, (press,))
            steps = [s for up in plan.route for s in up.steps]
            drilled = next(s for s in steps if s.operation == "drill")
            self.assertEqual(drilled.rpm, rpm)


class OnTheGrinder(unittest.TestCase):
    def test_what_is_ground_must_swing_and_lie_between_its_centres(self):
        """A hardened mandrel is ground between centres; a block never is."""
        given = {"nose.hard": "yes"}
        made = make(families()["slit-arbor"], given)
        route = route_told(made)
        first, last = made.body.ends
        figures = {"centre_height": "100", "between_centres": f"{last - first - 1:g}"}
        grinder = Machine("g", "Grinder", "grinder", figures)
        told = {check.key: check for check in on_the_grinder(made, route, grinder)}
        self.assertTrue(told["grinder-swing"].passed)
        self.assertFalse(told["grinder-centres"].passed)
        soft = make(families()["plate-block"], {})
        self.assertEqual([*on_the_grinder(soft, route_told(soft), grinder)], [])


def minutes(family, title, **given):
    """Of the step whose title begins so."""
    sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
    steps = [s for up in route_told(make(families()[family], sizes)) for s in up.steps]
    return next(minutes_of(s) for s in steps if s.title.startswith(title))


class Durations(unittest.TestCase):
    def test_a_block_takes_as_long_as_its_metal_and_its_faces(self):
        """34,137 mm³ sawn over, 1,800 a minute in mild steel: 19; six faces at 3
        minutes are 18; to touch off and to set the cutter, 3."""
        self.assertEqual(minutes("plate-block", "Mill the six", parts="edge"), 40.0)

    def test_a_pocket_takes_as_long_as_it_is_deep(self):
        """30 × 20, 30 deep less its corners: 10 minutes; 6 deep: 2; and 3."""
        through = minutes("plate-block", "Mill pocket", parts="pocket")
        shallow = minutes("plate-block", "Mill pocket", parts="pocket",
                          pocket1_depth="6")  # fmt: skip
        self.assertAlmostEqual(through, 13, delta=0.3)
        self.assertAlmostEqual(shallow, 5, delta=0.1)

    def test_parting_off_takes_the_tool_in_to_the_middle_whatever_falls_off(self):
        short = minutes("spacer-sleeve", "Part off")
        self.assertEqual(
            short, minutes("spacer-sleeve", "Part off", stock_length="150")
        )
        self.assertLess(short, 10)

    def test_hands_take_their_time(self):
        """Six taps of two minutes; six holes spotted, piloted and drilled at 0.3 each,
        and two more tools to set at a minute."""
        drilled, tapped = (
            minutes("t-nut-strip", title) for title in ("Drill 6", "Tap M12")
        )
        self.assertAlmostEqual(tapped - drilled, 6 * 2 - (6 * 3 * 0.3 + 2), places=1)

    def test_every_metal_that_can_be_cut_has_its_time(self):
        for material in materials().values():
            if not material.ground_only:
                took = minutes("plate-block", "Mill the six", material=material.name)
                self.assertGreater(took, 18)


class Effort(unittest.TestCase):
    def test_a_block_says_its_metal_its_chips_and_its_time(self):
        """103 × 63 × 33 sawn are 214 cm³ of steel at 7.85: 1.7 kg; 34 cm³ more than
        100 × 60 × 30, 268 g. To mark out 5 minutes, to mill 40, to prove 3, an edge 3
        and burrs 5; twice held are 20 more: 76."""
        made = make(families()["plate-block"], {"parts": "edge"})
        says = effort(made, route_told(made)).says
        self.assertIn("1.7 kg of mild steel, 268 g of it chips", says)
        self.assertIn("about 1 h 20 min", says)


if __name__ == "__main__":
    unittest.main()

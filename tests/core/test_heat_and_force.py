"""Presses, heat and stiffness by the physics they come from, worked another way."""

import math
import unittest
from itertools import pairwise

from machinon.core.cutting.hardness import SCALES, by_vickers
from machinon.core.errors import BadInput
from machinon.core.materials import material, materials
from machinon.core.reckoning import reckon
from machinon.core.setting_out.other_units import MEASURES

STEEL = material("steel")
PRESS = {
    "diameter": 40,
    "length": 30,
    "hub_outside": 70,
    "interference": 0.03,
    "hub_material": "aluminium",
    "shaft_material": "steel",
    "shaft_bore": 12,
    "friction": 0.15,
}


def grows(pressure, radius, outside, of):
    """By how much a ring's bore opens under pressure, mm; Lamé."""
    a, b = radius, outside
    radial, hoop = -pressure, pressure * (b * b + a * a) / (b * b - a * a)
    return a / of.modulus * (hoop - of.poisson * radial)


def shrinks(pressure, radius, bore, of):
    """By how much a shaft, hollow or not, gives under pressure, mm; Lamé."""
    a, b = bore, radius
    radial, hoop = -pressure, -pressure * (b * b + a * a) / (b * b - a * a)
    return -b / of.modulus * (hoop - of.poisson * radial)


class ReadWarmOrCold(unittest.TestCase):
    def test_warm_work_is_read_by_a_gauge_that_is_not(self):
        """Aluminium of 100 at 30 °C is 23 µm over its size; steel 11.7."""
        for name, over in (("aluminium", 0.023), ("steel", 0.0117)):
            metal = material(name)
            self.assertAlmostEqual(100 - metal.cold(100, 30), over, delta=0.001)
            self.assertEqual(metal.cold(100, 20), 100)

    def test_cold_work_lies_in_a_cold_shop_with_its_gauge(self):
        """At 10 °C both of steel have shrunk alike; aluminium by 11 µm more."""
        self.assertAlmostEqual(STEEL.cold(100, 10), 100, places=9)
        found = material("aluminium").cold(100, 10)
        self.assertAlmostEqual(found - 100, 0.0115, delta=0.001)


class Presses(unittest.TestCase):
    def test_what_the_hub_opens_and_the_shaft_gives_is_the_interference(self):
        for change in ({}, {"shaft_bore": 0}, {"hub_material": "cast iron"}):
            asked = {**PRESS, **change}
            answer = reckon("press-fit", asked)
            hub = material(asked["hub_material"])
            p = answer["pressure"]
            both = grows(p, 20, 35, hub) + shrinks(
                p, 20, asked["shaft_bore"] / 2, STEEL
            )
            self.assertAlmostEqual(2 * both, 0.03, places=6)

    def test_stresses_on_both_sides_of_the_joint(self):
        answer = reckon("press-fit", PRESS)
        p = answer["pressure"]
        self.assertAlmostEqual(
            answer["hub_stress"], p * (70**2 + 40**2) / (70**2 - 40**2), places=4
        )
        self.assertAlmostEqual(
            answer["shaft_stress"], -p * (40**2 + 12**2) / (40**2 - 12**2), places=4
        )
        solid = reckon("press-fit", {**PRESS, "shaft_bore": 0})
        self.assertAlmostEqual(solid["shaft_stress"], -solid["pressure"], places=6)

    def test_friction_holds_over_the_whole_face(self):
        answer = reckon("press-fit", PRESS)
        force = 0.15 * answer["pressure"] * math.pi * 40 * 30
        self.assertAlmostEqual(answer["press_force"], force, places=4)
        self.assertAlmostEqual(answer["torque"], force * 0.020, places=6)

    def test_at_the_most_interference_the_hub_just_yields(self):
        answer = reckon("press-fit", PRESS)
        most = answer["most_interference"]
        there = reckon("press-fit", {**PRESS, "interference": most})
        self.assertAlmostEqual(there["safety"], 1, places=6)
        hub = material("aluminium")
        self.assertAlmostEqual(
            there["hub_stress"] + there["pressure"], hub.yield_strength, places=3
        )

    def test_a_hub_that_yields_is_made_thicker_until_it_just_does_not(self):
        soft = {**PRESS, "hub_material": "steel", "shaft_material": "aluminium"}
        limit = reckon("press-fit", {**soft, "hub_outside": 52})["most_interference"]
        yields = {**soft, "hub_outside": 52, "interference": limit * 1.05}
        answer = reckon("press-fit", yields)
        self.assertAlmostEqual(answer["safety"], 1 / 1.05)
        self.assertIn("hub of", answer.cautions[0])
        self.assertNotIn("hollow shaft", answer.cautions[0])  # it is one
        enough = {**yields, "hub_outside": answer["least_outside"]}
        self.assertAlmostEqual(reckon("press-fit", enough)["safety"], 1, places=6)

    def test_under_a_stiff_shaft_no_hub_is_thick_enough(self):
        """There the stress hardly falls with the wall: less interference is what is
        left, or a shaft that gives."""
        answer = reckon("press-fit", {**PRESS, "interference": 0.11, "shaft_bore": 0})
        self.assertLess(answer["safety"], 1)
        self.assertNotIn("least_outside", answer.results)
        self.assertIn("hollow shaft", answer.cautions[0])

    def test_what_cannot_be_pressed_is_refused_where_it_was_typed(self):
        for key, value in (
            ("hub_outside", 40),
            ("shaft_bore", 40),
            ("interference", 2),
            ("hub_material", "cheese"),
            ("shaft_material", "chalk"),
        ):
            with self.assertRaises(BadInput) as refusal:
                reckon("press-fit", {**PRESS, key: value})
            self.assertEqual(refusal.exception.key, key)


class Heat(unittest.TestCase):
    def test_a_hub_of_the_heat_asked_for_has_just_the_play_asked_for(self):
        asked = {
            "diameter": 60,
            "interference": 0.06,
            "assembly_clearance": 0.04,
            "hub_material": "aluminium",
            "shaft_material": "steel",
            "room": 15,
        }
        for cold in (None, -60):
            answer = reckon("shrink-fit", {**asked, "shaft_temperature": cold})
            hot = answer["hub_temperature"] - 15
            hub = 59.94 * (1 + material("aluminium").expansion * hot)
            shaft = 60 * (1 + STEEL.expansion * ((cold or 15) - 15))
            self.assertAlmostEqual(hub - shaft, 0.04, places=3)
        self.assertLess(answer["hub_temperature"], 100)

    def test_heat_that_harms_is_said(self):
        asked = {
            "diameter": 10,
            "interference": 0.03,
            "assembly_clearance": 0.02,
            "hub_material": "steel",
            "shaft_material": "steel",
        }
        answer = reckon("shrink-fit", asked)
        self.assertGreater(answer["hub_temperature"], STEEL.hurt_above)
        self.assertIn("harmed", answer["warning"])
        mild = reckon("shrink-fit", {**asked, "diameter": 60})
        self.assertEqual(mild["warning"], "")
        self.assertTrue(any("burn" in caution for caution in mild.cautions))

    def test_seconds_in_hand_by_small_steps_of_cooling(self):
        """Newton's cooling and a film of air that thins, walked in steps."""
        asked = {
            "diameter": 50,
            "length": 40,
            "hub_outside": 90,
            "interference": 0.04,
            "hub_temperature": 180,
            "hub_material": "steel",
            "room": 20,
        }
        answer = reckon("shrink-time", asked)
        ring = math.pi / 4 * (0.09**2 - 0.05**2)
        heat = STEEL.density * ring * 0.04 * STEEL.specific_heat  # J/K
        skin = math.pi * (0.09 + 0.05) * 0.04 + 2 * ring
        grips = 20 + 0.04 / (STEEL.expansion * 50)
        self.assertAlmostEqual(answer["grips_at"], grips)
        hot, seconds = 180.0, 0.0
        while hot > grips:
            hot -= 20 * skin * (hot - 20) / heat * 0.05
            seconds += 0.05
        self.assertAlmostEqual(answer["seconds"] / seconds, 1, places=2)
        hot, seconds = 180.0, 0.0
        bore = math.pi * 0.05 * 0.04
        while hot > grips + 0.01:
            film = STEEL.expansion * 0.05 * (hot - grips) / 2  # m, on the radius
            step = 0.0005
            hot -= 0.03 * bore / film * (hot - 20) / heat * step
            seconds += step
        self.assertAlmostEqual(answer["placing"] / seconds, 1, places=2)

    def test_a_hub_not_hot_enough_does_not_go_on(self):
        asked = {
            "diameter": 50,
            "length": 40,
            "hub_outside": 90,
            "interference": 0.05,
            "hub_temperature": 106,
            "hub_material": "steel",
        }
        with self.assertRaisesRegex(BadInput, "hotter than 107"):
            reckon("shrink-time", asked)
        self.assertGreater(
            reckon("shrink-time", {**asked, "hub_temperature": 108})["seconds"], 0
        )
        with self.assertRaisesRegex(BadInput, "larger than 50"):
            reckon("shrink-time", {**asked, "hub_outside": 50})

    def test_there_and_back_between_warm_and_cold_sizes(self):
        for of, warm in (("steel", 35), ("aluminium", -10), ("brass", 20)):
            cold = reckon(
                "thermal-size", {"size": 80, "temperature": warm, "material": of}
            )["size_at_reference"]
            again = reckon(
                "thermal-size",
                {"size": cold, "temperature": 20, "material": of, "reference": warm},
            )["size_at_reference"]
            self.assertAlmostEqual(again, 80, places=4)


class Bonds(unittest.TestCase):
    def test_a_bond_holds_by_its_area(self):
        """Ø30 × 20, 18 MPa, a third: 6 · π · 30 · 20 = 11.31 kN, 169.6 N·m."""
        answer = reckon(
            "bond-gap",
            {"diameter": 30, "length": 20, "shear_strength": 18, "safety": 3},
        )
        self.assertAlmostEqual(answer["hold_force"], 11309.7, places=1)
        self.assertAlmostEqual(answer["torque"], 169.6, places=1)
        self.assertEqual((answer["gap_min"], answer["gap_max"]), (0.03, 0.1))
        self.assertTrue(any("dry" in note for note in answer.notes))


class Stiffness(unittest.TestCase):
    def bends(self, **other):
        bar = {"bar_diameter": 16, "overhang": 96, "force": 150}
        return reckon("boring-bar", {**bar, **other})

    def test_a_bar_bends_as_a_held_beam(self):
        """F L³ / (3 E I), I = π d⁴ / 64."""
        inertia = math.pi * 16**4 / 64
        answer = self.bends()
        self.assertAlmostEqual(
            answer["deflection"], 150 * 96**3 / (3 * 207000 * inertia), places=6
        )

    def test_twice_as_far_out_bends_eight_times_twice_as_thick_a_sixteenth(self):
        plain = self.bends()["deflection"]
        self.assertAlmostEqual(self.bends(overhang=192)["deflection"] / plain, 8)
        self.assertAlmostEqual(
            self.bends(bar_diameter=32)["deflection"] * 16 / plain, 1
        )

    def test_carbide_bends_a_third_of_steel(self):
        ratio = (
            self.bends(bar_material="carbide")["deflection"]
            / self.bends()["deflection"]
        )
        self.assertLess(ratio, 0.45)
        self.assertGreater(ratio, 0.25)


class Materials(unittest.TestCase):
    def test_a_grade_counts_as_its_metal(self):
        for grade, metal in (("304", "stainless"), ("EN24T", "alloy steel"),
                             ("CZ121", "brass"), ("key steel", "steel")):  # fmt: skip
            self.assertEqual(material(grade).name, metal)
        with self.assertRaises(BadInput):
            material("999")

    def test_what_must_be_true_of_any_material(self):
        for metal in materials().values():
            with self.subTest(metal.name):
                self.assertTrue(0 < metal.poisson < 0.5)
                self.assertTrue(2e-6 < metal.expansion < 2e-4)
                self.assertTrue(900 < metal.density < 20_000)
                self.assertLessEqual(metal.yield_strength, metal.strength)
                self.assertTrue(100 < metal.specific_heat < 3000)

    def test_heat_held_in_a_litre_of_metal_is_much_alike(self):
        """Density × specific heat of metals lies between 2 and 4 MJ/(m³·K)."""
        for metal in materials().values():
            if metal.density > 2500:
                with self.subTest(metal.name):
                    stored = metal.density * metal.specific_heat / 1e6
                    self.assertTrue(1.5 < stored < 4.2, stored)

    def test_names_are_found_as_people_write_them(self):
        self.assertEqual(material("Mild Steel").name, material("mild steel").name)
        with self.assertRaisesRegex(BadInput, "did you mean"):
            material("alumnium")


class Rotating(unittest.TestCase):
    def test_a_thin_ring_bursts_where_its_rim_pulls_it_apart(self):
        """Density × rim speed² is the stress of a thin ring; a fourth of it allowed
        or whatever the shop says, the limit goes with the root of the stress."""
        ring = {"outside_diameter": 200, "bore": 196, "material": "steel"}
        wide = reckon("rotating-limit", ring)["rpm_limit"]
        double = reckon(
            "rotating-limit", {**ring, "outside_diameter": 400, "bore": 392}
        )
        self.assertAlmostEqual(wide / double["rpm_limit"], 2, places=3)

    def test_a_bored_disc_may_turn_slower_than_a_solid_one(self):
        solid, bored, wide = (
            reckon(
                "rotating-limit",
                {"outside_diameter": 150, "bore": bore, "material": "cast iron"},
            )["rpm_limit"]
            for bore in (0, 10, 100)
        )
        self.assertGreater(solid, 1.3 * bored)  # a hole doubles the stress there
        self.assertGreater(bored, wide)

    def test_cast_iron_keeps_under_30_metres_a_second_at_its_rim(self):
        """A plate of 200: 30 · 60 / (π · 0.2) = 2865 rpm, a third of what the sum of
        its strength allows; a burst faceplate was not told by its sum."""
        disc = {"outside_diameter": 200, "bore": 50, "material": "cast iron"}
        told = reckon("rotating-limit", disc)
        self.assertAlmostEqual(told["rim_rpm"], 2864.8, places=1)
        self.assertLess(told["rim_rpm"], told["rpm_limit"] / 3)
        self.assertNotIn(
            "rim_rpm", reckon("rotating-limit", {**disc, "material": "steel"}).results
        )

    def test_a_weight_off_the_axis_pulls_with_the_square_of_the_speed(self):
        """0.3 kg at 80 mm and 600 rpm: 0.3 · 0.08 · 62.83² = 94.7 N."""
        asked = {
            "outside_diameter": 200,
            "bore": 20,
            "material": "steel",
            "unbalance_mass": 0.3,
            "unbalance_radius": 80,
        }
        force = reckon("rotating-limit", {**asked, "rpm": 600})["unbalance_force"]
        self.assertAlmostEqual(force, 94.75, places=2)
        twice = reckon("rotating-limit", {**asked, "rpm": 1200})["unbalance_force"]
        self.assertAlmostEqual(twice / force, 4)
        for key in ("unbalance_mass", "unbalance_radius"):
            with self.assertRaises(BadInput) as refusal:
                reckon("rotating-limit", {k: v for k, v in asked.items() if k != key})
            self.assertEqual(refusal.exception.key, key)


class Hardness(unittest.TestCase):
    """Against another standard's table, ASTM E140: Rockwell C, Vickers, Brinell, and
    tensile strength of steel, of which it says 3.2 to 3.4 times its Vickers."""

    def test_each_scale_by_each_other(self):
        for rockwell, vickers, brinell in (
            (20, 238, 226),
            (30, 302, 286),
            (40, 392, 371),
            (50, 513, 475),
        ):
            found = reckon("hardness", {"rockwell_c": rockwell})
            self.assertAlmostEqual(found["vickers"], vickers, delta=0.01 * vickers)
            self.assertAlmostEqual(found["brinell"], brinell, delta=0.03 * brinell)
            self.assertTrue(3.1 < found["strength"] / found["vickers"] < 3.4)
            for scale in ("vickers", "brinell"):
                back = reckon("hardness", {scale: found[scale]})
                self.assertAlmostEqual(back["rockwell_c"], rockwell, delta=0.15)

    def test_a_scale_is_told_only_where_it_reads(self):
        hard = reckon("hardness", {"rockwell_c": 62})
        self.assertAlmostEqual(hard["vickers"], 746, delta=3)  # ASTM E140
        self.assertIsNone(hard["brinell"])
        soft = reckon("hardness", {"rockwell_b": 80})
        self.assertAlmostEqual(soft["vickers"], 150, delta=5)  # ASTM E140
        self.assertIsNone(soft["rockwell_c"])
        for key, value in (("rockwell_c", 10), ("rockwell_c", 72), ("brinell", 700)):
            with self.assertRaises(BadInput) as refusal:
                reckon("hardness", {key: value})
            self.assertEqual(refusal.exception.key, key)
            self.assertIn("told from", refusal.exception.message)
        for none_or_two in ({}, {"rockwell_c": 50, "vickers": 500}):
            with self.assertRaises(BadInput):
                reckon("hardness", none_or_two)

    def test_the_table_only_rises(self):
        for scale in SCALES:
            for softer, harder in pairwise(by_vickers(scale)):
                self.assertLess(softer[0], harder[0], scale)
                self.assertLess(softer[1], harder[1], scale)


class OtherUnits(unittest.TestCase):
    """Figures that are known apart from the factors: water boils, a horse power."""

    def test_a_figure_in_another_unit(self):
        for value, to, figure in (
            ("212 F", "C", 100),
            ("-40 C", "F", -40),
            ("0 C", "K", 273.15),
            ("100 lb ft", "Nm", 135.58),
            ("12 in lb", "ft lb", 1),
            ("1 bar", "psi", 14.504),
            ("1 n/mm2", "bar", 10),
            ("1 ksi", "MPa", 6.895),
            ("1 hp", "W", 745.7),
            ("1 PS", "W", 735.5),
            ("1 kgf", "N", 9.80665),
            ("16 oz", "lb", 1),
            ("1 gallon", "l", 3.7854),
            ("1 imperial gallon", "us gallons", 1.20095),
            ("100 sfm", "m/min", 30.48),
            ("60 m/min", "m/s", 1),
            ("1 1/2 hp", "kW", 1.1186),
        ):
            found = reckon("other-units", {"value": value, "to": to})
            self.assertAlmostEqual(found["figure"] / figure, 1, places=4, msg=value)

    def test_there_and_back_it_is_the_same(self):
        for measure, units in MEASURES.items():
            for unit in units:
                base = unit.of(7.0) * unit.size + unit.nought
                self.assertAlmostEqual(base, 7.0, msg=f"{measure}, {unit.name}")

    def test_what_goes_with_no_other_is_refused_where_it_stands(self):
        for key, given in (
            ("value", {"value": "30"}),
            ("value", {"value": "30 cubits"}),
            ("to", {"value": "30 Nm", "to": "psi"}),
            ("to", {"value": "30 Nm", "to": "cubits"}),
            ("value", {"value": "-300 C", "to": "F"}),
        ):
            with self.assertRaises(BadInput) as refusal:
                reckon("other-units", given)
            self.assertEqual(refusal.exception.key, key, given)


class Tempering(unittest.TestCase):
    """What other lists give in Fahrenheit, each within its colour."""

    def test_each_colour_by_its_heat_and_each_heat_by_its_colour(self):
        for colour, heats in (
            ("pale straw", (430, 450)),
            ("straw", (460, 480)),
            ("brown", (490, 510)),
            ("purple", (520, 550)),
            ("blue", (560, 590)),
        ):
            found = reckon("temper-colour", {"colour": colour})
            for heat in heats:
                by_heat = reckon("temper-colour", {"heat": (heat - 32) / 1.8})
                self.assertEqual(by_heat["colour"], colour, heat)
            self.assertEqual(by_heat["least"], found["least"])
            if found["next"]:
                after = reckon("temper-colour", {"colour": found["next"]})
                self.assertEqual(after["least"], found["most"])
                self.assertNotEqual(after["suits"], found["suits"])

    def test_what_has_no_colour_is_refused(self):
        for wrong in (
            {"heat": 150},
            {"heat": 400},
            {},
            {"heat": 230, "colour": "blue"},
        ):
            with self.assertRaises(BadInput):
                reckon("temper-colour", wrong)

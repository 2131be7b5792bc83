import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.materials import materials
from machinon.core.quantity import HORSE_POWER, INCH
from machinon.core.reckoning import reckon

# horsepower for a cubic inch a minute, turned at about 0.25 mm a turn with a keen
# tool, as handbooks of inch shops print it
UNIT_POWER = {
    "mild steel": 0.8,
    "steel": 0.9,
    "alloy steel": 1.05,
    "stainless": 0.95,
    "cast iron": 0.6,
    "aluminium": 0.25,
    "brass": 0.4,
    "bronze": 0.5,
}


def cut(**given):
    return reckon("cutting-power", {"material": "mild steel", **given})


class CuttingPower(unittest.TestCase):
    def test_metals_take_the_power_that_inch_handbooks_print(self):
        for name, printed in UNIT_POWER.items():
            found = cut(material=name, diameter=50, depth=2, feed_each=0.25)
            cubic_inches = found["removed"] / INCH**3
            each = found["power"] / HORSE_POWER / cubic_inches
            self.assertAlmostEqual(each / printed, 1, delta=0.15, msg=name)

    def test_a_turned_cut_is_force_by_speed(self):
        """1600 / 0.2^0.25 = 2393 MPa on 2 × 0.2 mm is 957 N; at 28.5 m/min, in the
        middle of the cut on 40 mm at 239 rpm, 455 W."""
        found = cut(diameter=40, depth=2, feed_each=0.2, surface_speed=30)
        self.assertAlmostEqual(found["force"], 957.0, delta=0.1)
        self.assertAlmostEqual(found["torque"], 957.0 * 19 / 1000, delta=0.01)
        self.assertAlmostEqual(found["power"], 957.0 * 28.5 / 60_000, delta=0.0005)
        self.assertAlmostEqual(found["motor"], found["power"] * 1.3 / 0.8)

    def test_torque_by_speed_is_power_in_every_kind_of_cut(self):
        for given in (
            {"operation": "turn", "depth": 1},
            {"operation": "drill"},
            {"operation": "mill", "depth": 5},
            {"operation": "mill", "depth": 5, "width": 3},
        ):
            found = cut(diameter=16, **given)
            turned = found["torque"] * found["rpm"] * 2 * math.pi / 60_000
            self.assertAlmostEqual(turned, found["power"], msg=str(given))

    def test_a_drill_twice_as_wide_wants_four_times_the_torque(self):
        small, large = (
            cut(operation="drill", diameter=d, feed_each=0.15)["torque"]
            for d in (8, 16)
        )
        self.assertAlmostEqual(large / small, 4)

    def test_a_thin_chip_resists_more_and_a_slot_takes_more_than_a_shoulder(self):
        fine, coarse = (
            cut(diameter=40, depth=1, feed_each=feed)["resists"] for feed in (0.05, 0.4)
        )
        self.assertAlmostEqual(fine / coarse, 8**0.25)
        slot, shoulder = (
            cut(operation="mill", diameter=12, depth=5, width=wide)["power"]
            for wide in (12, 3)
        )
        self.assertLess(shoulder, slot)
        self.assertLess(slot, 4 * shoulder)

    def test_what_cannot_be_cut_so_is_refused_where_it_was_typed(self):
        for given, key in (
            ({"material": "carbide", "diameter": 10, "rpm": 300}, "material"),
            ({"diameter": 10, "depth": 5}, "depth"),
            ({"operation": "mill", "diameter": 10}, "depth"),
            ({"operation": "mill", "diameter": 10, "depth": 2, "width": 11}, "width"),
            ({"diameter": 10, "rpm": 300, "surface_speed": 30}, "surface_speed"),
        ):
            with self.assertRaises(BadInput) as refused:
                cut(**given)
            self.assertEqual(refused.exception.key, key, given)

    def test_each_metal_that_is_turned_has_its_force(self):
        for metal in materials().values():
            self.assertEqual(metal.chip > 0, metal.turn_carbide > 0, metal.name)

"""Joints: refusals, there-and-back, and what each rests on."""

import math
import random
import unittest
from itertools import pairwise

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.fits.ball_detent import side_force
from machinon.core.fits.bearing_seat import usual_clearance
from machinon.core.fits.joints import (
    is_inside,
    joint_forms,
    joints_on,
    read_given,
    takes_fit,
)
from machinon.core.job.job import Job
from machinon.core.job.planning import plan_of
from machinon.core.reckoning import reckon
from machinon.core.shop.things import Piece, Reading, Surface
from machinon.core.sizes.fit import FitChoice, words_for
from machinon.core.survey.surface_kinds import is_tapered, new_surfaces, surface_groups
from machinon.core.survey.surface_sums import sum_of
from machinon.core.tables import rows
from machinon.draw.gauge_drawing import gauge_drawing
from machinon.draw.stack_drawing import stack_drawing
from tests.core.survey.test_surfaces import surface
from tests.scenario import LATHE, SHOP


def planned(*surfaces: Surface, joint: str, want: str = "", **given: str):
    """A fit on the first of some surfaces, worked out."""
    piece = Piece("part", "Part", "other", "steel", surfaces)
    form = joint_forms()[joint]
    exists = "hole" if surfaces[0].kind in ("inside", "gap") else "shaft"
    fit = FitChoice(
        1,
        "Fit",
        "part",
        surfaces[0].id,
        exists,
        want or form.usual,
        joint=joint,
        given=given,
    )
    job = Job("job", "Job", pieces=("part",), fits=(fit,))
    return plan_of(job, SHOP, None, {"part": piece}).fits[0]


class ThereAndBack(unittest.TestCase):
    def test_a_dovetail_made_in_the_middle_of_its_band_has_the_play_wanted(self):
        """The slot's floor less its splay, less the tongue's root, is the play."""
        for internal in (False, True):
            answer = reckon(
                "dovetail-mate",
                {
                    "bottom": 120,
                    "depth": 12,
                    "internal": internal,
                    "pin": 8,
                    "play_least": 0.02,
                    "play_most": 0.06,
                },
            )
            new = (answer["bottom_lower"] + answer["bottom_upper"]) / 2
            floor, root = (120, new) if internal else (new, 120)
            splay = 2 * 12 / math.tan(math.radians(60))
            self.assertAlmostEqual(floor - splay - root, 0.04, places=9)
            key = "between_pins" if not internal else "over_pins"
            back = reckon(
                "dovetail",
                {"pin": 8, "width_bottom": new, "depth": 12, "internal": not internal},
            )
            read = (answer["read_lower"] + answer["read_upper"]) / 2
            self.assertAlmostEqual(back[key], read, places=9)

    def test_recesses_at_the_limits_hold_as_alike_as_was_asked(self):
        answer = reckon(
            "detent-hold", {"ball": 6, "depth": 0.8, "spring": 10, "radius": 25}
        )
        for key, share in (("depth_lower", 0.9), ("depth_upper", 1.1)):
            self.assertAlmostEqual(
                side_force(6, answer[key], 10) / answer["hold"], share, places=9
            )

    def test_an_angle_at_its_limit_opens_one_film(self):
        answer = reckon("taper-fit", {"ratio": 0.05, "diameter": 24, "length": 60})
        off = answer["half_angle_upper"] - math.degrees(math.atan(0.025))
        self.assertAlmostEqual(60 * math.tan(math.radians(off)), 0.003, places=9)

    def test_two_pins_at_the_end_of_their_shake_touch_both_holes(self):
        """Turned by half the shake, each pin has moved half its play aside."""
        answer = reckon(
            "dowel-pair",
            {"dowel": 6, "distance": 80, "play_least": 0.004, "play_most": 0.016},
        )
        turned = math.radians(answer["shake"] / 2)
        self.assertAlmostEqual(40 * math.tan(turned), 0.008, places=7)


class Tables(unittest.TestCase):
    def test_a_doubt_that_eats_a_band_is_said(self):
        """0.03 of play less 2 × 0.1; a depth that 10 % leave 0.09, less 2 × 0.1."""
        play = {"doubt": 0.1, "play_least": 0.02, "play_most": 0.05}
        for name, given, says in (
            ("dovetail-mate", {"bottom": 60, "depth": 12, "pin": 8}, "takes 0.2000 mm"),
            ("dowel-pair", {"dowel": 6, "distance": 80}, "varies by 0.0300"),
            ("detent-hold", {"ball": 6, "depth": 0.5, "spring": 20, "radius": 25},
             "No depth holds alike"),
        ):  # fmt: skip
            given |= play
            with self.subTest(name):
                self.assertIn(says, " ".join(reckon(name, given).cautions))
                sure = reckon(name, {**given, "doubt": 0.0})
                self.assertFalse([c for c in sure.cautions if "uncertainty" in c])

    def test_bearing_play_rises_without_a_gap(self):
        table = rows("bearing_clearance")
        for row, two in pairwise(table):
            self.assertEqual(row["to_mm"], two["above_mm"])
            self.assertLessEqual(float(row["most_um"]), float(two["most_um"]))
        self.assertEqual(usual_clearance(50)[:2], (0.006, 0.023))
        with self.assertRaisesRegex(BadInput, "up to 120"):
            usual_clearance(121)

    def test_t_slots_rise_and_hold_together(self):
        """A head is wider than its neck, and neck, lip and head fill the depth."""
        last = 0.0
        for r in rows("tee_slots"):
            neck, head = float(r["neck_mm"]), float(r["head_least_mm"])
            self.assertGreater(neck, last)
            self.assertGreater(head, 1.5 * neck)
            self.assertGreater(
                float(r["depth_least_mm"]), float(r["head_height_most_mm"])
            )
            last = neck

    def test_the_standard_s_own_nut_goes_into_the_standard_s_slot(self):
        """Widths and heights of the heads by DIN 508, slots by ISO 299."""
        nuts = {
            "8": (13, 6, "M6"),
            "10": (15, 6, "M8"),
            "12": (18, 7, "M10"),
            "14": (22, 8, "M12"),
            "18": (28, 10, "M16"),
            "22": (35, 14, "M20"),
            "28": (44, 18, "M24"),
            "36": (54, 22, "M30"),
            "42": (65, 26, "M36"),
        }
        slots = {r["neck_mm"]: r for r in rows("tee_slots")}
        for neck, (head, thick, stud) in nuts.items():
            with self.subTest(neck):
                self.assertLess(head, float(slots[neck]["head_least_mm"]))
                self.assertLess(thick, float(slots[neck]["head_height_least_mm"]))
                self.assertEqual(slots[neck]["stud"], stud)


class Refusals(unittest.TestCase):
    def test_a_taper_without_taper_is_said(self):
        plain = surface("taper-out", (25.0, "0 mm"), (25.001, "50 mm"))
        self.assertIn("no taper", planned(plain, joint="taper").problem)
        alone = surface("taper-out", (25.0, "0 mm"))
        self.assertIn("one place", planned(alone, joint="taper").problem)
        grows = surface("taper-out", (24.0, "0 mm"), (26.5, "50 mm"))
        self.assertIn("large end", planned(grows, joint="taper").problem)

    def test_a_taper_that_is_not_the_one_named_is_pointed_out(self):
        cone = surface("taper-out", (24.0, "0 mm"), (20.0, "50 mm"))
        fit = planned(cone, joint="taper", taper="MT3")
        self.assertIn("another taper", fit.joined.advice[0])

    def test_a_head_no_wider_than_its_neck_is_refused(self):
        slot = [
            surface("tee-neck", 14.0, instrument="slips"),
            surface("tee-head", 13.0, instrument="caliper"),
            surface("tee-head-depth", 10.0, instrument="caliper"),
            surface("tee-lip", 12.0, instrument="caliper"),
        ]
        self.assertIn("wider than the neck", planned(*slot, joint="tee").problem)
        self.assertIn("not measured", planned(*slot[:2], joint="tee").problem)

    def test_what_is_still_to_be_typed_is_asked_for_by_name(self):
        body = surface("shaft", 60.0)
        self.assertIn("the screw", planned(body, joint="dimple").problem)
        ring = surface("shaft", 47.0)
        fit = planned(ring, joint="bearing", want="ring-slides")
        self.assertIn("bore of the bearing", fit.unsaid)
        self.assertIsNotNone(fit.lower, "the band stands all the same")

    def test_no_press_without_interference(self):
        fit = planned(surface("shaft", 25.0), joint="press", want="G7")
        self.assertIn("no interference", fit.unsaid)

    def test_what_is_given_is_kept_in_base_units_and_refused_by_its_key(self):
        press = joint_forms()["press"]
        self.assertEqual(read_given(press, "length", "1in", False), "25.4")
        self.assertEqual(read_given(press, "other", "brass", False), "brass")
        self.assertEqual(read_given(press, "length", " ", False), "")
        for key, text in (("length", "-3"), ("other", "mithril"), ("friction", "2")):
            with self.assertRaises(BadInput) as refused:
                read_given(press, key, text, False)
            self.assertEqual(refused.exception.key, key)


class Offered(unittest.TestCase):
    def test_each_surface_is_offered_what_makes_sense_on_it(self):
        def keys(form):
            return [form.key for form in joints_on(surface(form))]

        self.assertEqual(keys("taper-in"), ["taper"])
        self.assertEqual(keys("over-pins"), ["dovetail"])
        self.assertIn("bearing", keys("shaft"))
        self.assertNotIn("bearing", keys("slot"))
        self.assertIn("key", keys("key-width"))

    def test_each_joint_has_its_school_and_starts_from_a_word_of_its_own(self):
        for form in joint_forms().values():
            self.assertTrue(form.schools.endswith("."), form.key)
            words = {character.key for character in words_for(form.key)}
            if words:
                self.assertIn(form.usual, words, form.key)

    def test_at_work_an_aluminium_hub_lets_go_of_steel(self):
        """50 mm at 120 °C: 50 · (23 − 11.5)e-6 · 100 = 57.5 µm more play."""
        bore = surface("bore", 50.0, 50.0, 50.0, instrument="bore-gauge")
        fit = planned(bore, joint="press", other="aluminium", warm="120")
        tighter = {effect.name: effect.value for effect in fit.joined.effects}
        self.assertAlmostEqual(
            tighter["Most play, warm"] - fit.band["clearance_max"],
            -0.0575,
            places=6,
        )


class AnyReadings(unittest.TestCase):
    def test_whatever_is_read_and_said_a_plan_comes_of_it_or_a_reason(self):
        """Made-up readings, aids and answers, sensible or not: nothing is raised."""
        rng = random.Random(5)
        for _ in range(400):
            group = rng.choice(list(surface_groups()))
            piece = Piece("part", "Part", "other", rng.choice(["steel", "nylon"]))
            for bare in new_surfaces(piece, group):
                piece = piece.with_surface(self.read(bare, rng))
            fits = tuple(
                self.decided(number, bare, rng)
                for number, bare in enumerate(piece.surfaces, 1)
                if takes_fit(bare)
            )
            job = Job("job", "Job", pieces=("part",), fits=fits)
            plan = plan_of(job, SHOP, LATHE, {"part": piece})
            for fit in plan.fits:
                known = fit.lower is not None or fit.circle is not None
                told = fit.problem or fit.unsaid or fit.spent or fit.advice
                self.assertTrue(known or told, (group, fit.choice))
                self.assertTrue(gauge_drawing(fit, (), 500, 300).width)
            self.assertTrue(stack_drawing(plan, 500, 100).width)

    def read(self, surface, rng):
        """A surface with aids and readings that may go together or not."""
        tools = SHOP.instruments_for(surface.kind)
        asks = sum_of(surface).asks if sum_of(surface) else ()
        base = 10 ** rng.uniform(-0.5, 2.3)
        readings = tuple(
            Reading(
                base + rng.uniform(0, 0.01),
                rng.choice(tools).id,
                place=f"{rng.choice([0, 20, 50])} mm" if is_tapered(surface) else "",
            )
            for _ in range(rng.choice([0, 1, 3]))
        )
        aids = {a.key: float(rng.choice([1, 4, 6, 20, 60])) for a in asks}
        return replace(surface, readings=readings, aids=aids)

    def decided(self, number, surface, rng):
        threaded = surface.id.startswith("thread")
        form = joint_forms()["thread"] if threaded else rng.choice(joints_on(surface))
        words = [word.key for word in words_for(form.key)]
        given = {}
        for ask in form.asks:
            try:
                given[ask.key] = read_given(form, ask.key, rng.choice("127M"), False)
            except BadInput:
                continue
        return FitChoice(
            number,
            "Fit",
            "part",
            surface.id,
            "hole" if is_inside(surface) else "shaft",
            rng.choice([*words, "own"]) if words else form.usual,
            -0.02,
            0.03,
            joint=form.key,
            given=given,
        )


class WornAndDoubtful(unittest.TestCase):
    neck = staticmethod(
        lambda *readings: (
            surface("tee-neck", *readings, instrument="caliper"),
            surface("tee-head", 24.1, instrument="caliper"),
            surface("tee-head-depth", 10.1, instrument="caliper"),
            surface("tee-lip", 14.0, instrument="caliper"),
        )
    )

    def test_a_worn_slot_leaves_its_t_nut_the_whole_band(self):
        """Neck 14.05 to 14.08: the tongue is cut to 14.05, and as wide a band."""
        even = planned(*self.neck(14.05, 14.05, 14.05), joint="tee")
        worn = planned(*self.neck(14.05, 14.08, 14.06), joint="tee")
        self.assertAlmostEqual(worn.upper, even.upper, delta=0.005)
        self.assertAlmostEqual(worn.upper - worn.lower, even.upper - even.lower)

    def test_a_tongue_in_a_worn_slot_is_ruled_by_the_tight_end(self):
        slot = surface("slot", (14.02, "front"), (14.06, "back"), instrument="slips")
        found = planned(slot, joint="slot", want="free")
        self.assertLess(found.upper, 14.02)
        self.assertGreater(found.upper - found.lower, 0.03)
        self.assertEqual(found.mate.doubts, ())

    def test_a_spigot_suits_both_ends_of_a_bore_that_is_not_parallel(self):
        bore = surface(
            "bore", (50.01, "front"), (50.03, "back"), instrument="bore-gauge"
        )
        found = planned(bore, joint="register", want="loose")
        play = found.band
        self.assertAlmostEqual(
            found.upper, 50.01 - found.mate.uncertainty - play["clearance_min"], 4
        )
        self.assertAlmostEqual(
            found.lower, 50.03 + found.mate.uncertainty - play["clearance_max"], 4
        )

    def test_it_is_said_what_eats_a_band_and_what_would_help(self):
        for readings, want, says in (
            ((surface("bore", 50.01, instrument="caliper")), "wrung", "gauge takes it"),
            (
                surface("bore", (50.0, "front"), (50.1, "back"), instrument="caliper"),
                "slides",
                "own shape takes it",
            ),
        ):
            with self.subTest(says):
                found = planned(readings, joint="register", want=want)
                self.assertIn(says, found.advice)
                self.assertRegex(found.advice, r"What helps: .*\d+ µm")


class Pressed(unittest.TestCase):
    def test_a_hub_that_yields_stops_and_says_what_would_help(self):
        """Stresses go with the interference, so safety times it is the most."""
        asked = {
            "diameter": 12,
            "length": 14,
            "hub_outside": 16,
            "interference": 0.04,
            "hub_material": "mild steel",
            "shaft_material": "steel",
        }
        tight = reckon("press-fit", asked)
        self.assertLess(tight["safety"], 1)
        eased = reckon(
            "press-fit", {**asked, "interference": tight["most_interference"]}
        )
        self.assertAlmostEqual(eased["safety"], 1)
        self.assertIn("What helps", tight.cautions[0])
        if "least_outside" in tight.results:
            thick = reckon(
                "press-fit", {**asked, "hub_outside": tight["least_outside"]}
            )
            self.assertAlmostEqual(thick["safety"], 1, places=3)

    def test_an_inner_ring_slips_on_warm_but_never_over_110_degrees(self):
        """25 mm, 11 µm of interference and 5 to slip by: 0.016 / (25 · 11.5e-6) = 55.7
        degrees over 20. 8 mm would want over 190; an outer ring is not warmed."""
        seat = {"bore": 25, "play_least": -0.011, "play_most": -0.002}
        warm = reckon("bearing-seat", seat)
        self.assertAlmostEqual(warm["warm_to"], 75.65, places=2)
        self.assertFalse(any("110" in caution for caution in warm.cautions))
        small = reckon("bearing-seat", {**seat, "bore": 8})
        self.assertGreater(small["warm_to"], 190)
        self.assertTrue(any("Over 110 °C" in caution for caution in small.cautions))
        for cold in ({"ring": "outer"}, {"play_least": 0.0, "play_most": 0.01}):
            self.assertNotIn(
                "warm_to", reckon("bearing-seat", {**seat, **cold}).results
            )

    def test_a_bearing_set_by_a_nut_has_its_own_advice(self):
        """In an O arrangement the nut moves the inner ring: it has to slide."""
        firm = reckon(
            "bearing-seat",
            {
                "bore": 25,
                "bearing": "taper roller",
                "play_least": -0.015,
                "play_most": -0.002,
            },
        )
        self.assertIn("must let it slide", firm["warning"])
        self.assertNotIn("left_least", firm.results)
        cover = reckon(
            "bearing-seat",
            {
                "bore": 25,
                "bearing": "angular",
                "arrangement": "X",
                "play_least": -0.015,
                "play_most": -0.002,
            },
        )
        self.assertEqual(cover["warning"], "")
        self.assertIn("outer ring, by the cover", cover["adjusted"])

    def test_an_outer_ring_takes_the_bore_that_was_measured_on_its_piece(self):
        outside = surface("shaft", 52.0, instrument="micrometer")
        bore = surface("bore", 25.0, instrument="bore-gauge")
        self.assertEqual(planned(outside, bore, joint="bearing").unsaid, "")
        self.assertIn("bore", planned(outside, joint="bearing").unsaid)


class LooserWords(unittest.TestCase):
    def test_long_bores_and_plastics_have_words_looser_than_a_register_s(self):
        bore = surface("bore", 50.01, instrument="bore-gauge")
        plays = [
            planned(bore, joint=joint, want=character.key).band["clearance_min"]
            for joint in ("register", "shaft")
            for character in words_for(joint)[:2]
        ]
        easy = planned(bore, joint="register", want="easy").band["clearance_min"]
        self.assertGreater(min(plays[0], plays[2], plays[3]), easy)

import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.route.steps import route_told
from machinon.core.route.work.listed import work_list
from tests.core.families.failing import check, each_is_said, failed, made


class BoringBars(unittest.TestCase):
    def test_a_bar_of_20_bends_as_a_beam(self):
        """3 E I / L³ with I = π 20⁴ / 64 = 7854 mm⁴ and 60 mm out: 100 N bend it
        100 · 60³ / (3 · 210 000 · 7854) = 4.4 µm."""
        says = check(made("single-point-bar"), "stiffness").says
        wide = made("single-point-bar").values["bar.diameter"]
        bends = 100 * 60**3 / (3 * 210_000 * math.pi * wide**4 / 64)
        self.assertIn(f"{bends * 1000:.0f} µm", says)

    def test_a_square_bit_has_a_pilot_and_a_wall_at_its_corners(self):
        """8.02 square: its corners stand √2 × 8.02 = 11.34 apart, 4.33 from the outside
        of a bar of 20; the pilot is 0.4 over, the next drill 8.5."""
        bar = made("single-point-bar", bits_shape="square")
        hole = bar.body.feature("bit1").hole
        size = bar.values["bits.diameter"]
        self.assertEqual((hole.diameter, hole.square), (8.5, size))
        wall = check(bar, "corner-wall").have
        self.assertAlmostEqual(
            wall, (bar.values["bar.diameter"] - math.sqrt(2) * size) / 2
        )
        round_bar = made("single-point-bar")
        # the square takes its corners beyond the round bit's hole as well
        self.assertLess(bar.body.volume, round_bar.body.volume)
        steps = [s for up in route_told(bar) for s in up.steps]
        broach = next(s for s in steps if s.operation == "broach")
        keys = [line.key for line in work_list(broach).lines]
        self.assertEqual(keys, ["support", "start", "release", "try"])
        self.assertNotIn("ream", [s.operation for s in steps])

    def test_what_usually_goes_wrong_with_a_bar(self):
        each_is_said(
            self,
            "single-point-bar",
            [
                ({"bit_diameter": "11"}, "bar-beside-bit"),
                ({"grubs_sunk": "4"}, "grub-thread"),
                ({"work_bore": "21"}, "bit-enters"),
                ({"work_bore": "50"}, "bit-out"),
                ({"bits_from_end": "6"}, "end-of-bar"),
                ({"bits_count": "2", "bits_pitch": "12"}, "between-bits"),
                ({"bar_length": "95"}, "held"),
                ({"bar_overhang": "90"}, "stiffness"),
                ({"flat_length": "90"}, "flat-clear"),
                ({"flat_depth": "6"}, "flat-left"),
                ({"pilot_length": "30", "bushing_bore": "20"}, "pilot-passes"),
            ],
        )

    def test_a_flat_that_takes_the_whole_bar_is_refused(self):
        with self.assertRaisesRegex(BadInput, "whole bar") as refused:
            made("single-point-bar", bar_diameter="6", flat_depth="6")
        self.assertEqual(refused.exception.key, "flat.depth")

    def test_set_screws_stand_square_to_their_bits(self):
        body = made("single-point-bar", bits_count="2").body
        for i in (1, 2):
            bit, grub = body.feature(f"bit{i}"), body.feature(f"grub{i}")
            self.assertEqual(bit.z, grub.z)
            self.assertEqual(abs(bit.angle - grub.angle), 90)


class DrawTubes(unittest.TestCase):
    def test_the_tube_gets_its_groove_and_loses_its_shoulder(self):
        """A ball of 4.5 in a mouth of 4.0 sinks 2.25 − √(2.25² − 2²) = 1.219, less a
        lip of 0.6: it stands 0.619 out. Groove ⌀20 − 1.24 = 18.76, at its mouth
        2 √(2.25² − 1.631²) = 3.1 wide; a third of 61.25, so 20.5, from the face and a
        washer of 2: at 22.5."""
        sleeve = made("draw-tube-sleeve", tube_shoulder="24", tube_bore="16")
        titles = [step.title for up in sleeve.holdings for step in up.steps]
        self.assertIn("⌀24 down to ⌀20", titles[0], "the sleeve is tried on it")
        self.assertIn("Groove ⌀18.76, 3.1 wide at its mouth, 22.50", titles[-1])
        self.assertAlmostEqual(check(sleeve, "groove-wall").have, (18.76 - 16) / 2, 2)

    def test_a_thin_tube_is_not_cut_through(self):
        each_is_said(
            self,
            "draw-tube-sleeve",
            [
                ({"tube_bore": "17"}, "groove-wall"),
                ({"tube_bore": "18", "tube_shoulder": "24"}, "shoulder-wall"),
            ],
        )


class Spindles(unittest.TestCase):
    def test_a_cover_goes_on_a_step_that_the_nut_s_thread_passes_through(self):
        """A nose of M32 and a cover of 36: g6 of it is 9 to 25 µm under, less the
        gauge's 4 at each end; the collar stands 3 past it, at 42."""
        bare = made("collet-spindle")
        self.assertNotIn("cover", [feature.name for feature in bare.body.features])
        piece = made("collet-spindle", cover_length="5", cap_bore="36")
        step = piece.body.feature("cover")
        nose = piece.body.feature("nose")
        self.assertEqual((step.end - step.start, step.end), (5, nose.start))
        (band,) = (fit for fit in piece.fits if fit.slot.key == "cover")
        self.assertAlmostEqual(band.lower, 36 - 0.025 + 0.004)
        self.assertAlmostEqual(band.upper, 36 - 0.009 - 0.004)
        self.assertEqual(piece.values["collar.diameter"], 42)
        low = made("collet-spindle", cover_length="5", cap_bore="31.9")
        self.assertIn("cover-passes", failed(low))

    def test_what_usually_goes_wrong_with_a_collet_spindle(self):
        each_is_said(
            self,
            "collet-spindle",
            [
                ({"nut_thread": "M28x1.5"}, "seat-wall"),
                ({"bore_diameter": "16"}, "bar-passes"),
                ({"bore_diameter": "20.4"}, "seat-stands"),
                ({"bore_diameter": "24"}, "journal-wall"),
                ({"journal_length": "50"}, "journal-long"),
                ({"nose_length": "13"}, "nose-long"),
                ({"collar_diameter": "33"}, "collar-shoulder"),
                ({"seat_length": "10"}, "collet-room"),
                ({"pins_depth": "10"}, "pins-wall"),
                ({"pins_diameter": "11"}, "pins-edge"),
                ({"clamp_width": "10", "clamp_from_end": "2"}, "clamp-on-journal"),
                ({"clamp_width": "10", "clamp_diameter": "18"}, "clamp-wall"),
            ],
        )

    def test_what_a_clamp_screw_bruises_stays_below_the_journal(self):
        piece = made("collet-spindle", clamp_width="10")
        recess = piece.body.feature("clamp")
        self.assertEqual((recess.start, recess.end), (25, 35), "in the middle of 60")
        self.assertLess(recess.diameter, piece.values["journal.diameter"] - 0.5)
        done = [s.key for up in route_told(piece) for s in up.steps]
        self.assertLess(done.index("groove-clamp"), done.index("prove-journal"))

    def test_its_seat_is_cut_last_turning_on_its_journal(self):
        steps = [s.key for up in route_told(made("collet-spindle")) for s in up.steps]
        self.assertLess(steps.index("prove-journal"), steps.index("taper-seat"))
        self.assertEqual(steps[-2:], ["prove-seat", "deburr"])

    def test_a_collet_chuck_s_bore_stays_clear_of_its_draw_bar(self):
        """MT3, 86 to the collar, then 12 and 16.5: 114.5 long. M12 goes 24 deep, 4
        turns of 1.75 on for chips and a point of 0.3 × 10.3: 34.1. The bore ends 33
        behind the front, its point 0.3 × 16.5 on: 114.5 − 33 − 4.95 = 76.6."""
        chuck = made("collet-chuck")
        ends = chuck.body.feature("shank").end, chuck.body.feature("nose").end
        self.assertEqual(ends, (86, 114.5))
        have = check(chuck, "holes-meet").have
        self.assertAlmostEqual(have, 76.55 - (24 + 4 * 1.75 + 3.09), delta=0.02)
        self.assertEqual(chuck.body.feature("bore").start, 81.5)
        # 1:19.922 of 4.5: 24.076 − 0.226 over 16.5
        self.assertAlmostEqual(check(chuck, "bore-wall").have, 3.675, delta=0.001)

    def test_a_collet_chuck_s_seat_is_cut_last_on_its_taper(self):
        ups = route_told(made("collet-chuck", shank_end="tang"))
        keys = [up.key for up in ups]
        self.assertEqual(keys, ["ends", "between-centres", "flats", "tang", "seat"])
        steps = [s.key for up in ups for s in up.steps]
        self.assertLess(steps.index("prove-shank"), steps.index("taper-seat"))
        self.assertLess(steps.index("thread-nose"), steps.index("taper-shank-2"))

    def test_what_usually_goes_wrong_with_a_collet_chuck(self):
        each_is_said(
            self,
            "collet-chuck",
            [
                ({"nut_thread": "M28x1.5"}, "seat-wall"),
                ({"nose_length": "13"}, "nose-long"),
                ({"collar_diameter": "33", "flats_across": "0"}, "collar-shoulder"),
                ({"bore_depth": "30"}, "bore-deep"),
                ({"bore_depth": "80"}, "holes-meet"),
                ({"bore_depth": "65", "bore_diameter": "18"}, "bore-wall"),
                ({"flats_across": "20"}, "flats-wall"),
                ({"flats_across": "38"}, "flats-grip"),
                ({"shank_off": "0"}, "collar-off"),
                ({"socket_taper": "ISO30", "shank_end": "nothing"}, "drawn-home"),
            ],
        )

    def test_a_chuck_on_a_threaded_nose_is_bored_deep_enough_for_its_thread(self):
        """M45 × 4.5, a register of 12.02: 13 deep; 0.45 × 45 = 20.25 of thread and 9 of
        relief make 42.25, up to 42.5: past a nose of 36.05, and past one of 45 it is
        46.5. Then 6 of metal, and the seat of 16 less the nose of 16.5: 48."""
        chuck = made("nose-chuck")
        self.assertEqual(failed(chuck), set())
        thread, relief = chuck.body.feature("thread"), chuck.body.feature("relief")
        self.assertEqual((thread.start, thread.end), (13, 33.5))
        self.assertEqual((relief.start, relief.end), (33.5, 42.5))
        self.assertEqual(chuck.values["hub.length"], 48)
        self.assertEqual(made("nose-chuck", spindle_length="45").values["core.depth"],
                         46.5)  # fmt: skip

    def test_a_nose_chuck_s_seat_is_cut_on_its_own_spindle(self):
        ups = route_told(made("nose-chuck"))
        self.assertEqual([up.key for up in ups], ["nose-side", "in-place", "pins"])
        steps = [s.key for s in ups[0].steps]
        self.assertLess(steps.index("register"), steps.index("groove-relief"))
        self.assertLess(steps.index("groove-relief"), steps.index("thread"))
        self.assertEqual(steps[-1], "prove-nose")
        self.assertIn("taper-seat-2", [s.key for s in ups[1].steps])

    def test_what_usually_goes_wrong_with_a_nose_chuck(self):
        each_is_said(
            self,
            "nose-chuck",
            [
                ({"hub_diameter": "56"}, "wall-register"),
                ({"core_depth": "36", "relief_width": "4"}, "nose-inside"),
                ({"core_depth": "38"}, "thread-length"),
                ({"relief_diameter": "45"}, "relief-clears"),
                ({"relief_width": "5"}, "relief-wide"),
                ({"relief_diameter": "62"}, "relief-wall"),
                ({"hub_length": "45"}, "seat-behind"),
                ({"nut_thread": "M68x2", "hub_diameter": "69"}, "hub-shoulder"),
                ({"pins_depth": "9"}, "pins-wall"),
                ({"bore_diameter": "40.2"}, "bore-step"),
            ],
        )

    def test_a_sleeve_with_a_tang_is_as_long_as_such_sleeves_are(self):
        """MT2 in MT3: the tool's tang ends 75 in, the slot reaches 0.8 of its 16 past
        that, 87.8, and 4 are left to the sleeve's own tang of 20: 111.8 over all, where
        DIN 2185 has 112. MT1 in MT2: 62 + 10.8 + 4 + 16 = 92.8, and 92 there."""
        for outer, inner, long in (("MT3", "MT2", 112), ("MT2", "MT1", 92)):
            sleeve = made("taper-sleeve", socket_taper=outer, tool_taper=inner,
                          shank_end="tang")  # fmt: skip
            self.assertEqual(failed(sleeve), set())
            mouth = sleeve.body.feature("front").z
            self.assertAlmostEqual(mouth, long, delta=1.0)
            slot = sleeve.body.feature("drift")
            self.assertGreater(slot.start, sleeve.values["tang.length"] + 3)

    def test_a_socket_ends_where_the_hole_for_the_tang_is_as_wide(self):
        """MT2: 14.5 behind it, 1 over the tang: (17.780 − 14.5) × 20.020 = 65.7."""
        sleeve = made("taper-sleeve")
        self.assertEqual(sleeve.values["seat.depth"], 65.5)
        self.assertEqual(sleeve.values["hole.depth"], 0, "open right through")
        self.assertEqual(sleeve.body.feature("hole").start, 0)
        drawn = made("taper-sleeve", shank_end="draw bar")
        self.assertGreaterEqual(check(drawn, "holes-meet").have, 3.99)

    def test_what_usually_goes_wrong_with_a_taper_sleeve(self):
        each_is_said(
            self,
            "taper-sleeve",
            [
                ({"collar_diameter": "20"}, "mouth-wall"),
                ({"socket_taper": "MT3", "tool_taper": "MT3"}, "seat-wall"),
                ({"hole_diameter": "16.5"}, "seat-bears"),
                ({"hole_diameter": "9.5"}, "bar-passes"),
                ({"socket_taper": "MT3", "seat_depth": "60", "hole_diameter": "18.5"},
                 "hole-wall"),
                ({"shank_end": "tang", "hole_depth": "0"}, "small-end"),
                ({"shank_end": "tang", "collar_length": "1", "tool_taper": "MT3"},
                 "holes-meet"),
                ({"shank_end": "tang", "drift_width": "6"}, "drift-takes"),
                ({"shank_end": "tang", "drift_from_mouth": "72"}, "drift-reach"),
                ({"shank_end": "tang", "hole_diameter": "13"}, "tool-enters"),
                ({"shank_off": "0"}, "collar-off"),
            ],
        )  # fmt: skip

    def test_what_usually_goes_wrong_with_a_draw_in_spindle(self):
        each_is_said(
            self,
            "draw-in-spindle",
            [
                ({"head_diameter": "20"}, "wall-socket"),
                ({"head_diameter": "31"}, "shoulder"),
                ({"draw_diameter": "22"}, "draw-wall"),
                ({"spacer_diameter": "18"}, "wall-spacer"),
                ({"draw_diameter": "10"}, "draw-passes"),
                ({"draw_diameter": "14.5"}, "socket-floor"),
                ({"locknut_thread": "M30x1.5"}, "rings-pass"),
                ({"nut_thread_length": "9"}, "nut-past"),
                ({"spacer_length": "10"}, "spread"),
                ({"bearings_facing": "yes", "spacer_length": "40"}, "spread"),
            ],
        )

    def test_seats_are_finished_after_welding_and_the_socket_last(self):
        piece = made("draw-in-spindle", head_welded="yes")
        steps = [s.key for up in route_told(piece) for s in up.steps]
        self.assertLess(steps.index("weld"), steps.index("turn-front-2"))
        self.assertLess(steps.index("turn-rear-2"), steps.index("taper-socket-2"))


class ExpandingArbors(unittest.TestCase):
    def test_a_leaf_that_bends_too_far_stays_bent(self):
        """A leaf 8 thick and 25 long: 3 E t f / (2 L²). With 0.5 mm of play f is 0.25:
        3 · 210 000 · 5.8 · 0.25 / 1250 = 731 N/mm² in a nose of 19.5 over M8."""
        piece = made("slit-arbor", nose_diameter="19.5", work_bore="20")
        found = check(piece, "yield")
        self.assertAlmostEqual(found.have, 3 * 210_000 * 5.75 * 0.25 / (2 * 25**2))

    def test_what_usually_goes_wrong_with_an_expanding_arbor(self):
        each_is_said(
            self,
            "slit-arbor",
            [
                ({"nose_diameter": "19"}, "grows"),
                ({"taper_mouth": "18"}, "wall"),
                ({"slits_length": "12"}, "slit-past-taper"),
                ({"slits_length": "30"}, "slits-in-nose"),
                ({"screw_depth": "8"}, "thread"),
                ({"screw_depth": "34"}, "screw-floor"),
                ({"nose_length": "25"}, "nose-in-work"),
                ({"collar_diameter": "21"}, "shoulder"),
                ({"shank_length": "20"}, "shank-held"),
            ],
        )

    def test_hardened_it_is_slit_before_and_ground_after(self):
        piece = made("slit-arbor", nose_hard="yes")
        steps = [s.key for up in route_told(piece) for s in up.steps]
        self.assertLess(steps.index("saw-slits"), steps.index("harden"))
        self.assertLess(steps.index("harden"), steps.index("grind-nose"))

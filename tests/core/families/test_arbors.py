import unittest

from machinon.core.families import family_of
from machinon.core.families._tapers import shank_end_of
from machinon.core.piece.made import make
from machinon.core.route.steps import route_told
from machinon.core.route.work.listed import work_list
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import thread_of


def arbor(key, **given):
    return make(
        family_of(key), {name.replace("_", "."): v for name, v in given.items()}
    )


def failed(made):
    return {check.key for check in made.checks if not check.passed}


class Arbors(unittest.TestCase):
    """A saw of 22.010 mm bore and 3 mm width on a Morse 2 shank, and in a collet."""

    def test_the_spigot_comes_from_the_cutter_s_bore(self):
        """h6 at 22 is 0 to 13 µm of play, the bore good to 2 µm: 22.010 + 0.002 − 0.013
        = 21.999 to 22.010 − 0.002 = 22.008."""
        for key in ("taper-arbor", "collet-arbor"):
            made = arbor(key, cutter_bore="22.010", cutter_bore_doubt="0.002")
            self.assertAlmostEqual(made.fits[0].lower, 21.999, places=4)
            self.assertAlmostEqual(made.fits[0].upper, 22.008, places=4)
            self.assertEqual(made.sizes["spigot.diameter"].by, "fit")

    def test_a_morse_2_shank_has_its_standard_s_ends(self):
        """MT2: 17.780 at the gauge line, 1:20.020; 64 mm behind it 17.780 − 64/20.020 =
        14.583, and 5 before it, at the collar, 18.030."""
        made = arbor("taper-arbor", socket_taper="MT2", shank_length="69")
        shank = made.body.feature("shank")
        self.assertAlmostEqual(shank.end_diameter, 18.030, places=3)
        self.assertAlmostEqual(shank.start_diameter, 17.780 - 64 / 20.020, delta=0.001)
        half = taper_of("MT2").half_angle
        titles = [s.title for up in route_told(made) for s in up.steps]
        self.assertTrue(any(f"{half:.4f}" in title for title in titles))

    def test_a_morse_shank_s_tang_is_that_of_both_standards(self):
        """ASME's tangs in inches are ISO's to a tenth of a millimetre; a shank that
        stands off its socket by what ISO says is as wide there as ISO's rounded D1; and
        every tang's round lies within its taper's small end."""
        inches = (0.1562, 0.2031, 0.25, 0.3125, 0.4687, 0.625, 0.75)
        outside = (9.2, 12.2, 18.0, 24.1, 31.6, 44.7, 63.8)
        for n, (thick, wide) in enumerate(zip(inches, outside, strict=True)):
            tang, taper = shank_end_of(f"MT{n}"), taper_of(f"MT{n}")
            self.assertAlmostEqual(tang.across, thick * 25.4, delta=0.1)
            self.assertAlmostEqual(
                taper.large + tang.off * taper.ratio, wide, delta=0.05
            )
            small = taper.large - (tang.reach - tang.length) * taper.ratio
            self.assertLess(tang.diameter, small - 0.2)
            self.assertLess(tang.across, tang.diameter)

    def test_a_draw_bar_s_thread_is_the_taper_s_standard_one(self):
        """M10 of a Morse 2, M16 of a Morse 4; Morse 0 has none by the standard, and M3
        is the thickest of the usual ones under 0.6 of its small end of 6.4."""
        for taper, thread in (("MT0", "M3"), ("MT2", "M10"), ("MT4", "M16")):
            made = arbor("taper-arbor", socket_taper=taper)
            self.assertEqual(made.sizes["draw.thread"].value, thread)
            self.assertNotIn("draw-wall", failed(made))
        walls = []
        for n in range(1, 7):
            made = arbor("taper-arbor", socket_taper=f"MT{n}")
            thread = thread_of(made.sizes["draw.thread"].value)
            small = made.body.feature("shank").start_diameter
            walls.append((small - thread.major) / 2 / small)
        self.assertGreater(min(walls), 0.15, "a wall that carries the bar's pull")

    def test_a_tang_takes_the_place_of_the_draw_bar_s_thread(self):
        """MT2: 75 to the end of its tang, which is 16 long, and 5 off the socket; the
        taper is 17.780 − 59 / 20.020 = 14.833 where the tang begins."""
        made = arbor("taper-arbor", socket_taper="MT2", shank_end="tang")
        self.assertEqual(failed(made), set())
        shank = made.body.feature("shank")
        self.assertAlmostEqual(shank.end - shank.start, 75 - 16 + 5)
        self.assertAlmostEqual(shank.start_diameter, 17.780 - 59 / 20.020, delta=0.001)
        self.assertEqual((shank.start, made.body.feature("tang").across), (16, 6.3))
        done = [(s.operation, s.features) for up in route_told(made) for s in up.steps]
        self.assertNotIn(("tap", ("draw",)), done)
        proved = next(n for n, (what, _) in enumerate(done) if what == "prove")
        self.assertGreater(done.index(("mill", ("tang",))), proved)
        thick = arbor("taper-arbor", shank_end="tang", tang_round="21")
        self.assertIn("tang-clears", failed(thick))

    def test_a_steep_taper_has_the_round_behind_it_that_its_spindle_guides(self):
        """R8 is 1.250 in at its mouth and 0.949 in behind, 4 in over all; ISO 30 to 50
        are 1¼, 1¾, 2¼ and 2¾ in at the gauge line, 3½ in a foot, and end wider than
        what is behind them: 31.75 − 48.4 · 7/24 = 17.63 over 17.1."""
        for name, inches in (("R8", 1.25), ("ISO30", 1.25), ("ISO40", 1.75),
                             ("ISO45", 2.25), ("ISO50", 2.75)):  # fmt: skip
            with self.subTest(name):
                taper = taper_of(name)
                self.assertAlmostEqual(taper.large / 25.4, inches)
                self.assertAlmostEqual(
                    taper.large - taper.length * taper.ratio, taper.small, delta=0.01
                )
                end = shank_end_of(name)
                self.assertLess(end.guide, end.bore)
                self.assertLess(end.guide, taper.small + 0.01)
                made = arbor("taper-arbor", socket_taper=name)
                self.assertEqual(failed(made), set())
                behind = made.body.feature("guide")
                self.assertEqual(behind.diameter, end.guide)
                self.assertEqual(behind.end, made.body.feature("shank").start)
        rings = {"front_bearing.bore": "45", "rear_bearing.bore": "45"}
        housing = {"bearings.between": "60", "locknut.thread": "M42x1.5"}
        for name in ("R8", "ISO30"):
            given = {"socket.taper": name, **rings, **housing}
            bored = make(family_of("draw-in-spindle"), given)
            self.assertEqual(failed(bored), set())
            bore = bored.body.feature("guide")
            self.assertEqual(bore.diameter, shank_end_of(name).bore)
        r8 = arbor("taper-arbor", socket_taper="R8")
        whole = r8.body.feature("shank").end - r8.values["shank.off"]
        self.assertAlmostEqual(whole / 25.4, 4, delta=0.01)
        self.assertAlmostEqual(taper_of("ISO30").per_foot, 3.5)

    def test_a_chuck_arbor_has_the_taper_round_or_thread_that_its_chuck_takes(self):
        """JT33 is 0.624 in, 1 in long, 0.7619 in a foot: 15.850 − 25.4 × 0.06349 =
        14.237; it narrows from the collar outwards. What slides on it makes it a round,
        of h6 at 16: 0 to 11 µm under 16.02, the bore good to 4 either way."""
        chuck = arbor("chuck-arbor")
        cone = chuck.body.feature("cone")
        self.assertEqual(cone.start, 92)
        self.assertAlmostEqual(cone.end, 92 + 25.4)
        self.assertAlmostEqual(cone.start_diameter, 15.850, places=3)
        self.assertAlmostEqual(cone.end_diameter, 14.237, delta=0.001)
        steps = [s.key for up in route_told(chuck) for s in up.steps]
        self.assertLess(steps.index("taper-shank"), steps.index("taper-cone-2"))
        self.assertLess(steps.index("prove-cone"), steps.index("taper-shank-2"))
        holder = arbor("chuck-arbor", sleeve_bore="16.02")
        self.assertEqual(holder.values["front.kind"], "round")
        self.assertNotIn("cone", [feature.name for feature in holder.body.features])
        (fit,) = holder.fits
        self.assertTrue(15.99 < fit.lower < fit.upper < 16.02)
        stud = arbor("chuck-arbor", front_kind="thread", stud_thread="1/2-20")
        self.assertEqual(stud.body.feature("stud").thread, "1/2-20 UNF")
        for made in (chuck, holder, stud):
            self.assertEqual(failed(made), set())

    def test_a_centre_gets_its_point_in_the_spindle_that_carries_it(self):
        """From 27 to 0.5 across at 30° a side: 13.25 / tan 30° = 22.95. It has its
        shank first; a gauge, not a socket, tries the point."""
        centre = arbor("lathe-centre")
        point = centre.body.feature("point")
        self.assertAlmostEqual(point.end - point.start, 22.95, places=2)
        for taper, end in (("MT3", "nothing"), ("R8", "draw bar")):
            found = arbor("lathe-centre", socket_taper=taper)
            self.assertEqual((found.values["shank.end"], failed(found)), (end, set()))
        steps = {s.key: s for up in route_told(centre) for s in up.steps}
        keys = list(steps)
        self.assertLess(keys.index("taper-shank-2"), keys.index("taper-point"))
        shown = {line.key: line for line in work_list(steps["finish-point"]).lines}
        self.assertNotIn("blue", shown)
        self.assertAlmostEqual(shown["gauge"].figures[0].value, 60)
        self.assertEqual(shown["depth"].figures[0].value, 0.5)
        self.assertEqual(failed(centre), set())
        for given, key in (
            ({"point_tip": "26"}, "point-carries"),
            ({"stock_length": "118"}, "stock-centred"),
            ({"shank_end": "draw bar", "draw_depth": "78"}, "holes-meet"),
            ({"collar_diameter": "22"}, "collar-socket"),
        ):
            with self.subTest(check=key):
                self.assertIn(key, failed(arbor("lathe-centre", **given)))

    def test_what_usually_goes_wrong_with_a_chuck_arbor(self):
        for given, key in (
            ({"collar_diameter": "17"}, "collar-over"),
            ({"chuck_taper": "7/24", "cone_large": "20", "cone_length": "20"},
             "cone-holds"),
            ({"cone_length": "15"}, "cone-bears"),
            ({"sleeve_bore": "7.02"}, "spindle-stiff"),
            ({"draw_depth": "76"}, "holes-meet"),
            ({"shank_off": "0"}, "collar-off"),
        ):  # fmt: skip
            with self.subTest(check=key):
                self.assertIn(key, failed(arbor("chuck-arbor", **given)))

    def test_the_short_tapers_of_chucks_are_pieces_of_morse_tapers(self):
        """ISO 239: B16 is Morse 2 from 41.0 behind its gauge line on, B22 Morse 3 from
        40.5, B12, B18 and B24 are Morse 1, 2 and 3 at their gauge lines."""
        for name, morse, behind in (
            ("B10", "MT1", 39.5), ("B12", "MT1", 0), ("B16", "MT2", 41.0),
            ("B18", "MT2", 0), ("B22", "MT3", 40.5), ("B24", "MT3", 0),
        ):  # fmt: skip
            short, whole = taper_of(name), taper_of(morse)
            self.assertEqual(short.ratio, whole.ratio)
            self.assertAlmostEqual((whole.large - short.large) / whole.ratio, behind,
                                   delta=0.1)  # fmt: skip
            ends = short.large - short.length * short.ratio
            self.assertAlmostEqual(short.small, ends, delta=0.001)

    def test_a_taper_may_be_called_as_others_call_it(self):
        for said, name in (
            ("MK 2", "MT2"), ("CM3", "MT3"), ("33 JT", "JT33"), ("SK40", "ISO40"),
            ("30 taper", "ISO30"), ("R-8", "R8"), ("ER-32", "ER32 seat"),
            ("1 in 20", "1:20"), ("taper B16", "B16"),
        ):  # fmt: skip
            self.assertEqual(taper_of(said).name, name)

    def test_a_taper_that_lets_go_by_itself_is_drawn_home(self):
        for name, wrong in (("MT2", set()), ("ISO40", {"drawn-home"})):
            made = arbor("taper-arbor", socket_taper=name, shank_end="nothing")
            self.assertEqual(failed(made), wrong)

    def test_the_taper_bears_in_its_socket_before_the_collar_does(self):
        """MT2 stands 5 off its socket: 17.780 + 5 / 20.020 = 18.030 at the collar."""
        made = arbor("taper-arbor", socket_taper="MT2")
        self.assertAlmostEqual(made.values["shank.large"], 18.030, places=3)
        for off, wrong in (("5", set()), ("0", {"collar-off"})):
            self.assertEqual(failed(arbor("taper-arbor", shank_off=off)), wrong)

    def test_a_spigot_longer_than_the_cutter_is_wide_never_clamps_it(self):
        for key in ("taper-arbor", "collet-arbor"):
            self.assertNotIn("spigot-short", failed(arbor(key, cutter_width="3")))
            made = arbor(key, cutter_width="3", spigot_length="3")
            self.assertIn("spigot-short", failed(made))

    def test_a_cap_head_alone_drops_into_the_cutter_s_bore(self):
        """The head of M10 is 16 wide: it holds a bore of 13, and falls through one of
        22.01 without its washer."""
        for sizes, wrong in (
            ({"washer_over": "0"}, {"head-covers"}),
            ({"washer_over": "2"}, set()),
        ):
            self.assertEqual(failed(arbor("collet-arbor", **sizes)), wrong, sizes)
        given = {"cutter_bore": "13.01", "screw_thread": "M10", "washer_over": "0"}
        small = arbor("collet-arbor", **given)
        self.assertNotIn("head-covers", failed(small))

    def test_any_size_in_the_collet_s_range_will_do(self):
        """A collet read 20.006 that closes half a millimetre: 19.51 to 20.00."""
        usual = arbor("collet-arbor", collet_bore="20.006", collet_closes="0.5")
        self.assertAlmostEqual(usual.sizes["shank.diameter"].value, 19.99)
        for size, wrong in (
            ("19.6", set()),
            ("19.4", {"collet-closes"}),
            ("20.01", {"shank-enters"}),
        ):
            made = arbor("collet-arbor", collet_bore="20.006", shank_diameter=size)
            self.assertEqual(failed(made), wrong, size)
        turned = [s for up in route_told(usual) for s in up.steps]
        self.assertIn("19.51 to 20.00", " ".join(s.note for s in turned))

    def test_a_key_leaves_a_wall_to_the_screw_s_hole(self):
        """22.01 less M10: 6.0 of wall; a keyway of 5 leaves 1, one of 3 leaves 3."""
        for depth, wrong in (("3", set()), ("5", {"key-wall"})):
            made = arbor("taper-arbor", key_width="5", key_depth=depth)
            self.assertEqual(failed(made), wrong)
        # a nut's stud leaves the whole of the spigot
        made = arbor("taper-arbor", key_width="5", key_depth="5", clamp_by="nut")
        self.assertNotIn("key-wall", failed(made))

    def test_a_nut_goes_on_a_stud_that_is_cut_between_centres(self):
        made = arbor("collet-arbor", clamp_by="nut", cutter_width="3")
        stud = made.body.feature("screw")
        self.assertEqual(stud.start - made.body.feature("spigot").end, 0)
        self.assertEqual(stud.end - stud.start, 20, "M10, two diameters")
        between = next(up for up in route_told(made) if up.key == "between-centres")
        operations = [step.operation for step in between.steps]
        self.assertLess(operations.index("thread"), operations.index("prove"))
        self.assertNotIn(
            "tap", [s.operation for up in route_told(made) for s in up.steps]
        )

    def test_pins_are_drilled_once_everything_turned_is_proved(self):
        made = arbor("collet-arbor", pins_count="2", collar_diameter="40")
        self.assertEqual(failed(made), set())
        self.assertEqual(made.values["pins.circle"], 31, "between 22.01 and 40")
        last = route_told(made)[-1]
        self.assertEqual([s.operation for s in last.steps], ["drill", "ream", "deburr"])
        self.assertEqual(last.steps[0].drill, 3.8)
        near = arbor("collet-arbor", pins_count="2", pins_circle="25")
        self.assertIn("pins-edges", failed(near))
        # pins of 4 are pressed 6 into a collar that is 6.5 thick
        thin = arbor("collet-arbor", pins_count="2", collar_length="6.5")
        self.assertIn("pins-floor", failed(thin))

import unittest
from itertools import product

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.job.fit_sheet import COLUMNS, fit_lines
from machinon.core.job.job import Job
from machinon.core.job.made_piece import gauged_by, is_gripped
from machinon.core.job.planning import plan_of
from machinon.core.job.proof import (
    judge,
    of_several,
    overall,
    proof_line,
    runout_answer,
)
from machinon.core.piece.made import make
from machinon.core.shop.things import Piece, Reading, Surface
from machinon.core.sizes.fit import FitChoice
from machinon.core.survey.as_made import as_made, read_as_made
from machinon.core.survey.measuring import measure
from machinon.core.survey.surface_kinds import new_surfaces
from tests.scenario import BOLTS, LATHE, REGISTER, SHOP, SPIGOT, planned


def line(size, doubt=0.002, band=(10.0, 10.01), **more):
    return proof_line("bore", "Bore", 1, *band, None, size, doubt, **more)


class Lines(unittest.TestCase):
    """A band of 10 to 11 µm over it; what a size, its doubt and the mate decide."""

    def test_a_size_is_judged_by_its_band_and_its_doubt(self):
        for size, doubt, verdict in (
            (10.000, 0.002, "proved"),
            (10.010, 0.002, "proved"),
            (10.0119, 0.002, "near"),
            (9.9985, 0.002, "near"),
            (10.0125, 0.002, "failed"),
            (9.9975, 0.002, "failed"),
            (10.0125, 0.0, "failed"),
        ):
            with self.subTest(size, doubt=doubt):
                self.assertEqual(judge(size, doubt, 10.0, 10.01), verdict)

    def test_a_gauge_wider_than_the_band_proves_nothing_by_itself(self):
        self.assertEqual(line(10.005, 0.0049).verdict, "proved")
        wide = line(10.005, 0.034)
        self.assertEqual(wide.verdict, "near")
        self.assertIn("±34 µm is wider than the band of 10 µm", wide.says)
        self.assertEqual(line(10.005, 0.034, tried="goes on").verdict, "proved")

    def test_what_the_mate_did_decides_only_what_the_gauge_leaves(self):
        sizes = {"proved": 10.005, "near": 10.011, "failed": 10.05}
        wanted = {
            ("proved", ""): "proved",
            ("proved", "goes on"): "proved",
            ("proved", "tight"): "near",
            ("proved", "loose"): "near",
            ("near", ""): "near",
            ("near", "goes on"): "proved",
            ("near", "tight"): "near",
            ("near", "loose"): "near",
            ("failed", ""): "failed",
            ("failed", "goes on"): "failed",
            ("failed", "tight"): "failed",
            ("failed", "loose"): "failed",
        }
        for (stood, tried), verdict in wanted.items():
            with self.subTest(stood, tried=tried):
                self.assertEqual(line(sizes[stood], tried=tried).verdict, verdict)

    def test_a_size_within_the_doubt_is_taken_with_a_reason_and_one_outside_never(self):
        taken = line(10.011, accepted="the chuck is scrap anyway")
        self.assertEqual(taken.verdict, "proved")
        self.assertIn("scrap anyway", taken.says)
        self.assertEqual(line(10.05, accepted="in a hurry").verdict, "failed")
        self.assertEqual(line(10.011, tried="tight", accepted="x").verdict, "near")

    def test_readings_that_disagree_prove_nothing_though_one_is_set_apart(self):
        sizes = (10.004, 10.005, 10.005, 10.505)
        bore = Surface(
            "bore",
            "Bore",
            "inside",
            readings=tuple(Reading(size, "bore-gauge") for size in sizes),
        )
        found = measure(bore, SHOP, "steel")
        self.assertAlmostEqual(found.size, 10.0047, 3)
        judged = proof_line("bore", "Bore", 1, 9.99, 10.02, found)
        self.assertEqual(judged.verdict, "near")
        self.assertIn("disagree", judged.says)
        tried = proof_line("bore", "Bore", 1, 9.99, 10.02, found, tried="goes on")
        self.assertEqual(tried.verdict, "proved")

    def test_of_several_alike_the_worst_decides_once_all_are_read(self):
        good, edge, bad = line(10.004), line(10.011), line(10.02)
        for lines, count, verdict, says in (
            ([good], 2, "open", "1 of 2 read, 10.004 mm"),
            ([good, good], 2, "proved", "2 of 2 read, 10.004 mm: in its band"),
            ([good, edge], 3, "near", "2 of 3 read, 10.004 to 10.011 mm"),
            ([bad, good], 3, "failed", "outside its band"),
        ):
            with self.subTest(says):
                found = of_several(lines, count)
                self.assertEqual(found.verdict, verdict)
                self.assertIn(says, found.says)

    def test_without_a_size_or_a_band_it_is_open(self):
        self.assertEqual(line(None).verdict, "open")
        unknown = line(10.0, band=(None, None))
        self.assertEqual((unknown.verdict, unknown.size), ("open", 10.0))
        self.assertIn("no band yet", unknown.says)


class Whole(unittest.TestCase):
    TRUE = runout_answer([0.0, 0.005, 0.01, 0.005])
    WOBBLES = runout_answer([0.0, 0.03, 0.06, 0.03])

    def verdict(self, *lines, tried=True, runout=TRUE, undone=(), why=""):
        return overall(lines, tried, runout, 0.02, undone, why)

    def test_the_worst_line_decides(self):
        lines = {"proved": line(10.005), "near": line(10.011), "failed": line(10.05)}
        order = ("failed", "open", "near", "proved")
        lines["open"] = line(None)
        for pair in product(order, repeat=2):
            with self.subTest(pair):
                worst = min(pair, key=order.index)
                found, says = self.verdict(*(lines[key] for key in pair))
                self.assertEqual(found, worst, says)

    def test_thread_run_out_and_steps_count_as_the_lines_do(self):
        good = line(10.005)
        self.assertEqual(self.verdict(good)[0], "proved")
        self.assertEqual(self.verdict(good, tried=False)[0], "open")
        self.assertEqual(self.verdict(good, runout=None)[0], "open")
        found, says = self.verdict(good, runout=self.WOBBLES)
        self.assertEqual(found, "failed")
        self.assertIn("60 µm, 20 µm is allowed", says)

    def test_steps_left_out_need_a_reason_that_stays_in_the_sentence(self):
        good, steps = line(10.005), ("Turn the flange", "Drill", "Deburr")
        found, says = self.verdict(good, undone=steps)
        self.assertEqual(found, "open")
        self.assertIn("Turn the flange; Drill and 1 more", says)
        found, says = self.verdict(good, undone=steps, why="done on the mill")
        self.assertEqual(found, "proved")
        self.assertIn("3 steps left out: done on the mill", says)

    def test_two_readings_are_no_run_out(self):
        self.assertIsNone(runout_answer([0.0, 0.01]))


SHANK = Surface("shank", "Shank", "outside")


class ByItsStandard(unittest.TestCase):
    def test_a_bought_shaft_is_its_zone_until_it_is_read(self):
        """16 h6 is 15.989 to 16.000; ISO 286-2."""
        bought = Surface("shank", "Shank", "outside", given="16 h6")
        found = measure(bought, SHOP, "steel")
        self.assertAlmostEqual(found.lower, 15.989)
        self.assertAlmostEqual(found.upper, 16.0)
        self.assertEqual((found.count, found.known_by), (0, "by its standard"))
        read = Surface(
            "shank", "Shank", "outside", "", (Reading(15.996, "micrometer"),), {},
            "16 h6",
        )  # fmt: skip
        found = measure(read, SHOP, "steel")
        self.assertAlmostEqual(found.size, 15.996)
        self.assertEqual(found.known_by, "measured")

    def test_what_is_kept_is_in_one_form_whatever_was_typed(self):
        hole = Surface("bore", "Bore", "inside")
        for typed, surface, inch, kept in (
            ("16h6", SHANK, False, "16 h6"),
            (" 1/2in  g6", SHANK, False, "12.7 g6"),
            (".5 h6", SHANK, True, "12.7 h6"),
            ("25 H7", hole, False, "25 H7"),
            ("", SHANK, False, ""),
        ):
            with self.subTest(typed):
                self.assertEqual(read_as_made(typed, surface, inch), kept)

    def test_what_no_standard_can_stand_for_is_refused_with_what_can(self):
        hole = Surface("bore", "Bore", "inside")
        for typed, surface, says in (
            ("16", SHANK, "with its zone, as 16 h6"),
            ("16 H7", SHANK, "a zone for a hole"),
            ("16 h6", hole, "a zone for a shaft"),
            ("16 zz9", SHANK, ""),
            ("900 h6", SHANK, "500"),
            ("MT2", Surface("depth", "Depth", "length"), "measure it"),
        ):
            with self.subTest(typed):
                with self.assertRaises(BadInput) as no:
                    read_as_made(typed, surface)
                self.assertEqual(no.exception.key, "given")
                self.assertIn(says, no.exception.message)

    def test_a_taper_brings_its_slope_along(self):
        """Morse 2: 17.780 at the gauge line, 0.59941 in to the foot; ISO 296."""
        taper = new_surfaces(Piece("t", "T", "other"), "taper-in", "")[0]
        self.assertEqual(read_as_made("morse 2", taper), "MT2")
        with self.assertRaisesRegex(BadInput, "not how large"):
            read_as_made("1:20", taper)
        found = as_made(
            Surface(taper.id, taper.name, taper.kind, given="MT2", aids=taper.aids)
        )
        self.assertAlmostEqual(found.size, 17.780)
        self.assertAlmostEqual(found.ratio * 12, 0.59941, 4)

    def test_a_standard_too_wide_for_the_fit_says_what_would_help(self):
        shaft = Surface("shank", "Shank", "outside", given="16 h11")
        piece = Piece("p", "Pin", "other", surfaces=(shaft,))
        choice = FitChoice(1, "Pin", "p", "shank", "shaft", "slides")
        job = Job("j", "J", pieces=("p",), fits=(choice,))
        fit = plan_of(job, SHOP, None, {"p": piece}).fit(1)
        self.assertTrue(fit.spent)
        self.assertIn("The standard's own band takes it: ±55 µm", fit.advice)
        self.assertIn("measure the piece itself", fit.advice)


class OnPaper(unittest.TestCase):
    def test_every_fit_of_the_plate_stands_there_with_readings_band_and_gauge(self):
        plan = planned()
        lines = {line.number: line for line in fit_lines(plan)}
        self.assertEqual(set(lines), {fit.choice.number for fit in plan.fits})
        spigot = lines[SPIGOT]
        self.assertEqual(spigot.mate, "Rear recess of Three-jaw chuck")
        self.assertEqual(
            spigot.readings,
            ("95.018 mm, 95.022 mm, 95.020 mm, Three-point bore gauge",),
        )
        self.assertEqual(spigot.measured, "95.020 mm ± 5.7 µm")
        (made,) = spigot.to_make
        self.assertEqual((made.low, made.high), ("94.992 mm", "95.002 mm"))
        self.assertIn("icrometer", made.gauge)
        self.assertIn("play 12 µm to 34 µm", spigot.follows)
        self.assertTrue(lines[REGISTER].to_make[0].name == "diameter")
        self.assertIn("clear holes for M8", " ".join(lines[BOLTS].follows))

    def test_a_list_has_a_row_for_each_size_and_a_cell_for_each_column(self):
        for line in fit_lines(planned()):
            for row in line.cells:
                self.assertEqual(len(row), len(COLUMNS))

    def test_a_struck_reading_is_left_out_and_nothing_read_is_said(self):
        bore = Surface(
            "bore", "Bore", "inside",
            readings=(
                Reading(30.01, "bore-gauge", struck="misread"),
                Reading(30.02, "bore-gauge", place="back"),
            ),
        )  # fmt: skip
        bare = Surface("pin", "Pin", "outside")
        piece = Piece("p", "Bush", "other", surfaces=(bore, bare))
        fits = (
            FitChoice(1, "Bore", "p", "bore", "hole"),
            FitChoice(2, "Pin", "p", "pin", "shaft", reason="to try"),
        )
        job = Job("j", "J", pieces=("p",), fits=fits)
        first, second = fit_lines(plan_of(job, SHOP, LATHE, {"p": piece}))
        self.assertEqual(first.readings, ("30.020 mm (back), Three-point bore gauge",))
        self.assertEqual((second.measured, second.to_make), ("not read yet", ()))
        self.assertIn("measure it in Survey", second.says)
        self.assertEqual(second.reason, "to try")

    def test_an_inch_shop_has_its_sheet_in_inches(self):
        plan = planned(shop=replace(SHOP, inch=True))
        spigot = next(line for line in fit_lines(plan) if line.number == SPIGOT)
        self.assertTrue(spigot.to_make[0].low.endswith(" in"), spigot.to_make[0])


class Gauges(unittest.TestCase):
    def test_a_micrometer_reads_a_length_whose_faces_stand_free(self):
        """A block, a sleeve from end to end, a collar between a shank and a spigot; but
        no lip or spigot, which ends at a shoulder, and no hole."""
        for family, key, free in (
            ("hinged-arm", "arm.thickness", True),
            ("spacer-sleeve", "sleeve.length", True),
            ("stud", "stud.length", True),
            ("collet-arbor", "collar.length", True),
            ("collet-arbor", "spigot.length", False),
            ("housing-cover", "lip.length", False),
            ("draw-in-spindle", "rear.length", False),
            ("draw-in-spindle", "socket.depth", False),
        ):
            with self.subTest(family, size=key):
                made = make(families()[family], {})
                self.assertEqual(is_gripped(made, key), free)
                read = gauged_by(made, Surface(f"size.{key}", "", "length"))
                self.assertEqual("outside" in read, free)
        sleeve = make(families()["spacer-sleeve"], {})
        chain = Surface("chain.length", "", "length")
        self.assertEqual(gauged_by(sleeve, chain), ("length", "outside"))
        self.assertEqual(gauged_by(None, chain), ("length",))


if __name__ == "__main__":
    unittest.main()

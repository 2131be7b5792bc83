"""The presenter of a job, without a window."""

import tempfile
import unittest
from pathlib import Path

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.job.job import STAGES, CutLog
from machinon.core.shop.entry import typed_lathe
from machinon.desk.begin import NEW_MATE, begin_job
from machinon.desk.open_job import OpenJob
from machinon.desk.set_up import enter_first_machine
from machinon.desk.stages.cut_screen import present
from machinon.store.demo_shop import demo_shop
from machinon.store.opening import open_shop


class DemoJob(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = open_shop(demo_shop(Path(folder.name)), durable=False)
        self.addCleanup(self.file.close)
        self.job = OpenJob(self.file, "back-plate-130")
        self.changes = 0
        self.job.changed = self.count

    def count(self):
        self.changes += 1

    def daybook(self):
        return self.file.daybook("back-plate-130")[0].says


class Acts(DemoJob):
    def test_every_act_is_on_disk_worked_out_and_in_the_daybook(self):
        """The same job opened a second time sees what the first has just done."""
        for act, says in (
            (lambda j: j.add_reading("chuck-130", "body", "130.00", "caliper"), "body"),
            (lambda j: j.strike("chuck-130", "body", 0, "dirt"), "struck: dirt"),
            (lambda j: j.let_count("chuck-130", "body", 0), "counts"),
            (lambda j: j.choose_fit(3, "easy"), "easy: goes on without care"),
            (lambda j: j.own_play(3, "10um", "50um"), "play 10 µm to 50 µm"),
            (lambda j: j.name_thread(2, "M45x4"), "M45x4"),
            (lambda j: j.name_thread(2, ""), "as the readings say"),
            (lambda j: j.give_reason(1, "it comes off weekly"), "it comes off"),
            (lambda j: j.set_size("hub.diameter", "3in"), "hub diameter: 3in"),
            (lambda j: j.set_size("bolts.count", "6"), "bolts: 6"),
            (lambda j: j.set_size("spigot.diameter", "95"), "spigot diameter: 95"),
            (lambda j: j.set_size("spigot.diameter", ""), "follows its rule again"),
            (lambda j: j.mark_step("holes", True), "Step done"),
            (lambda j: j.mark_step("holes", False), "to do again"),
            (lambda j: j.cut_made(), "Cut taken at"),
            (lambda j: j.measured_cut("95.1"), "Measured 95.100 mm"),
            (lambda j: j.set_cutting("school", "always"), "spring passes: always"),
            (lambda j: j.set_cutting("deepest", "0.4"), "deepest pass 0.4"),
            (lambda j: j.set_thread_tried(True), "screwed home"),
            (lambda j: j.set_runout("0.01 0 -0.01 0"), "10 µm"),
            (lambda j: j.set_runout_limit("15um"), "15 µm"),
            (
                lambda j: j.add_proof_reading("fit.1", "46.01", "bore-gauge"),
                "nose register in plate",
            ),
            (lambda j: j.drop_proof_readings("fit.1"), "begun again"),
        ):
            with self.subTest(says):
                before = self.changes
                act(self.job)
                self.assertEqual(self.changes, before + 1)
                self.assertIn(says, self.daybook())
                again = OpenJob(self.file, "back-plate-130")
                self.assertEqual(again.job, self.job.job)
                self.assertEqual(again.pieces, self.job.pieces)
                self.assertEqual(again.plan, self.job.plan)

    def test_all_of_them_can_be_taken_back_one_by_one(self):
        start = self.job.job
        self.job.set_size("hub.diameter", "80")
        self.job.choose_fit(1, "wrung")
        self.job.mark_step("holes", True)
        for _ in range(3):
            self.assertTrue(self.job.undo())
        self.assertEqual(self.job.job, start)
        self.assertTrue(self.job.redo())
        self.assertEqual(self.job.plan.made.values["hub.diameter"], 80)

    def test_a_refusal_names_its_entry_and_changes_nothing(self):
        before = self.job.job, self.job.pieces["chuck-130"], self.daybook()
        for act, key in (
            (
                lambda j: j.add_reading("chuck-130", "recess", "x", "bore-gauge"),
                "reading",
            ),
            (
                lambda j: j.add_reading("chuck-130", "recess", "95", "ruler"),
                "instrument",
            ),
            (
                lambda j: j.add_reading(
                    "chuck-130", "recess", "95", "bore-gauge", "900"
                ),
                "temperature",
            ),
            (lambda j: j.choose_fit(3, "H7"), "want"),
            (lambda j: j.choose_fit(3, "sloppy"), "want"),
            (lambda j: j.own_play(3, "50um", "10um"), "clearance_max"),
            (lambda j: j.name_thread(2, "coarse"), "thread"),
            (lambda j: j.choose_fit(2, "9Z"), "internal_class"),
            (lambda j: j.set_size("hub.diameter", "2"), "hub.diameter"),
            (lambda j: j.cut_made("0.5"), "dial"),
            (lambda j: j.measured_cut("9.51"), "reading"),
            (lambda j: j.set_cutting("deepest", "99"), "deepest"),
            (lambda j: j.set_runout("1 2"), "runout"),
            (lambda j: j.set_runout_limit("0"), "limit"),
            (lambda j: j.put_into_shop(), "verdict"),
        ):
            with self.subTest(key), self.assertRaises(BadInput) as no:
                act(self.job)
            self.assertEqual(no.exception.key, key)
        after = self.job.job, self.job.pieces["chuck-130"], self.daybook()
        self.assertEqual(after, before)

    def test_a_bare_number_is_in_the_instruments_own_unit(self):
        self.job.add_reading("lathe-nose", "register", "1.8107", "inch-micrometer")
        reading = self.job.surface("lathe-nose", "register").readings[-1]
        self.assertAlmostEqual(reading.value, 1.8107 * 25.4)

    def test_an_instrument_that_cannot_measure_this_is_refused(self):
        for gauge, says in (
            ("inch-micrometer", "measures 1.000 in to 2.000 in"),
            ("indicator", "does not measure bores"),
            ("caliper", "measures 0.0 mm to 150.0 mm"),
        ):
            typed = "200mm" if gauge == "caliper" else "95.02mm"
            with self.subTest(gauge), self.assertRaisesRegex(BadInput, says):
                surface = "body" if gauge == "inch-micrometer" else "recess"
                self.job.add_reading("chuck-130", surface, typed, gauge)

    def test_a_thou_of_play_is_as_welcome_as_a_code(self):
        self.job.choose_fit(3, "a thou")
        fit = self.job.job.fit(3)
        self.assertEqual((fit.clearance_min, fit.clearance_max), (0.0127, 0.0381))
        self.job.choose_fit(3, "20um")
        self.assertAlmostEqual(self.job.plan.fit(3).band["clearance_max"], 0.03)

    def test_the_notes_line_says_the_gravest_first_and_always_a_caution(self):
        for stage in STAGES:
            self.assertTrue(self.job.notes(stage).caution)
        self.assertFalse(self.job.notes("piece").grave)
        self.job.set_size("hub.diameter", "50")
        notes = self.job.notes("piece")
        self.assertTrue(notes.grave)
        self.assertIn("and 1 more", notes.open_checks)


class CutScreen(DemoJob):
    def begin_again(self):
        """Take back all cuts of the demo, the touch and the start."""
        while self.job.job.log.start is not None:
            self.job.undo()

    def test_what_it_asks_for_follows_the_work(self):
        self.begin_again()
        self.assertEqual(present(self.job).asks, "start")
        self.job.measure_start("96.024")
        self.assertEqual(present(self.job).asks, "touch")
        self.job.touch_at("1.2")
        screen = present(self.job)
        self.assertEqual((screen.asks, screen.head), ("cut", "Dial to"))
        self.assertNotIn("spindle stopped", screen.why, "a millimetre is left")
        self.job.cut_made()
        screen = present(self.job)
        self.assertEqual(screen.asks, "reading")
        self.assertIn("expected", screen.under)
        self.job.measured_cut("94.996")
        self.assertEqual(present(self.job).asks, "reading", "far from what was dialled")
        self.job.measured_cut("94.996")
        screen = present(self.job)
        self.assertEqual((screen.asks, screen.ink), ("trial", "proved"))
        self.job.answer_trial("tight")
        self.assertIn("burr", present(self.job).why)
        self.assertIn("94.991 to 95.002", present(self.job).under)

    def test_the_dial_is_said_in_its_own_reading_and_lines(self):
        """0.04 radial from 0.47 is 2.22 on a diameter dial touched at 1.20."""
        screen = present(self.job)
        self.assertEqual(screen.large, "2.22")
        self.assertIn("from 2.14: 4 lines", screen.under)
        self.assertIn("with the spindle stopped", screen.why, "it may be the last")

    def on_a_dial(self, reads, division):
        """The job afresh on a lathe of that dial, measured and touched."""
        lathe = replace(
            self.file.get("lathe"), dial_reads=reads, dial_division=division
        )
        job = self.file.get("back-plate-130").with_log(CutLog())
        self.file.act("shop", "Another dial.", lathe, job)
        self.job = OpenJob(self.file, "back-plate-130")
        self.job.measure_start("96.0")

    def test_an_inch_dial_is_read_and_typed_in_inches(self):
        """A thou of feed a line: 0.0254 mm of the tool, half of that in the work."""
        self.on_a_dial("radius", 0.0254)
        self.assertIn("in inches", present(self.job).under)
        self.job.touch_at(".050")
        self.assertEqual(self.daybook(), "Touched at 0.050 on the dial.")
        screen, advice = present(self.job), self.job.plan.advice
        self.assertEqual(screen.large, f"{0.050 + advice.dial / 25.4:.3f}")
        lines = round(advice.infeed / 0.0254)
        self.assertIn(f"from 0.050: {lines} lines", screen.under)
        self.job.cut_made("0.058")
        self.assertAlmostEqual(self.job.job.log.entries[-1].dial, 8 * 0.0254)
        self.assertEqual(self.daybook(), "Cut taken at 0.058 on the dial.")
        self.job.measured_cut("95.6")
        with self.assertRaisesRegex(BadInput, "stood at 0.058 already"):
            self.job.cut_made("0.04")

    def test_a_fine_dial_keeps_its_half_lines(self):
        self.on_a_dial("diameter", 0.005)
        self.job.touch_at("0.335")
        self.assertEqual(self.daybook(), "Touched at 0.335 on the dial.")
        self.assertRegex(present(self.job).large, r"^\d\.\d\d[05]$")

    def test_a_start_under_the_band_is_refused(self):
        self.begin_again()
        with self.assertRaisesRegex(BadInput, "already under the band"):
            self.job.measure_start("94.9")

    def test_where_the_dial_really_stands_may_be_typed(self):
        self.job.cut_made("2.30")
        self.assertAlmostEqual(self.job.job.log.entries[-1].dial, 0.55)

    def test_a_second_reading_of_the_same_surface_is_no_new_cut(self):
        count = len(self.job.job.log.entries)
        self.job.measured_cut("95.221")
        entries = self.job.job.log.entries
        self.assertEqual(len(entries), count + 1)
        self.assertEqual(entries[-1].dial, entries[-2].dial)

    def test_going_on_ends_the_hold(self):
        self.job.cut_made()
        self.job.measured_cut("94.997")
        self.job.answer_trial("goes on")
        self.assertLessEqual({"spigot", "prove-spigot"}, set(self.job.job.done))


TYPED = {
    "shop": "Ottermere Lane",
    "name": "Centre lathe 165 × 700",
    "centre_height": "165",
    "between_centres": "700",
    "swing_over_slide": "190",
    "speeds": "70, 45; 110,45",
    "dial_reads": "radius",
    "dial_division": "0.05",
    "lead_screw": "8tpi",
    "wheels": "20, 40",
}


class SettingUp(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = open_shop(Path(folder.name) / "shop.machinon", durable=False)
        self.addCleanup(self.file.close)

    def test_a_lathe_in_one_act(self):
        lathe = enter_first_machine(self.file, TYPED, inch=False)
        self.assertEqual(lathe.speeds, (45, 70, 110), "sorted, each once")
        self.assertEqual(lathe.dial_reads, "radius")
        self.file.undo("shop")
        self.assertEqual(self.file.entries("lathe"), [])

    def test_a_stepless_drive_is_a_range(self):
        typed = {**TYPED, "speeds": "50 to 2000"}
        lathe = enter_first_machine(self.file, typed, inch=False)
        self.assertEqual(lathe.speeds, (50, 2000))
        self.assertIn(1240, lathe.speed_choices)
        self.assertEqual(typed_lathe(lathe, False)["speeds"], "50 to 2000")
        with self.assertRaisesRegex(BadInput, "lowest to its highest"):
            enter_first_machine(self.file, {**TYPED, "speeds": "50-50"}, inch=False)

    def test_an_inch_lathe(self):
        typed = {
            **TYPED,
            "centre_height": "6.5",
            "between_centres": "24",
            "swing_over_slide": "7 1/2",
            "dial_division": ".001",
        }
        lathe = enter_first_machine(self.file, typed, inch=True)
        self.assertAlmostEqual(lathe.centre_height, 165.1)
        self.assertAlmostEqual(lathe.dial_division, 0.0254)
        self.assertTrue(self.file.shop().inch)

    def test_each_entry_is_refused_by_its_name(self):
        for key, text in (
            ("shop", "  "),
            ("name", "x" * 90),
            ("centre_height", "3"),
            ("between_centres", "far"),
            ("swing_over_slide", "400"),
            ("speeds", "45, fast"),
            ("speeds", ""),
            ("dial_division", "0"),
            ("lead_screw", "0tpi"),
            ("wheels", "20, 3.5"),
        ):
            with self.subTest(key, text=text), self.assertRaises(BadInput) as no:
                enter_first_machine(self.file, {**TYPED, key: text}, inch=False)
            self.assertEqual(no.exception.key, key)
        self.assertEqual(self.file.entries("lathe"), [], "nothing half done")

    def test_a_job_on_a_new_chuck_and_a_second_on_the_same(self):
        enter_first_machine(self.file, TYPED, inch=False)
        typed = {
            "what": "back-plate",
            "name": "Back plate",
            "mate.nose": self.file.get("lathe").nose,
            "mate.chuck": NEW_MATE,
            "name.chuck": "Four-jaw",
        }
        first = begin_job(self.file, typed)
        second = begin_job(self.file, {**typed, "mate.chuck": first.pieces[1]})
        self.assertNotEqual(first.id, second.id)
        self.assertEqual(first.pieces, second.pieces)
        self.assertEqual(self.file.get(first.pieces[1]).name, "Four-jaw")
        with self.assertRaises(BadInput) as no:
            begin_job(self.file, {**typed, "size.chuck.bolts": "many"})
        self.assertEqual(no.exception.key, "size.chuck.bolts")
        plan = OpenJob(self.file, first.id).plan
        self.assertIsNone(plan.made)
        self.assertEqual(len(plan.open["survey"]), 10)

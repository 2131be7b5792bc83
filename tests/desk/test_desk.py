import json
import os
import shutil
import signal
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

import pypdf
from PySide6.QtCore import Qt
from PySide6.QtGui import QFontMetricsF, QImage, QKeySequence, QRawFont
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QAbstractButton,
    QComboBox,
    QLineEdit,
    QMessageBox,
    QScrollArea,
    QWidget,
)

from machinon.core.errors import MachinonError
from machinon.core.shop.machines import MACHINE_KINDS
from machinon.desk import sheet
from machinon.desk.commands import COMMANDS
from machinon.desk.painter import font
from machinon.desk.piece_paper import write_piece
from machinon.desk.proof_paper import write_proof
from machinon.desk.settings import SETTINGS, Settings
from machinon.desk.shoot import JOB, finish, shoot
from machinon.desk.theme import BLUED, FONT_FILES, PAPER, THEMES
from machinon.draw.drawing import Text
from machinon.draw.lettering import text_width
from tests.desk.bench import WindowCase, application
from tests.trials import TIMES


class Tables(WindowCase):
    def test_every_command_has_a_handler_and_no_keys_are_given_twice(self):
        handlers = self.window.handlers()
        self.assertEqual({c.id for c in COMMANDS}, set(handlers))
        keys = [QKeySequence(c.keys).toString() for c in COMMANDS if c.keys]
        self.assertEqual(len(keys), len(set(keys)))
        self.assertNotIn("", keys, "every key is one Qt knows")

    def test_a_setting_that_is_not_allowed_falls_back(self):
        path = self.folder / "settings.ini"
        kept = Settings(path)
        kept.put("font_scale", 150)
        self.assertEqual(Settings(path).get("font_scale"), 150)
        path.write_text("[General]\nfont_scale=17\ntheme=rainbow\n")
        for key in ("font_scale", "theme"):
            self.assertEqual(Settings(path).get(key), SETTINGS[key].default)


class Themes(unittest.TestCase):
    def test_the_shipped_fonts_have_every_sign(self):
        application()
        folder = Path(sheet.__file__).parent / "fonts"
        fonts = [QRawFont(str(folder / name), 20) for name in FONT_FILES]
        for sign in "⌀±°′″µ−×½‹…“”0123456789":
            self.assertTrue(
                any(font.supportsCharacter(ord(sign)) for font in fonts), sign
            )

    def test_every_ink_can_be_read_on_its_ground(self):
        """Contrast of at least 4.5 : 1 (WCAG 2.1, 1.4.3) for text and marks."""
        for theme in THEMES.values():
            self.assertEqual(theme.inks.keys(), BLUED.inks.keys())
            for role in ("text", "faint", "cut", "measured", "proved", "stop"):
                for ground in ("ground", "panel"):
                    with self.subTest(theme=theme.key, role=role, ground=ground):
                        self.assertGreaterEqual(
                            _contrast(theme.ink(role), theme.ink(ground)), 4.5
                        )


def _contrast(ink, other) -> float:
    def light(color):
        parts = (color.redF(), color.greenF(), color.blueF())
        linear = [
            p / 12.92 if p <= 0.04045 else ((p + 0.055) / 1.055) ** 2.4 for p in parts
        ]
        return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]

    a, b = sorted((light(ink), light(other)))
    return (b + 0.05) / (a + 0.05)


class AtTheDesk(WindowCase):
    FLASHES = True

    def setUp(self):
        super().setUp()
        self.window.open_job(JOB)
        self.app.processEvents()

    def test_it_opens_in_the_stage_it_was_left_in(self):
        self.assertEqual(self.window.job_page().stage, "cut")

    def test_a_changed_reading_is_seen_in_every_stage_at_once(self):
        """The recess read 20 µm larger: all that shows the spigot follows."""
        piece = self.stage("piece")
        before = self.drawn(piece)
        self.assertIn("⌀94.997", before)
        survey = self.stage("survey")
        survey.choose("chuck-130", "recess")
        for index in (0, 1, 3, 4):
            self.job.strike("chuck-130", "recess", index, "worn edge")
        for size in ("95.038", "95.042", "95.04"):
            self.type(survey.reading.edit, size)
        self.assertIn("⌀95.017", self.drawn(self.stage("piece")))
        self.assertIn("95.01", self.window.job_page().targets.itemAt(2).widget().text())
        cut = self.stage("cut")
        self.assertTrue(self.until(lambda: "2." in cut.passes.text()))
        self.assertAlmostEqual(self.job.plan.cut_state.aim, 95.017, delta=0.0006)

    def test_a_piece_that_is_no_longer_drawn_cannot_be_bought(self):
        piece = self.stage("piece")
        self.assertTrue(piece.buy.isVisible())
        self.job.set_size("material", "brass")
        thread = self.job.pieces["lathe-nose"].surface("thread-major")
        for index in range(len(thread.readings)):
            self.job.strike("lathe-nose", "thread-major", index, "not clean")
        self.assertIsNone(self.job.plan.made)
        self.assertFalse(piece.buy.isVisible(), "at once: nothing could be worked out")

    def test_the_targets_are_those_of_the_fits_there_are(self):
        page = self.window.job_page()

        def shown():
            lines = (page.targets.itemAt(i) for i in range(page.targets.count()))
            return [line.widget().property("target") for line in lines]

        before = shown()
        first = self.job.add_fit("chuck-130", "bolt-span")
        second = self.job.add_fit("chuck-130", "recess")
        self.assertEqual(shown(), [*before, first, second])
        self.job.drop_fit(first)
        self.assertEqual(shown(), [*before, second], "its line goes with it")
        self.job.undo()
        self.assertEqual(shown(), [*before, first, second])
        self.click(page.targets.itemAt(len(before) + 1).widget())
        self.assertEqual(page.view().number(), second)

    def drawn(self, view):
        view.refresh()
        return [i.text for i in view.drawing.drawing().items if isinstance(i, Text)]

    def test_take_back_works_in_every_stage(self):
        def step():
            self.window.actions_by_id["edit.undo"].trigger()

        survey = self.stage("survey")
        survey.choose("chuck-130", "recess")
        self.type(survey.reading.edit, "95.021")
        for act, change in (
            ("survey", lambda: None),
            ("fits", lambda: self.job.choose_fit(3, "easy")),
            ("piece", lambda: self.job.set_size("hub.diameter", "80")),
            ("route", lambda: self.job.mark_step("holes", True)),
            ("cut", lambda: self.job.cut_made()),
            ("proof", lambda: self.job.set_thread_tried(True)),
        ):
            with self.subTest(act):
                self.stage(act)
                if act == "survey":
                    before = None
                else:
                    before = self.job.job
                    change()
                    self.assertNotEqual(self.job.job, before)
                step()
                if before is not None:
                    self.assertEqual(self.job.job, before)
        self.assertEqual(len(self.job.surface("chuck-130", "recess").readings), 5)
        self.window.actions_by_id["edit.redo"].trigger()

    def test_ctrl_z_in_an_empty_entry_takes_back_the_last_act(self):
        view = self.stage("cut")
        count = len(self.job.job.log.entries)
        self.type(view.field.edit, "")
        self.assertEqual(len(self.job.job.log.entries), count + 1)
        ctrl = Qt.KeyboardModifier.ControlModifier
        QTest.keyClick(view.field.edit, Qt.Key.Key_Z, ctrl)
        self.assertEqual(len(self.job.job.log.entries), count)

    def test_bad_input_is_answered_where_it_was_typed_and_loses_nothing(self):
        survey = self.stage("survey")
        for typed in ("abc", "1/0", "nan", "9e9", "-3", "95,02"):
            with self.subTest(typed):
                self.type(survey.reading.edit, typed)
                self.assertTrue(survey.reading.refused)
                self.assertEqual(survey.reading.text(), typed)
                self.assertTrue(survey.reading.message.text())
        name = survey.title.text()
        self.type(survey.reading.edit, "")
        self.assertNotEqual(survey.title.text(), name, "Enter alone goes on")
        cut = self.stage("cut")
        self.type(cut.field.edit, "1.1")
        self.assertIn("2.14 or more is allowed", cut.field.message.text())
        proof = self.stage("proof")
        self.type(proof.runout.edit, "0.01 0.02")
        self.assertIn("at least 3", proof.runout.message.text())
        self.assertEqual(proof.runout.text(), "0.01 0.02")

    def test_the_number_pad_types_into_the_entry(self):
        view = self.stage("cut")
        for key in ("2", ".", "2", "8", "⌫", "6"):
            view._pad(key)
        self.assertEqual(view.field.text(), "2.26")
        self.click(view.enter_button)
        self.assertAlmostEqual(self.job.job.log.entries[-1].dial, 0.53)
        self.assertEqual(view.head.text(), "Measure now")

    def test_a_reading_past_the_band_is_said_before_anything_else(self):
        view = self.stage("cut")
        self.type(view.field.edit, "")
        self.type(view.field.edit, "94.95")
        self.assertEqual(view.head.text(), "Measure now", "not on one reading")
        self.type(view.field.edit, "94.95")
        self.assertEqual(view.head.text(), "Stop: past the band")

    def test_at_the_machine_only_the_stage_is_left(self):
        self.stage("cut")
        self.window.at_the_machine()
        self.assertFalse(self.window.job_page().rail.isVisible())
        QTest.keyClick(self.window, Qt.Key.Key_Escape)
        self.assertTrue(self.window.job_page().rail.isVisible())

    def test_inches_first_changes_figures_not_sizes(self):
        made = self.job.plan.made.values
        self.assertTrue(self.window.file.shop().first_angle)
        self.window.actions_by_id["view.angle"].trigger()
        self.assertFalse(self.job.shop.first_angle)
        self.window.actions_by_id["view.units"].trigger()
        self.assertEqual(self.job.plan.made.values, made)
        view = self.stage("fits")
        view.show_fit(3)
        self.assertEqual(view.cylinder.aim.text(), "⌀3.7400")

    def test_every_theme_and_scale_shows_every_stage(self):
        for command in ("view.theme", "view.larger"):
            self.window.actions_by_id[command].trigger()
        for name in ("survey", "fits", "piece", "route", "cut", "proof"):
            self.stage(name)
        self.assertEqual(self.window.look.theme, PAPER)
        self.assertEqual(self.window.look.scale, 1.15)

    def test_a_change_of_light_keeps_what_is_chosen_and_half_typed(self):
        survey = self.stage("survey")
        survey.choose("chuck-130", "recess-depth")
        self.type(survey.reading.edit, "4.9", enter=False)
        self.window.swap_theme()
        survey = self.window.job_page().view()
        self.assertEqual(
            survey.at, ("chuck-130", "recess-depth"), "not that of another one"
        )
        self.assertEqual(survey.reading.edit.text(), "4.9")
        for stage, chosen in (("fits", 2), ("route", "bore"), ("proof", "fit.3")):
            view = self.stage(stage)
            view.at = chosen
            view.refresh()
            self.window.swap_theme()
            self.assertEqual(self.window.job_page().view().at, chosen, stage)

    def test_jobs_that_were_opened_and_left_leave_nothing_behind(self):
        """A change of the look is as quick at the end of the day as in the morning."""
        there = []
        for _ in range(2):
            self.window.open_job("back-plate-130")
            self.stage("cut")
            self.window.show_start()
            self.settle()
            there.append(len(self.app.allWidgets()))
        self.assertEqual(*there)

    def test_the_route_names_the_drill_that_the_shop_has(self):
        view = self.stage("route")
        view.choose("holes")
        self.assertEqual(view.own.text(), "Yours: drill 9 mm")
        view.choose("drill")
        self.assertIn("up to drill 13 mm", view.own.text())
        view.choose("hub")
        self.assertFalse(view.own.isVisible())

    def test_a_number_opens_to_its_working(self):
        view = self.stage("fits")
        view.show_fit(3)
        view.cylinder.band._open()
        opened = [w for w in self.app.topLevelWidgets() if "Working" in w.windowTitle()]
        self.assertTrue(opened)
        opened[0].close()

    def test_the_run_out_to_expect_is_said_before_cutting_and_opens_to_its_sum(self):
        says = "Each time it is mounted: up to 25 µm."
        self.assertIn(says, self.stage("fits").expected.says.text())
        proof = self.stage("proof")
        self.assertIn(says, proof.expected.says.text())
        self.click(proof.expected.sums)
        page = self.window.pages.currentWidget()
        self.assertEqual(page.question.reckoning.name, "runout-stack")
        names = [element["name"] for element in page.question.given["elements"]]
        self.assertEqual(names, ["Play of fit 1", "Play of fit 3"])

    def test_what_is_bought_stands_beside_the_drawing_and_its_length_opens(self):
        piece = self.stage("piece")
        self.assertIn("3 × cap screw M8 × 25, for the chuck", piece.with_it.text())
        self.click(piece.lengths)
        page = self.window.pages.currentWidget()
        self.assertEqual(page.question.reckoning.name, "screw-length")
        self.assertEqual(page.question.answer["stock"][0], 25)

    def test_the_daybook_can_be_read_found_in_and_added_to(self):
        self.window.actions_by_id["job.daybook"].trigger()
        page = self.window.pages.currentWidget()
        self.type(page.note.edit, "The plate rings: chill in the casting?")
        self.assertEqual(page.lines.topLevelItem(0).text(2)[:9], "The plate")
        self.type(page.find.edit, "thimble", enter=False)
        self.assertEqual(page.lines.topLevelItemCount(), 1)


NEVER = Qt.ScrollBarPolicy.ScrollBarAlwaysOff


class LittleRoom(WindowCase):
    """A small screen with large figures: more lines, nothing cut at the side."""

    SIZE, SCALE, HALF = (1024, 700), 1.5, 0

    def setUp(self):
        super().setUp()
        self.window.resize(*self.SIZE)
        self.window.settings.put("font_scale", round(100 * self.SCALE))
        self.window._dress()

    def cut_off(self) -> list[str]:
        """What is wider than its place, and what is pressed flat in it."""
        for _ in range(4):  # what follows the width of something asks again for room
            self.app.processEvents()
        entries = self.window.findChildren(QWidget)
        flat = [
            f"{it.accessibleName()}: {it.height()} of {it.minimumSizeHint().height()}"
            for it in entries
            if isinstance(it, QLineEdit | QComboBox | QAbstractButton)
            if it.isVisible() and it.height() < it.minimumSizeHint().height() - 1
        ]
        return flat + [
            f"{area.widget().minimumSizeHint().width()} in {area.viewport().width()}"
            for area in self.window.findChildren(QScrollArea)
            if area.isVisible() and area.horizontalScrollBarPolicy() == NEVER
            if area.widget().minimumSizeHint().width() > area.viewport().width()
        ]

    def test_every_stage_of_every_job(self):
        # each has some of the jobs; the trials have all of them
        jobs = self.window.file.entries("job")
        for entry in jobs if TIMES > 1 else jobs[self.HALF :: 3]:
            self.window.open_job(entry.id)
            stages = ("survey", "fits", "piece", "route", "cut", "proof")
            made = self.job.job.making
            for name in stages if made else stages[:2]:
                view = self.stage(name)
                with self.subTest(entry.name, stage=name):
                    self.assertEqual(self.cut_off(), [])
                for fit in self.job.plan.fits if name == "fits" else ():
                    view.show_fit(fit.choice.number)
                    with self.subTest(entry.name, fit=fit.choice.name):
                        self.assertEqual(self.cut_off(), [])

    def test_every_card_of_the_shop(self):
        self.window.show_shop()
        page = self.window.pages.currentWidget()
        cards = (
            ("lathe", "lathe"),
            ("machine", "mill"),
            ("instrument", "caliper"),
            ("shelf", "tools"),
            ("piece", "chuck-130"),
        )
        for kind, id in cards if TIMES > 1 else cards[self.HALF :: 2]:
            page.choose(kind, id)
            with self.subTest(kind):
                self.assertEqual(self.cut_off(), [])
        for kind in MACHINE_KINDS if TIMES > 1 else MACHINE_KINDS[self.HALF :: 2]:
            page.new_machine(kind)
            with self.subTest(kind):
                self.assertEqual(self.cut_off(), [])

    def test_a_new_job_of_any_family(self):
        self.window.actions_by_id["job.new"].trigger()
        what = self.window.pages.currentWidget().what
        keys = list(what.cards)
        for key in keys if TIMES > 1 else keys[self.HALF :: 4]:
            what.choose(key)
            self.app.processEvents()
            with self.subTest(key):
                self.assertEqual(self.cut_off(), [])

    def test_practice(self):
        self.window.actions_by_id["practice"].trigger()
        self.assertEqual(self.cut_off(), [])


class LargestFigures(LittleRoom):
    SIZE, SCALE, HALF = (1280, 800), 2.0, 1


class OtherJobs(WindowCase):
    def test_a_job_without_a_piece_family_says_so_and_survives_every_stage(self):
        self.window.open_job("dial-hub")
        for name in ("survey", "fits"):
            self.assertIsNotNone(self.stage(name))
        self.assertIsNone(self.stage("route"))
        self.assertIn("draws no piece", self.window.job_page().unready.title.text())


class Paper(WindowCase):
    def setUp(self):
        super().setUp()
        self.window.open_job(JOB)

    def test_the_proof_is_one_page_with_its_verdict(self):
        finish(self.job)
        path = self.folder / "proof.pdf"
        write_proof(self.job.plan, path)
        pages = pypdf.PdfReader(path).pages
        self.assertEqual(len(pages), 1)
        text = " ".join(pages[0].extract_text().split())
        self.assertIn("Back plate for the 130 mm three-jaw", text)
        self.assertIn("Proved", text)

    def test_what_is_still_to_be_proved_is_on_the_proof_sheet_to_its_last_word(self):
        path = self.folder / "proof.pdf"
        write_proof(self.job.plan, path)
        (page,) = pypdf.PdfReader(path).pages
        text = " ".join(page.extract_text().split())
        self.assertIn(" ".join(self.job.plan.verdict_says.split()), text)

    def test_the_drawing_is_written_whole_as_svg_and_pdf(self):
        for kind, start in (("svg", b"<?xml"), ("pdf", b"%PDF")):
            path = self.folder / f"drawing.{kind}"
            write_piece(self.job.plan.made, kind, path, False)
            self.assertTrue(path.read_bytes().startswith(start))
        self.assertEqual(list(self.folder.glob(".*part")), [])

    def test_a_drawing_for_other_programs_is_a_level_a4_page_within_its_margins(self):
        """And its words are as wide there, whatever type they are set in."""
        path = self.folder / "drawing.svg"
        write_piece(self.job.plan.made, "svg", path, False)
        drawn = path.read_text("utf-8")
        self.assertRegex(drawn, r'width="277\.\d+mm" height="189\.\d+mm"')
        self.assertEqual(drawn.count("<text"), drawn.count("textLength"))

    def test_what_takes_a_while_is_written_aside_and_can_be_cancelled(self):
        proof = self.stage("proof")
        path = self.folder / "plate.stl"
        proof.write_file("stl", path)
        self.assertIn("Writing plate.stl", proof.written.text())
        self.assertTrue(proof.cancel.isVisible())
        self.click(proof.cancel)
        self.assertIn("nothing was written", proof.written.text())
        proof.write_file("stl", path)
        self.assertTrue(self.until(lambda: proof.writing is None))
        self.assertIn(f"Written: {path}", proof.written.text())
        self.assertFalse(proof.cancel.isVisible())
        self.assertEqual(
            [path.name for path in self.folder.glob("*plate*")], [path.name]
        )
        proof.write_file("dxf", self.folder / "none" / "plate.dxf")
        self.assertTrue(self.until(lambda: proof.writing is None))
        self.assertIn("could not be written", proof.written.text())

    def test_the_title_block_says_all_of_it_in_the_units_of_the_sheet(self):
        """Stock of 135 mm is 5.315 in."""
        made, path = self.job.plan.made, self.folder / "drawing.pdf"
        for inch, stock in ((False, "From ⌀ 135 × 45"), (True, "From ⌀ 5.315")):
            write_piece(made, "pdf", path, inch)
            text = " ".join(pypdf.PdfReader(path).pages[0].extract_text().split())
            self.assertIn(made.family.purpose, text)
            self.assertIn(stock, text)

    def test_the_job_goes_out_as_json_with_its_daybook(self):
        path = self.folder / "plate.json"
        self.window.write_job(path)
        self.assertIn("Written", self.window.findChild(QMessageBox).text())
        job = json.loads(path.read_text())
        self.assertEqual(job["job"]["id"], JOB)
        self.assertLess(job["daybook"][0]["at"], job["daybook"][-1]["at"])

    def test_a_folder_that_is_not_there_gives_a_message(self):
        for kind in ("svg", "pdf"):
            path = self.folder / "none" / f"drawing.{kind}"
            with self.assertRaisesRegex(MachinonError, "could not be written"):
                write_piece(self.job.plan.made, kind, path, False)


class Lettering(unittest.TestCase):
    def test_words_are_as_wide_as_drawings_take_them_to_be(self):
        """No wider in the type they are painted in, in any size, and hardly less."""
        application()
        for words in (
            "46.006 to 46.013",
            "4 × ⌀9 × 22 deep, counterbore ⌀15 × 8.6",
            "Tongue in the slot: 13.931 to 13.966 mm",
            "M12 × 1.75, 2.5″, 30° ± 5′, 8.3 µm",
            "WASHER & NUT (à côté)",
        ):
            for size, bold in ((11, False), (13, False), (26, True)):
                with self.subTest(words, size=size, bold=bold):
                    metrics = QFontMetricsF(font(size, bold))
                    wide, taken = (
                        metrics.horizontalAdvance(words),
                        text_width(words, size),
                    )
                    self.assertLess(wide, taken + 1)
                    self.assertGreater(wide, 0.97 * taken - 1)


class Starting(unittest.TestCase):
    def machinon(self, *arguments, **environment):
        return subprocess.run(
            [sys.executable, "-m", "machinon", *arguments],
            capture_output=True,
            text=True,
            env={**os.environ, "QT_QPA_PLATFORM": "offscreen", **environment},
            timeout=60,
        )

    def test_version_and_help(self):
        self.assertRegex(self.machinon("--version").stdout, r"^Machinon \d")
        self.assertIn("--demo", self.machinon("--help").stdout)

    def test_a_wrong_file_is_named_and_left_as_it_is(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "letter.txt"
            path.write_text("Dear all")
            done = self.machinon(str(path))
            self.assertEqual(done.returncode, 2)
            self.assertIn("not a Machinon shop file", done.stderr)
            self.assertNotIn("Traceback", done.stderr)
            self.assertEqual(path.read_text(), "Dear all")

    def test_the_window_is_shown_before_the_database_is_loaded(self):
        """That takes longer than all before it."""
        script = """
import sys
from PySide6.QtWidgets import QMainWindow
def shown(window):
    print("sqlalchemy" in sys.modules, flush=True)
    sys.exit()
QMainWindow.show = shown
from machinon.main import main
main(["--demo"])
"""
        done = subprocess.run(
            [sys.executable, "-c", script],
            capture_output=True,
            text=True,
            env={**os.environ, "QT_QPA_PLATFORM": "offscreen"},
            timeout=60,
        )
        self.assertEqual(done.stdout.strip(), "False", done.stderr)

    def test_shooting_gives_a_picture_of_every_view(self):
        from machinon.store.demo_shop import demo_shop
        from machinon.store.opening import open_shop

        application()
        with tempfile.TemporaryDirectory() as folder:
            file = open_shop(demo_shop(Path(folder)), durable=False)
            shoot(file, Path(folder), Path(folder) / "shots")
            names = {p.stem for p in (Path(folder) / "shots").glob("*.png")}
            self.assertLessEqual(
                {"start", "survey", "fits", "piece", "route", "cut", "proof"}, names
            )
            image = QImage(str(Path(folder) / "shots" / "cut.png"))
            self.assertEqual((image.width(), image.height()), (1280, 800))


@unittest.skipUnless(shutil.which("Xvfb"), "Xvfb is not installed")
class RealWindow(unittest.TestCase):
    """The program as it is started, in a real window on a screen of its own."""

    def test_it_starts_shows_itself_and_ends_cleanly(self):
        read, write = os.pipe()
        screen = subprocess.Popen(
            ["Xvfb", "-displayfd", str(write), "-screen", "0", "1280x800x24"],
            pass_fds=(write,),
            stderr=subprocess.DEVNULL,
        )
        os.close(write)
        with os.fdopen(read) as told:
            display = f":{told.readline().strip()}"
        environment = {**os.environ, "DISPLAY": display, "QT_QPA_PLATFORM": "xcb"}
        program = subprocess.Popen(
            [sys.executable, "-c", _SEEN],
            env=environment,
            stdout=subprocess.PIPE,
            stderr=subprocess.PIPE,
            text=True,
        )
        try:
            out, err = program.communicate(timeout=60)
        finally:
            program.kill()
            screen.send_signal(signal.SIGTERM)
            screen.wait()
        self.assertEqual(program.returncode, 0, err)
        self.assertIn("xcb cut 2.22", out)


_SEEN = """
import sys, tempfile
from pathlib import Path
from PySide6.QtWidgets import QApplication
from PySide6.QtTest import QTest
from PySide6.QtCore import Qt
from machinon.desk.settings import Settings
from machinon.desk.theme import load_fonts
from machinon.desk.window import MainWindow
from machinon.store.demo_shop import demo_shop
from machinon.store.opening import open_shop
app = QApplication([])
load_fonts()
with tempfile.TemporaryDirectory() as folder:
    file = open_shop(demo_shop(Path(folder)), durable=False)
    window = MainWindow(Settings(None), Path(folder))
    window.open_file(file)
    window.show()
    QTest.qWaitForWindowExposed(window)
    QTest.mouseClick(window.pages.currentWidget().jobs[0], Qt.MouseButton.LeftButton)
    app.processEvents()
    page = window.job_page()
    print(app.platformName(), page.stage, page.view().large.text())
    window.close()
"""

"""What goes wrong is said where it matters, loses nothing, and ends nothing."""

import os
import signal
import sqlite3
import subprocess
import sys
import tempfile
import time
import unittest
from pathlib import Path
from unittest.mock import patch

from msgspec.structs import replace
from PySide6.QtCore import QRectF
from PySide6.QtGui import QImage, QPainter
from PySide6.QtWidgets import QMessageBox

from machinon.desk.faults import CANNOT, Faults, faults, say_cannot
from machinon.desk.widgets import DrawingView
from machinon.draw.drawing import Text
from machinon.store.opening import open_shop
from tests.desk.bench import WindowCase, application


class OrdinaryEntries(WindowCase):
    """Entries that once kept the program from starting, or brought it down."""

    def again(self):
        """Close and start again, as the next day."""
        self.window.settings.put("last_job", self.job.job.id)
        settings = self.window.settings
        self.close_window()
        self.open_window()
        self.window.settings = settings
        self.window.open_job(settings.get("last_job"))
        self.settle()

    def test_a_tiny_figure_is_kept_in_plain_decimals(self):
        self.window.open_job("dial-hub")
        self.job.give(1, "warm", "0.00005")
        self.assertEqual(self.job.job.fit(1).given["warm"], "0.00005")
        self.again()
        self.assertEqual(self.job.job.fit(1).given["warm"], "0.00005")

    def test_a_bolt_circle_on_a_span_alone_asks_for_what_it_lacks(self):
        self.window.open_job("dial-hub")
        self.job.take_piece("chuck-130")
        number = self.job.add_fit("chuck-130", "bolt-span")
        self.job.set_joint(number, "bolts")
        fit = self.job.plan.fit(number)
        self.assertIn("how many", fit.problem.lower())
        self.job.give(number, "holes", "3")
        self.assertAlmostEqual(
            self.job.plan.fit(number).circle["diameter"], 110, delta=0.2
        )
        self.again()
        self.assertTrue(self.job.plan.fit(number).circle)

    def test_one_mistyped_reading_and_proof_and_back(self):
        self.window.open_job("back-plate-130")
        view = self.stage("survey")
        view.choose("chuck-130", "bolt-hole")
        self.type(view.reading.edit, "6")
        for _ in range(6):
            self.stage("proof")
            self.window.grab()
            self.stage("survey")
            self.window.grab()

    def test_a_job_that_cannot_be_worked_out_is_never_kept(self):
        self.window.open_job("dial-hub")
        before = self.window.file.revisions("dial-hub")
        plan = self.job.plan
        with (
            patch("machinon.desk.acts.job.plan_of", side_effect=KeyError("diameter")),
            self.assertRaises(KeyError),
        ):
            self.job.rename_fit(1, "Other")
        self.assertEqual(self.window.file.revisions("dial-hub"), before)
        self.assertIs(self.job.plan, plan)


class NotOnDisk(WindowCase):
    def test_it_is_said_large_and_what_is_typed_is_kept_until_it_is_written(self):
        self.window.open_job("back-plate-130")
        view = self.stage("survey")
        view.choose("chuck-130", "recess")
        other = sqlite3.connect(self.path, isolation_level=None)
        self.addCleanup(other.close)
        other.execute("BEGIN IMMEDIATE")
        count = len(self.job.surface("chuck-130", "recess").readings)
        self.type(view.reading.edit, "95.021")
        bar = self.window.keeping.bar
        self.assertTrue(bar.isVisible())
        self.assertIn("locked", bar.says.text())
        self.assertIn("NOT on disk", self.window.job_page().saved.text())
        readings = self.job.surface("chuck-130", "recess").readings
        self.assertEqual(len(readings), count + 1)
        other.execute("ROLLBACK")
        bar.again.click()
        self.settle()
        self.assertFalse(bar.isVisible())
        self.assertIn("Every entry is on disk", self.window.job_page().saved.text())

    def test_a_second_window_may_look_and_says_so(self):
        looking = open_shop(self.path, look_only=True)
        self.window.file.close()
        self.window.open_file(looking)
        self.settle()
        self.assertTrue(self.window.keeping.bar.isVisible())
        self.assertIn("only be read", self.window.keeping.bar.says.text())

    def test_another_shop_is_opened_and_a_backup_put_back(self):
        self.window.open_job("back-plate-130")
        backup = self.folder / "backup.machinon"
        self.window.file.save_copy(backup)
        self.window.keeping.open_path(self.folder / "new.machinon")
        self.settle()
        self.assertEqual(self.window.file.entries("job"), [])
        self.window.keeping.open_path(self.path)
        self.job_name = self.window.file.entries("job")[0].id
        self.window.file.remove("shop", "Gone.", "dial-hub")
        self.window.keeping.restore_from(backup)
        self.settle()
        self.assertIn("dial-hub", [e.id for e in self.window.file.entries("job")])
        self.assertEqual(len(list(self.folder.glob("*-before-restore-*"))), 1)
        recent = [
            action.text() for action in self.window.keeping.recent_menu().actions()
        ]
        self.assertTrue(any("new.machinon" in path for path in recent))

    def test_a_damaged_job_leads_to_the_start_page_and_offers_the_one_before(self):
        self.window.open_job("dial-hub")
        before = self.job.job.fit(1).name
        self.job.rename_fit(1, "Renamed")
        self.close_window()
        self.damage("dial-hub")
        self.open_window()
        self.window.open_job("dial-hub")
        self.settle()
        self.assertIsNone(self.job)
        box = self.window.findChild(QMessageBox)
        self.assertIn("cannot be read", box.text())
        yes = next(b for b in box.buttons() if b.text() == "Use the One Before")
        yes.click()
        for _ in range(3):
            self.settle()
        self.assertEqual(self.job.job.fit(1).name, before)

    def damage(self, *ids):
        with sqlite3.connect(self.path) as other:
            for id in ids:
                other.execute(
                    "UPDATE revision SET body = x'00' WHERE id = "
                    "(SELECT revision_id FROM document WHERE id = ?)",
                    (id,),
                )
        other.close()

    def offered(self):
        boxes = [
            box for box in self.window.findChildren(QMessageBox) if box.isVisible()
        ]
        return boxes[0] if boxes else None

    def test_what_is_damaged_is_left_out_and_offered_as_it_was_before(self):
        """A piece and the shop's own gauges: the program starts, other jobs open."""
        file = self.window.file
        nose, shop = file.get("lathe-nose"), file.shop()
        file.act("shop", "Renamed.", replace(nose, name="Nose"))
        file.act("shop", "Renamed.", replace(shop, name="Another"))
        self.close_window()
        self.damage("lathe-nose", "shop")
        self.open_window()
        self.assertEqual(self.window.file.shop(), shop, "as it was before")
        self.assertIn("was damaged", self.window.file.daybook()[0].says)
        box = self.offered()
        self.assertIn("“Nose” cannot be read", box.text())
        self.window.open_job("dial-hub")
        self.assertEqual(self.job.job.id, "dial-hub", "it does not need the nose")
        self.window.show_shop()
        self.window.pages.currentWidget().choose("piece", "lathe-nose")
        self.assertIn("start page", self.window.pages.currentWidget().says.text())
        yes = next(b for b in box.buttons() if b.text() == "Use the One Before")
        yes.click()
        for _ in range(3):
            self.settle()
        self.assertEqual(self.window.file.get("lathe-nose"), nose)
        self.assertEqual(self.window.file.damaged, {})

    def test_a_damaged_job_is_no_hindrance_to_the_others(self):
        """What the lathe took in other jobs is learned from those that can be read."""
        self.damage("dial-hub")
        self.window.open_job("back-plate-130")
        self.assertEqual(self.job.job.id, "back-plate-130")
        self.assertIsNone(self.offered())


class Faulty(unittest.TestCase):
    def setUp(self):
        self.app = application()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def test_a_fault_is_said_once_and_reported_without_what_was_typed(self):
        told, own = [], Faults()
        own.tell, own.folder, own.doing = told.append, self.folder, "doing “Proof”"
        for _ in range(3):
            try:
                say_cannot(None, QRectF())
            except AttributeError as error:
                own.hook(type(error), error, None)
        self.assertEqual(len(told), 1)
        self.assertIn("Every entry is kept", told[0])
        (report,) = self.folder.iterdir()
        text = report.read_text()
        self.assertIn("machinon/desk/faults.py", text)
        self.assertNotIn(str(Path.home()), text)

    def test_what_cannot_be_laid_out_says_so_in_its_place(self):
        from machinon.desk.theme import THEMES
        from machinon.desk.widgets import Look

        def broken(*_):
            raise ZeroDivisionError

        before, tell = faults.count, faults.tell
        faults.tell = lambda _: None
        self.addCleanup(setattr, faults, "tell", tell)
        view = DrawingView(Look(THEMES["blued"], 1), broken, "Broken")
        view.resize(200, 100)
        view.grab()
        self.assertEqual(faults.count, before + 1)
        texts = [item.text for item in view.drawing().items if isinstance(item, Text)]
        self.assertEqual(texts, [CANNOT])

    def test_a_painter_is_ended_whatever_happens(self):
        picture = QImage(20, 20, QImage.Format.Format_RGB32)
        painter = QPainter(picture)
        say_cannot(painter, QRectF(0, 0, 20, 20))
        self.assertTrue(painter.end())


class Ended(unittest.TestCase):
    def test_a_terminated_demo_leaves_nothing_behind(self):
        with tempfile.TemporaryDirectory() as folder:
            child = subprocess.Popen(
                [sys.executable, "-m", "machinon", "--demo"],
                env={
                    **os.environ,
                    "QT_QPA_PLATFORM": "offscreen",
                    "TMPDIR": folder,
                },
                stderr=subprocess.DEVNULL,
            )
            for _ in range(200):
                time.sleep(0.1)
                if list(Path(folder).glob("machinon-*/*.machinon")):
                    break
            time.sleep(1)
            child.send_signal(signal.SIGTERM)
            self.assertEqual(child.wait(timeout=20), 0)
            self.assertEqual(list(Path(folder).iterdir()), [])

    def test_a_shop_without_a_name_is_refused(self):
        done = subprocess.run(
            [sys.executable, "-m", "machinon", "--shop", ""],
            capture_output=True,
            text=True,
            env={**os.environ, "QT_QPA_PLATFORM": "offscreen"},
        )
        self.assertEqual(done.returncode, 2)
        self.assertIn("name of a shop file", done.stderr)

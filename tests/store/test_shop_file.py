import contextlib
import os
import random
import signal
import sqlite3
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

import sqlalchemy as sa
from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from msgspec.structs import replace

from machinon.core.job.job import Job
from machinon.core.shop.things import Piece, Reading, Shop, Surface
from machinon.store.demo_shop import demo_shop
from machinon.store.opening import (
    APPLICATION_ID,
    HEAD,
    KNOWN,
    back_up,
    open_shop,
)
from machinon.store.shop_file import ShopFileError
from tests.trials import SEED, TIMES


def chuck(*sizes: float) -> Piece:
    readings = tuple(Reading(size, "bore-gauge") for size in sizes)
    return Piece(
        "chuck",
        "Chuck",
        "chuck",
        "cast iron",
        (Surface("recess", "Recess", "inside", "", readings),),
    )


class ShopFileCase(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "shop.machinon"

    def open(self):
        file = open_shop(self.path, durable=False)
        self.addCleanup(file.close)
        return file


class Acts(ShopFileCase):
    def test_what_is_kept_is_there_after_reopening(self):
        file = self.open()
        file.act("shop", "Shop set up.", Shop(name="Ottermere Lane", inch=True))
        file.act("job", "Measured.", chuck(95.02))
        file.close()
        again = self.open()
        self.assertTrue(again.shop().inch)
        self.assertEqual(again.get("chuck"), chuck(95.02))

    def test_taken_back_and_done_again_across_a_restart(self):
        file = self.open()
        file.act("job", "First.", chuck(95.02))
        file.act("job", "Second.", chuck(95.02, 95.03))
        self.assertEqual(file.undo("job"), "Second.")
        file.close()
        file = self.open()
        self.assertEqual(file.get("chuck"), chuck(95.02))
        self.assertEqual(file.redo("job"), "Second.")
        self.assertEqual(file.get("chuck"), chuck(95.02, 95.03))
        file.undo("job")
        file.undo("job")
        self.assertIsNone(file.get("chuck"))
        self.assertEqual(file.undo("job"), "")

    def test_a_new_act_ends_what_could_be_done_again(self):
        file = self.open()
        file.act("job", "First.", chuck(1))
        file.act("job", "Second.", chuck(2))
        file.undo("job")
        file.act("job", "Other.", chuck(3))
        self.assertEqual(file.redoable("job"), "")
        self.assertEqual(file.undoable("job"), "Other.")
        self.assertEqual(file.revisions("chuck"), 3, "every revision is kept")

    def test_one_job_cannot_take_back_what_another_has_built_on(self):
        file = self.open()
        file.act("first", "First job measures.", chuck(1))
        file.act("second", "Second job measures.", chuck(1, 2))
        with self.assertRaisesRegex(ShopFileError, "changed from another job"):
            file.undo("first")
        self.assertEqual(file.get("chuck"), chuck(1, 2))

    def test_the_stage_is_where_the_job_was_left_not_an_act(self):
        file = self.open()
        job = Job("plate", "Plate")
        file.act("plate", "Begun.", job)
        file.leave_at("plate", "cut")
        file.act("plate", "Changed.", replace(job, reason="new"))
        file.undo("plate")
        self.assertEqual(file.entries("job")[0].stage, "cut")

    def test_what_was_kept_last_is_listed_first_within_one_second_too(self):
        file = self.open()
        for id in ("b", "a", "c", "b"):
            file.act(id, "Kept.", Job(id, id))
        with contextlib.closing(sqlite3.connect(self.path)) as beside, beside:
            beside.execute("update document set touched_at = '2026-01-01'")
        self.assertEqual([entry.id for entry in file.entries("job")], ["b", "c", "a"])

    def test_ids_are_never_given_twice(self):
        file = self.open()
        file.act("job", "", chuck())
        file.undo("job")
        self.assertEqual(file.new_id("Chuck"), "chuck-2", "redo may bring it back")
        self.assertEqual(file.new_id("⌀ 80 / saw"), "80-saw")


class Daybook(ShopFileCase):
    def test_every_act_leaves_a_line_and_undo_adds_one(self):
        file = self.open()
        file.act("job", "Measured.", chuck(1))
        file.note("job", "Chips on the shoulder.")
        file.undo("job")
        says = [line.says for line in file.daybook("job")]
        self.assertEqual(
            says, ["Undone: Measured.", "Chips on the shoulder.", "Measured."]
        )

    def test_no_line_can_be_changed_or_removed_by_any_program(self):
        self.open().note("shop", "As it was.")
        with sqlite3.connect(self.path) as other:
            for doing in ("UPDATE daybook SET says = ''", "DELETE FROM daybook"):
                with self.assertRaisesRegex(sqlite3.Error, "only added to"):
                    other.execute(doing)


class PowerCut(ShopFileCase):
    def test_every_acknowledged_reading_survives_being_killed(self):
        """A process types readings and says each one; it is killed in the middle."""
        for after in random.Random(SEED).choices(range(1, 60), k=TIMES):
            self.path.unlink(missing_ok=True)
            with self.subTest(after=after):
                self.killed_after(after)

    def killed_after(self, count):
        child = subprocess.Popen(
            [sys.executable, "-c", _TYPING, str(self.path)],
            stdout=subprocess.PIPE,
            text=True,
            env={**os.environ, "PYTHONUNBUFFERED": "1"},
        )
        acknowledged = 0
        for line in child.stdout:
            acknowledged = int(line)
            if acknowledged == count:
                child.send_signal(signal.SIGKILL)
                break
        rest = child.stdout.read().split()
        child.stdout.close()
        self.assertEqual(child.wait(), -signal.SIGKILL)
        acknowledged = int(rest[-1]) if rest else acknowledged
        with contextlib.closing(open_shop(self.path)) as file:
            readings = file.get("chuck").surfaces[0].readings
            lines = file.daybook()
        self.assertGreaterEqual(len(readings), acknowledged)
        self.assertEqual([r.value for r in readings], list(range(1, len(readings) + 1)))
        self.assertEqual(len(lines), len(readings))


_TYPING = """
import sys
from pathlib import Path
from machinon.store.opening import open_shop
from tests.store.test_shop_file import chuck
file = open_shop(Path(sys.argv[1]))
for count in range(1, 100000):
    file.act("job", f"Reading {count}.", chuck(*range(1, count + 1)))
    print(count)
"""


class WrongFiles(ShopFileCase):
    def refused(self, says):
        before = self.path.read_bytes()
        with self.assertRaisesRegex(ShopFileError, says) as no:
            open_shop(self.path)
        self.assertIn(str(self.path), str(no.exception))
        self.assertEqual(self.path.read_bytes(), before, "left as it was")

    def test_a_text_file(self):
        self.path.write_text("not a shop" * 200)
        self.refused("not a Machinon shop file")

    def test_another_programs_database(self):
        with sqlite3.connect(self.path) as other:
            other.execute("CREATE TABLE notes (id)")
        self.refused("not a Machinon shop file")

    def test_a_file_from_a_newer_machinon(self):
        open_shop(self.path).close()
        with sqlite3.connect(self.path) as other:
            other.execute("UPDATE alembic_version SET version_num = '9999'")
        other.close()
        self.refused("newer Machinon")

    def test_a_truncated_file(self):
        open_shop(self.path).close()
        self.path.write_bytes(self.path.read_bytes()[:700])
        self.refused("damaged|not a Machinon")


class Migrations(ShopFileCase):
    def config(self):
        config = Config()
        config.set_main_option("script_location", "machinon.store:migrations")
        return config

    def test_the_code_knows_the_newest_step(self):
        script = ScriptDirectory.from_config(self.config())
        self.assertEqual(script.get_current_head(), HEAD)
        self.assertEqual(
            sorted(s.revision for s in script.walk_revisions()), sorted(KNOWN)
        )

    def test_a_file_of_the_first_form_is_brought_up_to_date(self):
        engine = sa.create_engine(f"sqlite:///{self.path}")
        config = self.config()
        with engine.begin() as connection:
            connection.exec_driver_sql(f"PRAGMA application_id={APPLICATION_ID}")
            config.attributes["connection"] = connection
            command.upgrade(config, KNOWN[0])
        engine.dispose()
        file = self.open()
        file.act("shop", "Opened.", Shop(name="Old shop"))
        self.assertEqual(file.daybook()[0].says, "Opened.")


class Demo(unittest.TestCase):
    def test_the_demo_shop_has_eight_jobs_at_different_stages_five_past_fits(self):
        with tempfile.TemporaryDirectory() as folder:
            path = demo_shop(Path(folder))
            copy = Path(folder) / "copy.machinon"
            back_up(path, copy)
            file = open_shop(copy)
            stages = {entry.id: entry.stage for entry in file.entries("job")}
            self.assertEqual(stages["back-plate-130"], "cut")
            self.assertEqual(len(stages), 8)
            past = [
                stage for stage in stages.values() if stage not in ("survey", "fits")
            ]
            self.assertEqual(set(past), {"route", "cut", "proof"})
            self.assertEqual(len(past), 5)
            self.assertGreater(len(file.get("back-plate-130").log.entries), 1)
            nuts, arbor = file.get("t-nuts"), file.get("expanding-arbor")
            self.assertEqual(nuts.making.sizes, {"nuts.count": "8"})
            self.assertEqual(nuts.done, ("square-strip", "mill-rebate_front"))
            self.assertEqual(arbor.log.trial, "goes on")
            file.close()

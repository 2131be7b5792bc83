"""Nothing typed is lost: full disks, locks, kills, two writers, damaged documents."""

import json
import os
import random
import shutil
import signal
import sqlite3
import subprocess
import sys
import tempfile
import time
import unittest
import zlib
from pathlib import Path
from unittest import mock

import msgspec
import sqlalchemy as sa

from machinon.core.families import family_for
from machinon.core.job.job import CutLog, Job
from machinon.core.piece.made import make
from machinon.core.shop.things import Shop
from machinon.core.sizes.fit import FitChoice
from machinon.store.database import PATIENCE
from machinon.store.documents import Unreadable, packed, unpacked
from machinon.store.opening import (
    KNOWN,
    ShopBusy,
    back_up,
    open_shop,
    restore,
    shelter_of,
)
from machinon.store.shop_file import Damaged, ShopFileError, Stale
from machinon.store.upgrades import FORMAT
from tests.store.test_shop_file import ShopFileCase, chuck
from tests.trials import SEED, TIMES

SAMPLES = Path(__file__).parent / "samples"


class StoredFormats(unittest.TestCase):
    def test_documents_of_format_1_open_with_what_they_meant(self):
        """They left out whatever was as usual then."""
        stored = json.loads((SAMPLES / "format_1.json").read_text())
        read = {
            key: unpacked(zlib.compress(json.dumps(document).encode()))
            for key, document in stored.items()
        }
        sizes = read["back-plate-130"].making.sizes
        self.assertEqual(sizes["bolts.screw"], "M8")
        self.assertEqual(sizes["spigot.height"], "3.5mm")
        self.assertEqual(read["lathe"].dial_reads, "diameter")
        self.assertEqual(read["back-plate-130"].proof.runout_limit, 0.02)
        self.assertTrue(read["chuck-130"].surfaces[0].readings)

    def test_a_back_plate_of_an_older_format_is_a_piece_with_everything_in_it(self):
        """Before format 4 it had sizes, a log and a proof of its own."""
        for number in (2, 3):
            with self.subTest(number):
                stored = json.loads((SAMPLES / f"format_{number}.json").read_text())
                job = unpacked(zlib.compress(stored["back-plate-130"].encode()))
                self.assertEqual(job.making.family, "back-plate")
                self.assertEqual(job.making.sizes["flange.diameter"], "130mm")
                self.assertEqual(job.making.material, "cast iron")
                self.assertEqual(job.making.mates["chuck"], "chuck-130")
                self.assertEqual(job.cutting, 3)
                self.assertGreater(len(job.log.entries), 1, "its spigot's cuts")
                self.assertEqual(job.fit(2).joint, "thread")
                proved = [surface.id for surface in job.proof.surfaces]
                self.assertEqual(proved, ["fit.1", "fit.3", "fit.4"])

    def made_before(self, family, **sizes):
        """What a job of format 3 with these sizes makes now."""
        job = json.loads(json.loads((SAMPLES / "format_3.json").read_text())["nuts"])
        sizes = {key.replace("_", ".", 1): text for key, text in sizes.items()}
        making = {"family": family, "sizes": sizes, "mates": {}, "material": ""}
        job["document"] |= {"making": making, "fits": []}
        read = unpacked(zlib.compress(json.dumps(job).encode())).making
        return read, make(family_for(read), read.sizes)

    def test_a_block_of_an_older_format_keeps_its_features_as_parts(self):
        """Before format 4 it had one pattern of holes, one bore, one stud hole."""
        usual, made = self.made_before("plate-block")
        self.assertEqual(usual.parts, ("holes1", "edge1"))
        points = sorted(made.body.feature("holes1").points)
        self.assertEqual(points, [(15, 15), (15, 45), (85, 15), (85, 45)])
        read, made = self.made_before(
            "plate-block",
            holes_pattern="circle",
            holes_across="6",
            bore_diameter="20mm",
            stud_thread="M12",
            stud_from_side="= bore.diameter",
            edge_leg="0mm",
        )
        self.assertEqual(read.parts, ("ring1", "bore1", "hole1"))
        self.assertEqual(made.body.feature("ring1").pattern.diameter, 42)
        self.assertEqual(made.body.feature("hole1").points, [(20, 30)])

    def test_a_turned_piece_of_an_older_format_keeps_its_features_as_parts(self):
        """Before format 4 it had room for five steps, and each feature once."""
        read, made = self.made_before(
            "turned-piece",
            step2_length="0mm",
            bore_diameter="= step1.diameter/2",
            recess_diameter="= bore.diameter + 4",
            thread_thread="M24",
        )
        parts = ("step1", "step3", "bore1", "bore2", "thread1", "edge1", "edge2")
        self.assertEqual(read.parts, parts)
        self.assertEqual(read.sizes["bore2.diameter"], "= bore1.diameter + 4")
        self.assertEqual(read.sizes["bore2.floor"], "flat")
        self.assertEqual(made.values["bore2.diameter"], 14)
        self.assertEqual(made.body.ends, (0, 50))

    def test_of_older_steps_nobody_knows_what_they_were_cut_to(self):
        stored = json.loads((SAMPLES / "format_4.json").read_text())
        job = unpacked(zlib.compress(stored["back-plate-130"].encode()))
        self.assertTrue(job.done)
        self.assertEqual(job.work.done_as, {})

    def test_drawings_of_an_older_format_stay_third_angle(self):
        stored = json.loads((SAMPLES / "format_5.json").read_text())
        self.assertIn('"first_angle":true', stored["shop"])
        shop = unpacked(zlib.compress(stored["shop"].encode()))
        self.assertFalse(shop.first_angle)

    def test_rules_of_an_older_format_round_in_millimetres(self):
        for number, inch in ((9, False), (10, True)):
            stored = json.loads((SAMPLES / f"format_{number}.json").read_text())
            nuts = unpacked(zlib.compress(stored["nuts"].encode()))
            self.assertIs(nuts.making.inch, inch)

    def test_an_odd_flat_of_an_older_format_stays_where_it_was(self):
        """Before format 11 it was 8.5 off the axis where 17 was typed; on ⌀20 that is
        18.5 to the far side. Two flats stay 17 across."""
        job = json.loads(json.loads((SAMPLES / "format_10.json").read_text())["nuts"])
        making = job["document"]["works"][0]["making"]
        sizes = {
            "step1.diameter": "20",
            "step1.length": "30",
            "flat1.count": "1",
            "flat1.across": "17",
            "flat2.count": "2",
            "flat2.across": "= step1.diameter - 3",
            "flat2.from_end": "15",
            "flat3.count": "3",
            "flat3.across": "= flat2.across",
            "flat3.from_end": "25",
            "flat3.length": "4",
        }
        parts = ["step1", "flat1", "flat2", "flat3"]
        making |= {"family": "turned-piece", "parts": parts, "sizes": sizes}
        making["mates"] = {}
        read = unpacked(zlib.compress(json.dumps(job).encode())).making
        self.assertEqual(read.sizes["flat1.across"], "= (17)/2 + 10mm")
        self.assertEqual(read.sizes["flat2.across"], "= step1.diameter - 3")
        made = make(family_for(read), read.sizes)
        self.assertEqual(
            [made.body.feature(name).across for name in parts[1:]], [17, 17, 17]
        )

    def test_every_stored_sample_opens(self):
        for number in range(1, FORMAT + 1):
            stored = json.loads((SAMPLES / f"format_{number}.json").read_text())
            for key, written in stored.items():
                text = written if isinstance(written, str) else json.dumps(written)
                with self.subTest(number, document=key):
                    document = unpacked(zlib.compress(text.encode()))
                    if key == "shop":
                        self.assertEqual(bool(document.lessons), number > 8)

    def test_documents_of_the_present_format_open_as_they_are_stored(self):
        """A change of this sample's meaning needs a new format and a step."""
        stored = json.loads((SAMPLES / f"format_{FORMAT}.json").read_text())
        for key, text in stored.items():
            with self.subTest(key):
                document = unpacked(zlib.compress(text.encode()))
                self.assertEqual(zlib.decompress(packed(document)).decode(), text)

    def test_every_size_is_written_also_where_it_is_the_usual_one(self):
        text = zlib.decompress(
            packed(Job("a", "A", fits=(fit(),)).with_log(CutLog()))
        ).decode()
        for size in ("clearance_min", "deepest", "runout_limit"):
            self.assertIn(size, text)

    def test_small_figures_that_format_1_wrote_in_powers_are_read(self):
        job = Job("a", "A", fits=(fit(given={"warm": "5e-05"}),))
        plain = msgspec.to_builtins(job)
        plain["fits"][0]["kind"] = "cylinder"  # as format 1 had it
        old = zlib.compress(msgspec.json.encode(plain))
        self.assertEqual(unpacked(old).fits[0].given["warm"], "0.00005")

    def test_a_newer_format_is_refused_with_both_numbers(self):
        body = zlib.compress(b'{"format":99,"document":{}}')
        with self.assertRaisesRegex(Unreadable, f"99.*up to {FORMAT}"):
            unpacked(body)


def fit(**more) -> FitChoice:
    return FitChoice(1, "Fit", "chuck", "recess", "hole", **more)


class Troubled(ShopFileCase):
    """A shop file that stops being writable while it is in use."""

    def setUp(self):
        super().setUp()
        state = self.path.parent / "state"
        before = os.environ.get("XDG_STATE_HOME")
        os.environ["XDG_STATE_HOME"] = str(state)

        def back():
            os.environ.pop("XDG_STATE_HOME")
            if before is not None:
                os.environ["XDG_STATE_HOME"] = before

        self.addCleanup(back)
        self.file = open_shop(self.path)
        self.addCleanup(self.file.close)
        self.file.act("job", "First.", chuck(1))

    def on_disk(self):
        """What another program finds in the file that bears the name."""
        with tempfile.TemporaryDirectory() as folder:
            copy = Path(folder) / "copy.machinon"
            shutil.copy(self.path, copy)
            file = open_shop(copy, durable=False)
            try:
                return file.get("chuck")
            finally:
                file.close()

    def fail_writes(self, words):
        """Every write from now on fails as the disk or system would say it."""

        def refuse(_c, _cursor, statement, *_):
            if statement.startswith(("BEGIN IMMEDIATE", "INSERT", "UPDATE")):
                raise sqlite3.OperationalError(words)

        sa.event.listen(self.file._engine, "before_cursor_execute", refuse)
        return lambda: sa.event.remove(
            self.file._engine, "before_cursor_execute", refuse
        )

    def test_what_cannot_be_written_is_said_kept_and_written_later(self):
        for words, said in (
            ("database or disk is full", "disk is full"),
            ("attempt to write a readonly database", "may not be written"),
            ("disk I/O error", "does not answer"),
        ):
            with self.subTest(words):
                heard = []
                self.file.on_trouble = lambda h=heard: h.append(self.file.trouble)
                self.file.act("job", "Before.", chuck(1))
                mend = self.fail_writes(words)
                self.file.act("job", "Sheltered.", chuck(1, 2))
                self.assertIn(said, self.file.trouble)
                self.assertEqual(len(heard), 1)
                self.assertEqual(self.file.get("chuck"), chuck(1, 2))
                self.assertEqual(self.on_disk(), chuck(1))
                self.assertTrue(shelter_of(self.path).exists())
                mend()
                self.assertTrue(self.file.retry())
                self.assertEqual(self.file.trouble, "")
                self.assertEqual(self.on_disk(), chuck(1, 2))
                self.assertFalse(shelter_of(self.path).exists())

    def test_a_locked_file_is_not_waited_for_and_entries_follow(self):
        other = sqlite3.connect(self.path, isolation_level=None)
        self.addCleanup(other.close)
        other.execute("BEGIN IMMEDIATE")
        asked = []
        sa.event.listen(
            self.file._engine,
            "before_cursor_execute",
            lambda _connection, _cursor, statement, *_: asked.append(statement),
        )
        self.file.act("job", "Second.", chuck(1, 2))
        self.assertIn("locked", self.file.trouble)
        waited = asked.count("BEGIN IMMEDIATE") * PATIENCE
        self.assertTrue(0 < waited < 2, f"{waited} s: the window stands still so long")
        other.execute("ROLLBACK")
        self.file.act("job", "Third.", chuck(1, 2, 3))
        self.assertEqual(self.file.trouble, "")
        self.assertEqual(self.on_disk(), chuck(1, 2, 3))

    def test_a_file_taken_away_takes_nothing_along(self):
        moved = self.path.with_name("moved.machinon")
        self.path.rename(moved)
        self.assertEqual(self.file.get("chuck"), chuck(1), "it can still be read")
        self.file.act("job", "Second.", chuck(1, 2))
        self.assertIn("no longer there", self.file.trouble)
        copy = self.path.with_name("elsewhere.machinon")
        self.file.save_copy(copy)
        saved = open_shop(copy, durable=False)
        self.assertEqual(saved.get("chuck"), chuck(1, 2))
        saved.close()
        moved.rename(self.path)
        self.assertTrue(self.file.retry())
        self.assertEqual(self.on_disk(), chuck(1, 2))

    def test_another_file_in_its_place_is_left_alone(self):
        self.path.unlink()
        self.path.write_bytes(b"something else")
        self.file.act("job", "Second.", chuck(1, 2))
        self.assertIn("another file", self.file.trouble)
        self.assertFalse(self.file.retry())
        self.assertEqual(self.path.read_bytes(), b"something else")

    def test_a_file_overwritten_in_use_leaves_what_was_read(self):
        with self.path.open("r+b") as file:
            file.write(os.urandom(self.path.stat().st_size))
        self.file.act("job", "Second.", chuck(1, 2))
        self.assertTrue(self.file.trouble)
        self.assertEqual(self.file.get("chuck"), chuck(1, 2))
        copy = self.path.with_name("elsewhere.machinon")
        self.file.save_copy(copy)
        saved = open_shop(copy, durable=False)
        self.addCleanup(saved.close)
        self.assertEqual(saved.get("chuck"), chuck(1, 2))

    def test_what_was_sheltered_is_brought_back_at_the_next_start(self):
        self.fail_writes("database or disk is full")
        self.file.act("job", "Sheltered.", chuck(1, 2))
        self.file.close()
        again = open_shop(self.path)
        self.addCleanup(again.close)
        self.assertEqual(again.get("chuck"), chuck(1))
        self.assertEqual(again.left_over(), 1)
        self.assertTrue(again.bring_back())
        self.assertEqual(again.get("chuck"), chuck(1, 2))
        self.assertEqual(again.left_over(), 0)

    def test_what_was_sheltered_never_goes_over_newer_entries(self):
        mend = self.fail_writes("database or disk is full")
        self.file.act("job", "Sheltered.", chuck(1, 2))
        self.file.close()
        mend()
        again = open_shop(self.path)
        self.addCleanup(again.close)
        again.act("job", "Other.", chuck(9))
        self.assertFalse(again.bring_back())
        self.assertIn("changed the file meanwhile", again.trouble)


class TwoWriters(ShopFileCase):
    def test_one_writes_and_a_second_may_only_look(self):
        first = open_shop(self.path)
        self.addCleanup(first.close)
        first.act("job", "First.", chuck(1))
        with self.assertRaisesRegex(ShopBusy, "open it to read only"):
            open_shop(self.path)
        looking = open_shop(self.path, look_only=True)
        self.addCleanup(looking.close)
        self.assertEqual(looking.get("chuck"), chuck(1))
        with self.assertRaisesRegex(ShopFileError, "open to read only"):
            looking.act("job", "Second.", chuck(2))
        first.act("job", "Second.", chuck(1, 2))
        self.assertEqual(looking.get("chuck"), chuck(1, 2))

    def test_the_next_may_write_once_the_first_has_closed_or_was_killed(self):
        open_shop(self.path).close()
        child = subprocess.Popen(
            [sys.executable, "-c", _HOLDING, str(self.path)], stdout=subprocess.PIPE
        )
        child.stdout.readline()
        with self.assertRaises(ShopBusy):
            open_shop(self.path)
        child.kill()
        child.wait()
        child.stdout.close()
        open_shop(self.path).close()

    def test_a_lock_that_lost_its_name_meanwhile_is_no_lock(self):
        """Another lets go, and its lock file with it, just as we take hold of it."""
        open_shop(self.path).close()
        lock = self.path.with_name(f".{self.path.name}.open")
        with (
            mock.patch("fcntl.flock", side_effect=lambda *_: lock.unlink()),
            self.assertRaises(ShopBusy),
        ):
            open_shop(self.path)
        open_shop(self.path).close()

    def test_a_stale_revision_is_refused_never_written_over(self):
        file = self.open()
        file.act("job", "First.", chuck(1))
        with sqlite3.connect(self.path) as other:
            other.execute("INSERT INTO act VALUES (99, 'job', 'x', '', 'done')")
            other.execute(
                "INSERT INTO revision VALUES (99, 'chuck', 99, NULL, ?)",
                (packed(chuck(7)),),
            )
            other.execute("UPDATE document SET revision_id = 99")
        other.close()
        with self.assertRaises(Stale):
            file.act("job", "Second.", chuck(1, 2))
        self.assertEqual(file.get("chuck"), chuck(7))


_HOLDING = """
import sys, time
from pathlib import Path
from machinon.store.opening import open_shop
file = open_shop(Path(sys.argv[1]))
print("open", flush=True)
time.sleep(60)
"""


class Killed(ShopFileCase):
    """Killed at any moment while a shop is made or brought up to date."""

    def killed_after(self, seconds, code):
        child = subprocess.Popen(
            [sys.executable, "-c", code, str(self.path)],
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
        )
        child.stdout.readline()
        time.sleep(seconds)
        child.send_signal(signal.SIGKILL)
        child.stdout.close()
        child.wait()

    def test_an_entry_half_written_when_it_was_killed_is_taken_back(self):
        """What does not fit in its memory goes to the disk before the entry ends, its
        journal beside it: for reading alone such a file cannot be opened."""
        for look_only in (False, True):
            file = open_shop(self.path)
            journal = self.path.with_name(f"{self.path.name}-journal")
            file.act("job", "First.", chuck(1))
            self.assertTrue(journal.exists())
            file.close()
            self.assertFalse(journal.exists(), "nothing is left beside a closed shop")
            self.killed_after(0, _HALF_WRITTEN)
            self.assertGreater(journal.stat().st_size, 0)
            file = open_shop(self.path, look_only=look_only)
            self.assertEqual(file.get("chuck"), chuck(1))
            file.close()
            self.assertFalse(journal.exists())

    def test_a_shop_killed_while_it_is_made_can_be_opened(self):
        for i in range(4 * TIMES):
            self.path.unlink(missing_ok=True)
            self.killed_after(i * 0.03 / TIMES, _MAKING)
            file = open_shop(self.path)
            file.act("shop", "Named.", Shop(name="Lane"))
            file.close()

    def test_a_shop_killed_while_it_is_upgraded_can_be_opened(self):
        old = self.path.with_name("old.machinon")
        file = open_shop(old)
        file.act("job", "First.", chuck(1))
        file.close()
        with sqlite3.connect(old) as other:
            other.execute("UPDATE alembic_version SET version_num = ?", (KNOWN[-2],))
        other.close()
        for i in range(4 * TIMES):
            shutil.copy(old, self.path)
            self.killed_after(i * 0.03 / TIMES, _MAKING)
            file = open_shop(self.path)
            self.assertEqual(file.get("chuck"), chuck(1))
            file.close()


_HALF_WRITTEN = """
import sqlite3, sys, time
shop = sqlite3.connect(sys.argv[1], isolation_level=None)
shop.execute("PRAGMA cache_size = 1")
shop.execute("BEGIN IMMEDIATE")
shop.execute("CREATE TABLE half (written)")
for _ in range(100):
    shop.execute("INSERT INTO half VALUES (randomblob(9000))")
print("half written", flush=True)
time.sleep(60)
"""

_MAKING = """
import sys
from pathlib import Path
import alembic.command, alembic.config
from machinon.store.opening import open_shop
print("go", flush=True)
open_shop(Path(sys.argv[1]))
"""


class Files(ShopFileCase):
    def test_a_name_may_have_any_sign_in_it(self):
        for name in ("notes?old=1", "shop #2.machinon", "50%.machinon", "a&b mode=ro"):
            with self.subTest(name):
                path = self.path.with_name(name)
                for sizes in ((1,), (1, 2)):
                    file = open_shop(path)
                    file.act("job", "Measured.", chuck(*sizes))
                    file.close()
                self.assertTrue(path.is_file())
                looking = open_shop(path, look_only=True)
                self.assertEqual(looking.get("chuck"), chuck(1, 2))
                looking.close()
        self.assertFalse(self.path.with_name("notes").exists())

    def test_a_copy_of_the_file_alone_has_all_the_work(self):
        file = open_shop(self.path)
        self.addCleanup(file.close)
        file.act("job", "First.", chuck(1, 2, 3))
        copy = self.path.with_name("copy.machinon")
        shutil.copy(self.path, copy)
        copied = open_shop(copy)
        self.addCleanup(copied.close)
        self.assertEqual(copied.get("chuck"), chuck(1, 2, 3))

    def test_a_file_of_the_old_way_keeps_what_lay_in_its_log(self):
        open_shop(self.path).close()
        old = sqlite3.connect(self.path)
        self.addCleanup(old.close)
        old.execute("PRAGMA journal_mode=WAL")
        old.execute("INSERT INTO daybook VALUES (7, '', 'shop', 'In the log.')")
        old.commit()
        with tempfile.TemporaryDirectory() as folder:
            for path in self.path.parent.glob("shop.machinon*"):
                shutil.copy(path, folder)
            file = open_shop(Path(folder) / "shop.machinon")
            self.assertEqual(file.daybook()[0].says, "In the log.")
            file.close()
            left = {path.name for path in Path(folder).iterdir()}
            self.assertEqual(left, {"shop.machinon"})

    def test_a_backup_put_back_is_what_it_was(self):
        file = open_shop(self.path)
        file.act("job", "First.", chuck(1))
        backup = self.path.with_name("backup.machinon")
        back_up(self.path, backup)
        file.act("job", "Second.", chuck(1, 2))
        file.close()
        kept = restore(backup, self.path)
        for path, sizes in ((self.path, (1,)), (kept, (1, 2))):
            file = open_shop(path)
            self.assertEqual(file.get("chuck"), chuck(*sizes))
            file.close()
        self.assertEqual(self.path.stat().st_mode & 0o777, 0o600)

    def test_a_backup_is_made_before_every_upgrade(self):
        open_shop(self.path).close()
        with sqlite3.connect(self.path) as other:
            other.execute("UPDATE alembic_version SET version_num = ?", (KNOWN[-2],))
        other.close()
        open_shop(self.path).close()
        self.assertEqual(len(list(self.path.parent.glob("shop-before-*"))), 1)


class HostileDocuments(ShopFileCase):
    def put(self, id, body):
        with sqlite3.connect(self.path) as other:
            other.execute(
                "UPDATE revision SET body = ? WHERE id = "
                "(SELECT revision_id FROM document WHERE id = ?)",
                (body, id),
            )
        other.close()

    def test_damaged_documents_are_named_and_never_end_the_program(self):
        """Bits flipped, cut short, zeroed, of wrong types, too deep, too large."""
        rng = random.Random(SEED)
        good = packed(chuck(95.02, 95.03))
        text = zlib.decompress(good)

        def flipped():
            body = bytearray(rng.choice((good, text)))
            for _ in range(rng.randint(1, 6)):
                body[rng.randrange(len(body))] ^= 1 << rng.randrange(8)
            return bytes(body) if body[0] == good[0] else zlib.compress(bytes(body))

        bodies = [flipped() for _ in range(120 * TIMES)]
        bodies += [good[: rng.randrange(len(good))] for _ in range(40 * TIMES)]
        bodies += [b"\0" * n for n in (1, 10, 500)]
        for old, new in (
            (b"95.02", b"NaN"),
            (b"95.02", b"1e999"),
            (b"95.02", b"1e300"),
            (b"95.02", b'"ninety"'),
            (b'"piece"', b'"spaceship"'),
            (b'"chuck"', b'"chunk"'),
            (b'"inside"', b'"sideways"'),
            (b'"format":2', b'"format":77'),
            (b'"format":2', b'"format":-5'),
            (b'"format":2', b'"format":"x"'),
        ):
            bodies.append(zlib.compress(text.replace(old, new)))
        bodies.append(zlib.compress(b"[" * 100_000))
        bodies.append(zlib.compress(b'{"type":"piece","id":' + b"[" * 5000))
        bodies.append(zlib.compress(b" " * (80 << 20)))
        file = self.open()
        file.act("job", "First.", chuck(1))
        file.act("job", "Second.", chuck(95.02, 95.03))
        refused = 0
        for body in bodies:
            self.put("chuck", body)
            try:
                file.get("chuck")
            except Damaged as error:
                refused += 1
                self.assertEqual(error.name, "Chuck")
                self.assertTrue(error.earlier)
        self.assertGreater(refused, len(bodies) * 0.7)

    def test_what_it_was_before_can_be_used_again(self):
        file = self.open()
        file.act("job", "First.", chuck(1))
        file.act("job", "Second.", chuck(1, 2))
        self.put("chuck", b"broken")
        with self.assertRaises(Damaged) as found:
            file.get("chuck")
        file.go_back(found.exception)
        self.assertEqual(file.get("chuck"), chuck(1))
        self.assertIn("was damaged", file.daybook()[0].says)

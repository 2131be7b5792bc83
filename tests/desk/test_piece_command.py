import contextlib
import io
import json
import os
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from machinon.core.families import families
from machinon.main import main


def said(*arguments):
    """Exit code, what was printed, and what was printed as an error."""
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        code = main(["piece", *arguments])
    return code, out.getvalue(), err.getvalue()


def told(*arguments):
    code, out, _ = said(*arguments, "--json")
    return code, json.loads(out)


class PieceCommand(unittest.TestCase):
    def test_all_families_are_listed_a_line_each(self):
        code, out, _ = said()
        self.assertEqual(code, 0)
        self.assertEqual(len(out.splitlines()), len(families()))
        for key in families():
            self.assertIn(key, out)

    def test_who_reads_no_further_is_told_no_fault(self):
        """As `| head` does; a full disk is said in one line."""
        read, write = os.pipe()
        os.close(read)
        with open("/dev/full", "w") as full, os.fdopen(write, "w") as closed:
            for out, wanted in ((closed, b""), (full, b"machinon: No space left")):
                ran = subprocess.run(
                    [sys.executable, "-m", "machinon", "piece", "--help"],
                    stdout=out,
                    stderr=subprocess.PIPE,
                )
                self.assertNotEqual(ran.returncode, 0)
                self.assertEqual(ran.stderr.count(b"\n"), 1 if wanted else 0)
                self.assertTrue(ran.stderr.startswith(wanted))

    def test_help_tells_mates_sizes_fits_and_checks(self):
        for key, family in families().items():
            code, out, _ = said(key, "--help")
            self.assertEqual(code, 0)
            for name in (*family.mate_keys, *(size.key for size in family.sizes)):
                self.assertIn(name, out)
            for slot in family.fits:
                self.assertIn(f"fit.{slot.key}", out)
            self.assertIn(family.example, out)
            for part in family.parts:
                self.assertIn(f"{part.words}: {part.sizes[0].key}", out)

    def test_a_spigot_follows_the_measured_recess(self):
        """g6 at 96 is −34 to −12 µm, the doubt 4: 96.000 less 0.030 to 0.016."""
        code, piece = told("back-plate", "chuck.recess=96.000")
        self.assertEqual(code, 0)
        fit = next(slot for slot in piece["fits"] if slot["slot"] == "spigot")
        self.assertAlmostEqual(fit["lower"], 95.970)
        self.assertAlmostEqual(fit["upper"], 95.984)
        size = piece["sizes"]["spigot.diameter"]
        self.assertEqual((size["value"], size["by"]), (95.977, "fit"))

    def test_a_surer_reading_leaves_a_wider_band(self):
        wide, usual = (
            next(
                line
                for line in told("back-plate", *more)[1]["fits"]
                if line["slot"] == "spigot"
            )
            for more in (("chuck.recess.doubt=0.001",), ())
        )
        self.assertGreater(
            wide["upper"] - wide["lower"], usual["upper"] - usual["lower"]
        )

    def test_a_wish_in_words_by_code_or_as_play(self):
        for wish in ("locates", "H7/g6", "10um to 40um"):
            code, piece = told("back-plate", f"fit.register={wish}")
            with self.subTest(wish):
                self.assertEqual(code, 0)
                self.assertEqual(piece["fits"][0]["wish"], wish)

    def test_a_typed_size_that_contradicts_its_mate_fails_its_check(self):
        _, piece = told("back-plate", "spigot.diameter=95.05")
        failed = [check["key"] for check in piece["checks"] if not check["passed"]]
        self.assertIn("fit-spigot", failed)
        self.assertEqual(piece["sizes"]["spigot.diameter"]["by"], "typed")

    def test_a_link_is_followed_and_a_loop_refused_by_name(self):
        _, piece = told("back-plate", "hub.diameter== register.diameter + 2*12mm")
        hub = piece["sizes"]["hub.diameter"]
        self.assertEqual((round(hub["value"], 3), hub["by"]), (70.01, "link"))
        code, refused = told(
            "back-plate", "hub.diameter== hub.length*4", "hub.length== hub.diameter/4"
        )
        self.assertEqual(code, 2)
        self.assertIn("hub.length", refused["error"]["message"])
        self.assertIn("hub.diameter", refused["error"]["message"])

    def test_refusals_name_their_key_and_what_is_allowed(self):
        for given, key, says in (
            ("hub.diameter=5", "hub.diameter", "from 12"),
            ("hub.diametre=50", "hub.diametre", "did you mean"),
            ("fit.registre=slides", "fit.registre", "did you mean"),
            ("fit.register=wobbly", "fit.register", ""),
            ("nose.thread=M45y4", "nose.thread", "thread"),
            ("bolts.bolting=beside", "bolts.bolting", "into"),
            ("bolts.count=2.5", "bolts.count", "whole"),
            ("material=cheese", "material", ""),
            ("hub.diameter== bore*2", "hub.diameter", "bore"),
            ("hub.diameter== 2 +", "hub.diameter", "cannot be read"),
            ("hub.diameter== hub.length/0", "hub.diameter", "divides by zero"),
            ("hub", "hub", "key=value"),
        ):
            code, refused = told("back-plate", given)
            with self.subTest(given):
                self.assertEqual(code, 2)
                self.assertEqual(refused["error"]["input"], key)
                self.assertIn(says, refused["error"]["message"])
        for word, key in (
            ("back-palte", "back-plate"),
            ("boring-bar", "single-point-bar"),
            ("t nuts", "t-nut-strip"),
        ):
            code, refused = told(word)
            self.assertIn(f"did you mean {key}?", refused["error"]["message"])

    def test_inches(self):
        _, piece = told("plate-block", "block.length=4", "--inch")
        self.assertAlmostEqual(piece["sizes"]["block.length"]["value"], 101.6)
        _, out, _ = said("plate-block", "block.length=4", "--inch")
        self.assertIn("from 4.118 × 2.480 × 1.299 in", out)
        self.assertIn("Counterbore 4 holes to ⌀0.591, 0.339 deep", out)
        past = ("parts=step flat", "flat1.count=3", "flat1.across=0.1", "--inch")
        _, _, err = said("turned-piece", *past)
        self.assertIn("more than 0.3937 in from it to the far side of the ⌀0.7874", err)

    def test_what_follows_a_rule_can_be_round_in_inches(self):
        """Across corners 0.866 a bar of 1 in, where 22 mm would have done."""
        given = ("hexagon-screw", "nut.thread=1/2-13", "hole.diameter=.501", "--inch")
        _, piece = told(*given, "--round-inch")
        self.assertAlmostEqual(piece["sizes"]["stock.diameter"]["value"], 25.4)
        _, out, _ = said(*given, "--round-inch")
        self.assertIn("from ⌀1.000 × 2.4375 in", out)
        self.assertIn("runs on 0.5010 in", out)
        _, piece = told(*given)
        self.assertAlmostEqual(piece["sizes"]["stock.diameter"]["value"] % 1, 0)

    def test_a_block_weighs_what_it_is(self):
        """100 × 60 × 30 less nothing, of steel at 7.85: 1.413 kg."""
        _, piece = told("plate-block", "parts=")
        self.assertAlmostEqual(piece["volume"], 180_000)
        self.assertAlmostEqual(piece["mass"], 1.413)
        self.assertAlmostEqual(piece["removed"], 103 * 63 * 33 - 180_000)

    def test_a_sleeve_closes_its_chain(self):
        """60.10 between the faces, 0.05 to 0.15 of play, ±4 µm: 59.954 to 60.046."""
        _, piece = told(
            "spacer-sleeve", "gap.between=60.10", "gap.least=0.05", "gap.most=0.15"
        )
        chain = next(slot for slot in piece["fits"] if slot["slot"] == "length")
        self.assertAlmostEqual(chain["lower"], 59.954)
        self.assertAlmostEqual(chain["upper"], 60.046)
        self.assertEqual(piece["sizes"]["sleeve.length"]["by"], "chain")
        self.assertEqual(piece["sizes"]["sleeve.length"]["value"], 60.0)

    def test_read_by_a_person(self):
        for key in families():
            code, out, _ = said(key)
            self.assertEqual(code, 0)
            self.assertIn("good", out)
            self.assertNotIn("STOP", out)
            route = out[out.index("    Caution") :]
            self.assertNotIn("_", route)
        code, _, err = said("back-plate", "hub.diameter=5")
        self.assertEqual((code, err.startswith("hub.diameter: ")), (2, True))

    def test_files_are_written_and_bad_places_said(self):
        with tempfile.TemporaryDirectory() as folder:
            for kind, head in (
                ("svg", b"<?xml"),
                ("pdf", b"%PDF"),
                ("png", b"\x89PNG"),
                ("dxf", b"  0"),
                ("stl", b"Back"),
                ("3mf", b"PK"),
                ("holes", b"feature"),
            ):
                path = Path(folder, f"piece.{kind}")
                code, _, _ = said("back-plate", f"--{kind}", str(path), "--json")
                with self.subTest(kind):
                    self.assertEqual(code, 0)
                    self.assertTrue(path.read_bytes().startswith(head))
                    bad = str(Path(folder, "none", "piece"))
                    code, _, err = said("back-plate", f"--{kind}", bad)
                    self.assertEqual(code, 2)
                    self.assertIn("could not be written", err)
        self.assertEqual(said("back-plate", "--svg")[0], 2)
        self.assertEqual(said("back-plate", "--gif", "x")[0], 2)

import json
import re
import runpy
import tempfile
import unittest
from pathlib import Path

import msgspec

from machinon.core.job.job import Job
from machinon.core.job.planning import plan_of
from machinon.store.job_json import JobFile, write_job
from machinon.store.lists import ListFileError
from machinon.store.shop_file import DaybookLine
from tests.scenario import SHOP, SPIGOT, back_plate, planned, with_cuts

PAGE = Path(__file__).parents[2] / "docs" / "job-json.md"


class JobsForOtherPrograms(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "plate.json"

    def written(self):
        plan = planned(with_cuts(back_plate(), 96.0, (0.3, 95.43)))
        lines = [DaybookLine("2026-03-01T10:00:00", "plate", "Begun.")]
        write_job(plan, lines, self.path)
        return json.loads(self.path.read_text())

    def test_readings_bands_sizes_steps_and_proof_are_in_it(self):
        job = self.written()
        band = next(row for row in job["bands"] if row["fit"] == SPIGOT)
        self.assertAlmostEqual(band["lower"], 94.9917, places=3)
        self.assertEqual(job["sizes"]["spigot.diameter"], 94.997)
        self.assertEqual(job["job"]["cuts"]["3"]["entries"][0]["measured"], 95.43)
        recess = next(row for row in job["measured"] if row["surface"] == "recess")
        self.assertAlmostEqual(recess["size"], 95.020)
        self.assertEqual(recess["readings"], 3)
        self.assertEqual(job["steps"][0]["done"], False)
        self.assertEqual(job["proof"][0]["verdict"], "open")
        self.assertEqual(job["daybook"][0]["says"], "Begun.")

    def test_its_page_tells_of_every_key(self):
        told = set(re.findall(r"`([^`]+)`", PAGE.read_text()))
        job = self.written()
        keys = set(job)
        for listed in ("measured", "bands", "steps", "proof", "daybook"):
            keys |= set(job[listed][0])
        self.assertEqual(keys - told, set())

    def test_it_is_as_its_schema_says(self):
        """The schema follows the documents: scripts/job_schema.py writes it anew."""
        self.written()
        msgspec.json.decode(self.path.read_bytes(), type=JobFile)
        script = runpy.run_path(str(PAGE.parents[1] / "scripts" / "job_schema.py"))
        told = json.loads(script["SCHEMA"].read_text())
        self.assertEqual(told, json.loads(json.dumps(script["job_schema"]())))
        trial = told["$defs"]["CutLog"]["properties"]["touch"]
        self.assertIn("until touched", trial["description"])

    def test_a_job_that_has_only_begun_is_written_as_well(self):
        plan = plan_of(Job("new", "New"), SHOP, None, {})
        write_job(plan, (), self.path)
        self.assertEqual(json.loads(self.path.read_text())["sizes"], {})

    def test_a_folder_that_is_not_there_is_named(self):
        with self.assertRaisesRegex(ListFileError, "could not be written"):
            write_job(planned(), (), self.path.parent / "none" / "plate.json")

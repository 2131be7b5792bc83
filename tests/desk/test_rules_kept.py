"""A rule of the program that has changed since changes no job."""

from unittest import mock

from msgspec.structs import replace
from PySide6.QtWidgets import QMessageBox

from machinon.core.families import families
from machinon.desk.open_job import OpenJob
from tests.desk.bench import WindowCase
from tests.desk.test_open_job import DemoJob

KEY = "stock.length"


def later_program():
    """A program in which twice as much stock is taken."""
    family = families()["back-plate"]
    old = family.size(KEY)
    sizes = tuple(
        replace(size, rule=lambda s: 2 * s["hub.length"] + 50, rests=("hub.length",))
        if size is old
        else size
        for size in family.sizes
    )
    later = replace(family, sizes=sizes)
    return mock.patch.dict(families(), {"back-plate": later})


class RulesKept(DemoJob):
    def again(self):
        return OpenJob(self.file, "back-plate-130")

    def stock(self, job):
        return job.plan.made.sizes[KEY]

    def test_a_job_stays_as_it_was_kept_until_its_size_is_emptied(self):
        self.job.set_size("hub.diameter", "72")
        was = self.stock(self.job).value
        self.assertEqual(self.again().stayed, [])
        with later_program():
            job = self.again()
            self.assertEqual(job.stayed, ["stock length"])
            self.assertEqual(
                (self.stock(job).value, self.stock(job).by), (was, "typed")
            )
            # the next act keeps it so, and another change of the job leaves it
            job.set_size("hub.diameter", "74")
            again = self.again()
            self.assertEqual(again.stayed, [])
            self.assertEqual(self.stock(again).value, was)
            again.set_size(KEY, "")
            hub = float(again.plan.made.values["hub.length"])
            self.assertEqual(self.stock(again).value, 2 * hub + 50)

    def test_what_the_rules_made_is_no_decision_of_the_person(self):
        """A step ticked after a reading keeps other sizes, and is no drawing before."""
        before = len(self.job.drawn_before())
        self.job.add_reading("chuck-130", "body", "130.03", "caliper")
        self.job.mark_step("holes", True)
        self.job.mark_step("holes", False)
        self.assertEqual(len(self.job.drawn_before()), before)
        self.job.set_size("hub.diameter", "72")
        self.assertEqual(len(self.job.drawn_before()), before + 1)

    def test_an_earlier_drawing_is_told_as_it_was(self):
        self.job.set_size("hub.diameter", "72")
        was = self.stock(self.job).value
        self.job.set_size("hub.diameter", "74")
        with later_program():
            job = self.again()
            [then, *_] = job.drawn_before()
            self.assertEqual(job.sizes_then(then)[KEY], was)

    def test_what_follows_a_reading_still_does(self):
        """A chuck read again in between: its figures are others, so nothing tells
        whether a rule has changed, and the drawing follows the reading."""
        self.job.set_size("hub.diameter", "72")
        self.job.add_reading("chuck-130", "body", "130.03", "caliper")
        with later_program():
            self.assertEqual(self.again().stayed, [])

    def test_a_job_that_is_older_than_that_follows_its_rules(self):
        with later_program():
            self.assertEqual(self.again().stayed, [])


class Told(WindowCase):
    def test_opening_the_job_says_what_stays(self):
        self.window.open_job("back-plate-130")
        self.window.job.set_size("hub.diameter", "72")
        with later_program():
            self.window.open_job("back-plate-130")
            self.settle()
            [box] = self.window.findChildren(QMessageBox)
            self.assertIn("stay as they were: stock length.", box.text())
            box.close()

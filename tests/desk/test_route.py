"""Route in a real window: steps moved out of their usual place, with a reason."""

import unittest

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.quantity import LENGTH
from machinon.core.route.no_mill import ELSEWHERE
from machinon.core.shop.machines import Machine
from machinon.desk.begin import begin_job
from machinon.desk.name_dialog import NameDialog
from machinon.draw.drawing import Text
from tests.desk.bench import WindowCase


class MovedSteps(WindowCase):
    """The eight T-nuts of the sample shop, whose rebates are being milled."""

    def setUp(self):
        super().setUp()
        self.window.open_job("t-nuts")
        self.route = self.stage("route")

    def order(self):
        return list(self.route.frames)

    def test_a_rule_is_overruled_with_a_reason(self):
        usual = self.order()
        self.route.choose("saw-saw_cuts")
        self.click(self.route.earlier)  # to the end of the holding before
        self.click(self.route.earlier)  # in front of the countersink
        self.assertIn("Sawing comes last", self.route.note.text())
        self.assertEqual(self.order(), usual)
        self.type(self.route.because.edit, "the saw is set up already")
        self.assertEqual(
            self.order().index("saw-saw_cuts"), usual.index("countersink-thread")
        )
        self.assertIn("set up already", self.route.moved.text())
        self.assertIn("because the saw is set up", self.job.file.daybook()[0].says)
        self.close_window()
        self.open_window()
        self.window.open_job("t-nuts")
        self.route = self.stage("route")
        self.assertNotEqual(self.order(), usual)
        self.click(self.route.usual)
        self.assertEqual(self.order(), usual)
        self.assertFalse(self.route.usual.isVisible())

    def test_a_step_of_ones_own_is_added_with_a_reason_and_taken_out_again(self):
        usual = self.order()
        self.route.choose("drill-thread")
        self.pick(self.route.added_menu(), "Harden and temper it…")
        self.type(self.route.added.edit, "")
        self.assertTrue(self.route.added.refused)
        self.type(self.route.added.edit, "Case-harden the strip")
        self.assertIn("only a wheel cuts it", self.route.note.text())
        self.assertEqual(self.order(), usual)
        self.type(self.route.because.edit, "the saw is a carbide one")
        self.assertEqual(self.route.at, "own1")
        self.assertIn("carbide one", self.route.moved.text())
        self.assertFalse(self.route.moves.isVisible())
        self.click(self.route.go)
        self.assertEqual(self.job.plan.at_step.title, "Case-harden the strip")
        self.stage("route").choose("own1")
        self.click(self.route.take_out)
        self.assertEqual(self.order(), usual)

    def test_a_large_screen_has_a_large_film_with_the_step_at_hand_in_sight(self):
        frame = self.route.frames[self.order()[-1]]
        small = frame.width()
        self.route.choose(self.order()[-1])
        for size, grown in (((2560, 1440), True), ((1280, 800), False)):
            self.window.resize(*size)
            for _ in range(3):  # the window, its stage, the strip
                self.app.processEvents()
            self.assertEqual(frame.width() > 1.5 * small, grown)
            self.assertFalse(frame.visibleRegion().isEmpty())

    def test_the_route_is_taken_to_the_machine_on_paper(self):
        """Every step with its limits and figures; of what is done already no lines; a
        cutter's feed is a tooth's, as nobody said how many it has."""
        from pypdf import PdfReader

        done = self.route.frames[self.order()[0]]
        path = self.folder / "route.pdf"
        self.route.print_sheet(path)
        self.assertIn("route.pdf", self.route.note.text())
        pages = [p.extract_text() for p in PdfReader(path).pages]
        # the sign of a diameter is of another font, and comes out elsewhere
        text = " ".join("".join(pages).replace("⌀", "").split())
        for n, frame in enumerate(self.route.frames.values(), 1):
            self.assertIn(f"{n} {frame._step.title}".replace("⌀", ""), text)
        low, high = self.job.plan.fits[0].lower, self.job.plan.fits[0].upper
        self.assertIn(f"{low:.3f} mm to {high:.3f} mm", text)
        self.assertIn("feed 0.05 mm a tooth", text)
        # under the drawing the set-up, each piece of it by its name
        for piece in self.job.plan.stack:
            self.assertIn(piece.name, text)
        self.assertIn("Hole 8 of 8: X", text)
        self.assertIn(done.key, self.job.job.done)
        self.assertNotIn(self.job.lines_of(done._step).lines[0].head, text)
        self.route.print_sheet(self.folder / "none" / "route.pdf")
        self.assertIn("could not be written", self.route.warning.text())

    def test_what_no_metal_allows_is_refused(self):
        usual = self.order()
        self.route.choose("drill-thread")
        self.click(self.route.later)
        self.assertIn("no hole for it yet", self.route.note.text())
        self.assertFalse(self.route.because.isVisible())
        self.assertEqual(self.order(), usual)

    def test_what_is_done_stays_where_it_was(self):
        self.route.choose(self.order()[0])
        self.assertFalse(self.route.later.isVisible())

    def test_from_a_step_that_is_done_the_way_leads_to_what_is_left(self):
        """Its tick can be taken off again."""
        first = self.order()[0]
        self.route.choose(first)
        left = next(k for k in self.order() if k not in self.job.job.done)
        number = self.order().index(left) + 1
        self.assertEqual(self.route.done.text(), f"On to step {number}")
        self.click(self.route.done)
        self.assertIn(first, self.job.job.done)
        self.assertEqual(self.route.title.text(), self.job.plan.step(left).title)
        self.route.choose(first)
        self.click(self.route.undone)
        self.assertNotIn(first, self.job.job.done)


class WhatWentWrong(WindowCase):
    """A slitting saw that wandered in one strip of T-nuts warns in the next."""

    SAYS = "Wandered in the last cut: half the feed."

    def saw(self, job_id):
        self.window.open_job(job_id)
        route = self.stage("route")
        route.choose("saw-saw_cuts")
        return route

    def note(self, says):
        self.window.actions_by_id["step.lesson"].trigger()
        dialog = self.window.findChild(NameDialog)
        self.type(dialog.field.edit, says)
        return dialog

    def another_strip(self):
        begun = begin_job(self.job.file, {"what": "t-nut-strip", "name": "Four more"})
        assert begun.making is not None
        mates = families()["t-nut-strip"].mate_keys.items()
        making = replace(begun.making, sizes={k: f"{m.usual}" for k, m in mates})
        self.job.file.act(begun.id, "Sizes said.", begun.with_work(making=making))
        return begun.id

    def test_it_is_said_at_that_step_of_the_next_job_until_it_is_taken_away(self):
        self.saw("t-nuts")
        dialog = self.note(" ")
        self.assertIn("what went wrong", dialog.field.message.text())
        self.type(dialog.field.edit, self.SAYS)
        route = self.saw(self.another_strip())
        self.assertIn(self.SAYS, route.caution.text())
        self.assertIn("Eight T-nuts", route.caution.text())
        self.click(route.go)
        self.assertIn(self.SAYS, self.window.job_page().view().lines.caution.text())
        route = self.saw("t-nuts")
        self.click(route.forget)
        self.assertNotIn(self.SAYS, route.caution.text())
        self.window.actions_by_id["edit.undo"].trigger()
        self.assertIn(self.SAYS, route.caution.text())

    def test_it_is_noted_at_the_machine_and_in_the_daybook(self):
        self.click(self.saw("t-nuts").go)
        self.note(self.SAYS)
        self.assertIn(self.SAYS, self.window.job_page().view().lines.caution.text())
        self.assertIn("Went wrong at “Saw", self.job.file.daybook()[0].says)


class ChangedAfterItWasCut(WindowCase):
    def test_a_size_changed_after_its_step_is_said_at_the_step_and_on_the_drawing(self):
        """The hub of the back plate is turned; then its drawing says 2 mm less."""
        self.window.open_job("back-plate-130")
        self.job.mark_step("hub", False)
        self.job.mark_step("hub", True)
        self.assertEqual(self.job.plan.changed, {})
        before = self.job.plan.made.values["hub.diameter"]
        self.job.set_size("hub.diameter", f"{before - 2:g}mm")
        (says,) = self.job.plan.changed["hub"].values()
        self.assertIn(f"was {before:.3f} mm when it was cut", says)
        route = self.stage("route")
        route.choose("hub")
        self.assertIn(f"now it is {before - 2:.3f} mm", route.note.text())
        self.assertEqual(self.job.plan.stale, {"hub.diameter"})
        self.assertTrue(any(check.place == "hub" for check in self.job.plan.failed))
        self.assertTrue(any(says in line for line in self.job.plan.open["piece"]))
        # put back, or done again, it is as it was cut
        self.job.set_size("hub.diameter", f"{before:g}mm")
        self.assertEqual(self.job.plan.changed, {})
        self.job.set_size("hub.diameter", f"{before - 1:g}mm")
        self.job.mark_step("hub", False)
        self.job.mark_step("hub", True)
        self.assertEqual(self.job.plan.changed, {})
        self.window.open_job("back-plate-130")
        self.assertEqual(self.job.plan.changed, {}, "after it was read again")


class WhichMachine(WindowCase):
    """The shop's knee mill has a small one beside it."""

    def test_a_job_goes_to_another_mill_of_the_shop_and_is_checked_by_it(self):
        """Its vise opens 12; the strip of the T-nuts is wider and higher."""
        self.window.open_job("t-nuts")
        route = self.stage("route")
        self.assertFalse(route.machine.isVisible(), "there is one mill to choose")
        small = Machine("small", "Small mill", "mill", {"vise_opens": "12"})
        self.window.file.act("shop", "Another mill.", small)
        self.window.open_job("t-nuts")
        route = self.stage("route")
        self.assertEqual(self.job.plan.mill.name, "Knee mill")
        self.choose(route.machine, "small")
        self.assertEqual(self.job.plan.mill.name, "Small mill")
        failed = [check.says for check in self.job.plan.checks if not check.passed]
        self.assertTrue(any("Small mill" in says for says in failed), failed)
        self.close_window()
        self.open_window()
        self.window.open_job("t-nuts")
        self.assertEqual(self.job.plan.mill.name, "Small mill")
        self.job.undo()
        self.assertEqual(self.job.plan.mill.name, "Knee mill")

    def test_without_its_mill_the_shop_faces_blocks_and_drills_on_its_press(self):
        self.window.file.remove("shop", "The mill is sold.", "mill")
        job = begin_job(self.window.file, {"what": "plate-block", "name": "Block"})
        self.window.open_job(job.id)
        route = self.stage("route")
        machines = ["lathe", "drill", "mill"]
        self.assertEqual([up.machine for up in self.job.plan.route], machines)
        route.choose("square-block")
        self.click(route.go)
        work = self.window.job_page().view().lines
        self.assertEqual(work.head.text(), "The largest face out")
        self.assertIn("sleeves", work.caution.text())
        for _ in range(3):
            self.click(work.done)
        self.assertEqual(work.head.text(), "The other large face out: to height")
        offered = [
            work.ways.itemAt(n).widget().text() for n in range(work.ways.count())
        ]
        self.assertEqual(offered, ["With the coach: height"])
        route = self.stage("route")
        route.choose("square-block")
        self.choose(route.machine, ELSEWHERE)
        self.assertEqual({up.machine for up in self.job.plan.route}, {"mill"})
        self.job.undo()
        self.assertEqual([up.machine for up in self.job.plan.route], machines)

    def test_it_is_ground_on_the_same_grinder_whichever_was_touched_last(self):
        """A mandrel lies between the centres of one, not of the other."""
        mates = families()["slit-arbor"].mate_keys.items()
        sizes = {"nose.hard": "yes", **{k: f"{mate.usual}" for k, mate in mates}}
        short = Machine("a", "Short grinder", "grinder", {"between_centres": "20"})
        long = Machine("b", "Long grinder", "grinder", {"between_centres": "900"})
        told = []
        for first, last in ((short, long), (long, short)):
            self.window.file.act("shop", "A grinder.", first)
            self.window.file.act("shop", "Another one.", last)
            job = begin_job(self.window.file, {"what": "slit-arbor", "name": "Mandrel"})
            hard = replace(job.making, sizes=sizes)
            self.window.file.act(job.id, "Hardened.", job.with_work(making=hard))
            self.window.open_job(job.id)
            told.append([check.says for check in self.job.plan.checks])
        self.assertTrue(any("Short grinder" in says for says in told[0]), told[0])
        self.assertEqual(*told)


class InAnInchShop(WindowCase):
    def test_what_was_typed_of_a_mate_stays_the_size_it_was(self):
        """A housing 24 deep, typed in millimetres, is no 24 inches."""
        file = self.window.file
        job = begin_job(file, {"what": "housing-cover", "name": "Cover"})
        wanted = families()["housing-cover"].mate_keys
        typed = {
            key: f"{mate_size.usual:g}mm"
            for key, mate_size in wanted.items()
            if mate_size.kind is LENGTH and not isinstance(mate_size.usual, str)
        }
        work = job.with_work(making=replace(job.making, sizes=typed))
        file.act(job.id, "As usual.", work)
        self.window.open_job(job.id)
        self.window.swap_units()
        asked = self.stage("piece").asked
        self.assertTrue(asked)
        for key, field in asked.items():
            if key in typed:
                field.edit.returnPressed.emit()
                self.settle()
                self.assertEqual(self.job.job.making.sizes[key], typed[key], key)

    def test_an_inch_shop_begins_with_inches_and_can_go_back(self):
        """A block of 100 × 60 × 30 by M8 begins as 4 × 2 3/8 × 1 1/8 by 5/16."""
        self.window.swap_units()
        begun = begin_job(self.window.file, {"what": "plate-block", "name": "Block"})
        self.window.open_job(begun.id)
        piece = self.stage("piece")

        def sizes():
            made = self.job.plan.made
            return made.values["block.length"], made.values["holes1.screw"]

        self.assertEqual(sizes(), (101.6, "5/16-18 UNC"))
        self.assertEqual(piece.rounds.currentText(), "inches")
        self.choose(piece.rounds, False)
        self.settle()
        self.assertEqual(sizes(), (100.0, "M8"))
        self.window.actions_by_id["edit.undo"].trigger()
        self.assertEqual(sizes(), (101.6, "5/16-18 UNC"))
        self.assertTrue(piece.rounds_box.isVisible())
        self.window.open_job("t-nuts")
        self.window.swap_units()
        self.assertFalse(self.stage("piece").rounds_box.isVisible())

    def test_corners_and_places_opened_and_entered_again_stay_where_they_are(self):
        """A corner at 50.8 mm is opened as 2 and is no corner at 50.8 in."""
        self.window.swap_units()
        begun = begin_job(self.window.file, {"what": "plate-block", "name": "Block"})
        self.window.open_job(begun.id)
        piece = self.stage("piece")
        for part, key, typed in (
            ("outline", "outline1.points", "0,0 4,0 2,2 0,2"),
            ("pattern", "pattern1.places", "1,0.5 0.75,1.25"),
        ):
            self.job.add_part(part)
            self.job.set_size(key, typed)
            kept = self.job.job.making.sizes[key]
            self.assertIn("50.8" if part == "outline" else "25.4", kept)
            piece.begin_edit(key)
            self.assertEqual(piece.edit.text(), typed)
            self.type(piece.edit, piece.edit.text())
            self.assertEqual(self.job.job.making.sizes[key], kept)

    def test_steps_checks_and_what_is_written_at_holes_are_in_inches(self):
        """The T-nuts' countersink of 13 mm is 0.5118 in; M12 is drilled by 10.3 mm."""
        self.window.open_job("t-nuts")
        self.window.swap_units()
        route = self.stage("route")
        route.choose("countersink-thread")
        self.assertIn("⌀0.512", route.title.text())
        self.assertIn("ft/min", route.cut_speed._unit.text())
        route.choose("drill-thread")
        self.assertIn("10.3 mm", route.title.text())
        said = " ".join(check.says for check in self.job.plan.checks)
        self.assertIn(" in, at least ", said)
        self.assertNotIn(" mm", said.replace("drill of 10.3 mm", ""))
        piece = self.stage("piece")
        items = piece.drawing.drawing().items
        written = " ".join(item.text for item in items if isinstance(item, Text))
        self.assertIn("⌀0.512", written)
        # but not what a person typed
        own = self.job.add_step("mark-thread", "other", "Stamp them, letters of 5 mm")
        self.job.work_at(own)
        self.assertEqual(self.job.plan.at_step.title, "Stamp them, letters of 5 mm")
        self.assertEqual(self.job.lines.lines[0].head, "Stamp them, letters of 5 mm")
        self.job.work_at("mark-thread")  # a nut of 22 mm: its middle at half of it
        self.assertIn("0.4331, ", self.job.lines.lines[0].note)
        with self.assertRaisesRegex(BadInput, "0.0394 in does not work, from 0."):
            self.job.set_size("nuts.length", "1mm")


if __name__ == "__main__":
    unittest.main()

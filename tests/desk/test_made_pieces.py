from msgspec.structs import replace
from pypdf import PdfReader
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest

from machinon.core.job.made_piece import told_of
from machinon.core.job.planning import plan_of
from machinon.core.job.true_running import stations
from machinon.core.shop.belongings import Belongings, Item
from machinon.core.shop.making import Making
from machinon.core.shop.things import Piece, Runs
from machinon.core.survey.mating import links_of
from machinon.core.survey.measuring import measure
from machinon.desk.piece_paper import FILES
from machinon.desk.proof_paper import write_proof
from machinon.draw.drawing import Text
from machinon.draw.stack_drawing import stack_drawing
from machinon.draw.stack_parts import groups_of
from tests.desk.bench import WindowCase


class MadePieces(WindowCase):
    """Pieces of families, from the new job to their route, typed as a user would."""

    DIAL = "0.02"

    def set_up(self):
        """The first lathe of an empty shop."""
        page = self.window.pages.currentWidget()
        for key, text in (
            ("shop", "Ottermere Lane"),
            ("name", "Centre lathe 165 × 700"),
            ("centre_height", "165"),
            ("between_centres", "700"),
            ("swing_over_slide", "190"),
            ("speeds", "45, 70, 110, 180, 290, 460, 740, 1200"),
            ("dial_division", self.DIAL),
            ("lead_screw", "4"),
            ("wheels", ""),
        ):
            self.type(page.fields[key].edit, text)

    def begin(self, what, name, **mates):
        self.window.actions_by_id["job.new"].trigger()
        self.settle()
        page = self.window.pages.currentWidget()
        self.type(page.fields["name"].edit, name)
        self.click(page.what.cards[what])
        for role, id in mates.items():
            key = role if role == "like" else f"mate.{role}"
            self.choose(page.combos[key], id)
        self.click(page.go)
        self.assertEqual(self.window.job_page().stage, "survey")

    def read(self, *readings):
        """(surface, gauge, reading…); a pair is a reading and its place."""
        survey = self.stage("survey")
        making = self.job.job.making
        for role, surface, gauge, *values in readings:
            survey.choose(making.mates[role], surface)
            self.choose(survey.instrument, gauge)
            for value in values:
                if isinstance(value, tuple):
                    value, place = value
                    self.type(survey.place.edit, place)
                self.type(survey.reading.edit, value)

    def value(self, key):
        return self.job.plan.made.sizes[key].value

    def size(self, key, text):
        """Type a size on the sheet."""
        view = self.window.job_page().view()
        view.begin_edit(key)
        self.assertTrue(view.edit.isVisible())
        self.type(view.edit, text)
        return view

    def tick_all(self):
        """Tick the route off, step by step, as far as it lets one."""
        route = self.stage("route")
        for key in list(route.frames):
            if key not in self.job.job.done:
                route.choose(key)
                self.click(route.done)
                if key not in self.job.job.done:
                    return route  # it holds the piece until something is proved
        return route

    def prove(self, start, sign=1):
        """Cut what rules the first fit, try its mate, and come back to the route."""
        route = self.stage("route")
        step = next(
            s for up in self.job.plan.route for s in up.steps if s.fit and not s.hold
        )
        route.choose(step.key)
        self.assertEqual(route.go.text(), "Work it in Cut")
        self.click(route.go)
        self.assertEqual(self.window.job_page().stage, "cut")
        size = self.sneak_up(start, sign)
        self.click(self.window.job_page().view().answers["goes on"])
        return size

    def finish(self):
        """The route ticked off, the proof said, the piece put into the shop."""
        self.tick_all()
        self.assertEqual(self.job.plan.open["route"], ())
        proof = self.stage("proof")
        self.assertEqual(self.job.plan.verdict, "proved", self.job.plan.verdict_says)
        self.click(proof.keep)
        self.assertEqual(self.window.job_page().next_step(), "Done: back to the jobs")
        piece = self.window.file.get(self.job.job.kept_as)
        self.assertEqual(piece.making, self.job.job.making)
        return piece


class WhatIsMade(MadePieces):
    def test_it_is_found_by_typing_and_chosen_by_enter(self):
        self.window.actions_by_id["job.new"].trigger()
        self.settle()
        page = self.window.pages.currentWidget()
        what, cards = page.what, page.what.cards
        self.assertIs(self.app.focusWidget(), what.search.edit)

        def shown():
            return [key for key, card in cards.items() if card.isVisible()]

        self.assertEqual(shown(), list(cards))
        what.search.edit.setText("slitt saw")
        self.assertEqual(shown(), ["collet-arbor", "taper-arbor", "other"])
        for typed, found in (
            ("backplate", "back-plate"),
            ("a centre for tubes", "lathe-centre"),
            ("mandrel between centres", "turned-piece"),
        ):
            what.search.edit.setText(typed)
            self.assertIs(what.found[0], cards[found], typed)
        what.search.edit.setText("gearbox")
        free = ["plate-block", "turned-piece", "other"]
        self.assertEqual(shown(), free, "what is not named is built up of features")
        self.assertIn("“gearbox”", what.none.text())
        # nothing is called so: what most of its words speak of, its last before all
        what.search.edit.setText("boring head shanks")
        near = [card for card in what.cards.values() if card in what.found[:2]]
        self.assertEqual(near, [what.cards["collet-arbor"], what.cards["taper-arbor"]])
        self.assertIn("this is nearest", what.none.text())
        self.assertTrue(what.cards["other"].isVisible())
        what.search.edit.clear()
        self.type(what.search.edit, "tee nut")
        self.assertEqual(what.key, "t-nut-strip")
        self.assertTrue(cards["t-nut-strip"].isChecked())
        self.assertIs(self.app.focusWidget(), page.fields["name"].edit)
        # what was looked for is its name until that is typed
        self.assertEqual(page.fields["name"].text(), "Tee nut")
        # the shop has a table whose slot is measured: it is there to be taken
        self.assertEqual(page.combos["mate.slot"].currentData(), "mill-table")
        self.type(page.fields["name"].edit, "Ten T-nuts")
        self.type(page.fields["reason"].edit, "")
        self.type(page.fields["count"].edit, "10")
        self.assertEqual(self.value("nuts.count"), 10)
        self.assertEqual(self.job.job.making.mates, {"slot": "mill-table"})
        self.assertEqual(self.job.plan.missing, ())

    def test_a_mate_starts_as_the_piece_that_likely_is_it(self):
        """A saw has a bore and a width as well as a bearing, and is none."""
        self.window.actions_by_id["job.new"].trigger()
        self.settle()
        page = self.window.pages.currentWidget()
        new = "a new one, to be measured in Survey"
        for family, mate, chosen in (
            ("draw-in-spindle", "front_bearing", new),
            ("draw-in-spindle", "shank", "Drill chuck on a Morse 2 arbor"),
            ("collet-arbor", "collet", "Collet 20 mm"),
            ("collet-arbor", "cutter", "Slitting saw 80 mm"),
            ("detent-plate", "shaft", "Rotary table's worm shaft"),
            ("single-point-bar", "holder", new),
        ):
            with self.subTest(family, mate=mate):
                self.click(page.what.cards[family])
                self.assertEqual(page.combos[f"mate.{mate}"].currentText(), chosen)
        # and the others can be chosen all the same
        self.assertGreater(page.combos["mate.holder"].count(), 3)

    def test_many_mates_are_asked_with_room_for_each(self):
        """Six new ones on a small screen: none is pressed flat, Enter goes down."""
        self.window.resize(1024, 700)
        self.window.actions_by_id["job.new"].trigger()
        self.settle()
        page = self.window.pages.currentWidget()
        self.click(page.what.cards["draw-in-spindle"])
        self.settle()
        entries = (field.edit for field in page.fields.values())
        for widget in (*page.combos.values(), *entries):
            if widget.isVisible():
                least = widget.minimumSizeHint().height()
                self.assertGreaterEqual(widget.height(), least, widget.accessibleName())
        self.type(page.fields["name"].edit, "Spindle")
        last = page.fields["name.draw_bar"].edit
        for _ in range(len(page.fields)):
            if self.app.focusWidget() is last:
                break
            self.type(self.app.focusWidget(), "")
        self.settle()
        seen = last.mapTo(self.window, last.rect().bottomLeft()).y()
        foot = page.go.mapTo(self.window, page.go.rect().topLeft()).y()
        self.assertIs(self.app.focusWidget(), last)
        self.assertTrue(0 < seen < foot, (seen, foot))


class TNuts(MadePieces):
    """Six nuts for a slot read 14.03 by slips: ±4.3 µm; d9 is 50 to 93 µm of play,
    so the tongue is 14.03 − 0.0043 − 0.050 = 13.9757 to 14.03 + 0.0043 − 0.093 =
    13.9413, drawn 13.96."""

    demo = False

    def test_six_t_nuts_from_an_empty_shop_to_the_end_of_their_route(self):
        self.set_up()
        self.begin("t-nut-strip", "Six T-nuts")
        self.assertEqual(len(self.job.plan.open["survey"]), 4)
        piece = self.stage("piece")
        self.assertIn("its neck", piece.nothing.words.text())
        self.read(
            ("slot", "tee-neck", "slips", "14.03"),
            ("slot", "tee-head", "caliper", "24.1"),
            ("slot", "tee-head-depth", "caliper", "10.1"),
            ("slot", "tee-lip", "caliper", "12.1"),
        )
        plan = self.job.plan
        self.assertEqual((plan.missing, plan.problem), ((), ""))
        fit = plan.fit(1)
        self.assertAlmostEqual(fit.lower, 13.9413, places=4)
        self.assertAlmostEqual(fit.upper, 13.9757, places=4)
        self.assertEqual(self.value("tongue.width"), 13.96)
        self.assertEqual(fit.made, 13.96)
        # the head: a millimetre narrower, half a millimetre lower than its slot
        self.assertEqual(self.value("head.width"), 23.1)
        self.assertEqual(self.value("head.height"), 9.6)
        self.assertEqual(self.value("thread.thread"), "M12")
        # in the stack its head lies under lips of 12.1, its tongue 0.5 below the table
        slot, nut = {part.tie: part for part in groups_of(plan)[0]}.values()
        if slot.made is not None:
            slot, nut = nut, slot
        ((_, table),) = slot.outline.places.values()
        self.assertAlmostEqual(table - nut.high, 0.5)
        self.assertAlmostEqual(table - nut.up - 9.6, 12.1)
        self.assertAlmostEqual(sum(nut.ends), sum(slot.ends), msg="in its middle")
        # six nuts of 22, five cuts of 1.6 with 0.3 to clean at each side
        self.stage("piece")
        self.assertEqual(self.job.plan.made.body.stock.size[0], 6 * 22 + 5 * 2.2 + 4)

        view = self.size("nuts.count", "4")
        self.assertEqual(self.value("nuts.count"), 4)
        self.size("nuts.length", "= head.width + 2mm")
        self.assertEqual(self.value("nuts.length"), 25.1)
        view.begin_edit("nuts.length")
        self.assertIn("linked", view.says.text())
        self.click(view.follow)
        self.assertEqual(self.value("nuts.length"), 22)

        before = self.job.plan.made.body
        self.size("tongue.height", "70")
        self.assertIn("from 1 to 60", view.says.text())
        self.assertIs(self.job.plan.made.body, before, "the last good piece stays")
        QTest.keyClick(view.edit, Qt.Key.Key_Escape)
        self.size("head.width", "= nuts.length")
        self.size("nuts.length", "= head.width")
        self.assertIn("depends on the next", view.says.text())
        QTest.keyClick(view.edit, Qt.Key.Key_Escape)

        # another wish moves the tongue: H7/h6 at 14 is 0 to 29 µm of play
        self.window.go("fits")
        self.click(self.window.job_page().view().cylinder.radios["snug"])
        self.assertGreater(self.value("tongue.width"), 13.99)

        # it is held in the vise until the tongue is proved in its slot
        route = self.tick_all()
        self.assertIn("Not off the machine yet", route.note.text())
        self.assertEqual(route.go.text(), "Prove it now")
        band = self.job.plan.fit(1)
        self.window.go("fits")
        self.type(self.window.job_page().view().cylinder.least.edit, "0.01")
        self.type(self.window.job_page().view().cylinder.most.edit, "0.07")
        band = self.job.plan.fit(1)
        size = self.prove(band.upper + 0.8)
        self.assertTrue(band.lower <= size <= band.upper)
        nuts = self.finish()
        proof = self.window.job_page().view()
        for kind, (_, end) in FILES.items():
            proof.write_file(kind, self.folder / "nuts")
            path = self.folder / f"nuts.{end}"
            self.assertTrue(self.until(lambda: proof.writing is None))
            self.assertGreater(path.stat().st_size, 300, proof.written.text())
        picture = QImage(str(self.folder / "nuts.png"))
        self.assertGreater(picture.width(), 2000)
        write_proof(self.job.plan, self.folder / "proof.pdf")
        pages = PdfReader(self.folder / "proof.pdf").pages
        said = " ".join(pages[0].extract_text().split())
        self.assertIn("Tongue in the slot", said)
        self.assertNotIn("How it runs", said)

        # the next four start from these: what was typed, not what the slot ruled
        self.begin("t-nut-strip", "Four more", like=nuts.id)
        self.assertEqual(self.job.job.making.sizes, nuts.making.sizes)
        self.assertEqual(nuts.making.sizes["nuts.count"], "4")
        self.assertEqual([surface.id for surface in nuts.surfaces], ["tongue"])
        self.assertAlmostEqual(nuts.surfaces[0].readings[0].value, size, places=3)

    def test_a_typed_tongue_that_contradicts_its_slot_stops_the_cutting(self):
        self.set_up()
        self.begin("t-nut-strip", "T-nuts")
        self.read(
            ("slot", "tee-neck", "slips", "14.03"),
            ("slot", "tee-head", "caliper", "24.1"),
            ("slot", "tee-head-depth", "caliper", "10.1"),
            ("slot", "tee-lip", "caliper", "12.1"),
        )
        self.stage("piece")
        self.size("tongue.width", "14.1")
        self.assertIn("over the band", self.job.plan.fit(1).contradiction)
        route = self.stage("route")
        self.assertIn("Cut nothing yet", route.warning.text())

    def test_a_slot_read_too_coarsely_is_cut_to_by_trial(self):
        """Read by caliper the slot is good to some 30 µm, "snug" lets the play vary by
        11: no band is left, and the strip is cut until it goes into its slot."""
        self.set_up()
        self.begin("t-nut-strip", "T-nuts")
        self.read(
            ("slot", "tee-neck", "caliper", "14.03"),
            ("slot", "tee-head", "caliper", "24.1"),
            ("slot", "tee-head-depth", "caliper", "10.1"),
            ("slot", "tee-lip", "caliper", "12.1"),
        )
        self.window.go("fits")
        self.click(self.window.job_page().view().cylinder.radios["snug"])
        self.assertTrue(self.job.plan.fit(1).spent)
        self.assertIn("by trial", self.job.plan.grave[0].says)
        self.tick_all()
        self.prove(15.0)
        self.assertEqual(self.job.plan.grave, ())
        self.finish()


class IndexRing(MadePieces):
    def test_a_plate_s_ring_is_compared_with_that_of_the_shop_s_other_plate(self):
        sizes = {"ring.count": "24", "ring.diameter": "8mm"}
        other = Piece("plate-160", "Plate 160", "other",
                      making=Making("back-plate", sizes))  # fmt: skip
        self.window.file.act("shop", "Another plate was made.", other)
        self.window.open_job("back-plate-130")
        rack = self.stage("piece").rack
        self.assertNotIn("Plate 160", rack.text(), "a plate without a ring")
        self.size("ring.count", "60")
        self.assertIn(
            "Index holes in the rim: not as on Plate 160, which has index holes 8 mm",
            rack.text(),
        )


class Arbor(MadePieces):
    """A Morse 2 arbor for a saw of 22: the bore read 22.012 and 22.010 by bore gauge,
    mean 22.011 ± 5.6 µm; h6 at 22 leaves 0 to 13 µm: 22.0036 to 22.0054."""

    demo = False

    def test_a_morse_2_arbor_for_a_saw_of_22_from_an_empty_shop(self):
        """Morse 2 is 17.780 at its large end and 1:20.020: 15.283 after 50 mm, 18.030
        at the collar, 5 mm off the socket."""
        self.set_up()
        self.begin("taper-arbor", "Saw arbor", socket="new", cutter="new")
        self.read(
            ("socket", "taper-in", "bore-gauge", ("17.78", "0"), ("15.283", "50")),
            ("cutter", "bore", "bore-gauge", "22.012", "22.010"),
            ("cutter", "width", "caliper", "3.02"),
        )
        self.assertEqual(self.value("shank.taper"), "MT2")
        self.assertEqual(self.value("shank.large"), 18.03)
        fit = self.job.plan.fit(1)
        self.assertAlmostEqual(fit.lower, 22.0036, places=3)
        self.assertAlmostEqual(fit.upper, 22.0054, places=3)
        # a little shorter than the cutter, or the screw never clamps it
        self.assertEqual(self.value("spigot.length"), 2.8)
        self.stage("piece")
        self.size("spigot.length", "3.2")
        failed = [check.key for check in self.job.plan.failed]
        self.assertEqual(failed, ["spigot-short"])
        self.size("spigot.length", "")
        self.assertEqual(self.job.plan.failed, ())
        self.assertAlmostEqual(fit.upper - fit.lower, 0.0018, places=3)
        self.window.go("fits")
        self.type(self.window.job_page().view().cylinder.least.edit, "0.005")
        self.type(self.window.job_page().view().cylinder.most.edit, "0.055")
        # it runs on its socket, which was read 2 µm out, and carries the cutter
        plan, socket = self.job.plan, self.job.job.making.mates["socket"]
        off = replace(plan.pieces[socket], runs=(Runs((0.002, 0, -0.002, 0), ""),))
        pieces = {**plan.pieces, socket: off}
        arbor, cutter = stations(plan_of(plan.job, plan.shop, plan.lathe, pieces))
        self.assertEqual((arbor.carried, cutter.carried), (False, True))
        self.assertAlmostEqual(arbor.most, 0.004)
        self.assertGreater(cutter.most, arbor.most)
        self.prove(23.0)
        route = self.tick_all()
        self.assertEqual(self.job.plan.open["route"], ())
        self.assertIn("run-out", self.job.plan.verdict_says)
        proof = self.stage("proof")
        self.type(proof.runout.edit, "0 0.004 0.006 0.002")
        self.assertEqual(proof.oval.text(), "–", "four readings show no oval")
        arbor = self.finish()
        # its shank is a Morse 2 for whatever goes on it, its spigot as it was read; a
        # draw bar and a cap screw go in its ends
        given = {surface.id: surface.given for surface in arbor.surfaces}
        self.assertEqual(
            given,
            {
                "register": "",
                "taper-out": "MT2",
                "thread-minor": "M10x1.5",
                "thread-pitch": "M10x1.5",
                "thread-minor-2": "M10x1.5",
                "thread-pitch-2": "M10x1.5",
            },
        )
        socket = self.window.file.get(self.job.job.making.mates["socket"])
        measured = {
            (piece.id, surface.id): measure(surface, self.job.plan.shop, "steel")
            for piece in (arbor, socket)
            for surface in piece.surfaces
        }
        (link,) = links_of(arbor, (socket,), measured)
        self.assertEqual((link.direct, link.says), (True, "goes on by its MT2"))
        route = self.stage("route")
        titles = [frame.accessibleName() for frame in route.frames.values()]
        self.assertTrue(any("compound at 1.4307°" in title for title in titles))

    def test_a_socket_nobody_can_gauge_is_taken_by_its_name(self):
        self.set_up()
        self.begin("taper-arbor", "Saw arbor", socket="new", cutter="new")
        socket = self.job.job.making.mates["socket"]
        self.job.take_as_made(socket, "taper-in", "MT2")
        self.assertNotIn("its taper", told_of(self.job.plan.missing))


class Blocks(MadePieces):
    def test_all_that_is_written_at_a_hole_is_typed_from_there(self):
        """4 × ⌀9 with counterbores: the line opens to its kind, screws and counts."""
        self.begin("plate-block", "Base")
        view = self.stage("piece")
        place = view.drawing.rect_of("holes1.face")
        for size, typed in (("Screws of holes 1: M8", "M6"),
                            ("Kind of holes 1: counterbored", "tapped"),
                            ("Holes 1 along the length: 2", "3")):  # fmt: skip
            menu = view.sizes_menu("holes1.face", place)
            self.pick(menu, size)
            self.assertTrue(view.edit.isVisible())
            self.type(view.edit, typed)
        self.assertEqual(self.value("holes1.screw"), "M6")
        self.assertEqual(len(self.job.plan.made.body.feature("holes1").points), 6)
        spot = view.drawing.drawing().spot("block.length")
        view.drawing.spot_chosen.emit(spot.tie, view.drawing.rect_of(spot.tie))
        self.assertTrue(view.edit.isVisible(), "a size by itself opens at once")

    def test_a_block_with_four_counterbored_holes_and_a_stud_hole(self):
        """Four M8 at 15 from the edges of 100 × 60: 70 and 30 apart. A head of 15 in
        a block of 30 leaves 30 − 8.6 = 21.4 under it."""
        self.begin("plate-block", "Base for the stop")
        self.assertEqual(self.job.plan.missing, ())
        self.stage("piece")
        view = self.window.job_page().view()
        self.pick(view.part_menu(), "A hole")
        self.size("hole1.screw", "M12")
        stud = self.job.plan.made.body.feature("hole1")
        self.assertEqual((stud.hole.thread, stud.points), ("M12x1.75", [(50, 30)]))
        holes = self.job.plan.made.body.feature("holes1")
        self.assertEqual(sorted(holes.points), [(15, 15), (15, 45), (85, 15), (85, 45)])
        self.assertEqual((holes.hole.bore, holes.hole.bore_depth), (15, 8.6))
        self.size("holes1.from_side", "= block.length/4")
        self.assertEqual(holes.points[0][0], 15)
        moved = self.job.plan.made.body.feature("holes1")
        self.assertEqual(moved.points[0][0], 25)
        self.size("block.length", "6in")
        self.assertAlmostEqual(self.value("holes1.from_side"), 38.1)
        self.tick_all()

    def test_a_hole_follows_half_the_width_of_the_tool_post(self):
        """A post of 80.1 and 79.9, one after the other measured: 40.05, then 40."""
        self.begin("plate-block", "Base", post="new")
        self.assertEqual(told_of(self.job.plan.missing), "the tool post (its width)")
        self.read(("post", "width", "caliper", "80.1"))
        view = self.stage("piece")
        self.pick(view.part_menu(), "A hole")
        self.size("hole1.face", "= post.width/2")
        self.assertIn("no word", view.says.text())
        self.size("hole1.from_side", "= post.width/2")
        hole = self.job.plan.made.body.feature("hole1")
        self.assertAlmostEqual(hole.points[0][0], 40.05, places=3)
        self.read(("post", "width", "caliper", "79.9"))
        hole = self.job.plan.made.body.feature("hole1")
        self.assertAlmostEqual(hole.points[0][0], 40.0, places=3)

    def test_a_size_without_a_fit_is_proved_against_the_drawing(self):
        """100 mm without a zone may be off 0.3 each way, 30 mm 0.2; ISO 2768-m."""
        self.begin("plate-block", "Base")
        view = self.stage("piece")
        view.begin_edit("block.length")
        self.click(view.prove)
        lines = {line.key: line for line in self.job.plan.proof}
        long = lines["size.block.length"]
        self.assertEqual((long.lower, long.upper), (99.7, 100.3))
        proof = self.stage("proof")
        for key, size in (("block.height", "30.1"), ("block.length", "100.4")):
            proof.choose(f"size.{key}")
            self.choose(proof.instrument, "caliper")
            self.type(proof.reading.edit, size)
        self.assertEqual(self.job.plan.verdict, "failed")
        self.click(proof.again)
        self.type(proof.reading.edit, "100.2")
        block = self.finish()
        self.assertEqual(sorted(s.id for s in block.surfaces), ["length", "thickness"])

    def test_the_piece_is_turned_as_a_solid(self):
        self.begin("plate-block", "Base")
        view = self.stage("piece")
        self.click(view.as_solid)
        self.assertTrue(view.solid.isVisible())
        before = view.solid.grab().toImage()
        QTest.keyClick(view.solid, Qt.Key.Key_Left)
        view.solid._come_to_rest()
        turned = view.solid.grab().toImage()
        self.assertNotEqual(before, turned)
        self.job.set_size("block.height", "60")
        self.assertNotEqual(view.solid.grab().toImage(), turned, "it follows a size")
        self.click(view.as_solid)
        self.assertTrue(view.drawing.isVisible())

    def test_a_size_that_was_only_looked_at_goes_on_following_its_rule(self):
        """A hole in the middle of 90 lies at 45; kept there, it stays at 45 of 120."""
        self.begin("plate-block", "Base")
        view = self.stage("piece")
        self.job.add_part("hole")
        before = view.drawing.size()
        view.begin_edit("hole1.from_side")
        self.settle()
        self.assertEqual(view.drawing.size(), before, "it stands still under the entry")
        QTest.keyClick(view.edit, Qt.Key.Key_Return)
        self.assertFalse(view.edit.isVisible())
        self.size("block.length", "90")
        self.assertEqual(self.value("hole1.from_side"), 45)
        view.begin_edit("hole1.from_side")
        self.click(view.hold)
        self.size("block.length", "120")
        self.assertEqual(self.value("hole1.from_side"), 45)
        view.begin_edit("hole1.from_side")
        self.assertFalse(view.hold.isVisible())
        self.click(view.follow)
        self.assertEqual(self.value("hole1.from_side"), 60)
        self.size("hole1.from_side", "60")  # the same, but said by a person
        self.size("block.length", "100")
        self.assertEqual(self.value("hole1.from_side"), 60)

    def test_a_refusal_is_seen_however_little_room_there_is(self):
        self.window.resize(1024, 700)
        self.begin("plate-block", "Base")
        self.stage("piece")
        view = self.size("block.height", "2000")
        self.settle()
        seen = view.says.visibleRegion().boundingRect()
        self.assertEqual(seen.height(), view.says.height())
        self.assertTrue(view.says.text().startswith("Height: 2000 mm does not work"))

    def test_the_stock_is_drawn_as_the_rack_has_it(self):
        """A tube of 60 × 20 for a step of 45 with a bore of 25, in one act."""
        tube = Item("tube", "tube 60 × 20", 60, 20, 400)
        file = self.window.file
        file.act("shop", "Rack.", Belongings("stock", "Stock", (tube,)))
        self.begin("turned-piece", "Bush")
        view = self.stage("piece")
        self.job.set_size("step1.diameter", "45")
        self.job.add_part("bore")
        self.job.set_size("bore1.diameter", "25")
        self.assertIn("tube 60 × 20", view.rack.text())
        self.click(view.from_rack)
        self.assertEqual((self.value("stock.diameter"), self.value("stock.bore")),
                         (60, 20))  # fmt: skip
        self.assertFalse(view.from_rack.isVisible())
        self.job.undo()
        self.assertEqual(self.value("stock.bore"), 0)
        self.assertTrue(view.from_rack.isVisible())

    def test_what_was_typed_is_there_after_a_restart(self):
        self.begin("plate-block", "Base")
        self.stage("piece")
        self.size("block.height", "22")
        id = self.job.job.id
        self.close_window()
        self.open_window()
        self.window.open_job(id)
        self.assertEqual(self.value("block.height"), 22)
        self.assertTrue(self.window.job.undo().startswith("Plate block, height"))
        self.assertEqual(self.value("block.height"), 30)


class Revisions(MadePieces):
    def test_what_it_takes_is_said_in_a_line(self):
        self.window.open_job("back-plate-130")
        view = self.stage("piece")
        view.show_effort()
        self.assertIn("of cast iron", view.effort.text())

    def test_what_changed_since_is_shown_on_the_drawing(self):
        """Hub 72 for its rule's 69, then a flange of 20 for 18: the stock's length
        follows."""
        self.window.open_job("back-plate-130")
        view = self.stage("piece")
        (never,) = view.drawn_menu().actions()
        self.assertFalse(never.isEnabled(), "it was never drawn otherwise")
        hub = self.value("hub.diameter")
        self.size("hub.diameter", "72")
        self.size("flange.thickness", "20")
        thick, hub_typed = [action.text() for action in view.drawn_menu().actions()]
        self.assertIn("hub diameter: 72", hub_typed)
        self.pick(view.drawn_menu(), hub_typed)
        self.assertIn("3 sizes differ", view.says.text())
        said = [i.text for i in view.drawing.drawing().items if isinstance(i, Text)]
        self.assertIn(f"was {hub:g}", said)
        self.pick(view.drawn_menu(), thick)
        self.assertIn("2 sizes differ", view.says.text())
        self.job.undo()
        self.window.go("piece")
        self.assertEqual(view.was, {}, "another drawing is compared anew")
        self.assertEqual(len(view.drawn_menu().actions()), 1)


class Sleeves(MadePieces):
    """Between faces 45.03 apart (depth micrometer, one reading ±17 µm) with 0.05 to
    0.12 of play: 45.03 − 0.12 + doubt to 45.03 − 0.05 − doubt."""

    def test_a_sleeve_between_two_measured_faces_by_a_chain(self):
        self.begin("spacer-sleeve", "Spacer", shaft="new", gap="new")
        self.read(
            ("shaft", "shaft", "micrometer", "19.99", "19.99"),
            ("gap", "length", "depth-gauge", "45.03"),
        )
        plan = self.job.plan
        self.assertEqual(plan.asked, ("gap.least", "gap.most"))
        piece = self.stage("piece")
        self.assertIs(self.app.focusWidget(), piece.asked["gap.least"].edit)
        self.type(piece.asked["gap.least"].edit, "50um")
        self.assertIs(self.app.focusWidget(), piece.asked["gap.most"].edit)
        self.type(piece.asked["gap.most"].edit, "rubbish")
        self.assertTrue(piece.asked["gap.most"].message.text())
        self.type(piece.asked["gap.most"].edit, "0.12")
        chain = next(b for b in self.job.plan.made.fits if b.slot.key == "length")
        doubt = plan.measured[self.job.job.making.mates["gap"], "length"].uncertainty
        self.assertGreater(doubt, 0.01)
        self.assertAlmostEqual(chain.upper, 44.98 - doubt, delta=0.0011)
        self.assertAlmostEqual(chain.lower, 44.91 + doubt, delta=0.0011)
        self.assertLess(chain.upper - chain.lower, 0.07 - 2 * doubt)
        self.assertAlmostEqual(self.value("sleeve.length"), 44.945, delta=0.006)
        stack = stack_drawing(self.job.plan, 540, 150)
        texts = [item.text for item in stack.items if isinstance(item, Text)]
        self.assertIn("45.030 mm", texts, "the chain runs along the stack")
        self.assertIn(f"{chain.lower:.3f} to {chain.upper:.3f} mm", texts)
        self.window.go("fits")
        self.type(self.window.job_page().view().cylinder.least.edit, "0.01")
        self.type(self.window.job_page().view().cylinder.most.edit, "0.07")
        self.prove(19.2, -1)
        self.tick_all()
        proof = self.stage("proof")
        proof.choose("chain.length")
        self.choose(proof.instrument, "depth-gauge")
        self.type(proof.reading.edit, "44.945")
        # a gauge as wide as the band decides nothing: the sleeve is tried
        self.assertIn("the mate decides", proof.line_says.text())
        self.click(proof.answers["goes on"])
        sleeve = self.finish()
        self.assertEqual(
            [surface.id for surface in sleeve.surfaces], ["bore", "length"]
        )


class TurnedPiece(MadePieces):
    """A stud whose end goes in a pulley: bore read 25.012 ± 5.8 µm, "moves" leaves play
    wherever the word's zone puts it; the size follows the band, whatever it is."""

    def test_without_a_mate_the_steps_of_its_route_prove_it(self):
        self.begin("turned-piece", "Plain stud")
        cut = self.stage("cut")
        self.assertIn("the next step is: Face", cut.nothing.words.text())
        proof = self.stage("proof")
        self.assertFalse(proof.keep.isEnabled())
        self.assertIn("Steps not done", self.job.plan.verdict_says)
        stud = self.finish()
        self.assertIn("Made to its drawing", proof.says.text())
        self.assertFalse(proof.reading.isVisible())
        self.assertEqual(stud.surfaces, ())
        write_proof(self.job.plan, self.folder / "stud.pdf")

    def test_a_diameter_that_no_fit_rules_is_cut_by_the_dial_to_its_drawing(self):
        """Step 1 of 20 mm may be off 0.2 each way; ISO 2768-m."""
        self.begin("turned-piece", "Plain stud")
        route = self.stage("route")
        route.choose("deburr")
        self.assertFalse(route.by_dial[0].isVisible())
        route.choose("turn-step1")
        self.click(route.by_dial[0])
        state = self.job.plan.cut_state
        self.assertEqual((state.external, state.lower, state.upper), (True, 19.8, 20.2))
        cut = self.window.job_page().view()
        size = self.sneak_up(21.5, 1)
        self.assertTrue(19.8 <= size <= 20.2, size)
        self.assertFalse(cut.trial.isVisible(), "there is no mate to try")
        self.click(cut.finished)
        self.assertIn("turn-step1", self.job.job.done)
        (line,) = self.job.plan.proof
        self.assertEqual((line.key, line.verdict), ("size.step1.diameter", "proved"))
        self.assertAlmostEqual(line.size, size, 3)
        stud = self.finish()
        self.assertEqual([surface.kind for surface in stud.surfaces], ["outside"])
        self.assertAlmostEqual(stud.surfaces[0].readings[0].value, size, 3)

    def test_a_length_is_cut_by_the_dial_that_counts_mm_for_mm(self):
        """The shoulder stands 20 from the end; ISO 2768-m lets it be ±0.2. A line of
        0.02 is 0.02 of the length, whatever the cross slide counts."""
        self.begin("turned-piece", "Stop")
        self.stage("piece")
        self.size("step2.length", "20")
        route = self.stage("route")
        steps = [s for up in self.job.plan.route for s in up.steps]
        turned = next(s for s in steps if "step2.length" in self.job.sizes_at_dial(s))
        self.assertEqual(
            self.job.sizes_at_dial(turned), ("step2.diameter", "step2.length")
        )
        route.choose(turned.key)
        self.click(route.by_dial[1])
        cut = self.window.job_page().view()
        self.assertEqual(cut.large.text(), "Size now?")
        self.type(cut.field.edit, "0")
        self.type(cut.field.edit, "0")
        # the deepest pass is 1 a side: 2 of a length
        self.assertEqual(cut.large.text(), "2.00")
        self.assertIn("100 lines", cut.under.text())
        size = self.sneak_up(0, -1)
        self.assertTrue(19.8 <= size <= 20.2, size)
        self.click(cut.finished)
        self.assertEqual(self.job.job.done, (), "its diameter is still to be turned")
        line = next(
            line for line in self.job.plan.proof if line.key == "size.step2.length"
        )
        self.assertEqual(line.verdict, "proved")

    def test_an_old_bush_is_turned_down_and_its_bore_is_there_already(self):
        """Step 1 and the bore stand on it: only step 2, its end and edge are cut."""
        self.begin("turned-piece", "Old bush, smaller flange")
        view = self.stage("piece")
        view.add_part("bore")
        for key in ("bore1.diameter", "step1.diameter"):
            view.begin_edit(key)
            self.assertEqual(view.there.text(), "It is there already")
            self.click(view.there)
        steps = [s for up in self.job.plan.route for s in up.steps]
        cut = {name for s in steps for name in s.features}
        self.assertFalse({"bore1", "step1"} & cut)
        self.assertIn("step2", cut)
        there = {feature.name for feature in steps[0].before.features}
        self.assertEqual(there, {"bore1", "step1"})
        view.begin_edit("bore1.diameter")
        self.assertEqual(view.there.text(), "It is to be cut")
        self.click(view.there)
        keys = [s.key for up in self.job.plan.route for s in up.steps]
        self.assertIn("drill-bore1", keys)
        self.job.undo()
        self.assertIn("bore1", self.job.job.making.there)

    def test_the_old_bush_is_measured_and_its_drawing_follows(self):
        """Bore and step 1 stand: 20.03 and 34.96, as they are read. A size that is
        typed stands before what was read; a step that is cut again is drawn again."""
        self.begin("turned-piece", "Old bush, measured")
        view = self.stage("piece")
        view.add_part("bore")
        drawn = self.value("step1.diameter")
        survey = self.stage("survey")
        self.assertFalse(survey.old_piece.isVisible(), "nothing stands yet")
        view = self.stage("piece")
        for key in ("bore1.diameter", "step1.diameter"):
            view.begin_edit(key)
            self.click(view.there)
        survey = self.stage("survey")
        self.click(survey.old_piece)
        self.assertFalse(survey.old_piece.isVisible(), "every size is asked for")
        old, told = self.job.job.making.old, self.job.job.making.read_on
        self.assertIn(old, self.job.job.pieces)
        self.assertEqual(self.job.plan.stack, (), "it becomes what is drawn there")
        for key, gauge, size in (
            ("bore1.diameter", "bore-gauge", "20.03"),
            ("step1.diameter", "micrometer", "34.96"),
        ):
            survey.choose(old, told[key])
            self.choose(survey.instrument, gauge)
            self.type(survey.reading.edit, size)
        self.assertAlmostEqual(self.value("bore1.diameter"), 20.03, 3)
        self.assertAlmostEqual(self.value("step1.diameter"), 34.96, 3)
        known = self.job.plan.made.sizes["bore1.diameter"]
        self.assertEqual(known.because, "as the old piece measures")
        view = self.stage("piece")
        self.size("bore1.diameter", "20.05")
        self.assertAlmostEqual(self.value("bore1.diameter"), 20.05)
        view.begin_edit("step1.diameter")
        self.click(view.there)  # it is turned down after all
        self.assertEqual(self.value("step1.diameter"), drawn)
        self.window.actions_by_id["edit.undo"].trigger()
        self.assertAlmostEqual(self.value("step1.diameter"), 34.96, 3)
        survey = self.stage("survey")
        survey.choose(old, told["step1.diameter"])
        self.job.drop_surface(old, told["step1.diameter"])
        self.assertEqual(self.value("step1.diameter"), drawn)

    def test_a_ball_on_its_handle_is_turned_in_steps_held_by_its_shank(self):
        """⌀20 on ⌀12, its tip to the right: 18 long, 12 steps from its tip and 7 from
        its neck, then the file."""
        self.begin("turned-piece", "Ball handle")
        view = self.stage("piece")
        self.size("step1.diameter", "12")
        view.begin_edit("step2.length")
        self.pick(view.part_menu(), "A ball")
        self.assertIn("The right end is the tip of a ball", view.says.text())
        for key in ("edge1.leg", "step2.length"):
            view.begin_edit(key)
            self.click(view.take_out)
        view.begin_edit("step1.length")
        self.pick(view.part_menu(), "A ball")
        self.assertEqual(view._key, "ball1.diameter")
        self.type(view.edit, "20")
        self.assertEqual(self.value("ball1.length"), 18)
        self.assertEqual(self.job.plan.failed, ())
        first, then, _ = self.job.plan.route
        self.assertIn("turn-step1", [step.key for step in first.steps])
        route = self.stage("route")
        for step in (*first.steps, *then.steps[:2]):
            route.choose(step.key)
            self.click(route.done)
        self.assertEqual(self.job.next_step().key, "bevel-ball1")
        route.choose("bevel-ball1")
        self.click(route.go)
        page = self.window.job_page().view().lines
        self.assertEqual(len(page.list.lines), 12 + 7 + 1)
        for _ in page.list.lines:
            QTest.keyClick(page, Qt.Key.Key_Return)
            self.settle()
        self.assertIn("bevel-ball1", self.job.job.done)

    def test_features_are_added_one_by_one_and_taken_out(self):
        """A spool: two steps, a third, a groove of 3 in it, and a bore through."""
        self.begin("turned-piece", "Spool")
        view = self.stage("piece")
        self.size("step2.diameter", "25")
        view.begin_edit("step2.length")
        self.pick(view.part_menu(), "A step")
        self.assertEqual(self.job.job.making.parts[:3], ("step1", "step2", "step3"))
        self.assertEqual(view._key, "step3.length", "its first size is asked")
        self.type(view.edit, "30")
        self.size("step3.diameter", "40")
        self.assertEqual(self.job.plan.made.body.ends, (0, 70))
        self.pick(view.part_menu(), "A groove outside")
        self.type(view.edit, "50")
        self.assertEqual(self.value("groove1.diameter"), 36, "two deep in the largest")
        self.pick(view.part_menu(), "A bore")
        self.size("bore1.diameter", "= step1.diameter/2")
        self.assertEqual(self.job.plan.failed, ())
        titles = [s.title for up in self.job.plan.route for s in up.steps]
        self.assertTrue(
            any("Turn groove 1 to ⌀36" in title for title in titles), titles
        )
        # a step that something is linked to stays
        view.begin_edit("step1.length")
        self.assertEqual(view.take_out.text(), "Take out step 1")
        self.click(view.take_out)
        self.assertIn("linked to it", view.says.text())
        view.begin_edit("groove1.width")
        self.click(view.take_out)
        self.assertNotIn("groove1.width", self.job.plan.made.sizes)
        self.window.actions_by_id["edit.undo"].trigger()
        self.assertEqual(self.value("groove1.from_end"), 50)

    def test_a_part_that_cannot_be_leaves_the_last_good_piece(self):
        self.begin("turned-piece", "Stub")
        view = self.stage("piece")
        for part in ("step2", "step1"):
            view.begin_edit(f"{part}.length")
            self.click(view.take_out)
        self.assertIn("needs a step", view.says.text())
        self.assertEqual(self.job.plan.made.body.ends, (0, 20))

    def test_a_size_follows_a_fit_that_was_added(self):
        self.begin("turned-piece", "Pulley stud")
        self.assertEqual(self.job.plan.open["survey"], ())
        self.assertEqual(self.job.plan.made.body.largest, 30)
        self.assertEqual(self.job.plan.made.body.ends, (0, 40))
        survey = self.stage("survey")
        survey._ask_new_piece()
        self.type(survey.new_piece.edit, "Pulley")
        self.pick(survey.surface_menu(), "Bore")
        self.choose(survey.instrument, "bore-gauge")
        self.type(survey.reading.edit, "25.012")
        self.type(survey.reading.edit, "25.012")
        fits = self.stage("fits")
        self.pick(fits.fit_menu(), "Bore of Pulley")
        band = self.job.plan.fit(1)
        self.assertGreater(band.upper, band.lower)
        self.stage("piece")
        view = self.size("step2.diameter", "= fit2")
        self.assertIn("no size, mate or fit", view.says.text())
        self.type(view.edit, "= fit1")
        known = self.job.plan.made.sizes["step2.diameter"]
        self.assertAlmostEqual(known.value, (band.lower + band.upper) / 2, 3)
        self.assertEqual(known.ends, (band.lower, band.upper))
        self.assertEqual(self.job.plan.fit(1).made, known.value)
        view.begin_edit("step2.diameter")
        self.assertEqual(view.open_fit.text(), "Open fit 1")
        self.click(view.open_fit)

        # another reading moves the fit, and the drawing with it
        self.read_again("25.016")
        moved = self.job.plan.made.sizes["step2.diameter"]
        self.assertGreater(moved.value, known.value)
        route = self.stage("route")
        step = next(s for up in self.job.plan.route for s in up.steps if s.fit == 1)
        self.assertEqual(step.features, ("step2",))
        route.choose(step.key)
        self.assertEqual(route.go.text(), "Work it in Cut")

    def read_again(self, size):
        survey = self.stage("survey")
        (piece,) = self.job.pieces.values()
        survey.choose(piece.id, piece.surfaces[0].id)
        self.choose(survey.instrument, "bore-gauge")
        self.type(survey.reading.edit, size)

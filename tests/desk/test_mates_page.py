from msgspec.structs import replace

from machinon.core.shop.things import Lathe
from machinon.desk.begin import NO_MATE
from tests.desk.test_made_pieces import MadePieces


class OtherMates(MadePieces):
    """What a piece goes with, chosen anew while its job is under way."""

    def mates(self, **chosen):
        """Choose on the page that the job's header leads to; the page."""
        self.window.actions_by_id["job.mates"].trigger()
        self.settle()
        page = self.window.pages.currentWidget()
        for key, data in chosen.items():
            key = key if key in page.combos else f"mate.{key}"
            self.choose(page.combos[key], data)
        self.click(page.go)
        return page

    def fits(self):
        return {fit.name: fit for fit in self.job.job.fits}


class AnOptionalMate(OtherMates):
    """A bar of 20 mm whose free end comes to run in a bushing after all.

    The bushing by bore gauge, 16.006: the pilot runs in it by f7 at 16, 16 to 34 µm
    of play, and is drawn in the middle of that, 25 µm under it.
    """

    demo = False

    def setUp(self):
        super().setUp()
        self.set_up()
        self.begin("single-point-bar", "Bar for the bracket")
        self.read(("holder", "bore", "bore-gauge", "20.01"))
        self.read(("bit", "shaft", "micrometer", "7.99"))
        self.job.set_size("work.bore", "32mm")

    def test_it_is_measured_fitted_drawn_and_proved_like_those_from_the_start(self):
        self.mates(bushing="new")
        self.assertEqual(list(self.fits())[2:], ["Pilot in its bushing"])
        self.assertIn("far end", self.job.pieces["bushing-at-the-far-end"].name)
        self.assertIsNone(self.job.plan.made, "its bore is not known yet")
        self.read(("bushing", "bore", "bore-gauge", "16.006"))
        self.assertAlmostEqual(self.value("pilot.diameter"), 16.006 - 0.025, 3)
        says = " ".join(self.job.plan.open["proof"])
        self.assertIn("pilot in its bushing", says)

    def test_it_goes_again_with_its_fit_while_nothing_is_cut_to_it(self):
        before = self.job.job
        self.mates(bushing="new")
        self.mates(bushing=NO_MATE)
        self.assertEqual(self.job.job, before)
        self.assertIsNotNone(self.job.plan.made)

    def test_one_that_was_cut_to_stays_and_the_page_says_so(self):
        self.mates(bushing="new")
        self.read(("bushing", "bore", "bore-gauge", "16.006"))
        self.job.cut_fit(3)
        self.job.measure_start("17")
        page = self.mates(bushing=NO_MATE)
        self.assertTrue(page.says.isVisible())
        self.assertIn("was cut to it", page.says.text())
        self.assertIn("bushing", self.job.job.making.mates)

    def test_a_size_linked_to_its_fit_keeps_it(self):
        self.mates(bushing="new")
        self.read(("bushing", "bore", "bore-gauge", "16.006"))
        self.job.set_size("bar.length", "= fit3 * 12")
        page = self.mates(bushing=NO_MATE)
        self.assertIn("bar.length is linked to fit 3", page.says.text())


class ATypedMate(OtherMates):
    """An arbor on which a die holder slides, whose bore is typed on the drawing."""

    demo = False

    def test_a_mate_that_is_only_typed_rules_its_size_with_no_fit_in_the_job(self):
        self.set_up()
        self.begin("chuck-arbor", "Arbor for the die holder")
        for key, text in (("socket.taper", "MT3"), ("sleeve.bore", "16.02")):
            self.job.set_size(key, text)
        self.assertEqual(self.job.job.fits, ())
        route = self.stage("route")
        for key in route.frames:
            route.choose(key)
        self.assertEqual({s.fit for up in self.job.plan.route for s in up.steps}, {0})


class AnotherMate(OtherMates):
    """The demo's back plate comes to carry another chuck, and may be made elsewhere."""

    def setUp(self):
        super().setUp()
        self.window.open_job(self.window.file.entries("job")[0].id)
        self.settle()

    def test_its_fits_keep_their_numbers_and_words_and_are_on_the_new_one(self):
        before = self.fits()
        self.assertEqual(self.job.job.making.sizes["chuck.bolts"], "3")
        self.mates(chuck="new")
        spigot = self.fits()["Plate spigot in chuck"]
        was = before["Plate spigot in chuck"]
        self.assertEqual(spigot, replace(was, piece="chuck"))
        self.assertNotIn("chuck.bolts", self.job.job.making.sizes)
        self.assertEqual(self.job.job.pieces, ("lathe-nose", "chuck"))
        self.assertEqual(tuple(self.job.pieces), self.job.job.pieces)
        self.assertTrue(self.job.plan.missing)
        self.window.actions_by_id["edit.undo"].trigger()
        self.settle()
        self.assertEqual(self.fits(), before)
        self.assertFalse(self.job.plan.missing)

    def test_a_job_goes_to_another_lathe_of_the_shop(self):
        """150 mm of casting hardly swing over a bed 70 mm below the centres."""
        file = self.window.file
        small = replace(
            file.all_of(Lathe)[0], id="small", name="Small lathe", centre_height=70.0
        )
        file.act("", "A lathe.", small)
        self.window.open_job(self.job.job.id)
        self.assertEqual([check.key for check in self.job.plan.failed], [])
        route = self.stage("route")
        self.choose(route.machine, "small")
        says = " ".join(check.says for check in self.job.plan.failed)
        self.assertIn("Small lathe", says)


class MadeHere(OtherMates):
    demo = False

    def test_what_is_made_to_a_piece_is_no_mate_of_it(self):
        self.set_up()
        self.begin("carrier", "Collet chuck on the lathe", held="new")
        self.job.add_work("back-plate", {"mate.chuck": "made:1"})
        self.assertEqual(list(self.job.mates_here()), ["made:1"])
        self.job.choose_work("1")
        self.assertEqual(list(self.job.mates_here()), [])

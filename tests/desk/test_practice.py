"""Practice at the desk: the page of Cut on the simulated lathe, by number keys."""

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from machinon.core.practice.record import kept_records
from tests.desk.bench import WindowCase


class AtTheSimulatedLathe(WindowCase):
    FLASHES = True

    def begin(self, kind="shaft", coached="on", seed="7", level="calm"):
        self.window.actions_by_id["practice"].trigger()
        self.settle()
        page = self.page
        self.click(page.kinds[kind])
        self.choose(page.level, level)
        self.choose(page.coached, coached)
        page.seed.put(seed)
        self.click(page.start)
        return page

    @property
    def page(self):
        return self.window.pages.currentWidget()

    def keys(self, text):
        """Number keys and Enter, wherever the keyboard is."""
        edit = self.page.cut.field.edit
        QTest.keyClicks(edit, text)
        QTest.keyClick(edit, Qt.Key.Key_Return)
        self.settle()

    def test_a_register_by_number_keys_alone_to_a_proved_fit(self):
        """Full screen; what the gauge shows is typed, the dial goes as it is advised,
        Enter at the end tries the mate."""
        shops = self.window.file.entries("job")
        self.begin()
        self.window.actions_by_id["view.machine"].trigger()
        self.settle()
        self.assertTrue(self.window.isFullScreen())
        for _ in range(40):
            page = self.page
            if page.job is None:
                break
            asks = page.cut.screen.asks
            size = page.job.gauge
            self.keys({"touch": "0", "start": f"{size}", "reading": f"{size}"}
                      .get(asks, ""))  # fmt: skip
        told = self.page.run.told
        self.assertTrue(told.outcome.inside, told.says)
        self.assertIn("In the band", self.page.run.says.text())
        record = kept_records(self.window.settings.get("practice"))[-1]
        self.assertEqual((record.kind, record.seed, record.inside), ("shaft", 7, True))
        self.assertEqual(
            self.window.file.entries("job"), shops, "the shop is untouched"
        )
        QTest.keyClick(self.window, Qt.Key.Key_Escape)
        self.settle()
        self.assertFalse(self.window.isFullScreen())
        self.assertIn("In the band", self.page.run.says.text(), "it still stands there")

    def test_the_same_through_the_simulated_gauge(self):
        """No reading is typed: the gauge says each on its wire."""
        self.window.actions_by_id["devices"].trigger()
        self.settle()
        self.page.simulate("readout")
        self.page.simulate("gauge")
        hub = self.window.wired.hub
        readout, link = (device.link for device in hub.on_wire.values())
        ins = hub.stand_ins.values()
        self.assertTrue(self.until(lambda: all(device.listened_to for device in ins)))
        page = self.begin(seed="11")
        for _ in range(40):
            if page.job is None:
                break
            log = page.job.job.log
            if page.cut.wants_reading:
                self.assertTrue(self.until(lambda log=log: page.job.job.log != log))
            elif page.cut.screen.asks == "touch":
                self.keys("0")
            else:
                self.keys("")
        self.assertTrue(self.page.run.told.outcome.inside)
        readings = [s.done for s in self.page.run.told.steps if s.done.read is not None]
        self.assertEqual(link.counts.handed, len(readings), "each once")
        dials = [s.done.dial for s in self.page.run.told.steps if s.done.what == "cut"]
        shown = page.run.job.dial.shows(dials[-1], 0.0)
        told = round(shown, 3)
        self.assertTrue(self.until(lambda: hub.readout.mirror.shown["X"] == told))
        self.assertGreater(readout.counts.handed, 0)

    def test_alone_nothing_of_the_coach_is_shown_and_a_wrong_dial_is_refused(self):
        page = self.begin(coached="off")
        self.keys(f"{page.job.gauge}")
        self.keys("0")
        cut = page.cut
        self.assertEqual(cut.head.text(), "Your turn")
        self.assertFalse(cut.expected.isVisible() or cut.takes.isVisible())
        self.assertFalse(cut.tools.isVisible())
        self.keys("")
        self.assertIn("Type where the dial", cut.field.message.text())
        self.keys("0.2")
        self.assertIsNone(page.job.gauge, "the gauge was laid down")
        QTest.keyClick(cut.field.edit, "+")
        self.settle()
        self.assertIsNotNone(page.job.gauge)
        self.keys(f"{page.job.gauge}")
        self.assertEqual(len(page.job.job.log.entries), 1)
        self.click(page.end)
        self.assertIn("stops", self.page.run.says.text())

    def test_metal_does_not_come_back_and_a_dial_wound_too_far_stays(self):
        page = self.begin()
        self.keys(f"{page.job.gauge}")
        self.keys("0")
        self.window.actions_by_id["edit.undo"].trigger()
        self.assertEqual(page.job.job.log.touch, 0.0)
        self.type(page.wind.edit, "9")
        lathe = page.job.exercise.lathe
        deep = lathe.slide
        self.type(page.wind.edit, "0.1")
        self.assertLess(lathe.slide, deep)
        self.assertGreater(lathe.slide, lathe.setting, "by the play in the screw")
        self.type(page.wind.edit, "far")
        self.assertTrue(page.wind.message.text())

    def test_a_change_of_the_look_leaves_it_under_way(self):
        page = self.begin()
        self.keys(f"{page.job.gauge}")
        job = page.job
        self.window.swap_theme()
        self.settle()
        self.assertIs(self.page.job, job)
        self.assertEqual(self.page.cut.screen.asks, "touch")
        self.window.show_start()
        self.settle()
        self.assertFalse(list(self.folder.glob("practice*.lock")))

    def test_habits_are_set_freely_and_nonsense_is_refused_where_it_was_typed(self):
        self.window.actions_by_id["practice"].trigger()
        self.settle()
        page = self.page
        self.assertFalse(page.own_area.isVisible())
        self.choose(page.level, "own")
        page.own["takes"].put("7")
        self.click(page.start)
        self.assertIn("0.5 to 1", page.own["takes"].message.text())
        page.own["takes"].put("0.8")
        page.own["slips"].put("0")
        page.seed.put("3")
        self.click(page.start)
        habits = self.page.job.exercise.lathe.habits
        self.assertAlmostEqual(1 / (1 + habits.compliance), 0.8)
        self.assertEqual(habits.slips, 0)

    def test_a_casting_is_centred_and_told(self):
        page = self.begin("centring")
        run = page.run
        first, two = run.fields.values()
        for _ in range(12):
            if run.exercise.over:
                break
            a, b, c, d = run.exercise.readings
            self.type(first.edit, f"{(a - c) / 2:.3f}")
            self.type(two.edit, f"{(b - d) / 2:.3f}")
        self.assertTrue(run.exercise.over)
        self.assertIn("True", run.tip.text())
        self.click(run.again)
        self.assertIsNot(page.run, run, "the same casting once more")
        self.type(next(iter(page.run.fields.values())).edit, "90")
        message = next(iter(page.run.fields.values())).message.text()
        self.click(page.run.do)
        field = next(iter(page.run.fields.values()))
        self.assertIn("-3 to 3", message or field.message.text())

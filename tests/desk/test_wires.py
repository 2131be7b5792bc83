"""Devices at the desk: what comes over a wire goes where it belongs, once."""

from unittest import mock

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from machinon.desk.widgets import Typed
from machinon.devices import mirror
from machinon.devices.stand_in import StandIn
from tests.desk.bench import WindowCase
from tests.desk.test_work_page import ByKeys


class DevicesAtTheDesk(WindowCase):
    def open_page(self):
        self.window.actions_by_id["devices"].trigger()
        self.settle()
        return self.window.pages.currentWidget()

    def stand_in(self, kind, **more):
        made = StandIn(kind, **more)
        made.start()
        self.addCleanup(made.stop)
        return made

    def add(self, page, name, kind, form, port):
        self.choose(page.kind, kind)
        self.choose(page.form, form)
        page.name.put(name)
        page.port.put(port)
        self.click(page.add)
        return self.window.wired.hub.on_wire.get(page._at)

    def test_a_gauge_is_added_and_its_reading_goes_into_the_survey(self):
        gauge = self.stand_in("gauge")
        page = self.open_page()
        self.add(page, "", "gauge", "number", gauge.url)
        self.assertIn("name", page.name.message.text().lower())
        self.add(page, "Micrometer", "gauge", "number", "nowhere")
        self.assertIn("no port", page.port.message.text())
        page.axes.put("up is Z")
        self.add(page, "Micrometer", "gauge", "number", gauge.url)
        self.assertIn("A=X", page.axes.message.text())
        page.axes.put("")
        self.choose(page.instrument, "micrometer")
        device = self.add(page, "Micrometer", "gauge", "number", gauge.url)
        self.assertIn("Micrometer", self.window.settings.get("devices"))
        self.assertTrue(self.until(lambda: gauge.listened_to))
        self.window.open_job("back-plate-130")
        self.window.go("survey")
        survey = self.stage("survey")
        survey.choose("lathe-nose", "register")
        self.choose(survey.instrument, "caliper")
        survey.reading.edit.setFocus()
        before = len(self.job.pieces["lathe-nose"].surface("register").readings)

        def count():
            return len(self.job.pieces["lathe-nose"].surface("register").readings)

        gauge.send(45.993)
        self.assertTrue(self.until(lambda: count() == before + 1))
        last = self.job.pieces["lathe-nose"].surface("register").readings[-1]
        self.assertEqual(last.instrument, "micrometer", "it is what sent it")
        with mock.patch("machinon.desk.wires.hub.TWICE", 60):  # however slow this runs
            gauge.send(45.993)
            gauge.send(45.993)
            self.assertTrue(self.until(lambda: device.link.counts.handed == 3))
            self.until(lambda: False, 0.2)
        self.assertEqual(count(), before + 1, "sent again at once: taken once")
        # elsewhere it stays in hand until it is taken by its key
        self.stage("route")
        gauge.send(45.991)
        self.assertTrue(self.until(lambda: device.hand == 45.991))
        survey = self.stage("survey")
        survey.choose("lathe-nose", "register")
        survey.reading.edit.setFocus()
        self.window.actions_by_id["devices.take"].trigger()
        self.settle()
        self.assertEqual(count(), before + 2)
        self.assertIsNone(device.hand)
        page = self.open_page()
        self.click(page.forget)
        self.assertEqual(self.window.settings.get("devices"), "[]")
        self.assertFalse(self.window.wired.hand.isVisible())

    def test_a_device_that_is_asked_is_asked_as_often_as_is_said(self):
        page = self.open_page()
        self.assertFalse(page.every.isVisible(), "it sends by itself")
        page.ask.put("?")
        self.assertTrue(page.every.isVisible())
        self.choose(page.every, 1.0)
        device = self.add(page, "Read-out", "readout", "named", "/dev/none")
        self.assertEqual((device.device.ask, device.device.every), ("?", 1.0))

    def test_a_form_is_taught_from_a_line_that_came(self):
        gauge = self.stand_in("gauge")
        page = self.open_page()
        device = self.add(page, "Old gauge", "gauge", "columns", gauge.url)
        self.assertTrue(self.until(lambda: gauge.listened_to))
        self.click(page.teach)
        self.assertIn("Nothing came yet", page.says.text())
        gauge._put("N07 L= +0012.345 mm\r\n")
        self.assertTrue(self.until(lambda: device.link.lines))
        self.assertIn("not of the form", device.link.lines[-1].says)
        self.click(page.teach)
        texts = {page.parts[at].text: combo for at, combo in page.chosen.items()}
        self.click(page.taught)
        self.assertIn("Say which number", page.says.text())
        self.choose(texts["0012.345"], "value")
        self.choose(texts["mm"], "unit")
        self.click(page.taught)
        device = self.window.wired.hub.on_wire[page._at]
        self.assertTrue(self.until(lambda: gauge.listened_to))
        self.assertTrue(self.until(lambda: device.link._port))
        gauge._put("N08 L= -0003.250 mm\r\n")
        self.assertTrue(self.until(lambda: device.last == -3.25))
        self.assertIn("taught", self.window.settings.get("devices"))

    def test_what_is_old_looks_old_and_closing_never_hangs(self):
        page = self.open_page()
        device = self.add(page, "Mill", "readout", "named", "socket://127.0.0.1:9")
        self.assertTrue(self.until(lambda: device.state == "lost"))
        self.assertTrue(device.stale(self.window.wired.hub.now()))
        self.assertIn("nobody answers", page.state.text())
        self.close_window()

    def test_axes_are_zeroed_and_halved_here_alone(self):
        readout = self.stand_in("readout")
        page = self.open_page()
        device = self.add(page, "Mill", "readout", "named", readout.url)
        readout.show(X=10.0)
        self.assertTrue(self.until(lambda: device.mirror.shown.get("X") == 10.0))
        bar = self.window.wired.hand
        self.pick(bar.axis_menu(device.device.id, "X"), "Zero here")
        readout.show(X=50.0)
        self.assertTrue(self.until(lambda: device.mirror.shown["X"] == 40.0))
        self.pick(bar.axis_menu(device.device.id, "X"), "Half of it: the middle")
        self.assertEqual(device.mirror.shown["X"], 20.0)
        self.assertIn("+20.000", bar.figures[device.device.id, "X"].text())
        # however long a busy machine takes to hear of it
        with mock.patch.object(mirror, "IN", 60.0):
            readout.show(X=900.0)
            self.assertTrue(self.until(lambda: "X" in device.mirror.jumped))
        bar.refresh()
        self.assertIn("jumped", bar.figures[device.device.id, "X"].text())

    def test_a_simulated_read_out_is_moved_from_the_page(self):
        page = self.open_page()
        page.fault.setCurrentIndex(2)
        page.simulate("readout")
        device = self.window.wired.hub.on_wire[page._at]
        self.assertTrue(self.until(lambda: any(
            line.values is None for line in device.link.lines)))  # fmt: skip
        self.settle()
        self.type(page.move.edit, "sideways")
        self.assertIn("Axis and number", page.move.message.text())
        self.type(page.move.edit, "X 12.5 Y -3")
        self.assertTrue(self.until(lambda: device.mirror.shown.get("X") == 12.5))
        self.assertEqual(self.window.settings.get("devices"), "", "never kept")


class SixHoles(ByKeys):
    def test_six_holes_by_a_read_out_that_drops_out_twice(self):
        """Each hole is gone to until nothing is to go; the wire hangs up after the
        second and the fourth, and nothing is lost or ticked by it."""
        readout = StandIn("readout")
        readout.start()
        self.addCleanup(readout.stop)
        self.window.actions_by_id["devices"].trigger()
        self.settle()
        devices = self.window.pages.currentWidget()
        self.choose(devices.kind, "readout")
        self.choose(devices.form, "named")
        devices.name.put("Mill")
        devices.port.put(readout.url)
        self.click(devices.add)
        device = self.window.wired.hub.readout
        self.begin("plate-block", "Base")
        self.stage("piece").add_part("ring")
        self.stage("piece")
        self.work("drill-ring1")
        self.press(Qt.Key.Key_Return)  # the zero is found
        bar = self.window.wired.hand
        for hole in range(1, 7):
            self.assertEqual(self.page.head.text(), f"Hole {hole} of 6, spot it")
            wanted = self.page.wanted
            self.assertEqual(set(wanted), {"X", "Y"})
            readout.show(**wanted)
            if hole in (2, 4):
                self.assertTrue(self.until(lambda: readout.listened_to))
                readout.hang_up()
                self.assertTrue(self.until(lambda: device.state == "lost"))
            there = bar.to_go
            self.assertTrue(
                self.until(lambda there=there: all(
                    there[device.device.id, axis].text() == "there" for axis in "XY")),
                [w.text() for w in bar.to_go.values()],
            )  # fmt: skip
            self.assertEqual(len(self.job.lines_done), hole)
            self.press(Qt.Key.Key_Return)
        self.assertEqual(device.link.counts.lost, 2)
        self.assertEqual(self.page.head.text(), "Check before the next tool")


class GaugesThatType(WindowCase):
    def test_a_figure_sent_twice_and_a_stray_enter_count_once(self):
        """A gauge types its figure and Enter within a few hundredths, and again."""
        before, Typed.AGAIN = Typed.AGAIN, 0.5
        self.addCleanup(setattr, Typed, "AGAIN", before)
        self.window.open_job("back-plate-130")
        self.window.go("survey")
        survey = self.stage("survey")
        survey.choose("lathe-nose", "register")
        readings = self.job.pieces["lathe-nose"].surface("register").readings
        for _ in range(2):
            QTest.keyClicks(survey.reading.edit, "45.993")
            QTest.keyClick(survey.reading.edit, Qt.Key.Key_Return)
            QTest.keyClick(survey.reading.edit, Qt.Key.Key_Return)
        self.settle()
        now = self.job.pieces["lathe-nose"].surface("register").readings
        self.assertEqual(len(now), len(readings) + 1)
        self.assertEqual(survey.at, ("lathe-nose", "register"), "no Enter led away")
        self.assertIn("twice", survey.reading.message.text())

    def test_a_hand_is_never_taken_for_a_gauge(self):
        """A tenth of a second a key, the same figure again within the second."""
        typed, now = Typed(), 10.0
        for _ in range(2):
            text = ""
            for letter in "45.993":
                now += 0.1
                text += letter
                typed.changed(text, now)
            self.assertTrue(typed.entered(text, now))
            typed.changed("", now)

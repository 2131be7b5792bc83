"""Links on real sockets and terminals: drop-outs, floods, garbage, other programs."""

import subprocess
import sys
import time
import unittest

from machinon.core.errors import BadInput
from machinon.devices.device import Device, device_of, kept, kept_devices
from machinon.devices.line_form import FORMS
from machinon.devices.link import MOST_READINGS, SHOWN, Link
from machinon.devices.stand_in import Misbehaving, StandIn


def until(what, seconds=6.0):
    """Wait for something; whether it came."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        if what():
            return True
        time.sleep(0.01)
    return False


class Wires(unittest.TestCase):
    def stand_in(self, kind, **more):
        made = StandIn(kind, **more)
        made.start()
        self.addCleanup(made.stop)
        return made

    def link(self, kind, port, **more):
        form = FORMS["named" if kind == "readout" else "number"]
        self.heard, self.states = [], []
        made = Link(
            Device("d", "device", kind, port, form, **more),
            lambda heard: self.heard.append(heard.values),
            lambda state, says: self.states.append((state, says)),
        )
        made.start()
        self.addCleanup(made.stop)
        return made

    def sizes(self):
        return [round(values[""], 3) for values in self.heard]

    def test_a_gauge_is_heard_once_for_each_press_on_either_wire(self):
        gauge = self.stand_in("gauge")
        for port in (gauge.url, gauge.terminal):
            with self.subTest(port):
                link = self.link("gauge", port)
                self.assertTrue(until(lambda link=link: link._port))
                time.sleep(0.2)  # and the other end has heard of it
                for i in range(8):
                    gauge.send(46 + i / 1000)
                    time.sleep(0.03)
                self.assertTrue(until(lambda: len(self.heard) == 8))
                self.assertEqual(self.sizes(), [46 + i / 1000 for i in range(8)])
                link.stop()

    def test_a_reading_just_before_a_hang_up_is_kept_and_none_comes_twice(self):
        gauge = self.stand_in("gauge")
        link = self.link("gauge", gauge.url)
        for i in range(4):
            self.assertTrue(until(lambda: gauge.listened_to))
            gauge.send(30 + i)
            gauge.hang_up()
        self.assertTrue(until(lambda: len(self.heard) == 4))
        self.assertEqual(self.sizes(), [30, 31, 32, 33])
        self.assertGreaterEqual(link.counts.lost, 3)
        self.assertIn("the device went away", str(self.states))

    def test_a_read_out_comes_back_by_itself_after_it_dropped_out_twice(self):
        readout = self.stand_in("readout")
        self.link("readout", readout.url)
        for x in (10.0, 20.0, 30.0):
            self.assertTrue(until(lambda: readout.listened_to))
            readout.show(X=x)
            self.assertTrue(until(lambda x=x: self.heard[-1:] and
                                  self.heard[-1]["X"] == x))  # fmt: skip
            readout.hang_up()
        self.assertEqual([s for s, _ in self.states].count("live"), 3)

    def test_ten_thousand_lines_a_second_with_damage_leave_the_last_word_true(self):
        fault = Misbehaving(flood=10_000, garble=0.2)
        readout = self.stand_in("readout", fault=fault)
        begun = time.monotonic()
        link = self.link("readout", readout.url)
        self.assertTrue(until(lambda: link.counts.lines > 5000, 60))
        most = (time.monotonic() - begun) / SHOWN + 2
        self.assertLess(link.counts.handed, most, "no more than an eye can see")
        readout.show(X=77.0)
        self.assertTrue(until(lambda: self.heard[-1].get("X") == 77.0))

    def test_a_gauge_that_floods_is_set_aside_and_counted(self):
        gauge = self.stand_in("gauge", fault=Misbehaving(flood=2000))
        link = self.link("gauge", gauge.url)
        self.assertTrue(until(lambda: link.counts.too_fast > 1000))
        self.assertLessEqual(link.counts.handed, 4 * MOST_READINGS)
        self.assertIn("readings a second", str(self.states))

    def test_half_lines_and_garbage_are_shown_and_never_read(self):
        gauge = self.stand_in("gauge")
        link = self.link("gauge", gauge.url)
        self.assertTrue(until(lambda: gauge.listened_to))
        for raw in ("46.0", "10 mm\r", "\nNaN\n", "\x00\xff\x07\n", "12 parsecs\n"):
            gauge._put(raw)
            time.sleep(0.08)
        gauge._put("9" * 9000)  # a line that never ends
        gauge._put("\n7.5 mm\n")
        self.assertTrue(until(lambda: len(self.heard) == 2))
        self.assertEqual(self.sizes(), [46.01, 7.5], "the halves belong together")
        said = [line.says for line in link.lines if line.values is None]
        self.assertTrue(any("not of the form" in line for line in said))

    def test_half_a_line_does_not_outlive_its_port(self):
        gauge = self.stand_in("gauge")
        self.link("gauge", gauge.url)
        self.assertTrue(until(lambda: gauge.listened_to))
        gauge._put("46.")
        time.sleep(0.1)
        gauge.hang_up()
        self.assertTrue(until(lambda: gauge.listened_to))
        gauge._put("010 mm\n46.010 mm\n")
        self.assertTrue(until(lambda: len(self.heard) == 2))
        self.assertEqual(self.sizes(), [10.0, 46.01])

    def test_a_device_that_must_be_asked_is_asked(self):
        gauge = self.stand_in("gauge")
        gauge.show(**{"": 12.5})
        self.link("gauge", gauge.url, ask="?", every=0.1)
        self.assertTrue(until(lambda: len(self.heard) >= 3))
        self.assertEqual(set(self.sizes()), {12.5})

    def test_ports_that_are_not_there_or_another_has_are_said_and_tried_again(self):
        for port, says in (
            ("/dev/ttyThatIsNot", "no such port"),
            ("socket://127.0.0.1:9", "nobody answers"),
        ):
            with self.subTest(port):
                link = self.link("gauge", port)
                self.assertTrue(until(lambda says=says: says in str(self.states)))
                begun = time.monotonic()
                link.stop()
                self.assertLess(time.monotonic() - begun, 1.0, "closing never hangs")
        gauge = self.stand_in("gauge")
        first = self.link("gauge", gauge.terminal)
        self.assertTrue(until(lambda: first._port))
        self.link("gauge", gauge.terminal)
        self.assertTrue(until(lambda: "another program has the port"
                              in str(self.states)))  # fmt: skip

    def test_a_port_that_vanishes_is_lost_and_said(self):
        gauge = StandIn("gauge")
        gauge.start()
        link = self.link("gauge", gauge.terminal)
        self.assertTrue(until(lambda: link._port))
        gauge.stop()
        self.assertTrue(until(lambda: "lost" in [s for s, _ in self.states]))

    def test_loop_is_a_port_too(self):
        link = self.link("gauge", "loop://")
        self.assertTrue(until(lambda: link._port))
        link._port.write(b"5.005 mm\r\n")
        self.assertTrue(until(lambda: self.sizes() == [5.005]))


class SetUp(unittest.TestCase):
    def test_a_device_is_kept_as_it_was_set_up(self):
        made = device_of("a", " Mill ", "readout", " /dev/ttyUSB0 ", FORMS["named"],
                         rate=19200, parity="E")  # fmt: skip
        self.assertEqual(made.name, "Mill")
        self.assertEqual(kept_devices(kept([made])), [made])
        self.assertEqual(kept_devices("{damaged"), [])

    def test_what_cannot_be_set_up_is_refused_where_it_was_typed(self):
        good = ("a", "Mill", "readout", "/dev/ttyUSB0", FORMS["named"])
        for at, bad, key in ((1, " ", "name"), (3, "", "port"), (3, "COM", "port")):
            typed = list(good)
            typed[at] = bad
            with self.assertRaises(BadInput) as caught:
                device_of(*typed)
            self.assertEqual(caught.exception.key, key)
        for more in ({"rate": 1}, {"parity": "?"}, {"every": 0.0}):
            with self.assertRaises(BadInput):
                device_of(*good, **more)


class Simulated(unittest.TestCase):
    def test_the_command_serves_a_reading_and_refuses_nonsense(self):
        command = [sys.executable, "-m", "machinon", "simulate"]
        with subprocess.Popen(
            [*command, "gauge", "--seconds", "10"],
            stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True,
        ) as program:  # fmt: skip
            url = program.stdout.readline().split()[2]
            heard = []
            link = Link(Device("d", "d", "gauge", url, FORMS["number"]),
                        lambda message: heard.append(message.values[""]))  # fmt: skip
            link.start()

            def typed(text):
                program.stdin.write(text)
                program.stdin.flush()
                return until(lambda: bool(heard), 0.5)

            # it takes a moment until it hears that somebody listens
            self.assertTrue(any(typed("46.012\n") for _ in range(10)))
            heard.clear()
            typed("what\n\n")
            self.assertTrue(until(lambda: len(heard) == 2))
            self.assertEqual(heard, [46.012] * 2, "the last good size stands")
            link.stop()
            program.terminate()
        bad = subprocess.run([*command, "gauge", "--garble", "3"], check=False,
                             capture_output=True, text=True)  # fmt: skip
        self.assertEqual(bad.returncode, 2)
        self.assertIn("From 0 to 1", bad.stderr)


if __name__ == "__main__":
    unittest.main()

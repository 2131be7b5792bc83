import unittest

from machinon.core.errors import BadInput
from machinon.core.quantity import INCH
from machinon.core.reckoning import reckon
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.taper_pipe import taper_pipe_thread, taper_pipe_threads

# pitch diameter at the end E0 and by hand E1, bore where the end stands K0: as ASME
# B1.20.1 prints them, in inches
PRINTED = {
    "1/8 NPT": (0.36351, 0.37360, 0.3339),
    "1/4 NPT": (0.47739, 0.49163, 0.4329),
    "3/8 NPT": (0.61201, 0.62701, 0.5676),
    "1/2 NPT": (0.75843, 0.77843, 0.7013),
    "3/4 NPT": (0.96768, 0.98887, 0.9105),
    "1 NPT": (1.21363, 1.23863, 1.1441),
    "1 1/4 NPT": (1.55713, 1.58338, 1.4876),
    "1 1/2 NPT": (1.79609, 1.82234, 1.7265),
    "2 NPT": (2.26902, 2.29627, 2.1995),
}
SHOP_DRILLS = {"1/8": "11/32", "1/4": "7/16", "3/8": "37/64", "1/2": "45/64",
               "3/4": "59/64", "1": "1 5/32", "1 1/4": "1 1/2"}  # fmt: skip


class TaperPipeThreads(unittest.TestCase):
    def test_npt_is_as_its_standard_prints_it(self):
        for name, (end, by_hand, bored) in PRINTED.items():
            found = reckon("taper-pipe-thread", {"name": name})
            for key, wanted, near in (
                ("end_pitch_diameter", end, 1e-5),
                ("mouth_pitch_diameter", by_hand, 1e-5),
                ("least_hole", bored, 1e-4),
            ):
                self.assertAlmostEqual(found[key] / INCH, wanted, delta=near, msg=name)

    def test_full_thread_of_npt_is_its_formula(self):
        """L2 = (0.80 D + 6.8) p, ASME B1.20.1."""
        for thread in taper_pipe_threads().values():
            if thread.flanks == 60:
                long = (0.8 * thread.major / INCH + 6.8) * thread.pitch
                self.assertAlmostEqual(
                    thread.useful, long, delta=0.002, msg=thread.name
                )

    def test_r_is_the_parallel_pipe_thread_in_the_plane_of_its_gauge(self):
        """ISO 7-1 has the diameters and turns of ISO 228; both lengths are whole
        quarters and eighths of a turn, rounded to a tenth of a millimetre."""
        for thread in taper_pipe_threads().values():
            if thread.flanks == 60:
                continue
            parallel = thread_of(thread.name.replace("R", "G"))
            self.assertEqual(thread.major, parallel.major)
            self.assertAlmostEqual(thread.pitch, parallel.pitch, places=3)
            found = reckon("taper-pipe-thread", {"name": thread.name})
            self.assertAlmostEqual(found["mouth"], parallel.minor_internal, delta=0.002)
            more = 3.25 if thread.name == "R2" else 2.75
            self.assertAlmostEqual(
                thread.useful - thread.by_hand, more * thread.pitch, delta=0.06
            )
            turns = thread.by_hand / thread.pitch
            self.assertAlmostEqual(turns, round(turns * 8) / 8, delta=0.06)

    def test_the_hole_is_drilled_as_shops_drill_it(self):
        for size, drill in SHOP_DRILLS.items():
            found = reckon("taper-pipe-thread", {"name": f"{size} NPT"})
            self.assertEqual(found["inch_drill"], f"{drill} in", size)
        for size, millimetres in (("1/8", 8.4), ("1/4", 11.2), ("1/2", 18.25)):
            found = reckon("taper-pipe-thread", {"name": f"Rc {size}"})
            self.assertAlmostEqual(found["least_hole"], millimetres, delta=0.15)
            self.assertLess(found["least_hole"], millimetres)

    def test_it_is_known_by_any_of_its_spellings_and_refused_where_it_is_none(self):
        for said in ("NPT 1 1/4", "1-1/4 NPT", "1 1/4 - 11.5 npt", "1 1/4npt"):
            self.assertEqual(taper_pipe_thread(said).name, "1 1/4 NPT", said)
        for said in ("r1/2", "Rc 1/2", "1/2 R"):
            self.assertEqual(taper_pipe_thread(said).name, "R1/2", said)
        for said in ("1/4", "5/8 NPT", "M8", ""):
            with self.assertRaisesRegex(BadInput, "1/16 NPT to 2 NPT"):
                taper_pipe_thread(said)

    def test_the_cone_grows_by_one_in_sixteen(self):
        found = reckon("taper-pipe-thread", {"name": "1/2 NPT"})
        self.assertAlmostEqual(found["half_angle"], 1.7899, places=4)
        grows = found["mouth_pitch_diameter"] - found["end_pitch_diameter"]
        self.assertAlmostEqual(found["by_hand"], 16 * grows)

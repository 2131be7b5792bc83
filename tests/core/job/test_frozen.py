import unittest

from tests.frozen import everything, stored


class BackPlates(unittest.TestCase):
    def test_a_back_plate_is_what_it_has_always_been(self):
        """Fits, checks, route and passes of fourteen plates."""
        now, before = everything(), stored()
        self.assertEqual(now.keys(), before.keys())
        for part, value in now.items():
            with self.subTest(part):
                self.assertEqual(value, before[part])

import unittest
from itertools import pairwise

from machinon.core.sizes.general_tolerance import general_tolerance
from machinon.core.sizes.limits import tolerance_grade


class GeneralTolerances(unittest.TestCase):
    """ISO 2768-1, against its printed rows and against the grades of ISO 286."""

    def test_printed_rows(self):
        for size, fine, medium, coarse in (
            (2, 0.05, 0.1, 0.2),
            (5, 0.05, 0.1, 0.3),
            (25, 0.1, 0.2, 0.5),
            (100, 0.15, 0.3, 0.8),
            (300, 0.2, 0.5, 1.2),
        ):
            found = tuple(general_tolerance(size, grade) for grade in "fmc")
            self.assertEqual(found, (fine, medium, coarse), size)

    def test_a_limit_belongs_to_the_row_below_it(self):
        self.assertEqual(general_tolerance(30), 0.2)
        self.assertEqual(general_tolerance(30.001), 0.3)

    def test_it_grows_with_the_size_and_coarser_is_never_finer(self):
        sizes = (1, 4, 20, 80, 250, 700, 1500)
        for grade in "fmc":
            for small, large in pairwise(sizes):
                self.assertLessEqual(
                    general_tolerance(small, grade), general_tolerance(large, grade)
                )
        for size in sizes:
            fine, medium, coarse = (general_tolerance(size, grade) for grade in "fmc")
            self.assertLess(fine, medium)
            self.assertLess(medium, coarse)

    def test_medium_lies_where_the_grades_of_iso_286_put_a_workshop(self):
        """The whole width of m is IT13 to IT15 at the sizes both have."""
        for size in (5, 20, 80, 250):
            width = 2 * general_tolerance(size)
            self.assertLessEqual(tolerance_grade(size, 12), width)
            self.assertGreaterEqual(tolerance_grade(size, 15), width)


if __name__ == "__main__":
    unittest.main()

"""A piece taken elsewhere: DXF of its sheet, solids as STL and 3MF, holes as CSV."""

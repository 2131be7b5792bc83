"""Setting out: holes, angles, flats, lengths and how true a thing runs."""

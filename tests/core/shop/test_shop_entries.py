"""What a person types of the shop's own things, and reads back."""

import unittest

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.shop.entry import (
    NO_LATHE,
    bare,
    id_of,
    instrument_of,
    lathe_of,
    list_said,
    speeds_text,
    typed_instrument,
    typed_lathe,
    unused,
    with_instrument,
    with_nose,
    words,
)
from machinon.core.shop.machines import (
    LATHE_ENTRIES,
    MACHINE_KINDS,
    Machine,
    figure_forms,
    lathe_figures,
    lathe_so_far,
    machine_of,
    read_figures,
    shown_figures,
)
from machinon.core.shop.things import (
    CHUCK_SURFACES,
    STARTER_INSTRUMENTS,
    Instrument,
    Lathe,
    Piece,
    Shop,
    starter_instruments,
)
from tests.scenario import LATHE

GAUGE = {
    "name": "Bore gauge 18 to 35",
    "reads": "mm",
    "resolution": "0.001",
    "uncertainty": "0.004",
    "repeatability": "0.0015",
    "suits": "inside, gap",
    "checked": "in its ring",
    "least": "18",
    "most": "35",
}
TYPED_LATHE = {
    "name": "Bench lathe",
    "centre_height": "90",
    "between_centres": "350",
    "swing_over_slide": "105",
    "speeds": "125, 210; 420",
    "dial_reads": "radius",
    "dial_division": "0.025",
    "lead_screw": "8tpi",
    "wheels": "20, 40, 65",
    "tailstock": "mt2",
}


class Refusing(unittest.TestCase):
    def refuses(self, key, says, make, *args):
        with self.assertRaises(BadInput) as refusal:
            make(*args)
        self.assertEqual(refusal.exception.key, key)
        self.assertRegex(refusal.exception.message, says)


class Names(Refusing):
    def test_a_name_is_one_line_that_can_be_read(self):
        self.assertEqual(words({"name": "  Mill  "}, "name", "its name"), "Mill")
        self.refuses("name", "Type its name", words, {}, "name", "its name")
        self.refuses("name", "Type its name", words, {"name": "  "}, "name", "its name")
        self.refuses("name", "in one line", words, {"name": "a\nb"}, "name", "it")
        self.assertEqual(words({"name": "m" * 80}, "name", "it"), "m" * 80)
        self.refuses("name", "up to 80", words, {"name": "m" * 81}, "name", "it")

    def test_an_id_is_the_name_in_small_letters_and_never_twice(self):
        self.assertEqual(id_of("Face plate 200", "item"), "face-plate-200")
        self.assertEqual(id_of("⌀ ×", "item"), "item")
        self.assertEqual(len(id_of("m" * 90, "item")), 40)
        self.assertEqual(unused("mill", set()), "mill")
        self.assertEqual(unused("mill", {"mill"}), "mill-2")
        self.assertEqual(unused("mill", {"mill", "mill-2", "mill-3"}), "mill-4")

    def test_a_long_list_shows_its_ends_and_how_many(self):
        self.assertEqual(list_said([]), "")
        self.assertEqual(list_said(["15", "16", "17"]), "15, 16, 17")
        self.assertEqual(list_said(["15", "16", "17", "18"]), "15, 16 … 18 (4)")

    def test_a_length_in_an_inch_shop_reads_back_as_the_same_size(self):
        for size, inch, text in (
            (25.4, True, "1"),
            (0.0254, True, "0.001"),
            (0.000254, True, "0.00001"),
            (20.0, True, "20mm"),
            (20.0, False, "20"),
            (0.005, False, "0.005"),
        ):
            self.assertEqual(bare(size, inch), text)


class Instruments(Refusing):
    def instrument(self, **other):
        return instrument_of({**GAUGE, **other}, "gauge")

    def test_an_instrument_reads_back_as_it_was_typed(self):
        for typed in (
            GAUGE,
            {**GAUGE, "least": "", "most": ""},
            {
                **GAUGE,
                "reads": "in",
                "resolution": "0.0001",
                "uncertainty": "0.0002",
                "repeatability": "0.0001",
                "least": "0.7",
                "most": "1.4",
            },
        ):
            instrument = instrument_of(typed, "gauge")
            again = typed_instrument(instrument)
            self.assertEqual(instrument_of(again, "gauge"), instrument)
            self.assertEqual({**again, "suits": typed["suits"]}, typed)

    def test_bare_figures_are_in_the_unit_it_shows(self):
        inch = self.instrument(reads="in", resolution="0.0001", least="1", most="2")
        self.assertAlmostEqual(inch.resolution, 0.00254)
        self.assertAlmostEqual(inch.most, 50.8)
        self.assertAlmostEqual(
            self.instrument(resolution="0.5 thou").resolution, 0.0127
        )
        self.refuses("reads", "mm", self.instrument_reading, "cm")

    def instrument_reading(self, unit):
        return self.instrument(reads=unit)

    def test_it_says_what_it_measures(self):
        self.assertEqual(
            self.instrument(suits="gap, inside,gap").suits, ("gap", "inside")
        )
        for suits, says in (
            ("", "at least one"),
            (" , ", "at least one"),
            ("bores", "."),
        ):
            self.refuses("suits", says, lambda s=suits: self.instrument(suits=s))

    def test_one_sigma_is_no_more_than_the_whole_doubt(self):
        self.assertEqual(self.instrument(repeatability="0.004").repeatability, 0.004)
        self.refuses(
            "repeatability",
            "up to 0.004 mm",
            lambda: self.instrument(repeatability="0.0041"),
        )

    def test_a_range_has_two_ends(self):
        open_ended = self.instrument(most="")
        self.assertTrue(open_ended.reaches(900))
        self.assertFalse(open_ended.reaches(17.9))
        instrument = self.instrument()
        for size, reached in ((17.99, False), (18, True), (35, True), (35.01, False)):
            self.assertIs(instrument.reaches(size), reached, size)
        for most in ("18", "12"):
            self.refuses("most", "above", lambda m=most: self.instrument(most=m))

    def test_a_gauge_proves_a_band_twice_as_wide_as_its_doubt(self):
        instrument = self.instrument(uncertainty="0.005")
        self.assertTrue(instrument.proves(0.01))
        self.assertFalse(instrument.proves(0.0099))

    def test_the_surest_that_reaches_comes_first(self):
        shop = Shop(instruments=STARTER_INSTRUMENTS)
        self.assertEqual(
            [instrument.id for instrument in shop.instruments_for("outside", size=40)],
            ["micrometer", "inch-micrometer", "caliper", "rule"],
        )
        self.assertEqual(shop.instruments_for("outside", size=120)[0].id, "micrometer")
        self.assertEqual(shop.instruments_for("outside", size=200)[0].id, "rule")
        self.assertEqual(shop.instruments_for("inside", size=4)[0].id, "caliper")

    def test_an_instrument_is_changed_in_its_place(self):
        shop = Shop(instruments=STARTER_INSTRUMENTS)
        better = replace(shop.instrument("caliper"), uncertainty=0.02)
        changed = with_instrument(shop, better)
        self.assertEqual(
            [instrument.id for instrument in changed.instruments],
            [instrument.id for instrument in shop.instruments],
        )
        self.assertEqual(changed.instrument("caliper").uncertainty, 0.02)
        new = with_instrument(changed, replace(better, id="caliper-2"))
        self.assertEqual(new.instruments[-1].id, "caliper-2")
        self.refuses("instrument", "not in the shop", shop.instrument, "sextant")

    def test_an_inch_shop_starts_with_inch_instruments(self):
        """As they are bought: a tenth of a thou, 0 to 6 in; a rule in 64ths."""
        set_of = {instrument.id: instrument for instrument in starter_instruments(True)}
        self.assertNotIn("inch-micrometer", set_of)
        self.assertTrue(all(instrument.inch for instrument in set_of.values()))
        self.assertAlmostEqual(set_of["micrometer"].resolution, 0.0001 * 25.4)
        self.assertAlmostEqual(set_of["micrometer"].most, 152.4)
        self.assertAlmostEqual(set_of["rule"].resolution, 25.4 / 64)
        self.assertAlmostEqual(set_of["tape"].most, 10 * 12 * 25.4)
        metric = {
            instrument.id: instrument for instrument in starter_instruments(False)
        }
        for id, instrument in set_of.items():
            self.assertEqual(instrument.uncertainty, metric[id].uncertainty, id)


class Lathes(Refusing):
    def lathe(self, inch=False, **other):
        return lathe_of({**TYPED_LATHE, **other}, inch, NO_LATHE)

    def test_a_lathe_reads_back_as_it_was_typed(self):
        for lathe in (LATHE, self.lathe(), self.lathe(speeds="50 to 2000")):
            for inch in (False, True):
                again = lathe_of(typed_lathe(lathe, inch), inch, lathe)
                for key, _ in LATHE_ENTRIES:
                    found, kept = getattr(again, key), getattr(lathe, key)
                    if isinstance(kept, float):
                        self.assertAlmostEqual(found, kept, places=6, msg=key)
                    else:
                        self.assertEqual(found, kept, key)

    def test_speeds_are_a_list_or_the_range_of_a_stepless_drive(self):
        self.assertEqual(self.lathe().speeds, (125, 210, 420))
        self.assertEqual(self.lathe(speeds="420,125,125").speeds, (125, 420))
        for typed in ("50 to 2000", "50-2000", "50 – 2000 rpm"):
            drive = self.lathe(speeds=typed)
            self.assertEqual((drive.speeds, drive.stepless), ((50, 2000), True))
        self.assertEqual(speeds_text(self.lathe(speeds="50-2000")), "50 to 2000")
        self.assertEqual(speeds_text(self.lathe()), "125, 210, 420")
        for typed in ("50-50", "0, 100", "fast", "", "30000"):
            self.refuses("speeds", ".", lambda t=typed: self.lathe(speeds=t))

    def test_a_stepless_drive_offers_a_speed_every_ten(self):
        drive = self.lathe(speeds="50 to 95")
        self.assertEqual(drive.speed_choices, (50, 60, 70, 80, 90, 95))
        self.assertEqual(self.lathe().speed_choices, (125, 210, 420))

    def test_a_motor_turns_most_at_the_lowest_speed(self):
        """1.1 kW at 45 rpm: 1100 / (45 · 2π / 60) = 233 N·m."""
        lathe = replace(LATHE, figures={"power": "1.1"})
        self.assertAlmostEqual(lathe.torque, 233.4, places=1)
        self.assertEqual(LATHE.torque, 0)
        self.assertEqual(replace(lathe, speeds=()).torque, 0)

    def test_what_no_lathe_has_is_refused_at_its_entry(self):
        for key, typed in (
            ("name", ""),
            ("centre_height", "19"),
            ("centre_height", "1001"),
            ("between_centres", "49"),
            ("swing_over_slide", "181"),  # over twice the centre height
            ("dial_division", "0"),
            ("dial_division", "1.5"),
            ("lead_screw", "51"),
            ("lead_screw", "0tpi"),
            ("wheels", "7"),
            ("wheels", "20, x"),
            ("tailstock", "MT99"),
            ("dial_reads", "both"),
        ):
            self.refuses(key, ".", lambda k=key, t=typed: self.lathe(**{k: t}))
        self.assertEqual(self.lathe(swing_over_slide="180").swing_over_slide, 180)

    def test_what_is_not_typed_stays_and_what_is_emptied_goes(self):
        known = self.lathe()
        self.assertEqual((known.wheels, known.tailstock), ((20, 40, 65), "MT2"))
        self.assertAlmostEqual(known.lead_screw, 25.4 / 8)
        typed = {key: text for key, text in TYPED_LATHE.items() if key != "tailstock"}
        self.assertEqual(lathe_of(typed, False, known).tailstock, "MT2")
        emptied = lathe_of({**typed, "tailstock": "", "wheels": ""}, False, known)
        self.assertEqual((emptied.wheels, emptied.tailstock), ((), ""))

    def test_an_inch_lathe_is_typed_in_inches(self):
        lathe = self.lathe(
            True,
            centre_height="4.5",
            between_centres="24",
            swing_over_slide="5.5",
            dial_division="0.001",
        )
        self.assertAlmostEqual(lathe.centre_height, 114.3)
        self.assertAlmostEqual(lathe.dial_division, 0.0254)

    def test_a_new_lathe_comes_with_its_nose_to_measure(self):
        nose, lathe = with_nose(self.lathe(), lambda name: id_of(name, "x"))
        self.assertEqual((lathe.id, lathe.nose), ("bench-lathe", nose.id))
        self.assertEqual(
            (nose.role, nose.name), ("nose", "Spindle nose of Bench lathe")
        )
        self.assertEqual(len(nose.surfaces), 5)

    def test_its_picture_shows_every_figure_known_or_not(self):
        lathe = replace(self.lathe(), figures={"spindle_bore": "20"})
        shown = lathe_figures(lathe, False)
        for key, text, size in (
            ("centre_height", "90 mm", 90),
            ("dial_division", "0.025 mm a side", 0.025),
            ("lead_screw", "8 tpi", 0),
            ("wheels", "20, 40, 65", 0),
            ("tailstock", "MT2", 0),
            ("speeds", "125, 210, 420", 0),
            ("spindle_bore", "20 mm", 20),
            ("power", "", 0),
        ):
            with self.subTest(key):
                self.assertEqual((shown[key].text, shown[key].size), (text, size))
        on_diameter = lathe_figures(LATHE, True)["dial_division"]
        self.assertTrue(on_diameter.text.endswith("on ⌀"))
        self.assertEqual(lathe_figures(NO_LATHE, False)["centre_height"].text, "")

    def test_half_typed_figures_are_shown_as_far_as_they_can_be_read(self):
        shown = lathe_so_far({"centre_height": "16", "between_centres": "7x"}, False)
        self.assertEqual(shown["centre_height"].text, "16 mm")
        self.assertEqual(shown["between_centres"].text, "")
        self.assertEqual(shown["swing_over_slide"].size, 0)
        self.assertEqual(
            lathe_so_far({"centre_height": "-3"}, False)["centre_height"].text, ""
        )


class Machines(Refusing):
    def figures(self, kind, inch=False, **typed):
        return read_figures(kind, typed, inch)

    def test_each_figure_is_typed_kept_and_read_in_its_own_way(self):
        for kind, key, typed, kept, said, again in (
            ("mill", "tee_slot", "14", "14", "14 mm", "14"),
            ("mill", "tee_slots", "3", "3", "3", "3"),
            ("mill", "power", "1.5", "1.5", "1.5 kW", "1.5"),
            ("mill", "spindle", "mt3", "MT3", "MT3", "MT3"),
            (
                "mill",
                "speeds",
                "140; 60,90,60",
                "60,90,140",
                "60, 90, 140",
                "60, 90, 140",
            ),
            ("drill", "speeds", "300 to 900", "300 to 900", "300 to 900", "300 to 900"),
            ("grinder", "swivel", "8", "8", "8 degrees", "8"),
        ):
            with self.subTest(key):
                form = next(form for form in figure_forms(kind) if form.key == key)
                self.assertEqual(form.read(typed, False), kept)
                self.assertEqual(form.said(kept, False), said)
                self.assertEqual(form.typed(kept, False), again)
                self.assertEqual(form.read(again, False), kept)
                self.assertEqual(
                    (form.read(" ", False), form.said("", False)), ("", "")
                )

    def test_an_inch_shop_types_and_reads_inches(self):
        kept = self.figures("mill", True, tee_slot="0.5")["tee_slot"]
        self.assertEqual(kept, "12.7")
        form = next(form for form in figure_forms("mill") if form.key == "tee_slot")
        self.assertEqual(form.said(kept, True), "0.5 in")
        self.assertEqual(form.typed(kept, True), "0.5")

    def test_ends_of_what_is_allowed(self):
        for kind, key, good, bad in (
            ("mill", "tee_slot", "3", "2.9"),
            ("mill", "tee_slot", "60", "61"),
            ("mill", "tee_slots", "20", "21"),
            ("mill", "tee_slots", "0", "2.5"),
            ("mill", "speeds", "1, 40000", "1, 40001"),
            ("mill", "speeds", "60 to 90", "90 to 60"),
            ("mill", "speeds", "60 to 61", "60 to 60"),
            ("mill", "spindle", "7/24", "conical"),
            ("rotary table", "worm", "360", "361"),
        ):
            with self.subTest(key, bad=bad):
                self.assertIn(key, self.figures(kind, **{key: good}))
                self.refuses(key, ".", read_figures, kind, {key: bad}, False)

    def test_a_machine_keeps_what_is_known_and_no_more(self):
        mill = machine_of(
            {"name": "Knee mill", "tee_slot": "14", "speeds": "60,90", "note": " old "},
            "mill",
            "mill",
            False,
        )
        self.assertEqual(mill.figures, {"tee_slot": "14", "speeds": "60,90"})
        self.assertEqual((mill.note, mill.seat), ("old", ""))
        self.assertEqual(mill.number("tee_slot"), 14)
        self.assertEqual(mill.number("travel_x"), 0)
        self.assertEqual(mill.numbers("speeds"), (60, 90))
        self.assertEqual(mill.numbers("wheels"), ())
        self.refuses("name", "call the machine", machine_of, {}, "mill", "m", False)
        self.refuses("kind", "saw", machine_of, {"name": "Saw"}, "saw", "m", False)

    def test_a_stepless_machine_offers_a_speed_every_ten(self):
        drill = Machine("d", "Drill", "drill", {"speeds": "300 to 335"})
        self.assertEqual(drill.numbers("speeds"), (300, 310, 320, 330, 335))

    def test_a_new_machine_has_every_figure_to_be_said(self):
        for kind in MACHINE_KINDS:
            shown = shown_figures(kind, {}, False)
            self.assertEqual({figure.text for figure in shown.values()}, {""})
            self.assertEqual(list(shown), [form.key for form in figure_forms(kind)])


class Pieces(unittest.TestCase):
    def test_a_surface_is_changed_in_its_place_or_put_at_the_end(self):
        chuck = Piece("chuck", "Chuck", "chuck", "cast iron", CHUCK_SURFACES)
        renamed = replace(CHUCK_SURFACES[1], name="Recess at the back")
        changed = chuck.with_surface(renamed)
        self.assertEqual(
            [surface.id for surface in changed.surfaces],
            [surface.id for surface in chuck.surfaces],
        )
        self.assertEqual(changed.surface("recess").name, "Recess at the back")
        self.assertEqual(changed.surface("body"), chuck.surface("body"))
        more = chuck.with_surface(replace(renamed, id="recess-2"))
        self.assertEqual(len(more.surfaces), len(chuck.surfaces) + 1)
        self.assertIsNone(chuck.surface("thread"))


class UsualSet(unittest.TestCase):
    def test_each_usual_instrument_repeats_better_than_it_is_sure(self):
        for instrument in STARTER_INSTRUMENTS:
            with self.subTest(instrument.name):
                self.assertIsInstance(instrument, Instrument)
                self.assertLessEqual(instrument.repeatability, instrument.uncertainty)
                self.assertTrue(instrument.suits)
        self.assertIsInstance(NO_LATHE, Lathe)

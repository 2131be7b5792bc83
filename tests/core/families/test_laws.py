"""Laws that hold for every family, whatever it is."""

import contextlib
import functools
import math
import random
import re
import tempfile
import unittest
from pathlib import Path

from machinon.core import families as package
from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.materials import materials
from machinon.core.piece.family import Chain
from machinon.core.piece.made import THREADS, Known, make
from machinon.core.piece.shown import as_told
from machinon.core.piece.stock import Bar
from machinon.core.piece.turned_features import (
    Bore,
    Cylinder,
    NutThread,
    TaperBore,
)
from machinon.core.quantity import COUNT, LENGTH
from machinon.core.reckoning import FLAG, TEXT
from machinon.core.route.duration import minutes_of
from machinon.core.route.in_process import OUTSIDE, widest
from machinon.core.route.machine_checks import held_well
from machinon.core.route.order import NO_METAL, broken, in_order, keyed, stepped
from machinon.core.route.steps import route_told
from machinon.core.sizes.fit import words_for

INSIDE = Bore | TaperBore | NutThread
# sizes that come out of one cut or out of each other, so that none is off alone:
# corners that one cutter rounds, an outline on its block's own edges, a seat with its
# mate, a ball between its necks, a taper by name
TOGETHER = re.compile(r"-(corners|inside|half|length|slope)$")
SOURCE = Path(package.__file__).parents[2]


def other_ways(family):
    """What to give for each way of making a piece with every feature it can have."""
    yield dict(family.full)
    for way in family.ways:
        yield dict(way) if "parts" in way else {**family.full, **way}


@functools.cache
def made_by(key, way):
    """A family's usual piece, or one with every feature it can have; made once."""
    family = families()[key]
    return make(family, ({}, *other_ways(family))[way])


@functools.cache
def routed_by(key, way):
    return route_told(made_by(key, way))


def everywhere(case):
    """Each family as it is usual, and with every feature it can have."""
    for made, _ in routes_everywhere(case, routed=False):
        yield made.family, made


def routes_everywhere(case, routed=True):
    """The same with their routes, told once for all laws."""
    for key, family in families().items():
        for way in range(1 + len(list(other_ways(family)))):
            with case.subTest(key, full=bool(way)):
                yield made_by(key, way), routed_by(key, way) if routed else ()


def other_value(known: Known) -> str | None:
    """A figure a little off, or another word."""
    size, value = known.size, known.value
    if size.kind is FLAG:
        return "no" if value else "yes"
    if size.kind is TEXT:
        if size.measure == "places":
            return "10,10"
        if size.measure == "points":
            return "0,0 60,0 60,30r5 0,30"
        choices = size.choices or {"taper": ("MT2", "MT3")}.get(
            size.measure, ("M6", "M8", "M10")
        )
        return next(
            (choice for choice in choices if choice not in (value, "none")), None
        )
    if size.kind is COUNT:
        return str(int(value) + 1)
    for moved in (value * 0.98, value * 1.02, value + 0.1):
        if size.low <= moved <= size.high and abs(moved - value) > 1e-6:
            return f"{moved:.4f}{'mm' if size.kind is LENGTH else ''}"
    return None


def told(made):
    """Everything that a size can move."""
    return (
        made.body,
        tuple((check.key, check.says) for check in made.checks),
        tuple(
            (step.title, step.tool, minutes_of(step))
            for holding in route_told(made)
            for step in holding.steps
        ),
    )


class Laws(unittest.TestCase):
    def test_the_usual_piece_can_be_made(self):
        for _, made in everywhere(self):
            failed = [c.says for c in made.checks if not c.passed and c.grave]
            self.assertEqual(failed, [])

    def test_a_piece_in_inches_is_as_sound_as_one_in_millimetres(self):
        """Its rules know no metric thread, and start from no whole millimetres."""
        for key, family in families().items():
            for given in ({}, family.full):
                with self.subTest(key, given=given):
                    made = make(family, given, round_inch=True)
                    failed = [c.says for c in made.checks if not c.passed and c.grave]
                    self.assertEqual(failed, [])
                    mates = {str(made.values[mate]) for mate in family.mate_keys}
                    for name, known in made.sizes.items():
                        self._is_of_inches(known, name in given, mates)

    def _is_of_inches(self, known, typed, mates):
        size, value = known.size, known.value
        if typed or known.by != "rule":
            return
        if size.measure in THREADS and value not in mates:
            self.assertNotRegex(str(value), r"^M\d", size.key)
        if size.kind is LENGTH and isinstance(size.rule, str) and value > 1:
            whole = size.rule.replace(".", "").isdigit() and value % 0.5 == 0
            self.assertFalse(whole, size.key)

    def test_what_it_starts_from_follows_its_mates(self):
        """Of mates that are thinner or thicker than in its example, as long as no word
        among them, as a thread, ties it to one size."""
        for key, family in families().items():
            if any(isinstance(m.usual, str) for m in family.mate_keys.values()):
                continue
            mates = {k: m for k, m in family.mate_keys.items() if not m.optional}
            for share in (0.7, 1.4, 2.0):
                given = {
                    name: f"{mate.usual * share:.3f}"
                    for name, mate in mates.items()
                    if mate.kind is LENGTH
                }
                for inch in (False, True):
                    with self.subTest(key, share=share, inch=inch):
                        made = make(family, given, round_inch=inch)
                        wrong = [
                            c.says for c in made.checks if not c.passed and c.grave
                        ]
                        self.assertEqual(wrong, [])

    def test_the_usual_piece_can_be_held(self):
        for family in families().values():
            with self.subTest(family.key):
                held = held_well(route_told(make(family, {})))
                self.assertEqual([c.says for c in held if not c.passed], [])

    def test_every_name_exists(self):
        for family, made in everywhere(self):
            keys = {size.key for size in family.sizes}
            mates = set(family.mate_keys)
            self.assertEqual(len(keys), len(family.sizes))
            for slot in family.slots:
                self.assertIn(slot.rules, keys)
            for slot in family.fits:
                self.assertIn(slot.mate, mates)
                words = [character.key for character in words_for(slot.joint)]
                self.assertIn(slot.want, words or ["", "normal"])
            self.assertLessEqual(set(family.proof), keys)
            self.assertLessEqual(set(family.grips), {fit.key for fit in family.fits})
            names = {feature.name for feature in made.body.features}
            self.assertEqual(len(names), len(made.body.features))
            for holding in made.holdings:
                for step in holding.steps:
                    self.assertLessEqual(set(step.features), names, step)
                    fits = {slot.key for slot in family.slots}
                    self.assertIn(step.fit, {*fits, ""})

    def test_every_size_moves_something(self):
        for family in families().values():
            # a size of another way of making it moves something there
            here = [(way, make(family, way)) for way in other_ways(family)]
            sizes = {
                key: known for _, made in here for key, known in made.sizes.items()
            }
            for key, known in sizes.items():
                other = other_value(known)
                with self.subTest(family.key, size=key, other=other):
                    self.assertIsNotNone(other)
                    self.assertTrue(
                        any(
                            told(make(family, {**way, key: other})) != told(made)
                            for way, made in here
                            if key in made.sizes
                        )
                    )

    def test_the_route_ends_at_the_body(self):
        for made, route in routes_everywhere(self):
            last = route[-1].steps[-1].after
            self.assertEqual(set(last.features), set(made.body.features))
            self.assertAlmostEqual(last.volume / made.body.volume, 1, places=9)

    def test_every_step_only_takes_metal_away(self):
        for _, route in routes_everywhere(self):
            steps = [s for holding in route for s in holding.steps]
            for step in steps:
                before, after = (
                    body.region.area if body.turns else body.volume
                    for body in (step.before, step.after)
                )
                self.assertLessEqual(after, before + 1e-6, step.title)
            keys = [step.key for step in steps]
            self.assertEqual(len(keys), len(set(keys)))

    def test_no_step_takes_off_what_the_piece_shall_keep(self):
        """Nor what a tool passes on its way to where it cuts."""
        for made, route in routes_everywhere(self):
            if not made.body.turns:
                continue
            for step in (s for up in route for s in up.steps):
                with self.subTest(step=step.title):
                    lost = made.body.region.difference(step.after.region)
                    self.assertLess(lost.area, 1e-6)

    def test_what_stands_between_larger_ones_is_turned_as_a_recess(self):
        """No tool comes to it from an end: none is told to stop at its shoulder."""
        for made, route in routes_everywhere(self):
            if not made.body.turns:
                continue
            outside = [
                feature
                for feature in made.body.features
                if isinstance(feature, OUTSIDE)
            ]
            for step in (s for up in route for s in up.steps):
                cut = [feature for feature in step.cut if isinstance(feature, Cylinder)]
                for cylinder in cut if step.operation == "turn" else ():
                    before = [it for it in outside if it.end <= cylinder.start + 1e-6]
                    after = [it for it in outside if it.start >= cylinder.end - 1e-6]
                    between = all(
                        max(map(widest, side), default=0) > cylinder.diameter + 1e-6
                        for side in (before, after)
                    )
                    if between:
                        self.assertEqual(cylinder.shoulder, "", step.title)

    def test_between_centres_no_tool_runs_into_the_dog(self):
        """The end that is cut is said, and changes only where the work is turned end
        for end; a shoulder lies on the dog's side of what is cut up to it."""
        for _, route in routes_everywhere(self):
            for up in (up for up in route if up.held == "centres"):
                out = None
                for step in up.steps:
                    with self.subTest(step=step.title):
                        self.assertIsNotNone(step.out)
                        if step.out != out:
                            self.assertEqual(step.operation, "mount")
                        if "dog" in step.title:
                            self.assertIn("The dog's tail catches", step.caution)
                        for feature in step.cut if step.operation == "turn" else ():
                            self.assertNotEqual(feature.shoulder, step.out)
                    out = step.out

    def test_nothing_is_bored_out_of_the_solid(self):
        """A boring tool and a tap want a hole to go into, and a drill makes it."""
        for _, route in routes_everywhere(self):
            for step in (s for up in route for s in up.steps):
                bored = [o for o in step.cut if isinstance(o, INSIDE)]
                if not bored or step.operation in ("drill", *NO_METAL):
                    continue
                for bore in bored:
                    middle = (bore.start + bore.end) / 2
                    with self.subTest(step=step.title):
                        self.assertGreater(step.before.radii(middle)[0], 0)

    def test_the_order_of_work_keeps_the_rules_of_the_shop(self):
        """A hole is finished in the holding of its drill, sawing comes last, and a
        piece is held for a proof where what is proved was cut."""
        for _, made in everywhere(self):
            route = keyed(made.holdings)
            self.assertEqual(broken(route, route), [])

    def test_no_step_can_be_moved_to_where_there_is_nothing_for_it(self):
        """Any step, one place earlier or later: metal is only taken away all the same,
        and the piece comes out as it was."""
        for _, made in everywhere(self):
            planned = keyed(made.holdings)
            for key in [step.key for holding in planned for step in holding.steps]:
                for later in (False, True):
                    with contextlib.suppress(BadInput):
                        moved = stepped(planned, (), key, later)
                        order = in_order(planned, moved)
                        if any(rule.never for rule in broken(order, planned)):
                            continue
                        steps = [
                            s for h in route_told(made, moved=moved) for s in h.steps
                        ]
                        last = steps[-1].after
                        self.assertEqual(
                            last.features, made.body.features, (key, later)
                        )

    def test_no_drill_is_larger_than_what_it_prepares(self):
        for made, route in routes_everywhere(self):
            for holding in route:
                for step in holding.steps:
                    if not step.drill or not made.body.turns:
                        continue
                    for face in (made.body.face(name) for name in step.features):
                        if face is not None and "diameter" in face.at:
                            self.assertLessEqual(step.drill, face.at["diameter"] + 1e-9)

    def test_the_solid_is_closed_and_has_the_body_s_volume(self):
        """Of a turned piece without cross cuts, Pappus says the same volume."""
        across = ("Holes", "CrossHoles", "CrossSlot", "Flats", "Keyway", "Slits")
        for _, made in everywhere(self):
            solid = made.body.solid
            self.assertEqual(solid.status().name, "NoError")
            self.assertGreater(made.body.volume, 0)
            self.assertLess(made.body.volume, made.body.stock_volume)
            if made.body.turns and not isinstance(made.body.stock, Bar):
                turned = made.body.after(
                    (feature.name, 0.0)
                    for feature in made.body.features
                    if type(feature).__name__ not in across
                )
                region = turned.region
                pappus = 2 * math.pi * region.centroid.y * region.area
                self.assertAlmostEqual(turned.volume / pappus, 1, places=4)

    def test_no_sum_stands_for_a_word(self):
        for _, made in everywhere(self):
            for key, known in made.sizes.items():
                if known.size.kind in (TEXT, FLAG):
                    given = {**made.given, key: "= 1 + 1"}
                    with self.assertRaisesRegex(BadInput, "no word"):
                        make(made.family, given)

    def test_where_a_size_comes_from_is_said_in_words(self):
        for _, made in everywhere(self):
            for known in made.sizes.values():
                self.assertNotIn("<", known.because, known.size.key)

    def test_whatever_fit_is_wished_the_drawn_size_lies_in_its_band(self):
        """Also where the band is narrower than what the size is rounded to."""
        for key, family in families().items():
            for slot in family.fits:
                for wish in words_for(slot.joint):
                    with self.subTest(key, slot=slot.key, wish=wish.key):
                        made = make(family, {f"fit.{slot.key}": wish.key})
                        wrong = [c.key for c in made.checks if not c.passed]
                        self.assertNotIn(f"fit-{slot.key}", wrong)

    def test_no_band_is_left_of_a_mate_that_is_read_too_coarsely(self):
        """Read to 0.3 mm at two sigma, no fit that slides or presses is left a band."""
        for key, family in families().items():
            slots = [s for s in family.fits if s.joint not in ("thread", "bolts")]
            given = {f"{slot.mate}.doubt": "0.3mm" for slot in slots}
            for band in make(family, given).fits:
                if band.slot in slots:
                    with self.subTest(key, slot=band.slot.key):
                        self.assertEqual((band.lower, band.upper), (None, None))
                        self.assertIn("nothing is left", band.problem)

    def test_nothing_is_held_against_a_mate_that_is_away(self):
        """A block of 80 on no lathe; a hub that copies no old part's length."""
        block = families()["plate-block"]
        for given, wanted in (({}, False), ({"lathe.centre_height": "70"}, True)):
            checks = make(block, {"block.height": "80", **given}).checks
            self.assertEqual(any(c.key == "height" for c in checks), wanted)
        hub = families()["hub-adapter"]
        for given, by in (({}, "rule"), ({"like.hub_length": "25"}, "copy")):
            self.assertEqual(make(hub, given).sizes["hub.length"].by, by)

    def test_sizes_that_leave_nothing_are_refused(self):
        """A vee of 88 at 27° is 183 deep, in a block of 50; a bore wider than its
        round: what was drawn before stays."""
        for key, given in (
            ("vee-block", {"vee1.angle": "27", "vee1.width": "88"}),
            ("spacer-sleeve", {"sleeve.diameter": "18"}),
        ):
            with self.assertRaisesRegex(BadInput, "left"):
                make(families()[key], given)

    def test_every_step_has_its_speed_in_every_metal_that_is_cut(self):
        """Carbide is ground: no piece is drawn of it."""
        for family in families().values():
            for metal in materials():
                with self.subTest(family.key, metal=metal):
                    if metal == "carbide":
                        with self.assertRaisesRegex(BadInput, "ground"):
                            make(family, {"material": metal})
                        continue
                    for up in route_told(make(family, {"material": metal})):
                        for step in up.steps:
                            self.assertGreater(minutes_of(step), 0)
                            if step.speed is not None:
                                self.assertGreater(step.rpm, 0)

    def test_random_sizes_give_a_piece_or_a_reason(self):
        chance = random.Random(9)
        for family in families().values():
            usual = make(family, {})
            made = 0
            for _ in range(30):
                given = {
                    key: f"{known.value * chance.uniform(0.6, 1.6):.3f}"
                    for key, known in usual.sizes.items()
                    if known.size.kind not in (TEXT, FLAG, COUNT)
                    and chance.random() < 0.3
                }
                with self.subTest(family.key, given=given):
                    try:
                        piece = make(family, given)
                    except BadInput as error:
                        self.assertTrue(error.message)
                        self.assertTrue(error.key)
                        continue
                    made += 1
                    route_told(piece)
                    self.assertTrue(all(hardware.name for hardware in piece.hardware))
            self.assertGreater(made, 15, family.key)

    def test_nothing_measured_as_nought_breaks_a_family(self):
        """Each figure of a mate in turn as 0, as one types it by mistake."""
        for family in families().values():
            for key, mate_size in family.mate_keys.items():
                if isinstance(mate_size.usual, str):
                    continue
                with self.subTest(family.key, mate=key), contextlib.suppress(BadInput):
                    made = make(family, {key: "0"})
                    route_told(made)
                    self.assertTrue(all(hardware.count for hardware in made.hardware))

    def test_what_the_drawing_allows_passes_every_check(self):
        """Each size in turn as far off as its limits, or ISO 2768-m where it has none,
        let it be: it still goes on its mate and holds."""
        for family, made in everywhere(self):
            for key, known in made.sizes.items():
                length = known.size.kind is LENGTH and known.value
                if length and known.size.feature != "stock":
                    low, high = made.allowed(key)
                    self.assertTrue(low - 1e-9 <= known.value <= high + 1e-9, key)
                    for end in (low, high):
                        with self.subTest(family.key, size=key, made=end):
                            self.assertEqual(self._worse(made, key, end), [])

    def _worse(self, piece, key, end):
        """What fails once a size is off, and did not before."""
        failed = {check.key for check in piece.checks if not check.passed}
        return [
            check.says
            for check in piece.family.checks({**piece.values, key: end})
            if check.grave and not check.passed
            and check.key not in failed and not TOGETHER.search(check.key)
        ]  # fmt: skip

    def test_a_chain_closes_whatever_its_drawing_allows_its_other_links(self):
        for family, made in everywhere(self):
            for band in made.fits:
                chain = band.slot
                if not isinstance(chain, Chain) or band.lower is None:
                    continue
                shortest = longest = 0.0
                for key, sign in chain.links:
                    size = made.values[key]
                    own = key in made.sizes and size
                    ends = made.allowed(key) if own else (size, size)
                    ends = sorted(sign * end for end in ends)
                    shortest, longest = shortest + ends[0], longest + ends[1]
                gaps = sorted((shortest - band.upper, longest - band.lower))
                least, most = made.values[chain.least], made.values[chain.most]
                if chain.over:
                    least, most = -most, -least
                ends = band.lower, band.upper
                with self.subTest(family.key, chain=chain.key):
                    self.assertEqual(as_told(*ends), ends)  # alike on every page
                    self.assertGreaterEqual(gaps[0], least - 1e-6)
                    self.assertLessEqual(gaps[1], most + 1e-6)

    def test_nothing_else_names_a_family(self):
        files = {path.stem for path in Path(package.__file__).parent.glob("[a-z]*.py")}
        words = sorted({*families(), *files})
        named = re.compile("|".join(rf'"{word}"|families\.{word}\b' for word in words))
        store = SOURCE / "store"
        # a shop's jobs, as one would begin them, and what old documents made
        may = (store / "demo_shop.py", store / "upgrades.py")
        for path in SOURCE.rglob("*.py"):
            if path.parent.name != "families" and path not in may:
                self.assertIsNone(named.search(path.read_text()), path)


SEVENTH = """
from machinon.core.piece.body import Body
from machinon.core.piece.stock import Round
from machinon.core.piece.family import Family, Holding, Size, Step, at_least
from machinon.core.piece.turned_features import (Cylinder, End)


def build(s):
    long = s["pin.length"]
    return Body(
        Round(s["pin.diameter"] + 2, -1.0, long + 1),
        (
            End("left", 0.0, "left"),
            Cylinder("pin", 0.0, long, s["pin.diameter"]),
            End("right", long, "right"),
        ),
    )


def checks(s):
    yield at_least(
        "slim", "pin", 10 * s["pin.diameter"], s["pin.length"], "Ten diameters"
    )


def route(s):
    steps = (Step("face", ("left",)), Step("turn", ("pin",)), Step("face", ("right",)))
    return (Holding("once", "lathe", "In the chuck", "In one go.", steps),)


FAMILY = Family(
    "stop-pin",
    "Stop pin",
    "A plain pin.",
    "as a pin of 8 mm",
    sizes=(
        Size("pin.diameter", "diameter", "8", low=1, high=100),
        Size("pin.length", "length", "pin.diameter*4", low=1, high=500),
    ),
    build=build,
    checks=checks,
    route=route,
)
"""


class ANewcomer(unittest.TestCase):
    def test_one_file_is_a_family(self):
        self.assertLess(SEVENTH.count("\n"), 80)
        with tempfile.TemporaryDirectory() as folder:
            Path(folder, "stop_pin.py").write_text(SEVENTH)
            package.__path__.append(folder)
            families.cache_clear()
            try:
                made = make(families()["stop-pin"], {"pin.diameter": "10"})
            finally:
                package.__path__.remove(folder)
                families.cache_clear()
        self.assertEqual(made.sizes["pin.length"].value, 40)
        titles = [s.title for holding in route_told(made) for s in holding.steps]
        self.assertEqual(
            titles, ["Face the left", "Turn the pin to ⌀10", "Face the right"]
        )
        self.assertAlmostEqual(made.body.volume, math.pi * 25 * 40, places=3)

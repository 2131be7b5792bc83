"""What was typed, heard as threads, tapers, sizes, materials and plain words."""

import functools
import re
from fractions import Fraction
from itertools import pairwise

from machinon.core.ask.said import ALIKE, INCHES, UNITS, Said, SaidPart
from machinon.core.errors import BadInput
from machinon.core.materials import also_called, materials
from machinon.core.quantity import INCH, fraction_text, parse
from machinon.core.tapers.tapers import SPELLED
from machinon.core.threads.screw_thread import known_threads

_NUMBER = r"(?:\d+\s+\d+/\d+|\d+/\d+|\d*\.\d+|\d+)"
_UNIT = (
    r"(?:mm\b|cm\b|m\b(?!\s*/)|µm|μm|um\b|microns?\b"
    r"|inch(?:es)?\b|in\b|\"|″|''|thou\b|tenths?\b|ft\b)"
)
_SIGN = r"(?:(?<!\S)[-−](?=[\d.]))?"  # below zero: -0.02, but not 6-32
_SERIES = r"(?:unc|unf|unef|uns|un|bsw|bsf|whitworth|whit|w|acme)\b"
_LEFT = r"[\s-]*(?:lh|left[\s-]hand(?:ed)?)\b"
_SEALED = r"[\s-]?(?:2?rs\d?|2?z|zz|2rsr)"  # of a bearing
_SEALS = rf"(?:{_SEALED})?"
_STARTS = r"(?:ph)?\s?\d+(?:\.\d+)?\s?\(?p\s?\d+(?:\.\d+)?\)?"  # 8P4

# in this order: what is more than a number before the number in it
_PARTS: tuple[tuple[str, str], ...] = (
    ("thread", rf"m\s?\d+(?:\.\d+)?(?:\s?[x×]\s?\d+(?:\.\d+)?)?{_LEFT}"),
    ("thread", rf"(?:tr|m)\s?\d+(?:\.\d+)?\s?[x×]\s?{_STARTS}(?:{_LEFT})?"),
    ("thread", r"m\s?\d+(?:\.\d+)?(?:\s?[x×]\s?\d+(?:\.\d+)?)?\b(?![/.])"),
    ("thread", r"tr\s?\d+(?:\.\d+)?\s?[x×]\s?\d+(?:\.\d+)?"),
    ("thread", rf"acme\s*{_NUMBER}\s*-\s*\d+(?:\.\d+)?"),
    ("thread", r"\d+\s?ba\b"),
    ("pipe taper", rf"(?:npt|bspt)\s?{_NUMBER}|rc\s?(?:\d\s)?\d/\d"),
    ("pipe taper", rf"{_NUMBER}(?:\s?-\s?[\d.]+)?\s?(?:npt|bspt|bsp\s+taper(?:ed)?)\b"),
    ("thread", rf"(?:g|bspp?)\s?{_NUMBER}(?!\s*[:x])"),
    ("thread", rf"{_NUMBER}\s?bspp?\b"),
    ("thread", rf"(?:bsw|bsf)\s+{_NUMBER}(?:\s*-\s*\d+)?"),
    ("thread", rf"(?:{_NUMBER}|#\d+)\s*-\s*\d+(?:\.\d+)?\s*{_SERIES}"),
    # 3/4 - 0.002 is a size less two thou
    ("thread", r"(?:(?:\d+[\s-]+)?\d+/\d+|#\d+|\.\d+)\s*-\s*[1-9]\d*(?:\.\d+)?(?!/)"),
    ("thread", r"[1-6]-(?:4\.5|11\.5|4|5|6|7|8|12|14|16|18|20)\b(?!-)"),
    (
        "thread",
        r"(?:0-80|1-64|1-72|2-56|2-64|3-48|3-56|4-40|4-48|5-40|5-44|6-32|6-40|8-32|8-36"
        r"|10-24|10-32|12-24|12-28)\b",
    ),
    ("thread", rf"(?:{_NUMBER}|#\d+)\s*(?:unc|unf|unef|bsw|bsf)\b"),
    *(("taper", rf"{said.lower()}\b") for said, _ in SPELLED),
    ("taper", r"r8\b|5c\b|7/24\b"),
    ("taper", r"1\s?:\s?\d+(?:\.\d+)?"),
    ("taper", r"\d+(?:\.\d+)?/\d+(?:\.\d+)?/\d+(?:\.\d+)?"),
    ("ratio", r"\d+\s?:\s?1\b"),
    ("fit", r"[A-Z]{1,2}\d{1,2}/[a-z]{1,2}\d{1,2}|[a-z]{1,2}\d{1,2}/[a-z]{1,2}\d{1,2}"),
    ("inch fit", r"(?:rc|lc|lt|ln|fn)\s?\d{1,2}\b"),
    ("speed", rf"{_NUMBER}\s*(?:m|ft)\s*/\s*min\b"),
    ("travel", rf"{_NUMBER}\s*(?:mm|in|inch(?:es)?)\s*(?:/|per\s)\s*min(?:ute)?\b"),
    ("rpm", r"\d+(?:\.\d+)?\s*rpm\b"),  # 1/2 rpm is a half-inch drill
    ("tpi", rf"{_NUMBER}\s*(?:tpi|threads?\s+(?:per|to\s+the|an)\s+inch)\b"),
    ("percent", rf"{_NUMBER}\s*%"),
    ("angle", r"\d+d(?:\d+m)?(?:\d+s)?\b"),
    ("angle", rf"{_NUMBER}\s*(?:deg(?:rees?)?\b|°)"),
    ("class", r"[1-3][ab]\b|[4-9][efgh]\b|[2-6]g\b"),
    ("pin", r"#\d+/?\d*"),
    ("bearing", rf"6[0-3]\d{{2}}{_SEALS}\b"),
    ("bearing", rf"6(?:0[4-9]|2[3-9])(?:{_SEALED}\b|(?=\s+bearing))"),
    ("pair", rf"{_NUMBER}\s*{_UNIT}?(?:\s*[x×*]\s*{_NUMBER}\s*{_UNIT}?)+"),
    ("size", rf"{_SIGN}{_NUMBER}\s*{_UNIT}"),
    ("number", rf"{_SIGN}{_NUMBER}"),
    ("zone", r"(?:js|JS|za|ZA|zb|ZB|zc|ZC|[a-zA-Z])\d{1,2}\b"),
    ("word", r"[^\W\d_][\w&/'-]*"),
)
_SCANNER = re.compile(
    "|".join(f"(?P<k{i}>{pattern})" for i, (_, pattern) in enumerate(_PARTS)),
    re.IGNORECASE,
)
_SKIPPED = re.compile(r"[\s,;?!·=()\[\]]+")


@functools.cache
def _materials() -> re.Pattern[str]:
    names = sorted((*materials(), *also_called()), key=len, reverse=True)
    # the grade of a steel is a bare number: 1018, but 1018 mm
    grades = rf"(?!\d+\s*(?:{_UNIT}|rpm\b|[x×/.:]))"
    words = "|".join(map(re.escape, names))
    return re.compile(rf"\b{grades}(?:{words})\b", re.IGNORECASE)


# what is said in several words and is one part: 1/4 whitworth, BA 4, no 7 drill
_SAID_SO: tuple[tuple[re.Pattern[str], str], ...] = tuple(
    (re.compile(pattern, re.IGNORECASE), meant)
    for pattern, meant in (
        (r"(\d)\s*millimet(?:re|er)s?\b", r"\1 mm"),
        (r"\bin\s+millimet(?:re|er)s?\b", "in mm"),
        (r"(\d)\s*centimet(?:re|er)s?\b", r"\1 cm"),
        (r"(\d)\s*met(?:re|er)s?\b(?!\s*(?:/|per|a\b))", r"\1 m"),
        (r"(\d)\s*(?:foot|feet)\b", r"\1 ft"),
        (r"(?<![\w./-])(\d+(?:\.\d+)?)\s*(?:per\s*cent|pct)\b", r"\1 %"),
        (r"(?<=[a-z])\s+%", " percent"),
        (r"(\d)\s*x\s*(?=\d+(?:\.\d+)?\s*tpi\b)", r"\1 "),
        (r"\b(nose|tip)\s+radius\b", r"\1"),
        (rf"\bacme\s+({_NUMBER})\s*(?:inch|in|\")?\s+(\d+)\s*tpi\b", r"acme \1-\2"),
        (rf"({_NUMBER})\s*(?:inch|in|\")?\s+(\d+)\s*tpi\s+acme\b", r"acme \1-\2"),
        (r"\bno-?\s?go\b", "nogo"),
        (r"(?<!\d)\s+threads?\s+(?:per|to\s+the|an)\s+inch\b", " tpi"),
        (r"(\d)\s*turns?\s+(?:per|to\s+the|an)\s+inch\b", r"\1 tpi"),
        (r"\bin\s+64ths\b", "in fraction"),
        (r"\bc['’-]?bores?\b", "counterbore"),
        (r"\bflat[\s-]?head(?:ed)?\b", "countersunk head"),
        (r"\bflycut(?:ter|ting)?\b", "fly cutter"),
        (r"\bin\s+(?=\d+\s+(?:cuts?|pass(?:es)?)\b)", ""),  # no 39.95 inches
        # a roughness; less of it could be of a metric drawing
        (
            r"(?:\bra\s*)?\b(1[3-9]|[2-9]\d|\d{3})\s*(?:micro[\s-]?inch(?:es)?|[µμu]in)\b",
            r"ra \1",
        ),
        (
            r"\b(\d+)-(?=(?:hole|bolt|jaw|flute|start|tooth|stud|flat|place)s?\b)",
            r"\1 ",
        ),
        (r"\bleft[\s-]hand(?:ed)?\s+(m\s?\d[\d.x]*|tr\s?\d[\d.x]*)", r"\1 lh"),
        # the largest that goes into a round
        (
            rf"\b(square|hexagon|hex)\s+fits?\s+(?:in|into)\s+(?:an?\s+)?"
            rf"({_NUMBER}\s*{_UNIT}?)\s+(?:hole|bore|circle|round)\b",
            r"largest \1 in \2",
        ),
        # of two that were measured, no figure of its own
        (
            r"^\s*interference\s+(?:of\s+|between\s+)?"
            r"(\d+\.\d+\s*(?:mm\s+)?(?:pin|shaft|dowel|spigot|journal)\b.*)$",
            r"\1 tight",
        ),
        (r"\b(in|is)\s+(?:an?|one)\s+(mm|thou|tenth|inch|micron)\b", r"\1 1 \2"),
        (r"\bwhit(?:worth)?\b", "bsw"),
        (r"\bba\s+(\d+)\b", r"\1ba"),
        (r"\bset[\s-]+over\b", "setover"),
        (r"\bd1\s*-\s*(?=\d)|\bcam[\s-]*lock\s+(?=\d)", "cam-nose "),
        (r"\be[\s-]+(?:clip|ring)s?\b", "e-clip"),
        (r"\bpart(?:ing)?[\s-]+off\b", "parting"),
        # by its rise, both of one unit: angle 3 in 40, rise of 1 in 10
        (
            r"(?<!taper )(?<!cone )\b(?:angle|rise)\s+(?:of\s+|is\s+)?"
            r"(\d+(?:\.\d+)?)\s+in\s+(\d+(?:\.\d+)?)\s*$",
            r"slope \1 over \2",
        ),
        # a taper by its rise
        (
            r"\b(taper|cone|tailstock|setover|offset|compound)\b(.*?)(?<!to )"
            r"\b1\s+in\s+(\d+(?:\.\d+)?)\b",
            r"\1\2 1:\3",
        ),
        # as a level reads: 0.5 mm per metre
        (
            r"\b(\d+(?:\.\d+)?)\s*mm\s*(?:/|per|a|in\s+a)\s*m(?:et(?:re|er))?\b(?!\s*in)",
            r"\1 mm over 1000 mm",
        ),
        # found by readings at two places: taper 0.02 over 100
        (
            r"\btaper\s+(?:of\s+)?0?(\.\d+)\s+over\s+(\d+(?:\.\d+)?)\s*$",
            r"taper 0\1 in \2",
        ),
        (r"\b1\s+in\s+(\d+(?:\.\d+)?)\s+(taper|cone)\b", r"1:\1 \2"),
        (r"\btpf\b", "per foot"),
        (r"\bbody\s+(?=drill|hole|size)", "clearance "),
        (r"(\d)\s*ipm\b", r"\1 in/min"),
        (r"\bjo\s+blocks?\b", "gage blocks"),
        # how many, and no mixed number: 3 5/16-18 bolts
        (
            r"\b(\d{1,2})\s+(?=\d/\d{1,2}-\d{1,2}\s+(?:bolts?|screws?|studs?|nuts?)\b)",
            r"\1, ",
        ),
        # a grade alone, laid as a shaft's: it7, IT grade 7
        (r"\bit\s?(?:grade\s+)?(\d{1,2})\b", r"h\1"),
        (r"\bmin(?:imum)?\s+(?=interference|play|clearance)", "least "),
        (r"\bmax(?:imum)?\s+(?=interference|play|clearance)", "most "),
        (r"\b(to|at)\s+minus\s+(\d+)\b", r"\1 -\2"),
        (r"^\s*sagitta\s+(?:of\s+|for\s+)?(?=[\d.].*\bradius)", "height of arc "),
        (r"\bfrom\s+(?:the\s+)?over\s+(?:the\s+)?pins\b", "measured over pins"),
        (r"\bthick\s+end\b", "large"),
        (r"\bthin\s+end\b", "small"),
        (r"\bthousandths?\b", "thou"),
        (r"\btap-?drill", "tap drill"),
        (r"\bhalf\s+an?\s+(thou|mm|tenth|inch)\b", r"0.5 \1"),
        (r"\b(sin|cos|tan)\s*(?:⁻¹|\^-1)", r"arc\1"),
        (r"\b7\s*:\s*24\b", "7/24"),
        # a gear's teeth: 24t 32 dp, module 2 z20
        (r"\b(\d+)\s*t\b(?=.*\b(?:dp|mod|module)\b)", r"\1 teeth"),
        (r"\bz\s*=?\s*(\d+)\b", r"\1 teeth"),
        (r"\bo[\s-]?rings?\b", "o-ring"),
        (r"\bc'?sinks?\b", "countersink"),
        (r"\b(\d+)\s+in\s+(?:a\s+)?(row|line)\b", r"\1 holes in a \2"),
        (r"(\d)\s+in\s+(?=how\b)", r"\1, "),  # 25.4 in how many passes
        # remove 0.5 from 25.4 with cuts of 0.1
        (
            rf"\b(?:remove|take)\s+({_NUMBER}\s*{_UNIT}?)\s+from\s+"
            rf"(?={_NUMBER}(?!.*\b(?:to|down)\b))",
            r"take \1 off ",
        ),
        # 40 to 32.5 in 1.5 mm passes
        (
            r"(\d)\s+(?:in|by|with)\s+(\d*\.\d+|\d+\s*(?:mm|thou))(\s*mm)?\s+"
            r"(?=pass(?:es)?\b|cuts?\b)",
            r"\1 cut deepest \2\3 ",
        ),
        (r"\bshcs\b", "cap screw"),
        (r"\bretaining\s+compound\b", "bonding compound"),
        (r"\bbearing\s+(6(?:0[4-9]|2[3-9]))\b", r"\1 bearing"),
        # ra 32 1/32 nose: a figure and a fraction, no mixed number
        (r"\b(ra|rms)\s+(\d+)\s+(?=\d+/\d+)", r"\1 \2; "),
        (r"\b(large|big|small)\s+end\b", r"\1"),
        (r"\b3[\s-]+wires?\b", "three wire"),
        (r"\bcorner\s+to\s+corner\b", "across corners"),
        # the radius of an arc said first: height of 100 radius, 40 chord
        (
            rf"\b(height|rise)\s+of\s+(?:an?\s+)?({_NUMBER}\s*{_UNIT}?)\s+radius\b",
            r"radius \2 \1",
        ),
        (r"^\s*chord\s+height\b", "height of the arc"),
        (r"\bt(?:ee)?[\s-]+(nut|slot)s?\b", r"t-\1"),
        (r"\bv[\s-]+block\b", "vee block"),
        (r"\btrap(?:ezoid(?:al)?)?\s+(?=\d+\s*[x×])", "tr"),
        (r"\b(?:number|no\.?)\s+(\d+)(?=\s+(?:drill|screw|bolt))", r"#\1"),
        # a metric thread without its m: tap 10x1.5, thread 39x4
        (
            r"\b((?:tap(?:ping)?(?:\s+drill)?|threads?|clearance(?:\s+hole)?)"
            r"(?:\s+for)?\s+)(?=\d+(?:\.\d+)?\s*[x×]\s*\d(?:\.\d+)?(?![\d.]))",
            r"\1m",
        ),
        (
            rf"\b(?:at\s+)?({_NUMBER}(?:\s*{_UNIT})?)\s+(?:a|per|each|every)\s+pass\b",
            r"cut deepest \1",
        ),
        (rf"\bpasses\s+of\s+({_NUMBER})", r"passes deepest \1"),
        (r"\bdrill\s+(?:number|no\.?)\s+(\d+)\b", r"drill #\1"),
        (
            r"(\d)\s*(?:m|metres?|meters?)\s+(?:per|a)\s+min(?:ute)?\b",
            r"\1 m/min",
        ),
        (r"\bslot\s+drill\b", "endmill"),
        (r"\bfly[\s-]+cut(?:ter|ting)?\b", "flycut"),
        (r"\b(taper\s+pin)\s+(?:number|no\.?)\s+(\d+)\b", r"\1 #\2"),
        (r"\bnumber\s+(\d)\s+(?=morse)", r"\1 "),
        # a drill is said to go so deep before how wide it is: drill 50 deep 10 mm
        (
            rf"\bdrill\s+({_NUMBER}(?:\s*{_UNIT})?)\s+deep\s+({_NUMBER}(?:\s*{_UNIT})?)",
            r"drill \2 depth \1",
        ),
        # a metric tap by its size: 10 mm tap
        (r"\b(\d+(?:\.5)?)\s*mm\s+tap\b", r"m\1 tap"),
        (r"\bhow\s+long\s+(?:to|does|will)\b", "time"),
        (r"\b(\d+)\s*to\s*1(?=\s+(?:worm|head|dividing|table))", r"\1:1"),
        (
            r"\b(\d+)\s*(?:deg(?:rees?)?|°)\s*(\d+)\s*(?:min(?:utes?)?\b|['′])",
            r"\1d\2m",
        ),
    )
)


# how many there are, in words
_COUNT_WORDS = (
    *("two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"),
    *("eleven", "twelve"),
)
_IN_WORDS = re.compile(
    rf"\b({'|'.join(_COUNT_WORDS)})(?=[\s-]+(?:holes?|bolts?|screws?|starts?|pieces?"
    r"|flutes?|teeth|tooth|(?:t-)?nuts?|divisions?|sides?|passes|cuts?)\b)-?",
    re.IGNORECASE,
)
# a taper of so much in so much, both of one unit: taper 1 in 20, 10 in 100 taper
_IN_SO_MUCH = re.compile(
    r"(?<![\d/.:])\b(?P<first>(?:taper|slope|gradient|incline)\s+(?:of\s+)?)?"
    r"(?P<rise>\d+(?:\.\d+)?)\s+in\s+(?P<run>\d+(?:\.\d+)?)(?!\w|\.\d)"
    r"(?(first)(?!\s*(?:mm|in\s+\d|long|\"|″))|(?=\s+(?:taper|slope|gradient|incline)\b))",
    re.IGNORECASE,
)
# a taper by the foot, both ways in inches: 5/8 per foot
_FOOT = re.compile(
    rf"(?<![\w:.])(?<!morse )(?<!jacobs )({_NUMBER})\s*(?:in(?:ch(?:es)?)?\b|\"|″)?"
    r"\s*(?:taper\s+)?"
    r"(?:/|per|to\s+the|a)\s*"
    r"(?:ft|foot)\b(?!\s*(?:/|pin))",
    re.IGNORECASE,
)
# the same said the other way round: taper per foot 5/8
_PER_FOOT = re.compile(
    rf"\b(?:taper\s+)?per\s+(?:ft|foot)\s+(?:of\s+)?({_NUMBER})(?![\d.]|\s*(?:deg|°|:))",
    re.IGNORECASE,
)
# an inch thread said without its hyphen, where threads are spoken of: 3/8 in 24
_APART = re.compile(
    r"(?<![\d/])((?:\d+\s+)?\d+/\d+)\s*(?:in(?:ch)?\b|\"|″)?\s*[x×]?\s*(\d{1,2})\b"
    r"(?:\s*tpi\b)?(?![/.])",
    re.IGNORECASE,
)
_OF_THREADS = re.compile(
    r"\b(?:tap|tapping|threads?|clearance|wires?|screws?|bolts?|counterbore|tpi)\b",
    re.IGNORECASE,
)
_UNKNOWN = re.compile(r"\b(?:which|unknown|identify|gears?|wheels?)\b", re.IGNORECASE)


def _one_in(match: re.Match[str]) -> str:
    rise, run = float(match["rise"]), float(match["run"])
    return f"{match['first'] or ''}1:{run / rise:g}" if rise else match[0]


def _by_the_foot(match: re.Match[str]) -> str:
    try:
        return f"1:{12 * INCH / parse(f'{match[1]}in', above=0):g}"
    except BadInput:
        return match[0]


def _joined(match: re.Match[str]) -> str:
    """`3/8-24` where there is such a thread, else as it was said."""
    name = f"{match[1]}-{match[2]}"
    known = any(listed.startswith(f"{name} UN") for listed in known_threads())
    return name if known else match[0]


# the sign of a diameter, beside the length of what has it
_ROUND = re.compile(
    rf"[⌀Øø∅]\s*({_NUMBER}(?:\s*{_UNIT})?)(?![\d.]|\s*[x×])", re.IGNORECASE
)
_LONG = re.compile(r"\b(?:long|length|weight|mass|heavy)\b", re.IGNORECASE)
# a surface speed in feet a minute: 100 sfm, sfm 100, 100 ft/min
_FEET = re.compile(
    r"\b(?:(\d+(?:\.\d+)?)\s*"
    r"(?:ft\s*/\s*min|(?:feet|ft)\s+(?:per|a)\s+min(?:ute)?|sfm|sfpm|fpm)\b"
    r"|(?:sfm|sfpm|fpm)\s+(\d+(?:\.\d+)?)(?![\d.]|\s*(?:in|mm|cm|\"|″)))",
    re.IGNORECASE,
)


# a thread of 12 pitch has 12 to the inch, where inches come first
_TO_THE_INCH = re.compile(
    r"(?<![\d./-])([4-9]|[1-9]\d)\s+pitch\b(?!\s+(?:circle|diameter))", re.IGNORECASE
)
_LEAD_OF = re.compile(
    r"\b(lead\s?screw)\s+(?:of\s+|is\s+)?(\d+)(?![\d./]|\s*(?:tpi|mm|thread|in\b|inch|\"))",
    re.IGNORECASE,
)
_OF_LEAD = re.compile(r"(?<![\d./-])\b(\d+)\s+(lead\s?screw)\b", re.IGNORECASE)
_CUT_AT_IT = re.compile(
    r"\b(?:threads?|wires?|lead\s?screw|compound|infeed|half-?nuts?)\b", re.IGNORECASE
)

_BY_SIZE = re.compile(
    r"(m\s?(\d+(?:\.\d+)?))(\s?[x×]\s?(\d+(?:\.\d+)?))$", re.IGNORECASE
)
_BY_LENGTH = re.compile(rf"\s*[x×]\s*({_NUMBER}(?:\s*{_UNIT})?)", re.IGNORECASE)


def _with_length(thread: str, behind: str) -> tuple[str, re.Match[str] | None]:
    """A thread, and the length of its screw that follows: m8 x 20, 1/4-20 x 1."""
    match = _BY_SIZE.match(thread)
    # no pitch is over half of its diameter
    if match and float(match[4]) > float(match[2]) / 2:
        return match[1], _BY_LENGTH.match(match[3])
    return thread, _BY_LENGTH.match(behind)


# an inch thread said by its size in decimals: 1.5-8, .375-24
_DECIMAL_THREAD = re.compile(r"(?<![\d./-])(\d?)\.(\d{1,4})-(\d{1,2})(?![\d./-])")


def _in_fractions(match: re.Match[str]) -> str:
    """`1 1/2-8` of 1.5-8, where there is such a thread."""
    size = Fraction(f"{match[1] or 0}.{match[2]}")
    name = f"{fraction_text(size)}-{match[3]}"
    known = any(listed.startswith(f"{name} UN") for listed in known_threads())
    return name if known else match[0]


def heard(text: str, inch: bool = False) -> Said:
    """Take what was said apart; what is no word of any kind is left out. inch: a bare
    number is inches."""
    whole_text = text
    text = _DECIMAL_THREAD.sub(_in_fractions, text)
    # a hyphen joins a mixed number to its fraction: 1-3/8 in, not 1 less 3/8
    text = re.sub(r"(?<![\d/-])(\d+)-(\d+/\d+)(?!\s*-?\d)", r"\1 \2", text)
    text = _IN_WORDS.sub(lambda m: f"{_COUNT_WORDS.index(m[1].lower()) + 2} ", text)
    for pattern, meant in _SAID_SO:
        text = pattern.sub(meant, text)
    text = _IN_SO_MUCH.sub(_one_in, text)
    text = _PER_FOOT.sub(_by_the_foot, _FOOT.sub(_by_the_foot, text))
    if _OF_THREADS.search(text) and not _UNKNOWN.search(text):
        text = _APART.sub(_joined, text)
    if _LONG.search(text):  # ⌀30 × 200 long
        text = _ROUND.sub(r"\1 dia", text)
    if inch and _CUT_AT_IT.search(text):
        text = _TO_THE_INCH.sub(r"\1 tpi", text)
        text = _LEAD_OF.sub(r"\1 \2 tpi", _OF_LEAD.sub(r"\1 tpi \2", text))
    text = _FEET.sub(lambda m: f"{m[1] or m[2]} ft/min", text)
    said = Said(inch=inch, text=whole_text)
    at = 0
    while at < len(text):
        skipped = _SKIPPED.match(text, at)
        if skipped:
            at = skipped.end()
            continue
        metal = _materials().match(text, at)
        if metal and (at == 0 or not text[at - 1].isalnum()):
            said.parts.append(SaidPart("material", metal.group(), at))
            at = metal.end()
            continue
        match = _SCANNER.match(text, at)
        if match is None:
            at += 1
            continue
        kind = _PARTS[int((match.lastgroup or "k0")[1:])][0]
        whole = match.group()
        if kind in ("size", "pair") and whole.lower().endswith("in"):
            told = _after_in(text, match)
            if told == "mm" or (told == "within" and inch):
                whole = re.sub(r"\s*in$", "", whole, flags=re.IGNORECASE)
                kind = "number" if kind == "size" else kind
            elif told in ("unclear", "within") and not inch:
                said.unclear = whole.strip()
        if kind == "thread" and re.fullmatch(
            r"g\s?(?:[5-9]|\d\d)", whole, re.IGNORECASE
        ):
            kind = "zone"  # g6 is a tolerance, no pipe
        if kind == "thread":
            whole, long = _with_length(whole, text[at + len(whole) :])
            said.parts.append(SaidPart(kind, whole.strip(), at))
            at += len(whole)
            if long is not None:
                said.parts.append(SaidPart("long", long[1].strip(), at))
                at += len(long[0])
            continue
        said.parts.append(SaidPart(kind, whole.strip().replace("−", "-"), at))
        at += len(whole)
    for figure, behind in pairwise(said.parts):
        if figure.kind == "number" and behind.word in UNITS:
            figure.unit = behind.word
    return said


MOST_INCHES = 6  # of a metal: 6 in steel are inches, 50 in steel are millimetres
MOST_DRILL = 2  # inches: 6.53 in steel is a drill in millimetres
MOST_UNCLEAR = 24  # what lies between can be either, and so can a drill of 5
_HOLES = "bore|hole|hub|housing|slot|bush|sleeve|ring|recess|register|socket|seat"
_LEADS = re.compile(
    r"(?:mm|cm|um|µm|thou|tenths?|inch(?:es)?|drills|drill\s+sizes?|passes"
    r"|hrc|hrb|hv|hb|rockwell|vickers|brinell)\b"
    r"|(?:(?:an?|the)\s+(?:[\d./]+\s+)?|[\d./]+\s+)"
    rf"(?:{_HOLES}|shaft|plate|block|keyway)\b",
    re.IGNORECASE,
)
_WITHIN = re.compile(
    rf"(?:an?\s+|the\s+)?(?:(?:{_HOLES})\s+(?:(?:of|is|measures)\s+)?)?"
    r"(\d*\.?\d+)\s*(?![\d/.]|mm|in\b|inch|x)",
    re.IGNORECASE,
)
# where it is held; so much in a foot or a turn is of inches
_HELD = re.compile(
    r"(?:(?:an?|the)\s+)?(?:(?:three|four|\d)[\s-]+jaw|chuck|vice|vise|collet|steady)\b",
    re.IGNORECASE,
)
_SMALL = re.compile(r"\b(?:drill|ream|reamer|tap|mill|cutter)\b", re.IGNORECASE)


def _after_in(text: str, match: re.Match[str]) -> str:
    """The unit of a size that ends with `in`: `inches`; `mm` where the word leads on,
    as in 50 in steel, 12.7 in mm, 8 in 30 bore; `within` where one lies in another of
    that size, `unclear` where it may be either.

    Turned as millimetres, inches would be turned 25 times as fast.
    """
    rest = text[match.end() :].lstrip()
    if _LEADS.match(rest):
        return "mm"
    largest = max(map(float, re.findall(r"\d+(?:\.\d+)?", match.group())))
    beside = text[: match.start()] + text[match.end() :]
    within = None if INCHES.search(beside) else _WITHIN.match(rest)
    if within and abs(float(within.group(1)) - largest) < ALIKE * largest:
        # one in the other: 19.98 in 20.02
        return "mm" if largest > MOST_INCHES else "within"
    if (held := _HELD.match(rest)) and "/" not in match.group():
        if largest % 1 and re.search("^the|jaw", held.group(), re.IGNORECASE):
            return "mm"  # 2.5 in the 3 jaw
        if not largest % 1:
            return "mm" if largest > MOST_UNCLEAR else "unclear"
    # a part of an inch, or beside another size in inches: 2 in bar 12 in steel
    if (
        not _materials().match(rest)
        or not re.search(r"\d\s+in$", match.group())
        or "/" in match.group()
        or INCHES.search(beside)
    ):
        return "inches"
    small = largest > 1 and _SMALL.search(beside) is not None
    if largest > MOST_UNCLEAR or (small and largest % 1 and largest > MOST_DRILL):
        return "mm"
    if largest % 1:
        return "unclear" if largest > MOST_INCHES else "inches"
    return "unclear" if largest > MOST_INCHES or small else "inches"

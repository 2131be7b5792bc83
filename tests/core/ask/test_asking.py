"""Questions as people say them, each with its sum and its main figure."""

import contextlib
import io
import json
import re
import unittest
from itertools import cycle, permutations, product

from machinon.commandline import ask_command
from machinon.core.ask.asking import found_with, understand
from machinon.core.ask.phrases import PHRASES, examples
from machinon.core.ask.sentences import sentence
from machinon.core.reckoning import reckon, reckonings
from machinon.core.tables import rows

# phrase, its sum, and a result with its value (none: only that it is answered)
ASKED: tuple[tuple[str, str, str, float | str | None], ...] = (
    ("13/32 in mm", "convert", "mm", 10.31875),
    ("0.0005 in um", "convert", "um", 12.7),
    ("7.94mm in drills", "convert", "drill", "5/16"),
    ("50 thou", "convert", "mm", 1.27),
    ("0.3125", "convert", "mm", 0.3125),
    ("letter drill f", "convert", "mm", 6.5278),
    ("1/4 bsp", "thread", "major", 13.157),
    ("tap m6", "tap-drill", "drill_size", 5.0),
    ("m12 fine", "thread", "pitch", 1.25),
    ("2ba clearance", "clearance-hole", "diameter", 5.2),
    ("bsw 1/2", "thread", "major", 12.7),
    ("m45x4.5 depth of thread", "thread-passes", "total_depth", 2.7605),
    ("m6x1 engagement", "thread-engagement", "minimum_length", 8.8734),
    ("acme 1-5", "thread", "minor_internal", 20.32),
    ("tr20x4", "thread", "minor_internal", 16.0),
    ("rpm 50mm steel", "speeds", "rpm", 159.155),
    ("speed 3 inch cast iron hss", "speeds", "rpm", 91.9),
    ("25mm drill speed", "speeds", "rpm", 254.648),
    ("feed 4 flute 12mm aluminium", "speeds", "feed", 0.2),
    ("surface speed 30 m/min 25 mm", "speeds", "rpm", 381.972),
    ("60 holes circle 6", "bolt-circle", "chord", 30.0),
    ("bolt circle 6 holes 80mm", "bolt-circle", "chord", 40.0),
    ("80 pcd 6", "bolt-circle", "chord", 40.0),
    ("7 divisions 40:1", "dividing", "", None),
    ("time 100 long 0.1 feed 500 rpm", "cutting-time", "minutes", 2.2067),
    ("press fit 20mm shaft", "iso-fit", "", None),
    ("h7/g6 40", "iso-fit", "", None),
    ("reamer 12 h7", "iso-limits", "upper", 12.018),
    ("temperature rise 20 degrees 200 mm aluminium", "thermal-size", "", None),
    ("bolt circle 3 holes span 103.15 hole 7.89", "hole-span", "diameter", 109.997),
    ("100 sfm 1 inch", "speeds", "rpm", 381.97),
    ("12 + 3/8in", "convert", "mm", 21.525),
    ("28+6.35/2", "convert", "mm", 31.175),
    ("10-32", "thread", "major", 4.826),
    ("set over 200 long mt2", "taper-setup", "tailstock_offset", 4.995),
    ("how fast 200mm cast iron disc", "rotating-limit", "", None),
    ("hypotenuse 30 40", "triangle", "slope", 50.0),
    ("taper 1 in 20", "taper", "half_angle", 1.4321),
    ("taper per foot of 1:12", "taper", "taper_per_foot", 1.0),
    ("tpf of 1:20", "taper", "taper_per_foot", 0.6),
    ("1:12 in taper per foot", "taper", "taper_per_foot", 1.0),
    ("10 in 100 taper", "taper", "half_angle", 2.8624),
    ("slope 2.5 in 100", "triangle", "angle", 1.4321),
    ("taper of slope 1:40", "taper", "taper_per_foot", 0.3),
    ("gib 1:60 over 120", "triangle", "rise", 2),
    ("weight 300 dia 40 thick cast iron", "mass", "mass", 20.358),
    ("indicate 40 mm travel mt3", "taper-setup", "indicator_reading", 1.0038),
    # 1.25 on 3.175 is 50/127; 1.27 on 4 is 127/400
    ("gears for 1.25 pitch on 8 tpi", "change-gears", "", None),
    ("gears for 20 tpi on 4 mm", "change-gears", "", None),
    ("rotary table 90 7 divisions", "dividing", "", None),
    # 2 √(1.2 · 4.8) across; 6 sin 30° by a drill of 120°
    ("recess for a 6 ball 1.2 deep", "detent", "land_diameter", 4.8),
    ("dimple 6 ball with a 120 degree drill", "detent", "land_diameter", 3.0),
    ("detent ball 6 rim 4.8", "detent", "depth", 1.2),
    # 145 sin 7.5° − 6
    ("24 index holes of 6 on a circle of 145", "index-ring", "land", 12.9265),
    ("gap for gluing 25 shaft 30 long", "bond-gap", "gap_max", 0.1),
    ("force to broach a 6 square 20 long", "broach-force", "teeth_in_cut", 3),
    ("press to broach 6 mm keyway 30 long in steel", "broach-force", "force", 2640),
    ("time to turn 100 long 40 to 30 mild steel", "cutting-time", "passes", 5),
    # 0.012 and 5 µm over 25 mm of 11.5e-6: 59.1 degrees more than 20
    ("heat a 6205 bearing 0.012 interference", "bearing-seat", "warm_to", 79.1),
    # half of it over sin 30°
    ("round in 60 vee 20", "vee", "axis", 20.0),
    # what is below nought stays so: of +x, +y, −x and −y, (0.2 + 0.1)/2 and 0.05/2
    ("four jaw -0.10 0.25 0.20 0.30", "centring", "offset", 0.1521),
    ("half way -2 102 tip 10", "half-way", "centre", 50.0),
    ("edge finder 10 touched at -3.2 hole at 25", "edge-find", "position", 26.8),
    ("edge finder .2 touched at 1.5 hole .75 in", "edge-find", "position", 59.69),
    # the cutter's axis goes round at 20 + 8, and at 20 + 5
    ("cutter 16 radius 20 arc points", "arc-points", "path", 28),
    ("10 mm cutter 20 radius arc points", "arc-points", "path", 25),
    # 23 and 19 millionths a degree, 10 and 40 of them
    ("growth 300 aluminium 10 degrees", "thermal-size", "change", -0.069),
    ("how much does 50 brass grow at 60 degrees", "thermal-size", "change", -0.038),
    ("feed for 0.4 nose radius 0.8 micron finish", "turned-finish", "feed", 0.0999),
    # 22 and the 2.8 of a key of 6 in its hub
    ("6 mm key shaft 22 hub depth", "keyway", "across", 24.8),
    ("packing for 3 offset on 30 bar", "eccentric-packing", "packing", 4.5),
    ("diameter from radius 12.5", "convert", "mm", 25),
    ("radius of a 25 diameter", "convert", "mm", 12.5),
    ("1.4307 degrees to minutes", "angle", "minutes", "1°25′51″"),
    ("1 deg 26 min decimal", "angle", "degrees", 1.43333),
    ("tan 8 degrees", "angle", "tangent", 0.140541),
    ("mt2 tang", "taper", "tang", 6.3),
    ("r8 drawbar thread", "taper", "draw_bar", "7/16-20 UNF"),
    # 12.5 √2 and 12.5 more
    ("height over 90 degree v for 25", "vee", "top", 30.1777),
    ("ball end radius 8", "ball-turning", "length", 8),
    ("index 7 degrees on 40 to 1", "dividing", "", None),
    # 0.6134 of 1.27 and of 1.5, by the cosine of 29.5 degrees
    ("compound set at 29.5 feed for 20 tpi", "pitch", "compound", 0.8951),
    ("compound infeed m10", "thread-passes", "compound_total", 1.0572),
    # 0.6134 × 2 over cos 29.5°
    ("compound for a 2 mm thread", "pitch", "compound", 1.4096),
    ("leave 0.5 for a 16 reamer", "ream-drill", "", None),
    ("key of a 30 hub", "keyway", "", None),
    ("how many turns for m8 15 deep", "drill-depth", "turns", 12),
    ("how much does an m8 8.8 bolt hold", "screw-torque", "", None),
    # an eccentric of 2.5 mm, of which the jaws are three
    ("eccentric 2.5 in 3 jaw 40 work", "eccentric-packing", "indicator", 5),
    # 0.640327 of 2.54, by the cosine of 27 degrees
    ("compound infeed 10 tpi bsw", "pitch", "compound", 1.8254),
    ("passes m10 plunge", "thread-passes", "compound_total", 0.9202),
    # 800 x 4 x 0.05; 114 rpm are 22.5 m/min of a 63 cutter; a minute has 60 s
    ("feed for 4 flutes 0.05 per tooth at 800 rpm", "table-feed", "table_feed", 160),
    ("0.1 a tooth 5 teeth 63 mm cutter steel", "table-feed", "per_turn", 0.5),
    ("feed 120 mm per minute 600 rpm 2 flutes", "table-feed", "tooth", 0.1),
    ("feed for 4 flute 10 mm end mill at 1500", "table-feed", "table_feed", 300),
    # of what is too thin for a cutter each tooth takes so much: 600 x 4 x 0.05
    ("feed rate 4 flutes 0.05 600 rpm", "table-feed", "table_feed", 120),
    ("2 flutes .002 1000rpm", "table-feed", "table_feed", 4),
    # (68 - 32) / 1.8; 30 x 0.3048 x 4.44822
    ("68 F in C", "other-units", "figure", 20),
    ("350 f", "other-units", "figure", 176.6667),
    ("30 ft lb in Nm", "other-units", "figure", 40.6745),
    ("how many hp is 1 kw", "other-units", "figure", 1.34102),
    ("500 N in lb", "other-units", "figure", 112.4045),
    ("2 lb in kg", "other-units", "figure", 0.90718),
    ("HRC 58 in vickers", "hardness", "vickers", 654),
    ("30 hrc tensile strength", "hardness", "strength", 970.4167),
    ("90 rockwell b", "hardness", "rockwell_b", 90),
    ("across flats m12", "nut", "across_flats", 18),
    ("#43", "convert", "drill", "#43"),
    ("over wires m16 with 1.2", "thread-wires", "over_wires", None),
    ("taper 0.02 over 100", "taper", "", None),
    ("what drill is 0.201", "convert", "drill", "#7"),
    ("drill 29 in mm", "convert", "drill", "#29"),
    ("3.3 mm drill in inches", "convert", "inch", 0.12992),
    ("2.5 m in feet", "other-units", "figure", 8.2021),
    ("30 ipm in mm/min", "other-units", "figure", 762),
    ("30 mm in inches", "convert", "inch", 1.1811),
    ("arctan 0.05", "triangle", "angle", 2.8624),
    ("arcsin 0.3", "triangle", "angle", 17.4576),
    ("slope 0.5 mm per metre", "triangle", "angle", 0.0286),
    # atan(4 / (25 - 0.6495 x 4) π)
    ("helix angle 25 mm diameter 4 mm lead", "pitch", "lead_angle", 3.253),
    ("thread depth m24 internal", "thread-passes", "total_depth", 1.6238),
    ("m8 grub screw hex key", "cap-screw", "key_size", 4),
    ("m10 close fit hole", "clearance-hole", "diameter", 10.5),
    # 2.5² x 100 cm³ x 7.85, and a round of it
    ("weight of 25 mm square bar 1 m", "mass", "mass", 4.906),
    ("weight of 25 mm bar 1 m", "mass", "mass", 3.853),
    ("grinding wheel 7 inch 3600 rpm", "surface-speed", "surface_speed", 2010.87),
    ("45 chamfer 1", "chamfer", "depth", 1),
    ("reamer 1/2 rpm steel", "speeds", "", None),
    # 400 turns of 0.25
    ("feed 0.25 per rev 400 rpm", "table-feed", "table_feed", 100),
    ("what is the bore of a 6204", "bearing-seat", "", None),
    ("what tpi is 1.5 mm", "pitch", "tpi", 16.9333),
    # c is 95 under, and 110 of grade 11
    ("loose fit 12", "iso-fit", "clearance_max", 0.315),
    ("play between 25 h6 and 25 h7", "iso-fit", "clearance_max", 0.034),
    # 12 turns are 48, and 100 lines of 0.02 more
    ("handle 4 mm per turn 50 mm", "dial-turns", "turns", 12),
    ("offset 1.5 crank 3 jaw 25", "eccentric-packing", "", None),
    ("chamfer 0.5 on 20", "chamfer", "depth", 0.5),
    # 40 + 2 times 1.5
    ("gear 40 teeth m1.5 depth", "gear", "outside_diameter", 63),
    # newtons, kilograms and the like are no millimetres: 9.81 x 20 x 0.15
    ("lever 20 kg 150", "lever", "torque", 29.42),
    # 100 x 150³ / (3 x 207000 x π 20⁴ / 64)
    ("deflection of 20 mm bar 150 long 100 N", "boring-bar", "deflection", 0.0692),
    ("bolt circle 6 on 4.5 start at 30", "bolt-circle", "chord", 2.25),
    ("6204 bore", "bearing-seat", "", None),
    ("angle from sine bar 200 stack 30", "triangle", "angle", 8.6269),
    ("4 jaw .10 .25 .30 .15", "centring", "tir", 0.2),
    ("gage blocks 41.275", "gauge-stack", "total", 41.275),
    ("#404 woodruff", "woodruff", "cutter", 12.7),
    ("ream 12", "ream-drill", "", None),
    ("mt2 inches per foot", "taper", "taper_per_foot", 0.5994),
    ("flat 10 wide on 25 depth", "flat", "depth", 1.0436),
    # √3/2 × 17² × 1000 × 7.85
    ("weight of hexagon 17 x 1000", "mass", "mass", 1.96471),
    ("weight hex 17 af 1000 long brass", "mass", "mass", 2.12739),
    ("slip fit 20 shaft", "iso-fit", "", None),
    ("how hot for a 0.04 interference 60", "shrink-fit", "", None),
    ("temper for a punch", "temper-colour", "least", 250.0),
    ("wind the handle 0.1 in a turn 6 in/min", "table-feed", "handle_time", 1.0),
    ("time to cut 200 mm at 60 mm/min", "table-feed", "time", 200),
    ("25 mm by a handle of 0.1 inch a turn", "dial-turns", "lines", 84),
    ("module 1.5 gear 32 teeth", "gear", "outside_diameter", 51.0),
    ("gear 20 dp 40 teeth", "gear", "pitch_diameter", 50.8),
    # 24 − 80/20; (30 − 25) × 12; (20 − 16) × 20
    ("small end of a 1 in 20 taper 24 large 80 long", "taper-end", "small_end", 20),
    ("1 in 12 taper from 30 to 25 how long", "taper-end", "long", 60),
    ("how long is a 1:20 taper 20 to 16", "taper-end", "long", 80),
    ("offset tailstock 1 in 20 over 150", "taper-setup", "tailstock_offset", 3.75),
    ("what size drill for 6mm tapping", "tap-drill", "drill_size", 5.0),
    ("distance across corners 19mm hex", "polygon", "across_corners", 21.939),
    # asin(0.1); half of 100 at 30 mm a minute, and a minute's setting; 25 × π / 0.8
    ("compound angle to get 0.01 per 0.1", "triangle", "angle", 5.739),
    ("knurl for 25 mm 0.8", "knurl", "", None),
    ("chamfer 2 mm at 45", "chamfer", "", None),
    ("d1-4", "cam-nose", "taper", 63.513),
    ("camlock 6 stud circle", "cam-nose", "circle", 133.4),
    ("which tap for a hole of 8.4", "hole-tap", "", None),
    ("centre drill for a 20 bar", "centre-drill", "mouth", 6.0),
    ("cutting speed of brass", "metal", "turn_hss", 60),
    ("csk m6 diameter", "cap-screw", "head_diameter", 13.44),
    ("e clip for 8 shaft", "e-clip", "groove_width", 0.74),
    ("bolt size for 6.6 hole", "hole-tap", "", None),
    ("angle 3 in 40", "triangle", "angle", 4.2892),
    ("how many 24 mm pieces in a 3 metre bar", "pieces", "pieces", 111),
    ("part off speed 30 steel", "speeds", "", None),
    ("m39 nose thread", "thread", "pitch", 4.0),
    ("how many thou is 0.03 mm", "convert", "thou", 1.1811),
    ("over wires m10x1.5 6g", "thread-wires", "over_wires_max", 10.293),
    ("thread dial 1.5 pitch 8tpi", "thread-dial", "keep_engaged", None),
    ("press fit force 20 pin 25 long 0.015 40 hub", "press-fit", "safety", None),
    ("5 holes in a row over 200 edge 15", "hole-row", "pitch", 42.5),
    ("row of 12 holes 25 pitch starting 10", "hole-row", "last", 285),
    ("spread 4 screws over 8 in", "hole-row", "first", 40.64),
    ("hardness of tool steel", "metal", "hardness", 220),
    ("density of brass", "metal", "density", 8500),
    ("can i form tap cast iron", "metal", "taps", "cutting only"),
    ("expansion of 100 steel 10 degrees warmer", "thermal-size", "change", -0.0115),
    ("shaft 20 hole 20.02 clearance", "play", "play", 0.02),
    ("25.02 in a 25 hole how tight", "play", "play", -0.02),
    ("is 0.02 too much play on 25", "play", "play", 0.02),
    ("play of .7495 pin in .750 hole", "play", "play", 0.0127),
    ("slot 14.02 key 14", "play", "play", 0.02),
    ("play 19.98 20.01 30 long", "play", "tilt", 0.0573),
    ("key 8 in a 30 shaft", "keyway", "shaft_depth", 4.0),
    ("handle 100 lines of .001 move 1.25 inch", "dial-turns", "turns", 12),
    ("depth along a 45 degree face for a 10 leg", "chamfer", "face", 14.1421),
    ("take 4 off 40 at 0.5 a pass", "passes", "count", 5),
    # 250/100 of half the 2 mm that the ends differ by
    ("setover 20 to 18 over 100 bar 250", "taper-setup", "tailstock_offset", 2.5),
    ("indicator moved 0.35 over 50 taper angle", "triangle", "angle", 0.40106),
    ("0.02 per 300 mm in degrees", "triangle", "angle", 0.00382),
    ("handle 200 mm 15 kg", "lever", "torque", 29.42),
    ("how many 12 mm nuts from a 300 mm strip saw 2", "pieces", "pieces", 21),
    ("sine bar 5 inch 14 degrees 30", "sine", "stack", 31.798),
    ("bearing 6205 housing", "iso-limits", "upper", 52.03),
    ("how deep is a ball of 8 for a 5 mm dimple", "detent", "depth", 0.8775),
    ("8 mm ball sits in 6 mm hole", "detent", "depth", 1.3542),
    ("v block 30 mm bar 90 degrees height", "vee", "axis", 21.2132),
    ("wire insert M8", "tap-drill", "drill_size", 8.4),
    ("passes from 2 inch to 1.5 at .05", "passes", "count", 6),
    ("shaft to slide in a 25.03 bore", "fit-target", "upper", 25.02),
    ("bore to press onto 30.01 shaft", "fit-target", "lower", 29.972),
    (
        "what should I turn the spigot to for a 95.02 hole",
        "fit-target",
        "upper",
        95.005,
    ),
    ("bushing bore to run on .4995 shaft", "fit-target", "lower", 12.7063),
    ("press fit 25 shaft", "iso-fit", "shaft_upper", 25.035),  # no measured one
    ("average of 20.01 20.02 20.015", "measured-size", "size", 20.015),
    ("mean of 1.0002 1.0004 1.0003", "measured-size", "size", 25.40762),
    ("straight 0 .02 .05 .06 .08 every 50", "straightness", "slope", 0.04),
    ("limits of a 3/16 key", "key-sides", "key_upper", 4.7625),
    ("lever 100 long swings chord 70", "throw-angle", "angle", 40.9746),
    ("shim corners 0 .08 .11 .03", "packing", "twist", 0),
    ("half the width 63.5 plus half of a 12 cutter", "convert", "mm", 37.75),
    ("half of 86.4 plus a 10 cutter radius", "convert", "mm", 48.2),
    ("83.44 minus half of 8 pin minus 12.7", "convert", "mm", 66.74),
    ("measured 58.32 over 10 pin how far to centre", "reading-less", "size", 53.32),
    ("depth on a 45 face for a 3 mm chamfer leg", "chamfer", "face", 4.24264),
    ("turns of a 2 mm pitch leadscrew for 17.5", "dial-turns", "turns", 8),
    ("percent of thread 8.8 drill m10", "tap-drill", "engagement", 61.58),
    ("drill sizes near 0.344", "convert", "mm", 8.7376),
    ("saw 1.6 slot 6 deep 10", "saw-slot", "passes", 4),
    ("module of gear 51 od 32 teeth", "gear", "module", 1.5),
    ("weight 4x4x1/4 plate steel", "mass", "volume", 65548),
    ("10 mm in inches fraction", "convert", "fraction_error", 0.0781),
    ("rim speed 8 inch 3450", "surface-speed", "surface_speed", 2202.4),
    ("torque that 3 m8 bolts on 110 carry", "bolts-carry", "carries", 197.07),
    ("2 dowels 6 on 60 circle torque", "bolts-carry", "carries", 254.47),
    ("undercut for m16 thread", "thread-passes", "runout_groove_width", 6),
    ("sliding fit h7 g6 32", "iso-fit", "clearance_max", 0.05),
    ("iso tolerance it7 for 50", "iso-limits", "lower", 49.975),
    (
        "cool shaft to minus 40 how much does 50 shrink",
        "thermal-size",
        "size_at_reference",
        49.9655,
    ),
    ("stock for 8 pieces 30 long 2 saw 1 facing", "strip-length", "pitch", 34),
    ("how many from 3 m bar 45 long 3 mm saw", "pieces", "pieces", 62),
    ("centre distance mod 1.5 20 and 45", "gear", "centres", 48.75),
    ("sine 100 7.5", "sine", "stack", 13.0526),
    ("four jaw readings 0 20 36 14 thou", "centring", "tir", 0.9144),
    ("weight of 130 round 30 thick cast iron", "mass", "mass", 2.867),
    (
        "how far further in does a plug go for 0.01 mm mt2",
        "taper-advance",
        "advance",
        0.2,
    ),
    ("gear 32 teeth mod 1.5 outside diameter", "gear", "outside_diameter", 51),
    ("hinge swing 15 degrees 12 thick 8.5 hole 8 bolt", "elongation", "tilt", 6.486),
    ("angle with opposite 5 hypotenuse 13", "triangle", "other_angle", 22.6199),
    ("hex 1/2 inch round needed", "polygon", "round_needed", 14.6647),
    # half of (50² + 4 · 3²) / (4 · 3)
    ("radius of curve 3 high 50 wide", "arc-chord", "diameter", 211.333),
    ("taper of 12 mm to 10 mm in 40", "taper-angle", "ratio", 0.05),
    ("40 taper large end", "taper", "large_diameter", 44.45),
    ("8 degree half angle taper", "taper", "included_angle", 16.0),
    (
        "offset for taper 25 to 20 over 60 length 200",
        "taper-setup",
        "tailstock_offset",
        8.3333,
    ),
    ("ball 12 dia 9.6 hole depth", "detent", "depth", 2.4),
    ("55 degree thread 16 tpi depth", "pitch", "depth_outside", 1.0165),
    ("no 10 screw diameter", "thread", "major", 4.826),
    (
        "how far should a m6 screw go into cast iron",
        "thread-engagement",
        "minimum_length",
        8.87,
    ),
    # no 25.4 inches, and no nut of 3/4
    ("remove 0.5 from 25.4 in how many passes 0.1", "passes", "count", 3),
    ("take 40 to 32.5 in 1.5 mm passes", "passes", "count", 4),
    ("hex 3/4 af across corners", "polygon", "round_needed", 21.997),
    ("radius from 3 mm sagitta 40 chord", "arc-chord", "diameter", 136.333),
    ("ball protrudes from hole 8 ball 10", "detent", "depth", 2.0),
    # it runs out twice what it is off the middle
    ("four jaw 0.4 on the dial", "runout", "eccentricity", 0.2),
    ("tir 0.3 four jaw adjust", "runout", "eccentricity", 0.15),
    ("feed in for 0.3 off diameter", "convert", "mm", 0.15),
    ("1/4 24 tpi tap drill", "tap-drill", "drill", "#4"),
    # a word of its own: no boring
    ("oring 2.5 cord 30 shaft moving", "o-ring-groove", "ring_inside", 30),
    ("counterbore for 1/4 shcs", "cap-screw", "head_diameter", 9.525),
    ("size at 35 degrees 50.02", "thermal-size", "size_at_reference", 50.0114),
    (
        "how long to face 100 diameter 0.1 feed 300 rpm",
        "cutting-time",
        "minutes",
        1.9,
    ),
    # 20 less 2 · 30 · tan 2.5°
    ("5 degree taper large end 20 length 30", "taper-end", "small_end", 17.3803),
    (
        "offset for a 2 degree taper 200 between centres",
        "taper-setup",
        "tailstock_offset",
        3.4910,
    ),
    ("taper 1:50 pin 6 length 30", "taper-pin", "large_diameter", 6.6),
    ("4.2 mm drill in inch", "convert", "inch", 0.165354),
    ("how much does 1 m steel grow per degree", "thermal-size", "change", -0.0115),
    ("temper to straw", "temper-colour", "least", 235.0),
    ("tempering colour for 530 f", "temper-colour", "most", 288.0),
    ("oct 25 across flats", "polygon", "round_needed", 27.06),
    # 12 × 22 and 12 × 1.5 are 282 of 300
    ("bar 300 pieces 22 saw 1.5", "pieces", "pieces", 12),
    ("torque for 3/8-16 bolt grade 8", "screw-torque", "torque", 59.1),
    ("boring bar 1/2 dia 3 out", "boring-bar", "length_to_diameter", 6.0),
    ("helix angle m20x2.5", "thread", "lead_angle", 2.4796),
    ("diagonal of 40 x 30", "triangle", "slope", 50.0),
    ("centre of 12.5 and 77.1", "half-way", "centre", 44.8),
    (
        "temperature to fit 50 mm 0.05 interference with 0.05 clearance",
        "shrink-fit",
        "total_expansion",
        0.1,
    ),
    ("how long to turn 40 to 30 over 100", "cutting-time", "passes", 5),
    ("1/4 whit", "thread", "major", 6.35),
    ("ba 4", "thread", "pitch", 0.66),
    ("number 7 drill", "convert", "mm", 5.1054),
    ("drill size 6.53", "convert", "drill", "F"),
    ("taper 20/24/80", "taper", "half_angle", 1.4321),
    ("taper 1:20 over 50", "taper-advance", "diameter_change", 2.5),
    ("3 degrees over 50", "triangle", "rise", 2.6204),
    ("mt2 offset 200 between centres", "taper-setup", "tailstock_offset", 4.995),
    ("sine bar 30 deg 5 inch", "sine", "stack", 63.5),
    ("h7 25", "iso-limits", "lower", 24.979),
    ("bearing seat 6204", "bearing-seat", "lost_most", 0.012),
    ("10 dowel press", "iso-fit", "hole_upper", 10.015),
    ("hex 17 from round", "polygon", "round_needed", 19.6299),
    ("t-nut for a 14 slot", "t-nut", "tongue_upper", 13.95),
    ("tee slot 14", "t-nut", "head_upper", 22.0),
    ("thread dial m8 on 8tpi leadscrew", "thread-dial", "", None),
    # a thread in a metal of 400 MPa needs 11/20 of what one of 220 MPa does
    ("m8 engagement", "thread-engagement", "minimum_length", 12.107),
    ("m8 engagement in mild steel", "thread-engagement", "minimum_length", 6.6588),
    ("how deep m8 in ally", "thread-engagement", "minimum_length", 13.3176),
    ("how deep m8 in mild steel", "thread-engagement", "minimum_length", 6.6588),
    ("half nuts 1/4-20 8tpi leadscrew", "thread-dial", "", None),
    # 8 × (24 + 1.5) − 1.5
    ("strip for 8 pieces 24 long kerf 1.5", "strip-length", "strip", 202.5),
    ("leave for grinding 20 by 200", "grinding-allowance", "expected_warp", 0.1265),
    # 0.1 mm of 50 at 11.5 µm a metre and degree, from 20 °C
    ("heat a hub 50 on 0.05 steel", "shrink-fit", "hub_temperature", 193.913),
    # s6 on 40 ends 0.059 over; 0.05 and more to drop it on
    ("shrink fit 40 H7/s6 clearance 0.05", "shrink-fit", "total_expansion", 0.109),
    ("how hot a ring 40 H7 s6 clearance 0.05", "shrink-fit", "total_expansion", 0.109),
    # 50 from hole to hole, and a pin
    ("check 6 holes on 100 pins 6", "chord-check", "over_pins", 56.0),
    ("over pins 6 holes 100 circle 8 mm pins", "chord-check", "over_pins", 58.0),
    ("clean up 48 from 50 run out 0.6", "cleans-up", "least", 0.7),
    ("dovetail 60 deg 10mm pins 40 wide", "dovetail", "over_pins", 67.3205),
    ("chamfer 1 x 45", "chamfer", "face", 1.4142),
    ("radius from chord 40 height 5", "arc-chord", "radius", 42.5),
    # π 50 / 6; 100 − √(100² − 20²); 20 sin 45° / 2 over the bottom
    ("arc of 30 degrees radius 50", "arc", "length", 26.1799),
    ("sagitta of 40 chord radius 100", "arc", "height", 2.0204),
    ("20 round in a vee", "vee", "axis", 14.1421),
    ("height of a 20 bar in a 60 degree vee", "vee", "top", 30.0),
    ("runout 0 0.03 0.05 0.02", "runout", "tir", 0.05),
    ("four jaw 0.10 0.25 0.30 0.15", "centring", "offset_x", -0.1),
    ("surface speed 500 rpm 40mm", "surface-speed", "surface_speed", 62.8319),
    ("how many pieces 35 long from a bar 1000 saw 3", "pieces", "pieces", 26),
    ("how many pieces 35 long from 1 metre 3 mm saw", "pieces", "pieces", 26),
    ("weight 50 bar 1 metre steel", "mass", "mass", 15.4134),
    ("compound angle for 40 to 34 over 50", "taper-angle", "half_angle", 3.4336),
    # half of 200 / 20
    (
        "set tailstock over for 1 in 20 taper 200 long",
        "taper-setup",
        "tailstock_offset",
        5.0,
    ),
    ("how big is a 10 g6 shaft", "iso-limits", "upper", 9.995),
    ("clearance between 20 H7 and 20 f7", "iso-fit", "clearance_max", 0.062),
    # 25.4 × 152.4 × 203.2 at 7850
    ("weight of 1 inch thick steel plate 6 x 8 inches", "mass", "mass", 6.1746),
    # ASME B1.1: 0.3287 to 0.3331
    ("pitch diameter 3/8-16 2A", "thread", "external_pitch_min", 8.349),
    ("pitch diameter m10 6H", "thread", "internal_pitch_max", 9.206),
    ("3 holes measured 62.4 over 10 mm pins", "hole-span", "chord", 52.4),
    ("height over a 20 mm round in a 90 vee", "vee", "axis", 14.1421),
    ("feed for a 10 mm end mill in steel at 800 rpm", "speeds", "rpm", 800),
    ("included angle of 3/4 per foot", "taper", "included_angle", 3.5798),
    ("tram 0.1 over 200", "head-tram", "across", -0.05),
    # 12 and a diameter of thread; 12 and 20 less a millimetre
    ("m6 cap screw length through 12 into 20", "screw-length", "most", 31.0),
    ("saw 100 bar into pieces of 20 with 2 kerf", "pieces", "pieces", 4),
    ("square on 12.7 shaft", "polygon", "across_flats", 8.9803),
    ("4 holes on 60 rotated 45", "bolt-circle", "chord", 42.4264),
    ("bolt circle 6 holes on 80 first at 15 degrees", "bolt-circle", "chord", 40),
    ("bolt circle 6 holes on 80 first hole at 15 deg", "bolt-circle", "chord", 40),
    ("50 steps per turn on a rotary table 90:1", "dividing", "", None),
    ("helix angle of 50.8 diameter 4 tpi", "pitch", "lead_angle", 2.4796),
    ("thread depth 1.25 pitch", "pitch", "depth_outside", 0.7668),
    ("bspp 1/4 thread od", "thread", "major", 13.157),
    # 1/4 is #4: 6.35 less 50.8 / 48
    ("taper pin 1/4 x 2 drills", "taper-pin", "small_diameter", 5.2917),
    ("drill size for 1/4 bsp tapered", "taper-pipe-thread", "", None),
    ("indexing 13 on 40", "dividing", "", None),
    # W = 2 cos 20° (π 2.5 + 20 inv 20°)
    ("span over 3 teeth mod 2 20 teeth", "gear", "span", 15.3209),
    ("mt2 plug 1 mm proud", "taper-advance", "diameter_change", 0.05),
    ("chord of 60 degrees on 50 diameter", "arc", "chord", 25.0),
    ("3/8 plus 5/16", "convert", "mm", 17.4625),
    (
        "gears for 1.25 pitch on 8 tpi leadscrew with 20 to 80 by 5 and 127",
        *("change-gears", "", None),
    ),
    # 40 + 0.3 × 10 + 2 at 600 × 0.15 a minute
    (
        "how long to drill 40 deep 10 mm drill 600 rpm 0.15 feed",
        "cutting-time",
        "per_pass",
        40.0,
    ),
    ("divide 13 on a 40 to 1 head plates 15 16 39", "dividing", "", None),
    (
        "1.25 pitch 8 tpi leadscrew wheels 20 to 65 by 5 and 127",
        "change-gears",
        "",
        None,
    ),
    ("1.25 pitch 4mm leadscrew", "change-gears", "", None),
    ("8 tpi on 3mm leadscrew", "change-gears", "", None),
    ("knurl 20", "knurl", "growth", 0.4),
    ("turn a ball 20 neck 12", "ball-turning", "length", 18.0),
    ("ball handle 20 on a neck of 12", "ball-turning", "length", 18.0),
    ("turn a round end on 16", "ball-turning", "length", 8.0),
    ("round an end radius 20 by points cutter 10", "arc-points", "", None),
    ("places on an arc radius 30 with cutter 12", "arc-points", "", None),
    ("woodruff 6x9", "woodruff", "cutter", 22.0),
    ("circlip 20 shaft", "circlip", "groove_diameter", 19.0),
    ("weight 50 bar 200 steel", "mass", "mass", 3.0827),
    # 50.8 by 304.8 mm of 7.85 g/cm³: the bar is twelve inches long, not twelve mm
    ("weight 2 in bar 12 in steel", "mass", "mass", 4.85),
    ("100mm steel 10 deg warmer", "thermal-size", "change", -0.0115),
    ("expansion of 100 mm steel 20 c to 60 c", "thermal-size", "change", -0.046),
    ("100 steel grow from 20 c to 60 1/2 c", "thermal-size", "change", -0.0466),
    ("100 mm brass grow from 68 f to 149 f", "thermal-size", "change", -0.0855),
    ("weight of 50 mm dia 300 mm aluminium bar", "mass", "mass", 1.59),
    ("weight steel length 400 ⌀30", "mass", "mass", 2.22),
    ("weight bar 30 long 400", "mass", "mass", 2.22),
    ("weight 400 long 30 bar", "mass", "mass", 2.22),
    ("⌀30 x 400 weight", "mass", "mass", 2.22),
    ("over wires 3/4-10 with 0.058 wires", "thread-wires", "over_wires", 19.62),
    ("chord 7 holes 100 pcd", "bolt-circle", "chord", 43.388),
    ("time 150 long 0.2 mm 400 rpm 3 passes", "cutting-time", "minutes", 6.2),
    ("largest square in 30", "polygon", "across_flats", 21.213),
    ("3 wire m30x2 measured 30.2 wire 1.2", "thread-wires", "over_wires", 30.569),
    ("gears for 26 tpi on 8tpi", "change-gears", "", None),
    ("bearing fit 20 shaft 6004", "bearing-seat", "", None),
    ("what size hole for a m12 fine thread", "tap-drill", "drill_size", 10.8),
    ("clearance for a 10 mm shaft running", "iso-fit", "", None),
    ("how hot to fit 25.03 on 25.00 hub", "shrink-fit", "total_expansion", 0.08),
    ("50 mm bore g6 shaft", "iso-limits", "lower", 49.975),
    ("triangle 3 4", "triangle", "slope", 5.0),
    ("passes 13 to 12.1", "passes", "count", 2),
    ("taper pin #4 25 long", "taper-pin", "large_diameter", 6.35),
    ("form tap 5/16-18", "tap-drill", "drill", "L"),
    ("flat 8 wide on 12.1", "flat", "depth", 1.511),
    ("half of 98.4 less 12", "convert", "mm", 37.2),
    # 2 √(10² − 7²)
    ("flat on 20 shaft 3 deep how wide", "flat", "width", 14.2829),
    ("nut bore m45x4.5", "thread", "minor_internal", 40.1286),
    ("square 12.7 of round", "polygon", "round_needed", 17.9605),
    ("tap drill 5/16-18", "tap-drill", "drill", "F"),
    ("angle of rise 5 over 100", "triangle", "angle", 2.862),
    ("drop 3 mm over 50 mm", "triangle", "angle", 3.434),
    ("tap drill m16x2 left hand", "tap-drill", "drill_size", 14),
    ("lead angle of tr20x8p4", "thread", "lead_angle", 8.0523),
    ("drill for a m6 thread insert", "tap-drill", "drill_size", 6.3),
    ("tap drill m8 wire insert", "tap-drill", "tap", 9.624),
    ("drill for m8", "tap-drill", "drill_size", 6.8),
    ("m8 tap", "tap-drill", "drill_size", 6.8),
    ("what drill for a 1/4-20 tap", "tap-drill", "drill", "#7"),
    ("tapping drill #10-32", "tap-drill", "drill", "#21"),
    ("10-32 tap", "tap-drill", "drill", "#21"),
    ("m10 x 1 tap drill", "tap-drill", "drill_size", 9.0),
    ("tap drill m6 60%", "tap-drill", "ideal", 5.2206),
    ("tap drill for 10x1.25", "tap-drill", "drill_size", 8.8),
    ("bsf 3/8 tap", "tap-drill", "", None),
    ("forming tap m8", "tap-drill", "drill_size", 7.4),
    ("roll tap m6", "tap-drill", "drill_size", 5.6),
    ("clearance hole m8", "clearance-hole", "diameter", 9.0),
    ("m8 clearance close", "clearance-hole", "diameter", 8.4),
    ("1/4-20 clearance", "clearance-hole", "diameter", 7.1374),
    ("loose clearance for m6", "clearance-hole", "diameter", 7.0),
    ("counterbore m8", "cap-screw", "counterbore_diameter", 15.0),
    ("cap screw m6", "cap-screw", "key_size", 5.0),
    ("button head m6", "cap-screw", "head_diameter", 10.5),
    ("m8 hex head", "cap-screw", "key_size", 13.0),
    ("hexagon from 20", "polygon", "across_flats", 17.3205),
    ("vise out 0.08 over 100", "vise-tram", "tap", 0.08),
    ("tailstock turned 30 and 30.05 over 100", "tailstock", "move", 0.025),
    ("m8 bolt through 20 with washer and nut", "screw-length", "least", 30.9),
    ("leadscrew nut tr20x4", "thread", "minor_internal", 16.0),
    ("circumference of 50", "convert", "mm", 157.0796),
    ("angle between 7 holes", "angle", "degrees", 51.4286),
    ("nut height m12", "nut", "height", 10.8),
    ("washer for m8", "nut", "washer_outside", 16.0),
    ("hex key for m8", "cap-screw", "key_size", 6.0),
    ("taper of mt3 per foot", "taper", "taper_per_foot", 0.60235),
    ("how steep is mt2", "taper", "included_angle", 2.8613),
    ("spanner for m8", "cap-screw", "key_size", 13.0),
    ("1/4 20 tap drill", "tap-drill", "drill", "#7"),
    ("tap drill for 3/8 in 24", "tap-drill", "drill", "Q"),
    ("which thread 1/4 20 tpi", "thread-identify", "", None),
    ("clearance for 5/16", "clearance-hole", "diameter", 8.7376),
    ("trapezoidal 20x4", "thread", "pitch", 4.0),
    ("set screw m6", "cap-screw", "key_size", 3.0),
    ("wires m24", "thread-wires", "best_wire", 1.7321),
    ("flat on the crest of m24", "crest-flat", "flat", 0.3173),
    ("drill for 8 mm reamer", "ream-drill", "drill_size", 7.8),
    ("what size hole for a 3/8 reamer", "ream-drill", "drill_size", 9.128),
    ("how much to leave for a 10 mm reamer", "ream-drill", "stock", 0.2),
    ("torque for m10 bolt", "screw-torque", "torque", 50.45),
    ("force of m8 screw at 20 nm", "screw-torque", "preload", 12500),
    ("tighten m8 10.9 oiled", "screw-torque", "torque", 27.35),
    ("half nuts for 18 tpi on 8 tpi leadscrew", "thread-dial", "", None),
    ("how fast can a 250 mm faceplate run", "rotating-limit", "", None),
    ("taper of a number 3 morse", "taper", "large_diameter", 23.825),
    ("weight of a 100 mm disc 20 thick steel", "mass", "mass", 1.233),
    ("time to drill 50 deep 10 mm steel", "cutting-time", "minutes", 0.7423),
    ("time to drill 10 mm 50 deep steel", "cutting-time", "minutes", 0.7423),
    ("what drill for a 6mm tap", "tap-drill", "drill_size", 5),
    ("0.3125 as a fraction", "convert", "mm", 7.9375),
    ("0.75 fn2", "inch-fit", "hole_lower", 19.05),
    ("25 rc4", "inch-fit", "hole_lower", 25),
    ("angle from 20 to 18 over 40", "taper-angle", "half_angle", 1.4321),
    ("cut 1 m bar into 35 mm lengths with 2 mm saw", "pieces", "pieces", 27),
    ("od of a #8 screw", "thread", "major", 4.1656),
    ("finish at 0.1 feed with 0.4 nose", "turned-finish", "height", 3.125),
    ("roughness 0.4 nose radius 0.1 feed", "turned-finish", "height", 3.125),
    ("finish at 0.1 feed with 1/64 nose", "turned-finish", "height", 3.1496),
    ("interference for shrink fit 50", "iso-fit", "shaft_lower", 50.043),
    ("heavy press fit 50", "iso-fit", "shaft_lower", 50.043),
    ("acme 1 inch 5 tpi", "thread", "pitch_diameter", 22.86),
    ("3/4 6 tpi acme", "thread", "pitch_diameter", 16.9333),
    ("helix angle of 8 turns to the inch on 1 inch", "pitch", "lead_angle", 2.4796),
    ("25 mm by a handle of 10 turns to the inch", "dial-turns", "turns", 9),
    ("feed for ra 1.6 with 0.8 nose radius", "turned-finish", "feed", 0.1998),
    ("feed for 63 micro-inch 1/32 nose", "turned-finish", "feed", 0.1987),
    ("tap drill for 1 inch 8 tpi", "tap-drill", "drill_size", 22.225),
    ("12.7 mm in 64ths", "convert", "fraction", "1/2"),
    ("depth of 12 turns m8", "drill-depth", "turns", 12),
    ("drill depth m8 12 1/2 turns", "drill-depth", "turns", 12.5),
    ("m8 drilled 7.2 percent thread", "tap-drill", "engagement", 49.27),
    ("clearance hole m8 fine", "clearance-hole", "diameter", 8.4),
    ("counterbore m8 depth", "cap-screw", "counterbore_depth", 8.6),
    ("c'bore m8 depth", "cap-screw", "counterbore_depth", 8.6),
    ("flat head m5 diameter", "cap-screw", "head_diameter", 11.2),
    ("fly cutter 60 mm aluminium rpm", "speeds", "feed", 0.1),
    # four thou, and two to drop on: 25 µm of a 25 pin
    ("shrink ring 0.001 per inch 4 inch", "shrink-fit", "total_expansion", 0.1516),
    ("shrink fit 1 thou per inch 3 inch", "shrink-fit", "total_expansion", 0.1262),
    ("press force 25 in 50 hub 30 long 0.001 per mm", "press-fit", "pressure", 77.625),
    ("feed for 32 ra 1/32 nose", "turned-finish", "feed", 0.1418),
    ("speed 12 mm end mill 4 flutes steel", "speeds", "table_feed", 119.37),
    ("countersink 12 wide 90 deg hole 6", "countersink", "from_touch", 3),
    ("spot drill 90 degrees 6 mm wide", "countersink", "depth", 3),
    ("drill point length 10 mm", "countersink", "depth", 3.0043),
    ("118 point 12 mm", "countersink", "depth", 3.6052),
    ("angle opposite 10 adjacent 100", "triangle", "", None),
    ("threading passes 1/2-13 29.5", "thread-passes", "total_depth", 1.1985),
    ("dividing head 40 52 teeth", "dividing", "", None),
    ("1.25 pitch in tpi", "pitch", "tpi", 20.32),
    ("wires for 1.5 pitch", "pitch", "best_wire", 0.8660),
    ("lead of 2 start 3 mm pitch", "pitch", "lead", 6),
    ("two-start 3 mm pitch", "pitch", "lead", 6),
    ("depth of thread 20 tpi", "pitch", "depth_outside", 0.7791),
    ("passes 30 to 28 at 0.5 a pass", "passes", "count", 3),
    ("30 to 28 in passes of 0.5", "passes", "count", 3),
    ("six holes on 80", "bolt-circle", "chord", 40),
    ("three wires for 1-8", "thread-wires", "best_wire", 1.8331),
    ("m12 passes", "thread-passes", "", None),
    ("m8", "thread", "pitch", 1.25),
    ("m10x1", "thread", "pitch", 1.0),
    ("m39 x 4", "thread", "pitch", 4.0),
    ("3/8 bsf", "thread", "major", 9.525),
    ("2ba", "thread", "major", 4.7),
    ("g1/2", "thread", "major", 20.955),
    ("bsp 3/4", "thread", "major", 26.441),
    ("1 1/8-12 w", "thread", "major", 28.575),
    ("1 1/2-8 un", "thread", "major", 38.1),
    ("m8 fine", "thread", "pitch", 1.0),
    ("acme 3/4-6", "thread", "major", 19.05),
    ("tr 30 x 6", "thread", "pitch", 6.0),
    ("drill depth m8 16 deep", "drill-depth", "full_depth", 21.0),
    ("25 h6", "iso-limits", "upper", 25.0),
    ("h6 25", "iso-limits", "upper", 25.0),
    ("25 H7", "iso-limits", "upper", 25.021),
    ("1 1/2in g6", "iso-limits", "", None),
    ("46 H7/g6", "iso-fit", "hole_upper", 46.025),
    ("1in H7/p6", "iso-fit", "", None),
    ("2in fn2", "inch-fit", "hole_lower", 50.8),
    ("50mm rc4", "inch-fit", "hole_lower", 50.0),
    ("slide fit dowel 8", "iso-fit", "", None),
    ("seat of bearing 6005", "bearing-seat", "", None),
    ("bearing 30 bore", "bearing-seat", "", None),
    # k6 of 15.875 is +1 to +12 µm, and eight tenths of that are lost
    ("bearing 5/8in bore", "bearing-seat", "lost_most", 0.0096),
    ("mt3 angle", "taper", "half_angle", 1.4377),
    ("morse 2 taper", "taper", "half_angle", 1.4307),
    ("morse taper 2 large end", "taper", "large_diameter", 17.78),
    ("no. 3 morse", "taper", "half_angle", 1.4377),
    ("jacobs taper 33", "taper", "large_diameter", 15.8496),
    ("brown and sharpe 7", "taper", "large_diameter", 18.4252),
    ("b&s 9 shank", "taper", "large_diameter", 27.1031),
    ("7/24", "taper", "half_angle", 8.2971),
    ("er32", "taper", "half_angle", 8.0),
    ("r8 taper", "taper", "included_angle", 16.85),
    ("taper 3/4 in per foot", "taper", "half_angle", 1.7899),
    ("5/8 per foot over 3 in", "taper-advance", "diameter_change", 3.9688),
    ("taper 1:10", "taper", "half_angle", 2.8624),
    ("angle of a 1 in 50 taper", "taper", "half_angle", 0.5729),
    ("letter f", "convert", "mm", 6.5278),
    ("75% thread m8", "tap-drill", "", None),
    ("knurl 25 pitch 1", "knurl", "teeth", 79),
    ("knurl .75in", "knurl", "teeth", 60),
    ("play 20 H8/f7", "iso-fit", "clearance_max", 0.074),
    ("triangle 30 degrees 50 hypotenuse", "triangle", "rise", 25.0),
    ("jt33", "taper", "", None),
    ("mt3 offset 300", "taper-setup", "tailstock_offset", 7.529),
    ("indicator mt2 50", "taper-setup", "indicator_reading", 1.2488),
    ("advance mt3 2", "taper-advance", "diameter_change", 0.1004),
    ("taper pin #5 38", "taper-pin", "large_diameter", 7.3406),
    ("taper pin 6 40", "taper-pin", "small_diameter", 6.0),
    ("7 holes on 62", "bolt-circle", "chord", 26.9009),
    ("holes 4 pcd 100", "bolt-circle", "chord", 70.7107),
    ("8 hole bolt circle 5 inch", "bolt-circle", "chord", 48.6),
    ("3 bolts on a 110 circle", "bolt-circle", "chord", 95.2628),
    ("divide 7", "dividing", "", None),
    ("divide by 13", "dividing", "", None),
    ("90:1 index 11", "dividing", "", None),
    ("12 divisions", "dividing", "", None),
    ("hex from 25 round", "polygon", "across_flats", 21.6506),
    ("what bar for 17 af hex", "polygon", "round_needed", 19.6299),
    ("corners of 24 af", "polygon", "round_needed", 27.7128),
    # what was said of a hub and no more is laid as it is usual
    (
        "heat aluminium housing 62 mm to grow 0.05",
        "shrink-fit",
        "hub_temperature",
        55.06,
    ),
    ("shrink fit 60 heat", "shrink-fit", "total_expansion", 0.122),
    ("growth of 50 mm steel at 100 c", "thermal-size", "size_at_reference", 50.046),
    ("25M7", "iso-limits", "lower", 24.979),
    ("shaft 25 m7", "iso-limits", "lower", 25.008),
    ("IT grade 6 for 25", "iso-limits", "lower", 24.987),
    ("bearing housing fit 52", "iso-limits", "upper", 52.03),
    ("min interference 40 H7/s6", "iso-fit", "clearance_min", -0.059),
    ("go nogo m10", "thread", "external_pitch_max", 8.994),
    ("m10 6e", "thread", "external_major_max", 9.933),
    ("o-ring groove for 20 x 2.65", "o-ring-groove", "ring_inside", 20),
    ("morse 2 taper per foot", "taper", "taper_per_foot", 0.5994),
    ("chord height of 100 radius with 40 chord", "arc", "height", 2.0204),
    ("rise of 100 mm radius over 40 chord", "arc", "height", 2.0204),
    ("centre drill no 3", "centre-drill", "mouth", 5.3),
    ("power for cut 3 mm 0.2 feed 100 mm dia", "cutting-power", "force", 1570),
    ("overhang 16 bar 70", "boring-bar", "", None),
    ("chip load 10 mm 4 flute 300 mm/min 1000 rpm", "table-feed", "", None),
    ("torque for 20 kn m12", "screw-torque", "preload", 20000),
    ("#7 drill 1/4-20 percent", "tap-drill", "engagement", 75.44),
    ("what thread is 13.1 x 19 tpi", "thread-identify", "", None),
    ("bolt 0.31 18 tpi", "thread-identify", "", None),
    ("screw length 20 plate m10 in 15 deep hole", "screw-length", "least", 30),
    ("finish feed .005 radius 1/32", "turned-finish", "height", 2.54),
    ("sine angle for 20.000 on 100", "triangle", "angle", 11.537),
    ("grinding allowance 25 dia 100 long", "grinding-allowance", "", None),
    ("handle 0.1 turn 37.5 mm", "dial-turns", "turns", 14),
    ("sfm for 4140", "metal", "", None),
    ("what is en8", "metal", "", None),
    ("sagitta 8 chord 60", "arc-chord", "radius", 60.25),
    ("o ring cord 3 shaft 30", "o-ring-groove", "ring_inside", 30),
    ("key slot 6 n9", "iso-limits", "lower", 5.97),
    ("gib 1:60 200 long 8 thick end", "taper-end", "small_end", 4.6667),
    ("divide 360 by 7", "dividing", "", None),
    ("chamfer depth 90 degree spot 9 mm", "countersink", "depth", 4.5),
    ("hex bar 24 af 1 m weight", "mass", "mass", 3.9157),
    ("how big a square fits in a 40 hole", "polygon", "across_flats", 28.2843),
    ("1.5-8 thread nut bore", "thread", "pitch", 3.175),
    ("left hand m10", "thread", "pitch", 1.5),
    ("nose register fit 46", "iso-fit", "hole_upper", 46.025),
    ("how many 36 long from 1000", "pieces", "", None),
    ("ra 63 nose 1/32", "turned-finish", "feed", 0.19923),
    ("30H7 limits in inch", "iso-limits", "upper", 30.021),
    ("dowel 6 m6 hole", "iso-fit", "shaft_upper", 6.012),
    ("bush clearance 25", "iso-fit", "shaft_lower", 24.959),
    ("interference 20.03 pin 20.00 hole", "play", "play", -0.03),
    ("which bearing is 30 x 55 x 13", "ball-bearing", "width", 13),
    ("bearing id 25 od 52", "ball-bearing", "width", 15),
    ("straw temperature", "temper-colour", "", None),
    ("5 degrees 30 minutes", "angle", "", None),
    ("opposite 25 angle 30", "triangle", "slope", 50),
    ("across corners 24 hex", "polygon", "round_needed", 27.7128),
    ("hex 24 across corners", "polygon", "across_flats", 20.7846),
    ("hex bar 24", "polygon", "round_needed", 27.7128),
    ("polygon 5 sides 20", "polygon", "round_needed", 22.1115),
    ("hex 17", "polygon", "across_corners", 19.6299),
    ("hexagon 1/2in", "polygon", "round_needed", 14.6647),
    ("square 10 from bar", "polygon", "round_needed", 14.1421),
    ("octagon 20", "polygon", "across_corners", 21.6478),
    ("chamfer 2", "chamfer", "face", 2.8284),
    ("chamfer 13 at 45 degrees", "chamfer", "normal_depth", 9.1924),
    ("bevel 3 30 deg", "chamfer", "depth", 1.7321),
    ("square hole 10", "square-hole", "drill", 10.4),
    ("square broach hole 1/2", "square-hole", "drill_name", "17/32"),
    ("key 25", "keyway", "key_width", 8.0),
    ("keyway 16 bore", "keyway", "feed_from_contact", 2.7007),
    ("keyway for a 1 inch shaft", "keyway", "", None),
    ("woodruff 404", "woodruff", "cutter", 12.7),
    ("woodruff shaft 25", "woodruff", "key", "6x9"),
    ("circlip 47 bore", "circlip", "groove_diameter", 49.5),
    ("circlip groove 30", "circlip", "groove_width", 1.6),
    ("flat 10 on 1 in", "flat", "depth", 1.0257),
    ("flat 2 deep on 20", "flat", "width", 12.0),
    ("sine 12.5 100", "sine", "stack", 21.644),
    ("angle block 15 deg 80 long", "angle-block", "height", 20.7055),
    ("triangle hypotenuse 5 side 3", "triangle", "rise", 4.0),
    ("45 deg over 10", "triangle", "rise", 10.0),
    ("chord 30 rise 2", "arc-chord", "radius", 57.25),
    ("slips for 41.275", "gauge-stack", "total", 41.275),
    ("half way 2 102 tip 10", "half-way", "width", 90.0),
    ("speed mild steel 40", "speeds", "", None),
    ("cut 40 steel carbide", "speeds", "", None),
    ("drill 10 brass", "speeds", "", None),
    # 100 ft/min round an inch: 30.48 m over 79.8 mm
    ("speed sfm 100 1 in drill aluminium", "speeds", "rpm_ideal", 381.97),
    ("25 measured at 30 deg steel", "thermal-size", "size_at_reference", 24.9971),
    ("100 steel 10 degrees colder", "thermal-size", "size_at_reference", 99.9885),
    ("hex key for m5 cap screw", "cap-screw", "key_size", 4),
    ("countersink m6 90 degrees", "cap-screw", "head_diameter", 13.44),
    ("ra 1.6 feed 0.8 nose", "turned-finish", "feed", 0.1998),
    ("sfm of 1.5 in at 300", "surface-speed", "surface_speed", 35.91),
    ("clearance fit 1 inch shaft rc5", "inch-fit", "clearance_min", 0.0406),
    ("taper angle 1 in 16", "taper", "half_angle", 1.7899),
    ("threading dial m10 on 8 tpi", "thread-dial", "keep_engaged", 1),
    ("compound infeed 8 tpi 29.5", "pitch", "compound", 2.2385),
    ("parts 25 long kerf 3 from 600", "pieces", "pieces", 21),
    ("100 sin 30", "convert", "mm", 50),
    ("pilot drill for 20 mm hole", "drill-steps", "", None),
    ("drill 1 in hole in steps", "drill-steps", "", None),
    ("12 in aluminum bar 4 in dia weight", "mass", "mass", 6.67),
    ("sfm 3 in 500 rpm", "surface-speed", "surface_speed", 119.69),
    ("single point 1/2-20", "thread-passes", "", None),
    ("half nuts 11.5 tpi", "thread-dial", "", None),
    ("tailstock setover 0.5 tpf 10 in long", "taper-setup", "tailstock_offset", 5.2917),
    ("angle for 3.5 tpf", "taper", "half_angle", 8.2971),
    ("40 to 35 over 100", "taper-angle", "ratio", 0.05),
    ("boring bar 12 x 75", "boring-bar", "", None),
    ("finder 10 reading 80", "edge-find", "position", 85),
    ("max rpm 200 in 4 jaw cast iron", "rotating-limit", "", None),
    ("vee block 25 mm 90", "vee", "axis", 17.678),
    ("ra 32 1/32 nose", "turned-finish", "", None),
    ("feed rate 12 end mill 4 flute 1000 rpm .05", "table-feed", "table_feed", 200),
    ("is 25.01 in 25.00 a press fit", "play", "play", -0.01),
    ("how deep should I drill for m8 x 20", "drill-depth", "full_depth", 25),
    ("m8 x 1.25 x 20 torque", "screw-torque", "torque", 25.48),
    ("1/4-20 x 1 cap screw", "cap-screw", "head_diameter", 9.525),
    ("how many thou in a mm", "convert", "thou", 39.37),
    ("what angle is 1 in 12", "triangle", "angle", 4.7636),
    ("how deep to mill a 14 mm square on 20 mm", "polygon", "depth_per_flat", 3),
    ("pcd from chord 40 4 holes", "hole-span", "diameter", 56.5685),
    ("taper 25 to 22 long 60 compound", "taper-angle", "ratio", 0.05),
    ("saw 6 pieces 50 long kerf 2", "strip-length", "strip", 310),
    ("60 teeth dp 20 outside diameter", "gear", "outside_diameter", 78.74),
    ("spacing 6 holes on a 75 circle", "bolt-circle", "chord", 37.5),
    ("stack for 22.5 degrees 5 inch", "sine", "stack", 48.6008),
    ("vee block 90 for 20 mm over height", "vee", "axis", 14.142),
    ("interference 40 p6", "iso-limits", "lower", 40.026),
    ("register 46.006 bore 46.013 play", "play", "play", 0.007),
    ("spigot 94.997 in recess 95.02", "play", "play", 0.023),
    ("drill and counterbore m8", "cap-screw", "counterbore_diameter", 15),
    ("95.02 measured at 26 c steel at 20", "thermal-size", "", None),
    ("weight back plate 130 dia 30 thick cast iron", "mass", "mass", 2.867),
    ("runout 8 readings 0 1 2 3 2 1 0 -1", "runout", "tir", 4),
    ("flat depth 10 wide 40 dia", "flat", "depth", 0.635),
    ("tapdrill m6", "tap-drill", "drill_size", 5),
    ("cos⁻¹ 0.5", "triangle", "angle", 60),
    ("gear m2 z20", "gear", "outside_diameter", 44),
    ("tpi of 1.25", "pitch", "tpi", 20.32),
    ("1/2 af in mm", "convert", "mm", 12.7),
    ("dividing 17 on 40", "dividing", "", None),
    ("9 holes over 160", "hole-row", "pitch", 16),
    ("30 deg in rad", "angle", "radians", 0.5236),
    ("what size is a letter f drill", "convert", "mm", 6.5278),
    ("which mark for 14 tpi with 8 tpi leadscrew", "thread-dial", "", None),
    ("tolerance for a 20 reamed hole", "iso-limits", "upper", 20.021),
    ("taper of 25 to 20 in 50", "taper-angle", "ratio", 0.1),
    ("limits class 2a 1/2-20", "thread", "", None),
    ("weight of 10 mm steel plate 200 x 300", "mass", "mass", 4.71),
    ("angle 12.5 on 90:1 table", "dividing", "", None),
    ("tailstock 0.02 over 150", "tailstock", "move", 0.01),
    ("power to drill 20 mm in steel at 300 rpm", "cutting-power", "torque", 38.23),
    ("power to drill 3/4in in steel at 0.008 a rev", "cutting-power", "torque", 29.69),
    (
        "hp to mill 20 mm cutter 10 wide 5 deep 4 flutes mild steel",
        "cutting-power",
        "power",
        0.271,
    ),
    # 180 m/min by carbide, 60 by HSS
    ("power to turn brass 25 mm 1 mm deep with carbide", "cutting-power", "rpm", 2292),
    ("cutting force mild steel 40 mm 2 deep 0.2", "cutting-power", "force", 957.0),
    ("o ring groove 2 mm cord in 25 bore", "o-ring-groove", "groove_diameter", 21.953),
    ("o-ring groove on 20 rod 3 mm section moving", "o-ring-groove", "width", 3.987),
    ("indicator at 20 degrees reads 0.05", "indicator-angle", "moved", 0.04698),
    ("arc length 50 radius 30 degrees", "arc", "length", 26.18),
    ("pitch circle 24 teeth module 2", "gear", "pitch_diameter", 48),
    ("centre distance 20 and 40 teeth mod 1.5", "gear", "centres", 45),
    ("weight of 50 mm cube steel", "mass", "mass", 0.98125),
    ("grind wheel 7in at 3450", "surface-speed", "surface_speed", 1927.1),
    (
        "how far does the topslide move for 0.01 at 6 degrees",
        "fine-feed",
        "travel",
        0.04783,
    ),
    ("0.01 off with compound at 5.74", "fine-feed", "travel", 0.05),
    # 0.04995 on a millimetre
    ("how much deeper if I take 0.02 off mt2", "taper-advance", "advance", 0.4004),
    ("how far does a mt2 go in if I take 0.1 off", "taper-advance", "advance", 2.002),
    ("take off for a 0.5 deeper plug 1:10", "taper-advance", "diameter_change", 0.05),
    ("what is the smallest 16 H7", "iso-limits", "lower", 16),
    ("how long is an mt2 shank", "taper", "length", 65.088),
    ("move compound 0.1 at 6 degrees how much off", "fine-feed", "off", 0.0209),
    ("volume of 50 x 100 bar", "mass", "volume", 196349.5),
    ("letter drill for 8 mm", "convert", "inch", 0.316),
    ("number drill nearest 5 mm", "convert", "inch", 0.196),
    ("5 degrees in mm per 100", "angle", "rise", 8.749),
    ("passes 30 to 24 1 mm", "passes", "count", 4),
    ("passes 30 to 25mm length", "passes", "count", 6),
    ("tap drill 1/4 npt", "taper-pipe-thread", "least_hole", 10.997),
    ("1-1/4 npt od", "taper-pipe-thread", "major", 42.164),
    ("what drill for a rc 1/2 hole", "taper-pipe-thread", "mouth", 18.631),
    ("tailstock correct 0.04 over 150 of 250", "tailstock", "move", 0.0333),
    ("tailstock out 0.05 over 150 on 300", "tailstock", "move", 0.05),
    ("bearing 608", "ball-bearing", "outside", 22),
    ("6205-2rs width", "ball-bearing", "width", 15),
    ("m10 bolt head across corners", "cap-screw", "head_diameter", 17.77),
    ("lead of 4 start 2 mm", "pitch", "lead", 8),
    ("thread 9.73 mm 28 tpi", "thread-identify", "", None),
    ("thread height 16 tpi", "pitch", "pitch", 1.5875),
    ("table feed 0.03 4 teeth 900", "table-feed", "table_feed", 108),
    ("limits of 3/4 inch rc3", "inch-fit", "", None),
    ("bt30 taper", "taper", "large_diameter", 31.75),
    ("small end of mt3 at 50 from large", "taper-end", "small_end", 21.315),
    ("cone 60 deg 20 mm deep", "countersink", "diameter", 23.094),
    ("10 holes 15 apart", "hole-row", "pitch", 15),
    ("module 2 18 tooth depth", "gear", "outside_diameter", 40),
    ("arc length radius 40 angle 30", "arc", "length", 20.944),
    ("tube 50 od 40 id 1 m steel weight", "mass", "mass", 5.55),
    ("rpm brass 20", "speeds", "", None),
    ("cast iron 100mm carbide speed", "speeds", "", None),
    ("ream speed 10mm steel", "speeds", "", None),
    ("passes 50 to 46", "passes", "count", 3),
    ("gears 1.5", "change-gears", "", None),
    ("gears 20 tpi", "change-gears", "", None),
    ("change wheels for 2.5 pitch", "change-gears", "", None),
    ("11 tpi 8tpi leadscrew", "change-gears", "", None),
    ("weight 20 x 100 brass", "mass", "", None),
    ("weight steel 10x20x100", "mass", "mass", 0.157),
    ("how heavy is a 25 bar 300 long aluminium", "mass", "", None),
    ("knurl 1.5 pitch 30 diameter", "knurl", "growth", 0.6),
    ("50 aluminium 30 degrees warmer", "thermal-size", "", None),
    ("boring bar 16 out 80", "boring-bar", "length_to_diameter", 5.0),
    ("which thread 7.85 18tpi", "thread-identify", "", None),
    ("dovetail 10 pins 50", "dovetail", "over_pins", 77.3205),
    ("1/64", "convert", "mm", 0.3969),
    ("keyway 8 in 30 bore", "keyway", "across", 33.3),
    ("keyway 30 shaft 8 key", "keyway", "across", 26),
    ("fit 46 H7 g6", "iso-fit", "hole_upper", 46.025),
    ("46 g6 in H7", "iso-fit", "hole_upper", 46.025),
    ("rpm 2 in steel", "speeds", "rpm", 156.7),
    ("speed 2in mild steel", "speeds", "rpm", 188),
    ("speed 50 in steel", "speeds", "rpm", 159.2),
    ("8 holes 0.5in on 3in circle", "bolt-circle", "chord", 29.16),
    ("8 tpi in mm", "convert", "mm", 3.175),
    ("pitch of 40 tpi", "convert", "mm", 0.635),
    ("taper 25 to 20 over 50", "taper-angle", "half_angle", 2.8624),
    ("taper pin 5 x 40", "taper-pin", "large_diameter", 5.8),
    ("2 tenths", "convert", "um", 5.08),
    ("12.7 in inches", "convert", "inch", 0.5),
    ("number drill #7", "convert", "mm", 5.1054),
    ("0,5 mm in thou", "convert", "thou", 19.685),
    ("1-3/8 in in mm", "convert", "mm", 34.925),
    # its large end, and an inch and a half
    ("taper pin no 5 1.5 long", "taper-pin", "small_diameter", 6.5468),
    ("tapping speed m8 steel", "speeds", "", None),
    ("square across 20 round", "polygon", "across_flats", 14.1421),
    ("across corners of 19 hex", "polygon", "round_needed", 21.9393),
    ("half between 10.2 and 88.7", "half-way", "centre", 49.45),
    ("wheels for 0.75 with 3 mm screw", "change-gears", "", None),
    # 2,000 mm² by π/4 by 200 mm
    ("weight of tube 60 x 40 x 200 steel", "mass", "mass", 2.4662),
    ("weight tube 60 bore 40 long 200 steel", "mass", "mass", 2.4662),
    ("dovetail over 10 pins 40 at the bottom", "dovetail", "over_pins", 67.3205),
    ("dovetail 10 pins 40 at the bottom 15 deep", "dovetail", "over_pins", 67.3205),
    ("drill number 30", "convert", "mm", 3.2639),
    ("sine 14 degrees 15 minutes 200", "sine", "stack", 49.2307),
    ("time to turn 50 diameter 100 long steel", "cutting-time", "", None),
    ("saw 3 slot 6 wide 20 deep", "saw-slot", "passes", 2),
    ("lever 200 N at 250", "lever", "torque", 50.0),
    ("press force 25 pin 30 long 0.02 tight 50 hub", "press-fit", "pressure", 62.1),
    ("46 mm at 28 degrees in steel", "thermal-size", "change", 0.0042),
    ("what thread is 0.3125 od 18 tpi", "thread-identify", "", None),
    ("sliding fit on 46 shaft", "iso-fit", "hole_upper", 46.025),
    ("flat 18 across on 20", "flat", "depth", 2.0),
    ("m20 over wires 1.5 wire", "thread-wires", "over_wires", 20.7111),
    ("boring bar 20 100 out carbide", "boring-bar", "length_to_diameter", 5.0),
    ("8 holes 80 pcd start 22.5 degrees", "bolt-circle", "chord", 30.6147),
    ("square 15 corner to corner", "polygon", "across_flats", 10.6066),
    ("weight square bar 20 long 100 steel", "mass", "mass", 0.314),
    ("rotary table 90:1 5 holes", "dividing", "", None),
    ("grub screw m6 key", "cap-screw", "key_size", 3.0),
    ("speed 6 mm slot drill aluminium", "speeds", "", None),
    ("shaft 30 m6", "iso-limits", "upper", 30.021),
    ("100 feet per minute 1 inch", "speeds", "rpm", 381.97),
    ("30 metres per minute 25 mm", "speeds", "rpm", 381.972),
    ("12.7/2", "convert", "mm", 6.35),
    ("a flat 6 on a 10 shaft", "flat", "depth", 1.0),
    ("play 0.02 how much run-out", "play-runout", "tir", 0.02),
    # half of 7 by 40 at 100 N/mm² on a radius of 12.5
    ("what torque does a key 8x7x40 carry on a 25 shaft", "key-load", "carries", 175.0),
    ("tongue 14 with a 10 end mill", "side-offset", "plus", 12.0),
    # centres of the balls at 47 and 16 down: 31 apart, radii 3 apart
    ("taper bore balls 10 and 16 depth 42 and 8", "taper-balls", "half_angle", 5.5534),
    ("packing throw 3 bar of 30 in a 3 jaw", "eccentric-packing", "packing", 4.5),
    ("diameter from circumference 400", "convert", "mm", 127.324),
    ("circumference 2 inch diameter", "convert", "mm", 159.593),
    ("metres per minute 25 mm 600 rpm", "surface-speed", "surface_speed", 47.124),
    ("6 holes 25 radius", "bolt-circle", "chord", 25.0),
    # a taper of 1 in 50, whichever of the two is said first
    ("taper pin 6 length 40", "taper-pin", "large_diameter", 6.8),
    ("drill for an m5 springcoil", "tap-drill", "drill", "5.2 mm"),
    ("play of shaft 19.985 in hole 20.013", "play", "play", 0.028),
    ("clearance of 19.98 in 20.02", "play", "play", 0.04),
    ("0.75 shaft in 0.7515 bore", "play", "play", 0.0381),
    ("shaft 1 in hole 1.002 in play", "play", "play", 0.0508),
    # 23.4, half of the finder and 15
    ("edge finder 10 touched at 23.4 hole 15 in", "edge-find", "position", 43.4),
    ("6 flats on a 30 round", "polygon", "across_flats", 25.9808),
    ("1.25 mm pitch on 8 tpi", "change-gears", "", None),
    ("how tight m6", "screw-torque", "torque", 10.5),
    ("how much taper in 100 mm for mt2", "taper-advance", "diameter_change", 4.995),
    ("3 jaw packing for 3 mm eccentric on a 40 bar", "eccentric-packing", "", None),
)


class WhatOneWouldSay(unittest.TestCase):
    def says(self, *answers, inch=False):
        """Each question is answered with these words."""
        for said, words in answers:
            with self.subTest(said):
                self.assertIn(words, understand(said, inch=inch).sentence)

    def test_every_phrase_is_answered_by_its_sum(self):
        for said, name, key, value in ASKED:
            with self.subTest(said):
                told = understand(said)
                self.assertIsNotNone(told.answer, told)
                self.assertEqual(told.found.reckoning.name, name)
                self.assertEqual(told.unused, ())
                self.assertTrue(told.sentence)
                if isinstance(value, float | int):
                    off = 0.0005 * max(abs(value), 1)
                    self.assertAlmostEqual(told.answer[key], value, delta=off)
                elif value is not None:
                    self.assertEqual(told.answer[key], value)

    def test_a_figure_that_nothing_can_be_made_of_is_asked_about(self):
        """An answer that passes it over would be one to another question."""
        for said, figure in (
            ("tap drill m8 30", "30"),
            ("passes 60 to 55 in 3 cuts of 0.1", "0.1"),
            ("turn 40 to 39.95 in two cuts", "2 is"),
            ("key for a 30 shaft at 15 degrees", "15 degrees"),
            ("3 holes 120 degrees on 50", "120 degrees"),
        ):
            with self.subTest(said):
                told = understand(said)
                self.assertIsNone(told.answer)
                self.assertIn(figure, told.sentence)

    def test_a_spanner_or_key_for_an_inch_screw_is_called_by_its_fraction(self):
        self.says(
            ("1/2 nut", "spanner 3/4 in"),
            ("10-32 cap screw head", "key 5/32 in"),
            ("0-80 cap screw head", "key 1.27 mm"),
            ("m10 nut", "spanner 16 mm (older ones 17 mm)"),
        )

    def test_a_cutter_is_fed_by_the_tooth_where_nobody_says_how_many_it_has(self):
        self.says(
            ("speed for 10 mm end mill in mild steel", "feed 0.05 mm a tooth"),
            ("4 flute 10 mm end mill in mild steel", "feed 0.2 mm a turn"),
            ("rpm for 20mm drill in brass", "feed 0.25 mm a turn"),
        )

    def test_what_is_sold_in_millimetres_is_called_so_in_an_inch_shop(self):
        self.says(
            ("m8 nut", "spanner 13 mm"),
            ("hex key for m8", "key 6 mm"),
            ("e clip for .5 shaft", "Clip 10 mm"),
            ("tram .002 over 8", "0.001 in over 4 in"),
            inch=True,
        )

    def test_of_four_readings_nobody_says_how_oval_it_is(self):
        for said, words, not_said in (
            ("runout 0 0.02 0.01 0.03", "may be an oval: read 8 places", "out of"),
            ("runout 0 0.03 0.05 0.02", "0.025 mm off the middle", "oval"),
            ("runout 0 1 0 1 0 1 0 1", "1 mm: 0 mm off the middle", "oval"),
        ):
            told = understand(said).sentence
            with self.subTest(said):
                self.assertIn(words, told)
                self.assertNotIn(not_said, told)

    def test_holes_by_their_spacing_or_in_a_square_are_no_bolt_circle(self):
        """Five holes 30 apart lie on a circle of 51, four in a square of 60 on 85."""
        told = understand("circle for 5 holes 30 apart").answer
        self.assertAlmostEqual(told["diameter"], 51.039, 3)
        self.assertIsNone(understand("4 bolt holes 60 square").answer)

    def test_the_screw_of_the_lathe_is_not_the_shop_s_where_one_is_said(self):
        told = understand("which wheels for 0.75 with 3 mm screw")
        self.assertEqual(told.found.inputs["leadscrew"], "3mm")

    def test_what_it_offers_to_say_it_understands(self):
        for phrase in PHRASES:
            with self.subTest(phrase.example):
                told = understand(phrase.example)
                self.assertIsNotNone(told.answer, told)
                self.assertEqual(told.found.reckoning.name, phrase.reckoner)

    def test_the_order_of_the_words_does_not_matter(self):
        for said, other in (
            ("tap drill m8", "m8 drill tap"),
            ("bolt circle 6 holes 80mm", "80mm 6 holes circle bolt"),
            ("speed 40mm mild steel", "mild steel 40mm speed"),
            ("circlip 20 shaft", "shaft 20 circlip"),
        ):
            with self.subTest(said):
                a, b = understand(said).answer, understand(other).answer
                self.assertEqual(a.results, b.results)

    def test_how_it_is_asked_changes_nothing(self):
        """Nor capitals, colons, a decimal comma or the words about a question do."""
        ways = (
            lambda said: f"Could you tell me the {said}, please?",
            lambda said: f"what is the {said}?",
            lambda said: f"I need {said} for me",
            lambda said: f"Please find: {said} exactly.",
            lambda said: re.sub(r"(?<=\d)\.(?=\d)", ",", said),
            lambda said: re.sub(r"(?<=[a-z]{3}) (?=\d)", ": ", said),
            lambda said: re.sub(r"(?<=\d) ?x ?(?=\d)", " X ", said),
            lambda said: re.sub(r"\b[a-z]{2,}\b", lambda word: word[0].title(), said),
        )
        # a drill or letter by its number is another thing where it is none
        asked = [
            said for said, *_ in ASKED if not re.search(r"number|decimal|29", said)
        ]
        for said, way in zip(asked, cycle(ways), strict=False):
            with self.subTest(way(said)):
                told = understand(way(said)).answer
                self.assertIsNotNone(told)
                self.assertEqual(told.results, understand(said).answer.results)

    def test_two_letters_that_change_places_mislead_nobody(self):
        """Of the longest word of each question: what it was read as is said."""
        asked = [
            (said, max(re.findall(r"\b[a-z]{6,}\b", said), key=len, default=""))
            for said, *_ in ASKED
        ]
        right, wrong, blank = 0, [], []
        for said, word in asked:
            at = len(word) // 2
            swapped = word[:at] + word[at : at + 2][::-1] + word[at + 2 :]
            if swapped in (word, "meters"):
                continue
            told = understand(said.replace(word, swapped))
            if told.answer is None:
                blank.append(said)
            elif told.answer.results == understand(said).answer.results:
                right += 1
                self.assertIn("read as", told.understood)
            else:
                wrong.append(said)
        self.assertEqual(wrong, [])
        self.assertLess(len(blank), right / 20, blank)
        self.assertIn(
            "read as clearance, screw", understand("m8 clearence scerw").understood
        )

    def test_every_word_of_a_question_is_known(self):
        known = {row["word"] for row in rows("asked_words") if row["asked"] == "yes"}
        for said in (*(said for said, *_ in ASKED), *examples().values()):
            for word in re.findall(r"(?<![\w.'/-])[a-z]{4,}(?![\w'/-])", said):
                self.assertTrue({word, word.removesuffix("s")} & known, word)

    def test_in_steel_are_no_inches_where_none_are_sold(self):
        for said, mm in (
            ("drill size 6.53 in steel", 6.53),
            ("spigot 94.997 in recess is 95.02", 94.997),
            ("spigot 94.997 in recess 95.02 in mm", 94.997),
        ):
            told = understand(said).answer.inputs
            self.assertEqual(told.get("diameter") or told["shaft"][0], mm)
        self.assertIn("Say 8.4inch or 8.4mm", understand("rpm 8.4 in brass").sentence)

    def test_words_that_nothing_is_made_of_are_said(self):
        told = understand("tap drill m8 banana")
        self.assertEqual(told.answer["drill_size"], 6.8)
        self.assertEqual(told.unused, ("banana",))

    def test_an_inch_shop_is_understood_in_its_own_words(self):
        """Grades of steel, numbered pins, taper by the foot; 5/16 to 0.0361 wires."""
        for said, reckoner, key, value in (
            ("rpm 3/8 drill in 4140", "speeds", "surface_speed", 14.4),
            ("taper pin 4 1 1/4 long", "taper-pin", "large_diameter", 6.35),
            ("taper per foot 5/8", "taper", "taper_per_foot", 0.625),
            ("head of 3/8 socket cap", "cap-screw", "key_size", 7.9375),
            ("sfm of 3 inch at 250 rpm", "surface-speed", "surface_speed", 59.847),
            ("over pins 1.75 dovetail 1/4 pins", "dovetail", "over_pins", 61.799),
            ("dovetail 8mm pins 50 wide 12 deep", "dovetail", "over_pins", 71.856),
            ("feed rate 1/2 4 flute 1200 rpm .003", "table-feed", "per_turn", 0.3048),
            ("what marks for 11 tpi 8 leadscrew", "thread-dial", "marks", [4, 8]),
            ("4 on 2.75 bc start 45", "bolt-circle", "chord", 49.391),
            # two thou less than 3/4; with 20 it is a thread, also written wide
            ("3/4-.002", "convert", "mm", 18.9992),
            ("1/4 - 20", "thread", "pitch", 1.27),
            ("#7 in decimal", "convert", "mm", 5.1054),
        ):
            with self.subTest(said):
                told = understand(said, inch=True)
                self.assertEqual(told.found.reckoning.name, reckoner)
                if isinstance(value, list):
                    self.assertEqual(told.answer[key], value)
                else:
                    self.assertAlmostEqual(told.answer[key], value, 3)
        self.assertIsNone(understand("ream for .2500 slip", inch=True).answer)
        # 1018 is a steel, but 1018 mm a length
        bar = understand("weight 50 bar 1018 mm long")
        self.assertAlmostEqual(bar.answer["mass"], 15.691, 2)

    def test_an_inch_shop_hears_pounds_first(self):
        """2 in round by 10: 0.2836 lb an inch³ × 31.42; 40 lbf at a foot."""
        for said, begins in (
            ("weight of 2 inch round steel 10 inches", "8.91 lb (4.04 kg)"),
            ("lever 40 lb at 12 inch", "Torque 40 lbf·ft (54.2 N·m)"),
            ("heat to shrink 3 inch ring .004", "Heat the hub to 379 °F (193 °C)"),
            ("dovetail 60 3/8 pins 2.5 across bottom", "Over the pins: 3.5245 in"),
            ("tap drill 5/8-18 60 percent", "Drill 37/64"),
            # a dial of a thou; a module is millimetres; no fraction is of them
            ("passes 2.0 to 1.5 .05", "6 passes: to 1.9020, 1.8040, 1.7050"),
            ("gear 40 teeth module 1.5", "Blank 2.4803 in (63.00 mm)"),
            ("37/64 mm", "0.57813 in is 14.6844 mm"),
            ("running fit 1 inch shaft rc3", "Hole 1.0000 to 1.0008 in"),
            # screw threads, of a lead screw too, go to the inch there
            ("change gears 11 tpi leadscrew 8", "Drivers over driven 60/65 × 100/127"),
            ("gears to cut 1/2-13 leadscrew 8", "Drivers over driven 40/65, exactly"),
            ("12 pitch thread depth", "Pitch 0.0833 in, 12 to the inch; 0.0511 in"),
            ("body drill for #10 screw", "Clearance hole 0.221 in"),
            ("chip load 12 ipm 1500 rpm 4 flutes", "0.002 in a tooth at 12 in/min"),
            ("sine stack for mt3 on 5 inch", "Slips under the sine bar: 0.1254 in"),
            ("sagitta 3 inch chord 5 radius", "Radius 5 in (127.000 mm), 3 in from"),
            ("press fit in a .7505 hole", "Make the shaft 0.7517 to 0.7520 in"),
            ("torque that 3 5/16-18 bolts on 4.5 circle carry", "Carries 141 lbf·ft"),
            ("turns of 10 tpi screw for .875", "8 turns and 75 lines"),
            ("percent of thread #7 drill 1/4-20", "Drill #7, 0.2010 in: 75 %"),
            ("cool 2 inch shaft to minus 100 f", "Shorter by"),
        ):
            told = understand(said, inch=True)
            self.assertTrue(told.sentence.startswith(begins), told.sentence)

    def test_a_taper_is_told_with_both_its_ends(self):
        """Jacobs 33 is 0.6240 in and 0.5605 in, an inch apart: ASME B5.10."""
        told = understand("small end of jt33", inch=True).sentence
        self.assertIn("0.624 in at its large end and 0.5605 in after 1 in", told)

    def test_a_question_that_was_not_asked_is_not_answered(self):
        for said in (
            "what is the weather in 12 days",
            "m8 is my favourite number of all",
            "banana",
            "shaft 20 hole 25 clearance",
            "dial to turn 25.4 from 26.1",
            "can i cut 1.25 with 127",
            "screw for 6 mm allen key",
            "thread strip m8 aluminium 10 deep",
            "what pin in a 90 vee stands 5 over it",
            "height over 2 pins vee",
            "set screw m6 dimple",
            "key length for 50 Nm on 20 shaft",
            "shear of 6 mm dowel",
            "12 turns of a 4 mm lead screw",
            "tap torque m6",
            "m3 self tapping",
            # it runs out by twice as much; one of them is the hole's
            "eccentric throw 5 indicator total",
            "offset 4 mm four jaw readings",
            "hole 6 mm 25 deep drill point allowance",
            "spanner 1/2 whit",  # of a thread whose hexagon is another
            "how deep counterbore for m8 low",
            "spring m8 washers",
            "thread speed for 1.5 pitch",
            "radius 12.5 in diameter",
            "half angle 8.297",
            "helix angle 20 mm lead 5",
            "hole 10 from edge 15 coordinates",
            "42 sheep on 7 hills by the sea",
            "15 degrees 60 long rise",
            "shrink fit 40 H7 g6",
            "register clearance 0.01",
            "m8 low head",
            "spindle bearing preload nut m25x1.5",
            "ball in a 90 cone 10 mm deep",
            "t-nut 5/8",
            "tailstock set over 1 degree 150",
            "dovetail 60 degrees 50 wide at the top 10 mm pins",
            "handle for 25 nm with 250 n",
            "radius from 3 points",
            "grind 0.3 off in passes of 0.01",
            "square thread 4 pitch",
            "dovetail over 10mm pins 45.3 measured 60 deg",
            "how much does a 6 mm taper pin go deeper for 0.02",
            "how deep is a 10 mm keyway",
            "chamfer for a 20 thread",
            "gear module 1.5 depth",
            "gap 0.1 glue shaft 25",
            "flats on 20 for 17 spanner",
            "depth of acme 5 tpi",
            "angle whose tan is 0.05",
            "offset tailstock for 1 degree over 200",
        ):
            with self.subTest(said):
                told = understand(said)
                self.assertIsNone(told.answer)
                self.assertEqual(len(told.offered), 3)

    def test_what_is_offered_is_answered(self):
        for offered in understand("bananas and drills").offered:
            self.assertIsNotNone(understand(offered).answer, offered)

    def test_what_cannot_be_is_refused_with_what_is_allowed(self):
        told = understand("circlip 23 shaft")
        self.assertIsNone(told.answer)
        self.assertIn("22 and 24", told.sentence)

    def test_the_sentence_is_what_one_would_say(self):
        for said, wanted in (
            ("tap drill 5/16-18", "Drill F, 6.53 mm: 77 % of the thread"),
            ("7.94mm in drills", "7.94 mm is nearest to drill 5/16, +2.5 µm"),
            ("h7 25", "25 mm h7: 24.979 to 25.000 mm"),
            ("passes 13 to 12.1", "2 passes: to 12.30, 12.10 mm"),
            # 40/127 of a turn is 2.8346°, 6 holes of 19 are 2.8421°: 27″ more
            (
                "divide 127",
                "6 holes on the 19 circle for each: not exact, 27″ off at each, so set "
                "each by its own angle",
            ),
            (
                "taper 24.13 to 25.4 over 25.4",
                "1 : 20, compound at 1.4321°, 2.8642° included, 0.6 in/ft, like MT2",
            ),
        ):
            with self.subTest(said):
                self.assertEqual(understand(said).sentence, wanted)
        inch = understand("tap drill 5/16-18", inch=True).sentence
        self.assertIn("0.2570 in", inch)
        # 25 m/min is 82 feet, a tenth of a millimetre four thou
        speed = understand("speed 2 steel", inch=True).sentence
        self.assertEqual(speed, "157 rpm, feed 0.0039 in a turn, 82 ft/min")

    def test_what_may_be_inches_or_millimetres_is_asked_back(self):
        """8 in cast iron: as millimetres a plate of 8 inches would be told to run 25
        times as fast."""
        for said in (
            "how fast 8 in cast iron disc",
            "drill 5 in brass",
            "packing for a throw of 3 on a bar of 20 in the 3-jaw",
        ):
            with self.subTest(said):
                told = understand(said)
                self.assertIsNone(told.answer)
                self.assertIn("inches, or", told.sentence)
                self.assertTrue(
                    all(understand(question).answer for question in told.offered)
                )
                self.assertIsNotNone(understand(said, inch=True).answer)

    def test_a_fraction_less_some_thou_wants_its_unit_in_a_metric_shop(self):
        told = understand("1 7/16 - 0.0035")
        self.assertIsNone(told.answer)
        self.assertIn("give both their unit", told.sentence)

    def test_sizes_said_together_share_their_unit(self):
        answer = understand("passes 2 in to 1.95").answer
        self.assertAlmostEqual(answer.inputs["finish"], 49.53)
        bar = understand("weight 50 x 200 mm steel", inch=True).answer
        self.assertAlmostEqual(bar["mass"], 3.0827, places=3)
        block = understand("weight 4 x 2 x 1 in steel").answer
        self.assertAlmostEqual(block["mass"], 1.03, places=2)

    def test_the_order_in_which_measures_are_said_changes_nothing(self):
        """Each figure goes with the word beside it that no other figure needs more."""
        for asked, measures, key, value in (
            ("weight", ("30 dia|diameter 30|⌀30", "400 long|length 400"), "mass", 2.22),
            (
                "weight of",
                ("20 wide|width 20", "10 thick|height 10", "300 long|length 300"),
                "mass",
                0.471,
            ),
            (
                "weight tube",
                ("30 od|outside 30", "20 id|bore 20", "300 long|length 300"),
                "mass",
                0.925,
            ),
            (
                "taper",
                ("large 30|30 large", "20 small", "100 long|length 100"),
                "ratio",
                0.1,
            ),
            ("radius from", ("chord 40|40 chord", "height 5|5 high"), "radius", 42.5),
            (
                "how many pieces",
                ("35 long|length 35", "bar 1000|1000 bar", "kerf 3|saw 3|3 kerf"),
                "pieces",
                26,
            ),
            ("boring bar", ("12 dia|dia 12", "80 out|out 80"), "bar_diameter", 12),
            ("passes", ("from 30", "to 28", "0.5 deep|at 0.5"), "count", 3),
            (
                "force to press",
                ("25 pin", "30 long|length 30", "0.02 interference", "50 hub|hub 50"),
                "press_force",
                17600,
            ),
        ):
            for words in product(*(measure.split("|") for measure in measures)):
                for order in permutations(words):
                    said = f"{asked} {' '.join(order)}"
                    with self.subTest(said):
                        answer = understand(said).answer
                        self.assertIsNotNone(answer)
                        found = {**answer.inputs, **answer.results}[key]
                        self.assertAlmostEqual(found, value, delta=0.01 * value)

    def test_a_bare_number_is_in_the_shop_s_unit(self):
        # 1 in takes a key of 1/4 in: 1.114 in across, by the table of the standard
        inch = understand("keyway 1", inch=True).answer
        self.assertAlmostEqual(inch["across"] / 25.4, 1.114, places=3)
        circle = understand("bolt circle 6 holes 4", inch=True).answer
        self.assertAlmostEqual(circle["chord"] / 25.4, 2.0)
        time = understand("time 6 long 0.004 feed 300 rpm", inch=True).answer
        # 6.08 in at 1.2 in a minute, and ten seconds to set it
        self.assertAlmostEqual(time["minutes"], 5.23, delta=0.01)
        self.assertAlmostEqual(understand("0.5", inch=True).answer["mm"], 12.7)


class FindingSums(unittest.TestCase):
    def test_words_of_the_shop_find_their_reckoning(self):
        for word, name in (
            ("weight", "mass"),
            ("chatter", "boring-bar"),
            ("glue", "bond-gap"),
            ("four jaw", "centring"),
            ("parallels", "gauge-stack"),
            ("handle", "lever"),
            ("gib", "dovetail"),
            ("half-nuts", "thread-dial"),
            ("tailstock", "tailstock"),
        ):
            with self.subTest(word):
                found = found_with(understand(word))[:3]
                self.assertIn(name, [found.reckoning.name for found in found])

    def test_every_reckoning_is_found_by_its_own_name_and_title(self):
        for reckoning in reckonings().values():
            for said in (
                reckoning.name,
                reckoning.name.replace("-", " "),
                reckoning.title,
            ):
                with self.subTest(said):
                    found = found_with(understand(said))
                    names = [like.reckoning.name for like in found]
                    self.assertIn(reckoning.name, names[:4])

    def test_nonsense_finds_nothing_and_harms_nothing(self):
        for said in ("", "   ", "zzzz", "M", "((((", "25 q6", "9" * 300, "a" * 5000):
            with self.subTest(said[:10]):
                for found in found_with(understand(said)):
                    self.assertIsNone(found.answer)


class OfYourOwn(unittest.TestCase):
    def test_a_drill_that_is_not_there_is_named_beside_the_one_that_is(self):
        own = {"thread": "M8", "series": "6.5mm,7mm"}
        said = sentence(reckon("tap-drill", own), False)
        self.assertIn("Drill 7 mm: 62 %", said)
        self.assertIn("the usual 6.8 mm is not among those there are", said)
        own["series"] = "6.5mm,6.8mm,7mm"
        self.assertNotIn("usual", sentence(reckon("tap-drill", own), False))


class CommandLine(unittest.TestCase):
    def said(self, *words):
        out, err = io.StringIO(), io.StringIO()
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            code = ask_command(words)
        return code, out.getvalue(), err.getvalue()

    def test_the_sentence_is_printed(self):
        code, out, _ = self.said("tap", "drill", "5/16-18")
        self.assertEqual(code, 0)
        self.assertEqual(out.splitlines()[0], "Drill F, 6.53 mm: 77 % of the thread")

    def test_the_places_of_holes_are_printed_one_below_the_other(self):
        """On 80, 40 to the right and then 40 up."""
        _, out, _ = self.said("4", "holes", "on", "80")
        self.assertEqual(out.splitlines()[1:3], ["1: 40, 0", "2: 0, 40"])

    def test_what_can_hurt_is_said_with_the_answer(self):
        _, out, _ = self.said("heat", "hub", "50", "0.05")
        self.assertIn("Caution: Hot and cold parts burn", out)

    def test_the_whole_answer_as_json(self):
        code, out, _ = self.said("80", "pcd", "6", "--json")
        told = json.loads(out)
        self.assertEqual(code, 0)
        self.assertEqual(told["reckoner"], "bolt-circle")
        self.assertEqual(told["inputs"], {"holes": "6", "diameter": "80"})
        self.assertAlmostEqual(told["results"]["chord"], 40)
        self.assertEqual((told["unused"], told["offered"]), ([], []))

    def test_a_sum_that_no_phrase_asks_for_is_named_with_its_command(self):
        code, _, err = self.said("shrink", "time")
        self.assertEqual(code, 2)
        self.assertIn("machinon reckon shrink-time  How long a hot hub stays", err)

    def test_what_is_no_size_is_refused_by_its_sum(self):
        """1/0 is none; and a key is narrower than its bore in inches as in mm."""
        for said in (
            "how much force to press 20 mm pin 0.02",
            "cut 3 slot 6 wide 20 deep",
            "gears for 0 tpi on 8 tpi",
            "taper 0 in per foot",
            "gears for 1/0 tpi on 8 tpi",
            "growth of 100 steel from 1/0 c to 60 c",
            "wires 99/98-3 wire .05",
            "knurl 1/0 25",
            "keyway 1/0 5",
            "taper 1/0 to 5 over 3",
            "4mm leadscrew 0 tpi",
            "strip for 8 t-nuts",
            "hole spacing 5 in 200 edge 20",
            "spanner pins 4 mm on 30 pcd",
            "grind 20 shaft 0.25 allowance",
        ):
            with self.subTest(said):
                self.assertIsNone(understand(said).answer)
        keyway = understand("keyway 1/4 in 1 bore", inch=True).answer
        self.assertAlmostEqual(keyway["key_width"], 6.35)
        # half of the key below where its corners meet the shaft: 0.125 and 0.016 in
        seat = understand("keyway 1/4 in 1 in shaft").answer
        self.assertAlmostEqual(seat["shaft_depth"] / 25.4, 0.1409, places=4)
        self.assertIsNone(understand("keyway 0.25 25.4").answer)

    def test_a_thread_is_cut_on_the_coarser_screw(self):
        """Unless it is said which is which."""
        for said, pitch, lead in (
            ("1.25 leadscrew 4mm", "1.25", "4mm"),
            ("gears for 4mm leadscrew 1.25", "1.25", "4mm"),
            ("4mm lead screw 6 pitch", "6", "4mm"),
            ("pitch 1.5 leadscrew 8 tpi", "1.5", "8tpi"),
            ("gears for 1.5 mm on 8 tpi", "1.5mm", "8tpi"),
            ("change gears m8 8 tpi", "1.25mm", "8tpi"),
            # a worm of module 1: π to a turn
            ("gears for a module 1 worm on 4mm leadscrew", "3.14159mm", "4mm"),
            ("gears for a module 2mm worm on 4mm leadscrew", "6.28319mm", "4mm"),
        ):
            with self.subTest(said):
                inputs = understand(said).found.inputs
                self.assertEqual((inputs["pitch"], inputs["leadscrew"]), (pitch, lead))

    def test_what_is_not_understood_ends_with_2_and_three_offers(self):
        code, out, _ = self.said("banana", "--json")
        self.assertEqual(code, 2)
        self.assertEqual(len(json.loads(out)["offered"]), 3)
        code, _, err = self.said("banana")
        self.assertEqual(code, 2)
        self.assertIn("Try:", err)

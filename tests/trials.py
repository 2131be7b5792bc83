"""How often the trials by kill, damage and chance run, and from which seed.

Once in the suite; many times, each time from another seed, by scripts/trials.py.
"""

import os

TIMES = int(os.environ.get("TRIALS", "1"))
SEED = int(os.environ.get("TRIALS_SEED", "11"))

"""The trials in their long form: kills, failing writes, two writers, damage, chance.

usage: trials.py [TIMES] [SEED]

Runs what the suite runs in small TIMES as often (40), from another SEED (the day),
and says how long each took. Ends with 1 where one fails.
"""

import datetime
import os
import subprocess
import sys
import time

TRIALS = {
    "killed while typing": "tests.store.test_shop_file.PowerCut",
    "killed while a shop is made or upgraded": (
        "tests.store.test_kept_whatever_happens.Killed"
    ),
    "writes that fail": "tests.store.test_kept_whatever_happens.Troubled",
    "two writers": "tests.store.test_kept_whatever_happens.TwoWriters",
    "damaged documents": "tests.store.test_kept_whatever_happens.HostileDocuments",
    "entries by chance": "tests.core.test_quantity",
    "every sum with odd values": "tests.core.test_all_reckonings.AllOfThem",
    "pieces of odd sizes": "tests.core.piece.test_lost.ByChance",
    "drawings of odd pieces": "tests.draw.test_odd_pieces",
    "every stage with little room": "tests.desk.test_desk.LittleRoom",
    "every stage with the largest figures": "tests.desk.test_desk.LargestFigures",
    "anything pressed and typed": "tests.desk.test_any_press",
}


def main() -> int:
    times = sys.argv[1] if len(sys.argv) > 1 else "40"
    today = datetime.date.today().strftime("%Y%m%d")
    seed = sys.argv[2] if len(sys.argv) > 2 else today
    env = {
        **os.environ,
        "TRIALS": times,
        "TRIALS_SEED": seed,
        "QT_QPA_PLATFORM": "offscreen",
    }
    failed = 0
    for words, name in TRIALS.items():
        began = time.monotonic()
        done = subprocess.run(
            [sys.executable, "-m", "unittest", name],
            env=env,
            capture_output=True,
            text=True,
        )
        took = time.monotonic() - began
        print(f"{'well' if done.returncode == 0 else 'FAILED':8}{took:7.0f} s  {words}")
        if done.returncode:
            failed += 1
            print(done.stderr[-4000:])
    print(f"seed {seed}, {times} times")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())

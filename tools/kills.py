"""Kill the server many times while it writes: PYTHONPATH=core:server python tools/kills.py 500 [SEED]."""

from __future__ import annotations

import sys

from trials.killing import kill_while_writing

if __name__ == "__main__":
    tally = kill_while_writing(int(sys.argv[1]), int(sys.argv[2]) if len(sys.argv) > 2 else 0)
    print(tally)
    print(f"{len(tally.lost)} lost, {len(tally.damaged)} times damaged")
    for line in (*tally.lost, *tally.damaged):
        print(" ", line)
    sys.exit(bool(tally.lost or tally.damaged))

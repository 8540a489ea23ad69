"""Find by trial what each option of a family moves and add it to the file beside the family.

python tools/dependencies.py TIMES SEED [FAMILY ...]: the more times, the rarer what is found.
"""

from __future__ import annotations

import csv
import sys
from pathlib import Path

import ascent.families
from ascent.families import FAMILIES
from ascent.family.dependencies import NAME
from tests.moving import moved


def add(key: str, times: int, seed: int) -> None:
    """Add to a family's file what is found."""
    path = Path(ascent.families.__file__).parent / key.replace("-", "_") / NAME
    known: dict[str, set[str]] = {}
    if path.exists():
        with path.open(encoding="utf-8", newline="") as file:
            known = {row["moved"]: set(row["by"].split()) for row in csv.DictReader(file)}
    before = sum(map(len, known.values()))
    for what, options in moved(key, times, seed).items():
        known.setdefault(what, set()).update(options)
    order = list(FAMILIES[key].options.model_fields)
    with path.open("w", encoding="utf-8", newline="") as file:
        rows = csv.writer(file, lineterminator="\n")
        rows.writerow(("moved", "by"))
        rows.writerows((what, " ".join(sorted(known[what], key=order.index))) for what in sorted(known))
    print(f"{key}: {sum(map(len, known.values())) - before} more", flush=True)


if __name__ == "__main__":
    for family in sys.argv[3:] or FAMILIES:
        add(family, int(sys.argv[1]), int(sys.argv[2]))

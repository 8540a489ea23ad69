"""Make the tables of bent panels, core/ascent/data/arches.csv and clamped_arches.csv: a strip of unit length
and stiffness.

Run by hand when the method changes; core/tests/published/test_arches.py works some of its rows out again.
"""

from __future__ import annotations

import csv
import sys
from pathlib import Path

import numpy as np
from ascent.mechanics import rod

OPENINGS = np.round(np.arange(0.15, 0.801, 0.05), 3)  # span over what is left of the length above the ties
HOLDS = (0.0, 0.03, 0.045, 0.06, 0.08, 0.10, 0.125, 0.15, 0.175, 0.20, 0.225, 0.25)
DATA = Path(__file__).resolve().parent.parent / "core" / "ascent" / "data"
LINKS = 120


def row(opening: float, hold: float) -> dict[str, float]:
    """Return the figures of one strip."""
    span = opening * (1.0 - 2.0 * hold)
    free = rod.bent(span, links=LINKS)
    for held in np.arange(0.02, hold + 1e-9, 0.01):
        free = rod.bent(span, float(held), links=LINKS, start=free)
    free = rod.bent(span, hold, links=LINKS, start=free) if hold else free
    critical = rod.sway_weight(free, span, hold, links=LINKS)
    some = 0.2 * critical
    loaded = rod.bent(span, hold, some, some, LINKS, free)
    one = free
    for share in (0.25, 0.5, 0.75, 1.0):
        one = rod.bent(span, hold, some * share, 0.0, LINKS, one)
    top = int(np.argmax(free.y))
    return {
        "opening": opening,
        "hold": hold,
        "rise": free.y.max(),
        "foot": free.foot,
        "tie": free.tie,
        "curvature": free.curvature,
        "widest": free.x.max() - free.x.min(),
        "energy": free.energy,
        "sway": critical,
        "drop": (free.y.max() - loaded.y.max()) / some,
        "tie_gain": (max(one.tie, one.other_tie, key=abs) - free.tie) / some,
        "shift": (one.x[top] - free.x[top]) / some,
    }


def clamped(opening: float) -> dict[str, float]:
    """Return the figures of one strip whose ends are held upright; moments at its ends bend their legs
    outward.
    """
    free = rod.bent(opening, links=LINKS, start=rod.bent(0.5, links=LINKS), clamped=True)
    critical = rod.sway_weight(free, opening, 0.0, links=LINKS, clamped=True)
    some = 0.2 * critical
    loaded = rod.bent(opening, 0.0, some, some, LINKS, free, clamped=True)
    one = free
    for share in (0.25, 0.5, 0.75, 1.0):
        one = rod.bent(opening, 0.0, some * share, 0.0, LINKS, one, clamped=True)
    top = int(np.argmax(free.y))
    return {
        "opening": opening,
        "rise": free.y.max(),
        "thrust": free.foot,
        "moment": free.clamp,
        "curvature": free.curvature,
        "widest": free.x.max() - free.x.min(),
        "energy": free.energy + free.clamp**2 / (2 * LINKS),
        "sway": critical,
        "drop": (free.y.max() - loaded.y.max()) / some,
        "thrust_gain": (one.foot - free.foot) / some,
        "moment_gain": (one.clamp - free.clamp) / some,
        "shift": (one.x[top] - free.x[top]) / some,
    }


def written(name: str, rows: list[dict[str, float]]) -> None:
    """Write one table."""
    with (DATA / name).open("w", newline="", encoding="utf-8") as handle:
        writer = csv.DictWriter(handle, [*rows[0], "source", "certainty"], lineterminator="\n")
        writer.writeheader()
        writer.writerows(
            {
                **{k: f"{value:.5g}" for k, value in each.items()},
                "source": "handbook-8.2",
                "certainty": "certain",
            }
            for each in rows
        )


def main() -> None:
    """Write the tables, or the one that is asked for."""
    if "clamped" not in sys.argv[1:]:
        lines = []
        for hold in HOLDS:
            for opening in OPENINGS:
                try:
                    lines.append(row(float(opening), hold))
                except (ArithmeticError, np.linalg.LinAlgError) as error:
                    sys.exit(f"opening {opening}, hold {hold}: {error}")
        written("arches.csv", lines)
    written(
        "clamped_arches.csv",
        [clamped(float(opening)) for opening in np.round(np.arange(0.15, 0.801, 0.025), 3)],
    )


if __name__ == "__main__":
    main()

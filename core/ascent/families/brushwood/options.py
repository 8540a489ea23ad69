"""Brushwood: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...plan.fields import Typed

KEY = "brushwood"


class BrushwoodOptions(Typed):
    """What must be decided of brushwood. Lengths in metres."""

    length: float = measure("row", "length", 3.0, 0.2, 20.0, 0.05, own_choice=True)
    pattern: Literal["upright", "crossed", "ring", "starter"] = choice("row", "crossed", own_choice=True)
    stick: Annotated[str, row_of("posts", "brush")] = item("sticks", "posts", "brush_12", "brush")
    stick_length: float = measure(
        "sticks", "length", 1.2, 0.4, 1.8, 0.05, tries=(-0.2, -0.3), own_choice=True
    )
    in_soil: float = measure("sticks", "length", 0.25, 0.05, 0.6, 0.01, tries=DEEPER)
    stick_spacing: float = measure("sticks", "length", 0.20, 0.05, 0.6, 0.01, tries=(-0.05, -0.1))
    season: int = measure("sticks", "count", 1, 1, 3, 1, own_choice=True)
    tied: Literal["none", "string", "cane"] = choice("tied", "string")
    twine: Annotated[str, row_of("twines", "run")] = item(
        "tied", "twines", "sisal_2.5", "run", when=("tied", ("string",))
    )
    cane: Annotated[str, row_of("posts", "rung")] = item(
        "tied", "posts", "cane_12", "rung", when=("tied", ("cane",))
    )
    end_stake: Annotated[str, row_of("posts", "stake")] = item(
        "tied", "posts", "post_sw_stake_25", "stake", when=("tied", ("string", "cane"))
    )
    end_depth: float = measure("tied", "length", 0.40, 0.2, 0.8, 0.01, when=("tied", ("string", "cane")))

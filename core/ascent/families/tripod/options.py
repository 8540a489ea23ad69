"""Tripod: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...patterns import raked
from ...plan.fields import Typed

KEY = "tripod"


class TripodOptions(Typed):
    """What must be decided of tripods. Lengths in metres."""

    sets: int = measure("row", "count", 1, 1, 12, 1, own_choice=True)
    set_spacing: float = measure(
        "row", "length", 1.5, 0.4, 3.0, 0.05, when=("sets", tuple(map(str, range(2, 13)))), own_choice=True
    )
    legs: int = measure("poles", "count", 4, 3, 8, 1, tries=(1, 2))
    pole: Annotated[str, row_of("posts", "pole")] = item("poles", "posts", "cane_20", "pole")
    pole_length: float = measure("poles", "length", 2.4, 0.9, 3.6, 0.01, tries=(-0.2, -0.4), own_choice=True)
    radius: float = measure("poles", "length", 0.5, 0.08, 0.9, 0.01, tries=(0.1, 0.2))
    post_age: int = measure("poles", "count", 0, 0, 15, 1, own_choice=True)
    in_soil: float = measure("poles", "length", 0.30, 0.05, 0.9, 0.01, tries=DEEPER)
    held: Literal["soil", "rim"] = choice("feet", "soil")
    tail: float = measure("poles", "length", 0.20, 0.05, 0.6, 0.01, own_choice=True)
    crossing: raked.Joint = choice("binding", "lashed")
    binding: Annotated[str, row_of("twines", "run")] = item(
        "binding", "twines", "sisal_2.5", "run", when=("crossing", ("lashed", "notched"))
    )
    rings: int = measure("rings", "count", 3, 0, 8, 1, own_choice=True)
    ring_step: float = measure(
        "rings", "length", 0.5, 0.15, 1.0, 0.01, when=("rings", tuple(map(str, range(1, 9)))), own_choice=True
    )
    laced: Literal["none", "panels"] = choice("rings", "none", own_choice=True)
    spare: int = measure("rings", "count", 0, 0, 6, 1, when=("laced", ("panels",)), own_choice=True)
    ring_twine: Annotated[str, row_of("twines", "run")] = item("rings", "twines", "jute_3", "run")
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("rings", "ties", "twine_jute_3_loop", "stem")
    centre: Literal["none", "stake"] = choice("feet", "none")
    stake: Annotated[str, row_of("posts", "stake")] = item(
        "feet", "posts", "rod_rebar_12", "stake", when=("centre", ("stake",))
    )
    stake_depth: float = measure(
        "feet", "length", 0.6, 0.2, 1.0, 0.01, tries=DEEPER, when=("centre", ("stake",))
    )

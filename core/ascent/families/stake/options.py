"""Stake: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...plan.fields import Typed

KEY = "stake"


class StakeOptions(Typed):
    """What must be decided of a row of stakes. Lengths in metres."""

    length: float = measure("row", "length", 3.6, 0.3, 30.0, 0.05, own_choice=True)
    stake: Annotated[str, row_of("posts", "stake")] = item("stakes", "posts", "post_hw_stake_25", "stake")
    height: float = measure("stakes", "length", 1.3, 0.3, 2.4, 0.01, tries=(-0.1, -0.2), own_choice=True)
    post_age: int = measure("stakes", "count", 0, 0, 15, 1, own_choice=True)
    depth: float = measure("stakes", "length", 0.45, 0.15, 1.2, 0.01, tries=DEEPER)
    setting: Literal["driven", "tamped"] = choice("stakes", "driven")
    offset: float = measure("stakes", "length", 0.08, 0.03, 0.6, 0.01, own_choice=True)
    set_late: int = measure("stakes", "count", 0, 0, 90, 1, own_choice=True)
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("ties", "ties", "twine_jute_3_loop", "stem")
    tie_step: float = measure("ties", "length", 0.25, 0.1, 0.5, 0.01, tries=(-0.05, -0.1))
    stems: int = measure("ties", "count", 1, 1, 4, 1, own_choice=True)
    bar: Literal["none", "bar"] = choice("bar", "none", own_choice=True)
    bar_wood: Annotated[str, row_of("posts", "rail")] = item(
        "bar", "posts", "cane_20", "rail", when=("bar", ("bar",))
    )
    bar_height: float = measure("bar", "length", 1.1, 0.3, 2.2, 0.01, when=("bar", ("bar",)), own_choice=True)

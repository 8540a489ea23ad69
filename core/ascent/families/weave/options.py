"""Weave: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...patterns import posts
from ...plan.fields import Typed

KEY = "weave"


class WeaveOptions(Typed):
    """What must be decided of a weave. Lengths in metres."""

    length: float = measure("row", "length", 6.0, 0.6, 60.0, 0.05, own_choice=True)
    style: Literal["basket", "corral", "eight", "front-back", "ladder"] = choice(
        "runs", "basket", own_choice=True
    )
    half_width: float = measure(
        "runs", "length", 0.30, 0.1, 0.6, 0.01, when=("style", ("corral",)), own_choice=True
    )
    first_run: float = measure("runs", "length", 0.25, 0.1, 0.6, 0.01, own_choice=True)
    run_step: float = measure("runs", "length", 0.20, 0.1, 0.5, 0.01, tries=(-0.05, -0.08))
    top_run: float = measure("runs", "length", 1.05, 0.2, 2.2, 0.01, tries=(0.1, 0.2, -0.1), own_choice=True)
    twine: Annotated[str, row_of("twines", "run")] = item(
        "runs", "twines", "sisal_2.5", "run", when=("style", ("basket", "corral", "eight", "front-back"))
    )
    cane: Annotated[str, row_of("posts", "rail")] = item(
        "runs", "posts", "cane_20", "rail", when=("style", ("ladder",))
    )
    rung_tie: Annotated[str, row_of("ties", "mesh")] = item(
        "runs", "ties", "twine_sisal_loop", "mesh", when=("style", ("ladder",))
    )
    post: Annotated[str, row_of("posts", "post")] = item("posts", "posts", "post_hw_stake_38", "post")
    post_spacing: float = measure("posts", "length", 1.20, 0.3, 3.0, 0.01, tries="bays")
    post_age: int = measure("posts", "count", 0, 0, 15, 1, own_choice=True)
    depth: float = measure("posts", "length", 0.45, 0.15, 1.2, 0.01, tries=DEEPER)
    setting: posts.Setting = choice("posts", "driven")
    ends: Literal["plain", "double", "guy", "strut"] = choice("ends", "double")
    guy_wire: Annotated[str, row_of("wires")] = item("ends", "wires", "wire_soft_14", when=("ends", ("guy",)))
    anchor: Annotated[str, row_of("anchors")] = item(
        "ends", "anchors", "stake_guy_rebar", when=("ends", ("guy",))
    )
    strut: Annotated[str, row_of("posts", "strut")] = item(
        "ends", "posts", "post_sw_stake_38", "strut", when=("ends", ("strut",))
    )
    extension: Literal["none", "canes"] = choice("ends", "none", own_choice=True)

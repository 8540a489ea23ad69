"""A frame: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...plan.fields import Typed

KEY = "a-frame"


_BARS: tuple[str, ...] = ("rungs", "slats")


MESHES: tuple[str, ...] = ("mesh", "bent")


class AFrameOptions(Typed):
    """What must be decided of an A-frame. Lengths in metres."""

    length: float = measure("row", "length", 1.2, 0.6, 4.8, 0.05, own_choice=True)
    leg: float = measure("frame", "length", 2.10, 0.6, 2.44, 0.01, tries=(-0.2, -0.4), own_choice=True)
    spread: float = measure("frame", "length", 1.20, 0.4, 2.0, 0.01, tries=(0.15, 0.3, 0.5))
    faces: Literal["two", "one"] = choice("frame", "two", own_choice=True)
    filled: Literal["mesh", "rungs", "slats", "bent"] = choice("frame", "mesh", own_choice=True)
    mesh: Annotated[str, row_of("meshes")] = item("frame", "meshes", "net_pp_150", when=("filled", MESHES))
    bar: Annotated[str, row_of("posts", "rung")] = item(
        "frame", "posts", "cane_12", "rung", when=("filled", _BARS)
    )
    bar_step: float = measure(
        "frame", "length", 0.18, 0.05, 0.5, 0.01, when=("filled", _BARS), own_choice=True
    )
    frame_wood: Annotated[str, row_of("posts", "frame")] = item(
        "frame", "posts", "post_sw_stake_38", "frame", when=("filled", ("mesh", *_BARS))
    )
    rail_spacing: float = measure("frame", "length", 1.2, 0.3, 2.4, 0.01, tries="bays")
    hang: Literal["outside", "inside"] = choice("crop", "outside", own_choice=True)
    sling: Annotated[str, row_of("fittings", "sling")] = item("crop", "fittings", "sling_knotted", "sling")
    sling_legs: int = measure("crop", "count", 2, 1, 4, 1, own_choice=True)
    sling_angle: float = measure("crop", "angle", 60.0, 20.0, 90.0, 5.0, own_choice=True)
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("crop", "ties", "twine_jute_3_loop", "stem")
    tie: Annotated[str, row_of("ties", "mesh")] = item(
        "crop", "ties", "twine_sisal_loop", "mesh", when=("filled", ("mesh",))
    )
    hinge: Annotated[str, row_of("fittings", "hinge")] = item(
        "frame", "fittings", "hinge_strap_150", "hinge", when=("filled", ("mesh", *_BARS))
    )
    foot_tie: Literal["none", "bar", "cord"] = choice("feet", "cord")
    cord: Annotated[str, row_of("twines", "run")] = item(
        "feet", "twines", "polyester_3", "run", when=("foot_tie", ("cord",))
    )
    foot: Literal["none", "stake", "cleat", "anchor"] = choice("feet", "stake")
    stake: Annotated[str, row_of("posts", "stake")] = item(
        "feet", "posts", "post_sw_stake_38", "stake", when=("foot", ("stake",))
    )
    in_soil: float = measure("feet", "length", 0.45, 0.2, 1.0, 0.01, tries=DEEPER, when=("foot", ("stake",)))
    setting: Literal["driven", "tamped"] = choice("feet", "driven", when=("foot", ("stake",)))
    cleat: Annotated[str, row_of("fittings", "foot")] = item(
        "feet", "fittings", "cleat_wood", "foot", when=("foot", ("cleat",))
    )
    anchor: Annotated[str, row_of("anchors")] = item(
        "feet", "anchors", "anchor_screw_15x3", when=("foot", ("anchor",))
    )
    brace: Literal["none", "diagonal"] = choice("feet", "diagonal")
    brace_wire: Annotated[str, row_of("wires")] = item(
        "feet", "wires", "wire_soft_14", when=("brace", ("diagonal",))
    )

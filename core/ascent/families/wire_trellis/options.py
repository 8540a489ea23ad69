"""Wire trellis: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...patterns import posts
from ...patterns.end_assembly import Kind
from ...plan.fields import Typed

KEY = "wire-trellis"
GUYED = ("guy", "lean")


class WireTrellisOptions(Typed):
    """What must be decided of a wire trellis. Lengths in metres, forces in newtons, angles in degrees."""

    length: float = measure("row", "length", 12.0, 2.0, 60.0, 0.05, own_choice=True)
    lines: Literal["single", "tee"] = choice("row", "single", own_choice=True)
    arm: float = measure("row", "length", 0.9, 0.5, 1.2, 0.01, when=("lines", ("tee",)), own_choice=True)
    arm_wood: Annotated[str, row_of("posts", "strut")] = item(
        "row", "posts", "post_lumber_38x89", "strut", when=("lines", ("tee",))
    )
    knee: Annotated[str, row_of("fittings", "joint")] = item(
        "row", "fittings", "bolt_carriage_m8", "joint", when=("lines", ("tee",))
    )
    top_height: float = measure(
        "wires", "length", 2.0, 0.6, 2.5, 0.01, tries=(-0.1, -0.2, -0.3), own_choice=True
    )
    wires: int = measure("wires", "count", 1, 1, 4, 1, own_choice=True)
    wire_step: float = measure(
        "wires", "length", 0.45, 0.2, 0.9, 0.01, when=("wires", ("2", "3", "4")), own_choice=True
    )
    wire: Annotated[str, row_of("wires")] = item("wires", "wires", "wire_ht_125")
    pretension: float = measure("wires", "force", 300.0, 50.0, 1000.0, 10.0, tries=(-100.0, -200.0))
    tensioner: Annotated[str, row_of("fittings", "tensioner")] = item(
        "wires", "fittings", "strainer_ratchet", "tensioner"
    )
    safety_wire: bool = choice("wires", True)
    crop_on: Literal["strings", "wires"] = choice("strings", "strings", own_choice=True)
    string: Annotated[str, row_of("twines", "string")] = item(
        "strings", "twines", "pp_greenhouse", "string", when=("crop_on", ("strings",))
    )
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("strings", "ties", "clip_spring_small", "stem")
    base: Annotated[str, row_of("fittings", "peg")] = item(
        "strings", "fittings", "peg_wire", "peg", when=("crop_on", ("strings",))
    )
    starter: Literal["none", "brush"] = choice("strings", "none", own_choice=True)
    post: Annotated[str, row_of("posts", "post")] = item("posts", "posts", "post_round_75", "post")
    post_spacing: float = measure("posts", "length", 3.0, 1.2, 6.0, 0.01, tries="bays")
    post_age: int = measure("posts", "count", 0, 0, 15, 1, own_choice=True)
    depth: float = measure("posts", "length", 0.60, 0.3, 1.2, 0.01, tries=DEEPER)
    setting: posts.Setting = choice("posts", "tamped")
    seat: Annotated[str, row_of("fittings", "seat")] = item("posts", "fittings", "nails_bent", "seat")
    props: bool = choice("posts", False)
    prop: Annotated[str, row_of("posts", "post")] = item(
        "posts", "posts", "tube_emt_25", "post", when=("props", ("true",))
    )
    ends: Kind = choice("ends", "lean")
    end_post: Annotated[str, row_of("posts", "post")] = item("ends", "posts", "post_round_100", "post")
    end_depth: float = measure("ends", "length", 0.80, 0.3, 1.2, 0.01, tries=DEEPER)
    lean: float = measure("ends", "angle", 70.0, 60.0, 85.0, 1.0, when=("ends", ("lean",)))
    guy_angle: float = measure(
        "ends", "angle", 45.0, 30.0, 60.0, 1.0, tries=(-5.0, -10.0), when=("ends", GUYED)
    )
    guy_wire: Annotated[str, row_of("wires")] = item(
        "ends", "wires", "wire_soft_9", when=("ends", (*GUYED, "brace"))
    )
    anchor: Annotated[str, row_of("anchors")] = item(
        "ends", "anchors", "deadman_stones_60", when=("ends", GUYED)
    )
    strut: Annotated[str, row_of("posts", "strut")] = item(
        "ends", "posts", "post_round_75", "strut", when=("ends", ("strut", "brace"))
    )

"""Existing: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import choice, item, measure, row_of
from ...plan.fields import Typed

KEY = "existing"


class ExistingOptions(Typed):
    """What must be decided of something that stands already. Lengths in metres."""

    fixed_to: Literal["wall", "fence", "pole"] = choice("host", "wall", own_choice=True)
    owner: Literal["mine", "agreed", "not-asked"] = choice("host", "mine", own_choice=True)
    state: Literal["sound", "tired", "rotten"] = choice("host", "sound", own_choice=True)
    length: float = measure(
        "row", "length", 3.0, 0.3, 20.0, 0.05, when=("fixed_to", ("wall", "fence")), own_choice=True
    )
    height: float = measure(
        "row",
        "length",
        2.0,
        0.5,
        3.0,
        0.01,
        tries=(-0.2, -0.4),
        when=("fixed_to", ("wall", "fence")),
        own_choice=True,
    )
    offset: float = measure(
        "wires", "length", 0.08, 0.03, 0.2, 0.01, when=("fixed_to", ("wall", "fence")), own_choice=True
    )
    wires: int = measure(
        "wires", "count", 6, 1, 10, 1, tries=(1, 2), when=("fixed_to", ("wall", "fence")), own_choice=True
    )
    wire: Annotated[str, row_of("wires")] = item(
        "wires", "wires", "wire_soft_14", when=("fixed_to", ("wall", "fence"))
    )
    fix_spacing: float = measure(
        "wires", "length", 1.5, 0.4, 2.4, 0.01, tries="bays", when=("fixed_to", ("wall", "fence"))
    )
    eye: Annotated[str, row_of("fittings", "wall-eye")] = item(
        "wires", "fittings", "vine_eye_80", "wall-eye", when=("fixed_to", ("wall", "fence"))
    )
    infill: Literal["none", "strings"] = choice(
        "wires", "none", when=("fixed_to", ("wall", "fence")), own_choice=True
    )
    string: Annotated[str, row_of("twines", "string")] = item("wires", "twines", "sisal_2.5", "string")
    base: Annotated[str, row_of("fittings", "peg")] = item("wires", "fittings", "peg_wire", "peg")
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("wires", "ties", "twine_jute_3_loop", "stem")
    boards: Literal["closed", "gaps", "mesh"] = choice(
        "fence", "closed", when=("fixed_to", ("fence",)), own_choice=True
    )
    fence_height: float = measure(
        "fence", "length", 1.8, 0.5, 2.4, 0.01, when=("fixed_to", ("fence",)), own_choice=True
    )
    fence_post: Annotated[str, row_of("posts", "post")] = item(
        "fence", "posts", "post_lumber_89", "post", when=("fixed_to", ("fence",)), own_choice=True
    )
    fence_spacing: float = measure(
        "fence", "length", 1.8, 0.6, 3.0, 0.01, when=("fixed_to", ("fence",)), own_choice=True
    )
    fence_depth: float = measure(
        "fence", "length", 0.6, 0.2, 1.2, 0.01, when=("fixed_to", ("fence",)), own_choice=True
    )
    pole: Annotated[str, row_of("posts", "tall")] = item(
        "pole", "posts", "pole_tube_60", "tall", when=("fixed_to", ("pole",))
    )
    pole_top: float = measure(
        "pole",
        "length",
        5.0,
        2.0,
        7.0,
        0.05,
        tries=(-0.5, -1.0),
        when=("fixed_to", ("pole",)),
        own_choice=True,
    )
    pole_depth: float = measure(
        "pole", "length", 1.2, 0.5, 1.8, 0.05, tries=(0.2, 0.4), when=("fixed_to", ("pole",))
    )
    guyed: bool = choice("pole", False, when=("fixed_to", ("pole",)))
    guy_wire: Annotated[str, row_of("wires")] = item(
        "pole", "wires", "wire_soft_9", when=("guyed", ("true",))
    )
    anchor: Annotated[str, row_of("anchors")] = item(
        "pole", "anchors", "anchor_screw_30x4", when=("guyed", ("true",))
    )
    lowered: bool = choice("pole", True, when=("fixed_to", ("pole",)), own_choice=True)

"""Bed frame: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import choice, item, measure, row_of
from ...plan.fields import Typed

KEY = "bed-frame"


class BedFrameOptions(Typed):
    """What must be decided of a frame on a bed. Lengths in metres."""

    length: float = measure("row", "length", 2.4, 0.4, 12.0, 0.05, own_choice=True)
    sides: Literal["one", "both"] = choice("row", "both", own_choice=True)
    post: Annotated[str, row_of("posts", "frame")] = item("posts", "posts", "post_sw_stake_38", "frame")
    post_age: int = measure("posts", "count", 0, 0, 15, 1, own_choice=True)
    height: float = measure("posts", "length", 1.5, 0.5, 2.4, 0.01, tries=(-0.15, -0.3), own_choice=True)
    post_spacing: float = measure("posts", "length", 0.60, 0.3, 1.5, 0.01, tries="bays")
    crossbar: Literal["none", "top", "top-mid"] = choice("posts", "top", when=("sides", ("both",)))
    infill: Literal["none", "strings", "mesh"] = choice("crop", "none", own_choice=True)
    mesh: Annotated[str, row_of("meshes")] = item("crop", "meshes", "panel_large", when=("infill", ("mesh",)))
    tie: Annotated[str, row_of("ties", "mesh")] = item(
        "crop", "ties", "tie_wire_16_double", "mesh", when=("infill", ("mesh",))
    )
    string: Annotated[str, row_of("twines", "string")] = item(
        "crop", "twines", "pp_greenhouse", "string", when=("infill", ("strings",))
    )
    rail: Annotated[str, row_of("posts", "rail")] = item(
        "crop", "posts", "post_sw_stake_38", "rail", when=("infill", ("strings",))
    )
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("crop", "ties", "twine_jute_3_loop", "stem")
    boards: Literal["bed", "own"] = choice("board", "bed", own_choice=True)
    screw: Annotated[str, row_of("fittings", "board")] = item("board", "fittings", "screw_64", "board")
    screw_rows: int = measure("board", "count", 2, 2, 3, 1, tries=(1,))
    screw_gap: float = measure("board", "length", 0.15, 0.05, 0.3, 0.01, tries=(0.03, 0.05, 0.1))
    backing: Literal["none", "stakes", "ties"] = choice("board", "none")
    backing_step: float = measure(
        "board", "length", 1.2, 0.4, 2.4, 0.05, tries=(-0.3, -0.6), when=("backing", ("stakes", "ties"))
    )
    stake: Annotated[str, row_of("posts", "stake")] = item(
        "board", "posts", "post_sw_stake_38", "stake", when=("backing", ("stakes",))
    )
    brace: Literal["none", "diagonal"] = choice("board", "none")
    brace_wire: Annotated[str, row_of("wires")] = item(
        "board", "wires", "wire_soft_14", when=("brace", ("diagonal",))
    )
    set_late: int = measure("row", "count", 0, 0, 90, 1, own_choice=True)

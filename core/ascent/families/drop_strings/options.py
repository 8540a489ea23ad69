"""Drop strings: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...patterns import posts
from ...plan.fields import Typed

KEY = "drop-strings"
_ON_POSTS = ("beam", "wire")


class DropStringsOptions(Typed):
    """What must be decided of drop strings. Lengths in metres, loads in newtons per metre."""

    length: float = measure("top", "length", 3.0, 0.6, 30.0, 0.05, own_choice=True)
    top: Literal["beam", "wire", "house"] = choice("top", "beam", own_choice=True)
    top_height: float = measure("top", "length", 2.10, 1.0, 3.2, 0.01, tries=(-0.1, -0.2), own_choice=True)
    beam: Annotated[str, row_of("posts", "rail")] = item(
        "top", "posts", "post_lumber_38x89", "rail", when=("top", ("beam",))
    )
    wire: Annotated[str, row_of("wires")] = item("top", "wires", "wire_soft_125", when=("top", ("wire",)))
    doubled: bool = choice("top", True, when=("top", ("wire",)))
    pretension: float = measure(
        "top", "force", 100.0, 20.0, 600.0, 10.0, tries=(-50.0,), when=("top", ("wire",))
    )
    purlin_load: float = measure(
        "top", "line_load", 100.0, 0.0, 2000.0, 10.0, when=("top", ("house",)), own_choice=True
    )
    string: Annotated[str, row_of("twines", "string")] = item("strings", "twines", "pp_greenhouse", "string")
    attach: Literal["clip", "twist"] = choice("strings", "clip")
    stem_tie: Annotated[str, row_of("ties", "stem")] = item(
        "strings", "ties", "clip_spring_small", "stem", when=("attach", ("clip",))
    )
    hung_by: Literal["knot", "hook"] = choice("strings", "knot")
    hook: Annotated[str, row_of("fittings", "string-top")] = item(
        "strings", "fittings", "hook_s_4", "string-top", when=("hung_by", ("hook",))
    )
    foot_held: Literal["peg", "loop"] = choice("strings", "peg")
    base: Annotated[str, row_of("fittings", "peg")] = item(
        "strings", "fittings", "peg_wire", "peg", when=("foot_held", ("peg",))
    )
    lower: bool = choice("strings", False, own_choice=True)
    stem_length: float = measure(
        "strings", "length", 3.5, 1.5, 10.0, 0.1, when=("lower", ("true",)), own_choice=True
    )
    zigzag: float = measure("strings", "length", 0.0, 0.0, 0.6, 0.01, own_choice=True)
    post: Annotated[str, row_of("posts", "post")] = item(
        "posts", "posts", "post_lumber_89", "post", when=("top", _ON_POSTS)
    )
    post_spacing: float = measure(
        "posts", "length", 2.4, 0.6, 4.0, 0.01, tries="bays", when=("top", _ON_POSTS)
    )
    footing: Literal["soil", "bed"] = choice("posts", "soil", when=("top", _ON_POSTS))
    post_age: int = measure("posts", "count", 0, 0, 15, 1, when=("top", _ON_POSTS), own_choice=True)
    depth: float = measure("posts", "length", 0.60, 0.2, 1.2, 0.01, tries=DEEPER, when=("footing", ("soil",)))
    setting: posts.Setting = choice("posts", "tamped", when=("footing", ("soil",)))
    screws: Annotated[str, row_of("fittings", "joint")] = item(
        "posts", "fittings", "screws_76_pair", "joint", when=("footing", ("bed",))
    )
    screw_gap: float = measure(
        "posts", "length", 0.15, 0.05, 0.4, 0.01, tries=(0.05, 0.1, 0.2), when=("footing", ("bed",))
    )
    uprights: Literal["alone", "pair", "knees"] = choice("posts", "alone", when=("footing", ("bed",)))
    joint: Annotated[str, row_of("fittings", "joint")] = item(
        "posts", "fittings", "bolt_carriage_m8", "joint", when=("top", ("beam",))
    )
    prop: bool = choice("posts", False, when=("top", _ON_POSTS))
    brace: Literal["none", "diagonal", "back-tie"] = choice("ends", "diagonal", when=("top", ("beam",)))
    ends: Literal["plain", "guy", "strut", "top-brace"] = choice("ends", "guy", when=("top", ("wire",)))
    guy_wire: Annotated[str, row_of("wires")] = item("ends", "wires", "wire_soft_9", when=("ends", ("guy",)))
    anchor: Annotated[str, row_of("anchors")] = item(
        "ends", "anchors", "deadman_stones_30", when=("ends", ("guy",))
    )
    strut: Annotated[str, row_of("posts", "strut")] = item(
        "ends", "posts", "post_sw_stake_38", "strut", when=("ends", ("strut", "top-brace"))
    )

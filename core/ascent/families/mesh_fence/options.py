"""Mesh fence: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...patterns import backs, course, posts
from ...plan.fields import Typed

KEY = "mesh-fence"


class MeshFenceOptions(Typed):
    """What must be decided of a mesh fence. Lengths in metres."""

    length: float = measure("mesh", "length", 3.6, 0.3, 30.0, 0.05, own_choice=True)
    plan: course.Plan = choice("mesh", "straight", own_choice=True)
    swing: float = measure(
        "mesh", "length", 0.3, 0.1, 0.6, 0.01, when=("plan", course.FOLDED), own_choice=True
    )
    arms: float = measure("mesh", "length", 0.9, 0.5, 2.0, 0.05, when=("plan", ("u",)), own_choice=True)
    mesh: Annotated[str, row_of("meshes")] = item("mesh", "meshes", "panel_large", own_choice=True)
    mesh_height: float = measure(
        "mesh", "length", 1.27, 0.3, 3.05, 0.01, tries=(-0.15, -0.3), own_choice=True
    )
    bottom_gap: float = measure("mesh", "length", 0.15, 0.0, 0.5, 0.01, own_choice=True)
    post: Annotated[str, row_of("posts", "post")] = item("posts", "posts", "tpost_2.1", "post")
    post_spacing: float = measure("posts", "length", 1.22, 0.3, 4.0, 0.01, tries="bays")
    stood: Literal["posted", "middle"] = choice("posts", "posted", own_choice=True)
    post_age: int = measure("posts", "count", 0, 0, 15, 1, own_choice=True)
    depth: float = measure("posts", "length", 0.60, 0.15, 1.2, 0.01, tries=DEEPER)
    setting: posts.Setting = choice("posts", "driven")
    leaned_on: bool = choice("posts", False, own_choice=True)
    tie: Annotated[str, row_of("ties", "mesh")] = item("ties", "ties", "tie_wire_16_double", "mesh")
    ties_per_post: int = measure("ties", "count", 4, 2, 12, 1, tries=(1, 2, 4))
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("ties", "ties", "twine_jute_3_loop", "stem")
    woven: Literal["none", "front"] = choice("ties", "none", own_choice=True)
    run_step: float = measure(
        "ties", "length", 0.30, 0.15, 0.6, 0.01, when=("woven", ("front",)), own_choice=True
    )
    twine: Annotated[str, row_of("twines", "run")] = item(
        "ties", "twines", "sisal_2.5", "run", when=("woven", ("front",))
    )
    tie_back: backs.How = choice("back", "none", own_choice=True)
    back_to: backs.To = choice("back", "fence", when=("tie_back", ("cord", "batten")), own_choice=True)
    back_height: float = measure(
        "back", "length", 0.9, 0.3, 2.4, 0.01, tries=(0.2, 0.4), when=("tie_back", ("cord", "batten"))
    )
    back_reach: float = measure(
        "back", "length", 0.4, 0.05, 3.0, 0.05, when=("tie_back", ("cord", "batten")), own_choice=True
    )
    back_cord: Annotated[str, row_of("twines", "run")] = item(
        "back", "twines", "polyester_3", "run", when=("tie_back", ("cord",))
    )
    top: Literal["none", "wire", "rail"] = choice("ends", "none")
    wire: Annotated[str, row_of("wires")] = item("ends", "wires", "wire_soft_125", when=("top", ("wire",)))
    rail: Annotated[str, row_of("posts", "rail")] = item(
        "ends", "posts", "tube_emt_20", "rail", when=("top", ("rail",))
    )
    ends: Literal["plain", "guy", "strut"] = choice("ends", "plain")
    guy_wire: Annotated[str, row_of("wires")] = item(
        "ends", "wires", "wire_soft_125", when=("ends", ("guy",))
    )
    anchor: Annotated[str, row_of("anchors")] = item(
        "ends", "anchors", "anchor_screw_30x4", when=("ends", ("guy",))
    )
    strut: Annotated[str, row_of("posts", "strut")] = item(
        "ends", "posts", "post_sw_stake_38", "strut", when=("ends", ("strut",))
    )

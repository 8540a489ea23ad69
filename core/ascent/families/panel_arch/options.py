"""Panel arch: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...plan.fields import Typed

KEY = "panel-arch"


class PanelArchOptions(Typed):
    """What must be decided of a panel arch. Lengths in metres."""

    panel: Annotated[str, row_of("meshes")] = item("panel", "meshes", "panel_large", own_choice=True)
    frame: Literal["sprung", "tubes"] = choice("panel", "sprung", own_choice=True)
    panel_length: float = measure(
        "panel", "length", 4.88, 2.0, 6.1, 0.01, when=("frame", ("sprung",)), own_choice=True
    )
    panel_width: float = measure(
        "panel", "length", 1.27, 0.6, 1.5, 0.01, when=("frame", ("sprung",)), own_choice=True
    )
    panels: int = measure("panel", "count", 1, 1, 6, 1, when=("frame", ("sprung",)), own_choice=True)
    overlap: float = measure(
        "panel", "length", 0.20, 0.0, 0.6, 0.01, when=("panels", ("2", "3", "4", "5", "6")), own_choice=True
    )
    lap_tie: Annotated[str, row_of("ties", "mesh")] = item(
        "panel", "ties", "tie_cable_7.6_uv", "mesh", when=("panels", ("2", "3", "4", "5", "6"))
    )
    tube: Annotated[str, row_of("posts", "arch")] = item(
        "arch", "posts", "tube_arch_16", "arch", when=("frame", ("tubes",))
    )
    tube_rise: float = measure(
        "arch", "length", 2.2, 1.2, 2.8, 0.01, when=("frame", ("tubes",)), own_choice=True
    )
    arches: int = measure("arch", "count", 2, 2, 8, 1, when=("frame", ("tubes",)), own_choice=True)
    arch_spacing: float = measure(
        "arch", "length", 1.0, 0.4, 1.5, 0.05, tries=(-0.1, -0.2, -0.3), when=("frame", ("tubes",))
    )
    clad: float = measure("arch", "length", 2.0, 0.5, 3.0, 0.05, when=("frame", ("tubes",)), own_choice=True)
    clad_tie: Annotated[str, row_of("ties", "mesh")] = item(
        "arch", "ties", "tie_cable_7.6_uv", "mesh", when=("frame", ("tubes",))
    )
    over_wire: Annotated[str, row_of("wires")] = item(
        "arch", "wires", "wire_soft_14", when=("frame", ("tubes",))
    )
    over_gap: float = measure(
        "arch", "length", 0.25, 0.15, 0.30, 0.01, when=("frame", ("tubes",)), own_choice=True
    )
    over: Literal["one-bed", "path"] = choice("arch", "one-bed", own_choice=True)
    headroom: float = measure("arch", "length", 1.8, 0.0, 2.4, 0.01, own_choice=True)
    span: float = measure("arch", "length", 1.22, 0.6, 2.6, 0.01, tries=(-0.15, 0.15, 0.3), own_choice=True)
    hold: Literal["held", "clamped", "free"] = choice("arch", "held")
    hold_height: float = measure(
        "arch", "length", 0.91, 0.15, 1.3, 0.01, tries=(0.15, 0.3, -0.15), when=("hold", ("held", "clamped"))
    )
    foot: Literal["posts", "board", "block", "buried"] = choice("feet", "posts")
    panel_side: Literal["inside", "outside"] = choice("feet", "inside", when=("foot", ("posts",)))
    post: Annotated[str, row_of("posts", "post")] = item(
        "feet", "posts", "tpost_light_1.5", "post", when=("foot", ("posts",))
    )
    depth: float = measure("feet", "length", 0.60, 0.2, 1.2, 0.01, tries=DEEPER, when=("foot", ("posts",)))
    setting: Literal["driven", "tamped"] = choice("feet", "driven", when=("foot", ("posts",)))
    inset: float = measure(
        "feet", "length", 0.125, 0.0, 0.3, 0.005, when=("foot", ("posts",)), own_choice=True
    )
    tie: Annotated[str, row_of("ties", "mesh")] = item(
        "feet", "ties", "clip_tpost", "mesh", when=("foot", ("posts",))
    )
    ties_per_post: int = measure("feet", "count", 2, 1, 6, 1, tries=(1, 2), when=("foot", ("posts",)))
    board: Annotated[str, row_of("posts", "rail")] = item(
        "feet", "posts", "post_lumber_38x140", "rail", when=("foot", ("board",))
    )
    cleat: Annotated[str, row_of("fittings", "foot")] = item(
        "feet", "fittings", "cleat_wood", "foot", when=("foot", ("board",))
    )
    courses: int = measure("feet", "count", 1, 1, 2, 1, tries=(1,), when=("foot", ("block",)))
    buried: float = measure("feet", "length", 0.25, 0.1, 0.6, 0.01, tries=DEEPER, when=("foot", ("buried",)))
    cover: Literal["none", "shade_50", "sheet"] = choice("cover", "none", own_choice=True)
    sling: Annotated[str, row_of("fittings", "sling")] = item("cover", "fittings", "sling_knotted", "sling")
    strung: Literal["none", "inside"] = choice("cover", "none", own_choice=True)
    string: Annotated[str, row_of("twines", "string")] = item(
        "cover", "twines", "sisal_2.5", "string", when=("strung", ("inside",))
    )
    sling_legs: int = measure("cover", "count", 2, 1, 4, 1, own_choice=True)
    sling_angle: float = measure("cover", "angle", 60.0, 20.0, 90.0, 5.0, own_choice=True)
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("cover", "ties", "twine_jute_3_loop", "stem")

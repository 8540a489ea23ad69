"""Ways of building whose fate is known, as plans: what stood, for how many seasons, and what failed, by which link.

Common practice, no source, unless a line says otherwise: growers' set-ups at ordinary sites, firm loam dug over in spring.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ascent.plan.model import Bed, Garden, Planting, Site, Structure


@dataclass(frozen=True)
class SetUp:
    """One way of building: where and what, and the seasons it stood, or the links of which one was seen to go."""

    key: str
    words: str
    site: Site
    structure: Structure
    stood: int = 0
    went: tuple[str, ...] = ()


def _bed(**more: Any) -> Site:
    bed = Bed(key="bed", name="Bed", **{"length": 12.0, "width": 1.2, "soil": "firm_loam", **more})
    return Site(garden=Garden(name="Garden", exposure="ordinary", beds=(bed,)), bed=bed)


def _boxed(long: float = 3.2, high: float = 0.28) -> Site:
    return _bed(kind="raised", length=long, fill_depth=high, board=0.038)


def _pot() -> Site:
    return _bed(kind="container", length=1.2, width=0.4, fill_depth=0.4, fill="raised_bed_mix")


def _built(family: str, crop: str, count: int, spacing: float, side: str = "right", training: str = "pruned", **options: Any) -> Structure:
    planted = {"pea-tall": "03-20", "fava": "03-20"}.get(crop, "05-04")
    planting = Planting(key="p1", crop=crop, count=count, spacing=spacing, side=side, training=training, planted=planted)
    return Structure(key="it", name="It", family=family, options=options, plantings=(planting,))


_OPEN = _bed()
_TURNBUCKLED = {
    "length": 6.0, "lines": "tee", "wire": "wire_soft_125", "post": "post_lumber_89_treated", "end_post": "post_lumber_89_treated",
    "post_spacing": 3.0, "props": True, "ends": "guy", "setting": "concrete", "anchor": "anchor_screw_30x4", "pretension": 300.0,
}  # fmt: skip

STOOD = (
    SetUp("s1", "arch of one livestock panel over 1.2 m, feet only against filled blocks", _OPEN,
          _built("panel-arch", "butternut", 6, 0.4, "both", span=1.2, foot="block", hold="held", courses=2), stood=2),
    SetUp("s2", "the same on four light T-posts, tied twice with doubled wire", _OPEN,
          _built("panel-arch", "butternut", 6, 0.4, "both", span=1.2, foot="posts", depth=0.61, tie="tie_wire_16_double", ties_per_post=2), stood=2),
    SetUp("s3", "fence of welded roll on T-posts every 1.07 m, unpruned slicing tomatoes", _OPEN,
          _built("mesh-fence", "tom-slicer", 8, 0.6, training="free", length=5.35, mesh="weld_50x100_14", mesh_height=1.5, bottom_gap=0.05,
                 post="tpost_2.1", post_spacing=1.07, depth=0.46, ties_per_post=4), stood=2),
    SetUp("s4", "one 2.4 m bay of welded roll on two T-posts", _OPEN,
          _built("mesh-fence", "tom-slicer", 4, 0.6, length=2.4, mesh="weld_50x100_14", mesh_height=1.5, bottom_gap=0.05, post="tpost_2.1",
                 post_spacing=2.4, depth=0.46, ties_per_post=4), stood=4),
    SetUp("s5", "concrete mesh 0.3 m off the ground on T-posts every 1.2 m, beefsteak tomatoes", _OPEN,
          _built("mesh-fence", "tom-beef", 8, 0.6, length=4.8, mesh="mesh_conc_150_5", mesh_height=1.2, bottom_gap=0.3, post="tpost_2.4",
                 post_spacing=1.2, depth=0.61, ties_per_post=4), stood=5),
    SetUp("s6", "roll 0.9 m high on stakes every 1.2 m, bush cucumbers", _OPEN,
          _built("mesh-fence", "cuc-bush", 10, 0.3, length=3.6, mesh="weld_50x100_14", mesh_height=0.9, bottom_gap=0.05,
                 post="post_sw_stake_38", post_spacing=1.2, depth=0.4, ties_per_post=3, tie="staple_fence_30"), stood=1),
    SetUp("s7", "barbed line wire, poles every 6 m, leaning ends on buried stones, strings", _bed(soil="firm_clay", length=30.0),
          _built("wire-trellis", "tom-slicer", 20, 0.6, length=12.0, top_height=1.5, wire="wire_barbed_125", post="post_round_75",
                 post_spacing=6.0, depth=0.5, ends="lean", end_post="post_round_75", end_depth=0.5, anchor="deadman_stones_30",
                 guy_wire="wire_barbed_125", string="sisal_2.5"), stood=1),
    SetUp("s8", "two wires on arms, posts in concrete, screw anchors, middle props, tomatoes on both lines", _OPEN,
          _built("wire-trellis", "tom-slicer", 20, 0.6, "both", **_TURNBUCKLED), stood=3),
    SetUp("s9", "twisted line wires over a bed, uprights screwed to its sides, braced across the top", _boxed(),
          _built("drop-strings", "tom-slicer", 13, 0.46, "both", length=3.0, top="wire", wire="wire_soft_16", doubled=True, top_height=1.95,
                 zigzag=0.46, post="post_sw_stake_38", post_spacing=3.0, footing="bed", screws="screws_76_pair", uprights="pair", ends="top-brace",
                 pretension=20.0, foot_held="loop"), stood=1),
    SetUp("s10", "fence pipe on two T-posts, strings to five pruned tomatoes", _OPEN,
          _built("drop-strings", "tom-slicer", 5, 0.45, length=2.4, top="beam", beam="tube_toprail_35_16", top_height=1.8, post="tpost_2.4",
                 post_spacing=2.4, depth=0.6, setting="driven", brace="none", foot_held="loop"), stood=2),
    SetUp("s11", "basket weave of sisal on T-posts every two plants", _OPEN,
          _built("weave", "tom-slicer", 9, 0.65, length=5.2, style="basket", twine="sisal_2.5", post="tpost_2.4", post_spacing=1.3,
                 depth=0.61, top_run=1.45, ends="plain"), stood=2),
    SetUp("s12", "corral of jute round broad beans", _OPEN,
          _built("weave", "fava", 40, 0.2, "both", length=4.0, style="corral", twine="jute_3", post="post_sw_stake_38", post_spacing=2.0,
                 depth=0.3, top_run=0.85, ends="plain"), stood=5),
    SetUp("s13", "heavy ring cage alone, unpruned indeterminate tomato", _OPEN,
          _built("cage", "tom-slicer", 3, 0.9, training="free", cage="cage_ring_heavy", length=3.0), stood=3),
    SetUp("s14", "thin three-ring cage on sweet peppers", _OPEN,
          _built("cage", "pepper-sweet", 4, 0.45, cage="cage_ring_light_3", length=2.4), stood=3),
    SetUp("s15", "ring cages on bush tomatoes, each with a rod, all tied, 4 × 5", _bed(width=3.0),
          _built("cage", "tom-det", 20, 0.6, cage="cage_ring_light_4", length=3.0, rows=4, row_spacing=0.6, link="diagonal", stakes=1,
                 stake="rod_rebar_10", depth=0.4), stood=3),
    SetUp("s16", "square softwood stake 25 mm, one summer squash", _OPEN,
          _built("stake", "zucchini", 1, 0.9, length=0.9, stake="post_sw_stake_25", height=1.4, depth=0.4), stood=1),
    SetUp("s17", "three coated poles laced with twine, pole beans", _OPEN,
          _built("tripod", "bean-pole", 6, 0.3, legs=3, pole="stake_coated_16", pole_length=2.1, radius=0.45, in_soil=0.2, laced="panels"), stood=1),
    SetUp("s18", "crossed canes, pairs every 0.3 m, ridge cane, runner beans", _OPEN,
          _built("crossed-poles", "bean-runner", 22, 0.3, "both", length=3.0, pair_spacing=0.3, spread=0.6, pole="cane_16", pole_length=2.4,
                 in_soil=0.3, brace="none", ridge_pole="cane_20"), stood=3),
    SetUp("s19", "two slatted sides hinged at the top, nothing driven, cucumbers", _OPEN,
          _built("a-frame", "cuc-slice", 6, 0.4, "both", length=1.2, leg=1.3, spread=0.9, filled="slats", bar="post_sw_stake_22",
                 foot="none", foot_tie="none", hinge="hinge_butt_75", brace="none"), stood=2),
    SetUp("s20", "aluminium tube frame and netting over a raised bed, small pumpkins", _boxed(2.4),
          _built("a-frame", "pumpkin-s", 2, 0.9, "both", length=1.2, leg=1.5, spread=1.2, filled="mesh", mesh="net_nylon_150",
                 frame_wood="tube_alu_25", foot="cleat", foot_tie="none", brace="none"), stood=1),
    SetUp("s21", "ladder mesh bent to hoops, a stake at either end, sweet potatoes", _OPEN,
          _built("hoops", "sweet-potato", 10, 0.35, length=3.6, ladder="ladder_mesh_3", arc=3.05, span=1.2, push_in=0.25, brace="stake"), stood=4),
    SetUp("s22", "beans up sunflowers sown three weeks ahead, one row", _OPEN,
          _built("living-support", "bean-pole", 10, 0.3, host="sunflower", head_start=21, length=3.0, rows=1, host_spacing=0.3), stood=2),
    SetUp("s23", "posts and rails screwed to a raised bed, strings, pole beans", _boxed(2.4),
          _built("bed-frame", "bean-pole", 24, 0.2, "both", length=2.4, sides="both", post="post_lumber_38x89", height=1.8, post_spacing=1.1,
                 crossbar="top", infill="strings", string="sisal_2.5", rail="post_lumber_38x89", screw="screw_76", screw_gap=0.15), stood=3),
    SetUp("s24", "sheet of mesh between two stakes in deep pots, tied back to a fence, peas", _pot(),
          _built("mesh-fence", "pea-tall", 20, 0.05, length=1.0, mesh="weld_75", mesh_height=1.2, bottom_gap=0.05, post="post_sw_stake_38",
                 post_spacing=1.0, depth=0.38, tie="staple_fence_30", ties_per_post=4, tie_back="cord", back_to="fence", back_height=0.9), stood=1),
)  # fmt: skip

FAILED = (
    SetUp("f1", "thin four-ring cage alone under an unpruned indeterminate tomato", _OPEN,
          _built("cage", "tom-slicer", 3, 0.9, training="free", cage="cage_ring_light_4", length=3.0), went=("ring", "tipping")),
    SetUp("f2", "thin four-ring cages side by side under tall bush tomatoes, not tied", _OPEN,
          _built("cage", "tom-det", 5, 0.6, cage="cage_ring_light_4", length=3.0), went=("tipping",)),
    SetUp("f3", "timber A-frame 2.44 m high, nothing driven, tomatoes on both sides", _OPEN,
          _built("a-frame", "tom-slicer", 10, 0.45, "both", length=2.4, leg=2.44, spread=1.2, filled="mesh", mesh="net_nylon_150",
                 foot="none", foot_tie="bar"), went=("foot",)),
    SetUp("f4", "bamboo cane 16 mm alone, 1.8 m up, big cherry tomato", _OPEN,
          _built("stake", "tom-cherry", 3, 0.6, length=1.8, stake="cane_16", height=1.8, depth=0.4), went=("stake",)),
    SetUp("f5", "hoops of ladder mesh joined in a row, no stakes at the ends", _OPEN,
          _built("hoops", "sweet-potato", 10, 0.35, length=3.6, ladder="ladder_mesh_3", arc=3.05, span=1.2, push_in=0.25, brace="none"),
          went=("along",)),
    SetUp("f6", "box frame of light tube, 2.4 m bar without a middle support, five tomatoes", _OPEN,
          _built("drop-strings", "tom-slicer", 5, 0.45, length=2.4, top="beam", beam="tube_emt_15", top_height=1.9, post="tube_emt_25",
                 post_spacing=2.4, depth=0.5, setting="driven"), went=("beam",)),
    SetUp("f7", "arch of light rolled reinforcing mesh under squash", _OPEN,
          _built("panel-arch", "butternut", 6, 0.4, "both", panel="mesh_conc_roll", panel_width=1.5, span=1.2, foot="posts", depth=0.4,
                 tie="tie_wire_16_double"), went=("panel",)),
    SetUp("f8", "stakes in pots with mesh between, not tied back, peas", _pot(),
          _built("mesh-fence", "pea-tall", 20, 0.05, length=1.0, mesh="weld_75", mesh_height=1.2, bottom_gap=0.05, post="post_sw_stake_38",
                 post_spacing=1.0, depth=0.38, tie="staple_fence_30", ties_per_post=4), went=("soil", "end-soil", "pot")),
    SetUp("f9", "cheap light turnbuckles on a loaded twin wire, no wire past them", _OPEN,
          _built("wire-trellis", "tom-slicer", 20, 0.6, "both", tensioner="turnbuckle_hook_m6", safety_wire=False, **_TURNBUCKLED),
          went=("tensioner",)),
    SetUp("f10", "uprights on a bed board by two screws close together", _boxed(2.4),
          _built("bed-frame", "tom-slicer", 8, 0.6, "both", length=2.4, sides="both", post="post_sw_stake_38", height=1.8, post_spacing=0.6,
                 crossbar="none", screw="screw_64", screw_gap=0.05), went=("screws",)),
)  # fmt: skip

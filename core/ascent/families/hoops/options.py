"""Hoops: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...plan.fields import Typed

KEY = "hoops"


class HoopsOptions(Typed):
    """What must be decided of hoops. Lengths in metres."""

    length: float = measure("row", "length", 3.6, 0.3, 20.0, 0.05, own_choice=True)
    hoop_of: Literal["ladder-mesh", "pipe"] = choice("hoop", "ladder-mesh", own_choice=True)
    ladder: Annotated[str, row_of("posts", "ladder")] = item(
        "hoop", "posts", "ladder_mesh_3", "ladder", when=("hoop_of", ("ladder-mesh",))
    )
    pipe: Annotated[str, row_of("posts", "hoop")] = item(
        "hoop", "posts", "pipe_pvc_20", "hoop", when=("hoop_of", ("pipe",))
    )
    arc: float = measure("hoop", "length", 3.05, 1.0, 6.1, 0.01, own_choice=True)
    span: float = measure("hoop", "length", 1.2, 0.4, 2.0, 0.01, own_choice=True)
    hoop_spacing: float = measure("hoop", "length", 0.90, 0.2, 1.5, 0.01, tries="bays")
    push_in: float = measure(
        "feet", "length", 0.25, 0.1, 0.6, 0.01, tries=(0.05, 0.1), when=("hoop_of", ("ladder-mesh",))
    )
    held: Literal["soil", "stakes"] = choice("feet", "soil", when=("hoop_of", ("ladder-mesh",)))
    foot_stake: Annotated[str, row_of("posts", "stake")] = item(
        "feet", "posts", "post_sw_stake_25", "stake", when=("held", ("stakes",))
    )
    foot_depth: float = measure(
        "feet", "length", 0.45, 0.2, 0.9, 0.01, tries=DEEPER, when=("held", ("stakes",))
    )
    rod: Annotated[str, row_of("posts", "rod")] = item(
        "feet", "posts", "rod_rebar_12", "rod", when=("hoop_of", ("pipe",))
    )
    in_soil: float = measure(
        "feet", "length", 0.40, 0.2, 0.9, 0.01, tries=DEEPER, when=("hoop_of", ("pipe",))
    )
    net: Literal["none", "net"] = choice("cover", "none", own_choice=True)
    mesh: Annotated[str, row_of("meshes")] = item("cover", "meshes", "net_pp_150", when=("net", ("net",)))
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("cover", "ties", "twine_jute_3_loop", "stem")
    ridge: Literal["none", "wire", "pole"] = choice("ridge", "wire")
    ridge_wire: Annotated[str, row_of("wires")] = item(
        "ridge", "wires", "wire_soft_14", when=("ridge", ("wire",))
    )
    ridge_pole: Annotated[str, row_of("posts", "rail")] = item(
        "ridge", "posts", "cane_20", "rail", when=("ridge", ("pole",))
    )
    tie: Annotated[str, row_of("ties", "mesh")] = item(
        "ridge", "ties", "tie_wire_16", "mesh", when=("ridge", ("wire", "pole"))
    )
    brace: Literal["none", "diagonal", "stake", "neighbour"] = choice("ends", "diagonal")
    brace_wire: Annotated[str, row_of("wires")] = item(
        "ends", "wires", "wire_soft_14", when=("brace", ("diagonal",))
    )
    stake: Annotated[str, row_of("posts", "stake")] = item(
        "ends", "posts", "post_sw_stake_38", "stake", when=("brace", ("stake",))
    )
    stake_depth: float = measure(
        "ends", "length", 0.45, 0.2, 0.9, 0.01, tries=DEEPER, when=("brace", ("stake",))
    )

"""Cage: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...plan.fields import Typed

KEY = "cage"


class CageOptions(Typed):
    """What must be decided of cages. Lengths in metres."""

    made: Literal["bought", "cut"] = choice("cages", "bought", own_choice=True)
    cage: Annotated[str, row_of("cages")] = item(
        "cages", "cages", "cage_mesh_conc_48", when=("made", ("bought",))
    )
    mesh: Annotated[str, row_of("meshes")] = item(
        "cages", "meshes", "mesh_conc_roll", when=("made", ("cut",))
    )
    diameter: float = measure(
        "cages", "length", 0.48, 0.25, 1.0, 0.01, tries=(0.1, 0.2), when=("made", ("cut",))
    )
    height: float = measure(
        "cages", "length", 1.5, 0.4, 1.8, 0.01, tries=(-0.15, -0.3), when=("made", ("cut",))
    )
    leg: float = measure("cages", "length", 0.15, 0.02, 0.4, 0.01, tries=(0.05, 0.1), when=("made", ("cut",)))
    length: float = measure("raft", "length", 3.6, 0.3, 30.0, 0.05, own_choice=True)
    rows: int = measure("raft", "count", 1, 1, 8, 1, own_choice=True)
    row_spacing: float = measure("raft", "length", 0.75, 0.3, 1.5, 0.01, own_choice=True)
    link: Literal["none", "row", "grid", "diagonal"] = choice("raft", "none")
    link_twine: Annotated[str, row_of("twines", "run")] = item(
        "raft", "twines", "sisal_2.5", "run", when=("link", ("row", "grid", "diagonal"))
    )
    link_height: float = measure(
        "raft", "length", 0.9, 0.3, 1.5, 0.01, when=("link", ("row", "grid", "diagonal")), own_choice=True
    )
    stakes: int = measure("stakes", "count", 0, 0, 3, 1, tries=(1, 2))
    stake: Annotated[str, row_of("posts", "stake")] = item(
        "stakes", "posts", "rod_rebar_12", "stake", when=("stakes", ("1", "2", "3"))
    )
    depth: float = measure(
        "stakes", "length", 0.45, 0.15, 0.9, 0.01, tries=DEEPER, when=("stakes", ("1", "2", "3"))
    )
    setting: Literal["driven", "tamped"] = choice("stakes", "driven", when=("stakes", ("1", "2", "3")))
    above: Literal["none", "weave", "ring"] = choice("raft", "none", own_choice=True)

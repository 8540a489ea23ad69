"""Crossed poles: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...patterns import raked
from ...plan.fields import Typed

KEY = "crossed-poles"


class CrossedPolesOptions(Typed):
    """What must be decided of crossed poles. Lengths in metres."""

    length: float = measure("row", "length", 3.0, 0.3, 20.0, 0.05, own_choice=True)
    pair_spacing: float = measure("row", "length", 0.30, 0.15, 2.4, 0.01, tries="bays")
    spread: float = measure("poles", "length", 0.60, 0.3, 1.2, 0.01, tries=(0.1, 0.2, 0.3))
    pole: Annotated[str, row_of("posts", "pole")] = item("poles", "posts", "cane_16", "pole")
    pole_length: float = measure("poles", "length", 2.4, 1.2, 3.6, 0.01, tries=(-0.2, -0.4), own_choice=True)
    footing: Literal["soil", "concrete"] = choice("poles", "soil")
    post_age: int = measure("poles", "count", 0, 0, 15, 1, own_choice=True)
    in_soil: float = measure("poles", "length", 0.30, 0.1, 0.9, 0.01, tries=DEEPER)
    tail: float = measure("poles", "length", 0.20, 0.05, 0.5, 0.01, own_choice=True)
    crossing: raked.Joint = choice("binding", "lashed")
    binding: Annotated[str, row_of("twines", "run")] = item(
        "binding", "twines", "sisal_2.5", "run", when=("crossing", ("lashed", "notched"))
    )
    ridge: Literal["none", "pole", "wire"] = choice("ridge", "pole")
    ridge_pole: Annotated[str, row_of("posts", "rail")] = item(
        "ridge", "posts", "cane_20", "rail", when=("ridge", ("pole",))
    )
    ridge_wire: Annotated[str, row_of("wires")] = item(
        "ridge", "wires", "wire_soft_125", when=("ridge", ("wire",))
    )
    between: Literal["poles", "strings"] = choice("ridge", "poles", own_choice=True)
    string: Annotated[str, row_of("twines", "string")] = item(
        "ridge", "twines", "sisal_2.5", "string", when=("between", ("strings",))
    )
    hung_by: Literal["knot", "hook"] = choice("ridge", "knot", when=("between", ("strings",)))
    hook: Annotated[str, row_of("fittings", "string-top")] = item(
        "ridge", "fittings", "hook_s_4", "string-top", when=("hung_by", ("hook",))
    )
    base: Annotated[str, row_of("fittings", "peg")] = item(
        "ridge", "fittings", "peg_wire", "peg", when=("between", ("strings",))
    )
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("ridge", "ties", "twine_jute_3_loop", "stem")
    brace: Literal["none", "diagonal", "guy"] = choice("ends", "diagonal")
    brace_wire: Annotated[str, row_of("wires")] = item(
        "ends", "wires", "wire_soft_14", when=("brace", ("diagonal", "guy"))
    )
    anchor: Annotated[str, row_of("anchors")] = item(
        "ends", "anchors", "anchor_screw_15x3", when=("brace", ("guy",))
    )

    @property
    def setting(self) -> str:
        """Return how its poles are set in the ground."""
        return "concrete" if self.footing == "concrete" else "driven"

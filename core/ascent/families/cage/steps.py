"""Cage: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import CageOptions

_ROUND = 0.03  # that a cage may be wider or narrower [m], handbook-parts-3.7


def steps(
    options: CageOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site, joining: Joining
) -> tuple[Step, ...]:
    """Return the work in order: cages cut and closed, plants, cages over them, stakes, links."""
    look, *planted = work.grown(geometry, plantings)
    cut = options.made == "cut"
    across = (work.gauge("across", options.diameter, _ROUND),) if cut else ()
    legs = work.setting(
        geometry,
        "rings-cut" if cut else "cages",
        "cage",
        hits=across or (),
        differs=("diameter", "height", "mesh") if cut else ("cage",),
    )
    return (
        *work.marked(spread=0.03),
        *work.watered(),
        *(legs if cut else ()),
        *planted,
        *(((Step("cages", differs=("leg",)),)) if cut else legs),
        *work.posts_set(
            work.of(geometry, "post"),
            options.setting,
            options.depth,
            key="cage-stakes",
            row="cage-stakes",
            differs=("depth", "stake"),
        ),
        *work.capped(geometry),
        *work.setting(geometry, "links", "link", differs=("link_height", "link_twine")),
        *work.setting(geometry, "upper-weave", supplies=("upper-weave",)),
        look,
    )

"""Panel arch: what may be wished of it, and the ways to it."""

from __future__ import annotations

import math
from collections.abc import Mapping

import numpy as np

from ... import tables
from ...family.wishes import Ask, Suggestion, Wish
from ...patterns import arch_feet, bent_panel
from ...plan.structure import Structure
from ...site import Site
from .geometry import hang_of
from .options import PanelArchOptions

_HOLDS = (0.6, 0.91, 1.2)  # heights worth trying to hold a panel upright [m]


def _headroom(
    wanted: Mapping[str, float], options: PanelArchOptions, structure: Structure, site: Site
) -> tuple[Suggestion, ...]:
    """Return the panel as it is bought, and one cut or joined to measure, that leave so much clear over such
    a path.

    Source: handbook-8.8
    """
    if options.frame == "tubes":
        return ()  # its rise is its maker's
    mesh, hang = tables.meshes()[options.panel], hang_of(structure)
    sunk = arch_feet.sunk(options)
    reach = bent_panel.Reach(wanted["path"], wanted["clear"] + hang + sunk)
    hold = arch_feet.held_at(options, site.bed)
    held = (
        (hold, *(h for h in _HOLDS if h > hold))
        if options.foot == "posts" and options.hold == "held"
        else (hold,)
    )
    squares = np.arange(math.ceil(2.0 / mesh.along), math.floor(6.1 / mesh.along) + 1) * mesh.along
    cut = [x for x in squares.tolist() if all(abs(x - sold) > mesh.along / 2 for sold in mesh.lengths_m)]
    ways = []
    for key, lengths in (("bought", [x for x in mesh.lengths_m if 2.0 <= x <= 6.1]), ("cut", cut)):
        bent = bent_panel.reaching(reach, lengths, np.array(held))
        if bent is None:
            continue
        clear = bent.rise - sunk - hang
        values = {name: (v, "length") for name, v in {**bent._asdict(), "clear": clear, "hang": hang}.items()}
        changes = {
            "panel_length": bent.length,
            "span": bent.span,
            **({"hold_height": bent.hold} if len(held) > 1 else {}),
        }
        name = "longer" if key == "cut" and bent.length > max(mesh.lengths_m) else key
        reaches = clear >= wanted["clear"] - 5e-3
        says = (name, *(("held",) if len(held) > 1 else ()), "clear", *(() if reaches else ("most",)))
        ways.append(Suggestion(says, reaches, changes, values))
    return tuple(sorted(ways, key=lambda way: not way.reaches))


WISHES: tuple[Wish, ...] = (
    Wish(
        "headroom",
        (Ask("clear", "length", 1.8, 1.2, 2.4, 0.01), Ask("path", "length", 1.2, 0.6, 2.4, 0.01)),
        _headroom,
    ),
)

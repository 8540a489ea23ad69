"""What strings hang on overhead: wires twisted together, and a bar that belongs to a house."""

from __future__ import annotations

import numpy as np

from .. import tables
from ..mechanics import Array
from ..path.loadpath import Check
from ..tables import rows
from .tension import breaks, drawn_out, wire_sag


def twisted(wire: rows.Wire, strands: float, share: float, load: Array, span: float, pull: Array) -> Check:
    """Return the check of an overhead wire, or of two twisted together: they never share evenly.

    Args:
        wire: The wire.
        strands: Wires twisted together. [-]
        share: Share of their strength that they have together. [-]
        load: On it, over its length. [N/m]
        span: Distance between supports. [m]
        pull: Along them. [N]

    Source: handbook-6.1
    """
    pull, held = drawn_out(wire, pull, load, span), breaks(wire)
    tension = np.hypot(pull, load * span / 2)
    return Check(
        "overhead-wire",
        tension,
        strands * share * held.allowable,
        strands * share * held.median,
        "force",
        "handbook-6.1",
        wire.certainty,
        {
            "load": (load, "line_load"),
            "span": (span, "length"),
            "pull": (pull, "force"),
            "sag": (wire_sag(pull, load, span), "length"),
            "flat": (pull / np.maximum(load * span, 1e-9), "ratio"),
            "strands": (strands, "count"),
            "tension": (tension, "force"),
        },
    )


def purlin(load: Array, allowed: float) -> Check:
    """Return the check of a house's own bar against the load its owner says it may carry.

    Args:
        load: On it, over its length. [N/m]
        allowed: What the owner says it may carry. [N/m]

    Source: handbook-parts-4.1
    """
    return Check(
        "purlin",
        load,
        max(allowed, 1e-9),
        1.5 * max(allowed, 1e-9),
        "line_load",
        "handbook-parts-4.1",
        "measured",
        {"load": (load, "line_load"), "told": (allowed, "line_load")},
        tables.uncertainties()["steel"].key,
    )

"""Living stems: what they carry, when they buckle at the base, when their roots turn over."""

from __future__ import annotations

import numpy as np

from .. import tables
from ..loads.cases import Cases
from ..mechanics import Array, lodging
from ..path.loadpath import Check
from ..tables import rows

_RULE = 2.0  # a growers' rule is taken to hold half of what stems carry, judgement


def carried(host: rows.Host, mass: Array) -> Check:
    """Return the check of how much vine a stem carries, by growers' rule.

    Args:
        host: The living stem.
        mass: What it carries. [kg]

    Source: crops-10
    """
    return Check(
        "host-carries",
        mass,
        host.carries_kg,
        _RULE * host.carries_kg,
        "mass",
        host.source,
        "judgement",
        {"mass": (mass, "mass"), "rule": (host.carries_kg, "mass")},
        "stem",
    )


def stem(host: rows.Host, wind: Array, height: Array, lean: Array, strength: Array) -> Check:
    """Return the check of a stem that bends at its base under the wind and a leaning vine.

    Args:
        host: The living support.
        wind: On one stem with its vine. [N]
        height: Of that wind. [m]
        lean: Moment of the vine's weight. [N·m]
        strength: Share of its full strength that the stem has grown to, (1, W, 1).

    Source: crops-10
    """
    moment = wind * height + lean
    return Check(
        "host-stem",
        moment,
        host.stem_Nm * strength / tables.constant("stem"),
        host.stem_Nm * strength,
        "moment",
        host.source,
        "judgement",
        {
            "wind": (wind, "force"),
            "height": (height, "length"),
            "lean": (lean, "moment"),
            "moment": (moment, "moment"),
            "strength": (host.stem_Nm * strength, "moment"),
        },
        "stem",
    )


def roots(host: rows.Host, soil: rows.Soil, moment: Array, grown: Array, cases: Cases) -> Check:
    """Return the check that a stem's root plate does not turn over.

    Soil without cohesion holds a root ball by what roots themselves bind.

    Args:
        host: The living stem.
        soil: Of the ground.
        moment: About its root plate. [N·m]
        grown: Share of its full size, by week. [-]
        cases: Soil states, weeks and winds.

    Source: baker-1998
    """
    bound = soil.cu if soil.model == "clay" else tables.constant("root_cohesion")
    ultimate = lodging.root_anchorage(bound * cases.soil_strength(soil) * grown, host.root_plate_m)
    return Check(
        "host-roots",
        moment,
        np.asarray(ultimate / tables.constant("stem")),
        np.asarray(ultimate * soil.median),
        "moment",
        "baker-1998",
        "judgement",
        {"moment": (moment, "moment"), "plate": (host.root_plate_m, "length"), "hold": (ultimate, "moment")},
        "stem",
    )

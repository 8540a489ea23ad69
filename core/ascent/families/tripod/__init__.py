"""Tripod: three poles or more tied at the top, in a bed or a container, with strings round them or twine
laced between.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from ...family.steps import Joined
from ...patterns.tending import usual
from .geometry import laid_out
from .links import TripodStand
from .options import KEY, TripodOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps

TRIPOD = Family(
    key=KEY,
    options=TripodOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=TripodStand,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=usual,
    joined=Joined("tripod", "place"),
    round=True,
)

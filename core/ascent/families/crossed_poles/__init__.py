"""Crossed poles: a row of poles crossed in pairs with a ridge in their V, canes or strings between; of tube
for good.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from ...family.steps import Joined
from ...patterns.tending import usual
from .geometry import laid_out
from .links import Crossed
from .options import KEY, CrossedPolesOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps

CROSSED_POLES = Family(
    key=KEY,
    options=CrossedPolesOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=Crossed,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=usual,
    joined=Joined("crossed-poles", "place"),
)

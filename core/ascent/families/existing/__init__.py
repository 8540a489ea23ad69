"""Existing: a wall with wires on eyes, a fence that is to carry a sail more, a tall pole in a sleeve that is
lowered to pick.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from ...patterns.tending import usual
from .geometry import laid_out
from .links import loaded
from .options import KEY, ExistingOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps

EXISTING = Family(
    key=KEY,
    options=ExistingOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=loaded,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=usual,
)

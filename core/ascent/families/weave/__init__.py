"""Weave: runs of twine between posts on both sides of the plants; basket weave, corral, figure of eight,
front and back, or a ladder of canes.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from .geometry import laid_out
from .links import Woven
from .options import KEY, WeaveOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps
from .tending import tending

WEAVE = Family(
    key=KEY,
    options=WeaveOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=Woven,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=tending,
)

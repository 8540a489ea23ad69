"""Drop strings: one string a plant from a beam, a wire or a house's own bar; wound or clipped, and let down
as the stem grows.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from ...family.steps import Joined
from .geometry import laid_out
from .links import Strung
from .options import KEY, DropStringsOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps
from .tending import tending

DROP_STRINGS = Family(
    key=KEY,
    options=DropStringsOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=Strung,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=tending,
    joined=Joined("drop-strings", "ground"),
)

"""A-frame: two faces, or one, leaning together at a ridge: boards, tube, bars, bent mesh; it folds flat and
moves.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from ...patterns.tending import usual
from .geometry import laid_out
from .links import Leaning
from .options import KEY, AFrameOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps

A_FRAME = Family(
    key=KEY,
    options=AFrameOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=Leaning,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=usual,
)

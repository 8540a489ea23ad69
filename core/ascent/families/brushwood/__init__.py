"""Brushwood: twiggy sticks pushed in along a row, upright or crossed, or round a pot; or one to bring a
climber to its wire.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from ...patterns.tending import usual
from .geometry import laid_out
from .links import Thicket
from .options import KEY, BrushwoodOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps

BRUSHWOOD = Family(
    key=KEY,
    options=BrushwoodOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=Thicket,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=usual,
)

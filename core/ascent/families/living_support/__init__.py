"""Living support: a block of maize, sunflower or okra, sown first, that carries a climber up its stems."""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from ...patterns.tending import usual
from .geometry import laid_out
from .links import Block
from .options import KEY, LivingSupportOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps

LIVING_SUPPORT = Family(
    key=KEY,
    options=LivingSupportOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=Block,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=usual,
    round=True,
)

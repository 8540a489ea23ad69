"""Stake: one stake or post beside each plant, tied in as it grows; neighbours may be joined by a bar."""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from .geometry import laid_out
from .links import Staked
from .options import KEY, StakeOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps
from .tending import tending

STAKE = Family(
    key=KEY,
    options=StakeOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=Staked,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=tending,
    round=True,
)

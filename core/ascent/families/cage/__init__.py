"""Cage: a ring cage or a cylinder of mesh round each plant; alone, staked, or tied with its neighbours into a
raft.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from .geometry import laid_out
from .links import Caged
from .options import KEY, CageOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps
from .tending import tending

CAGE = Family(
    key=KEY,
    options=CageOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=Caged,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=tending,
    round=True,
)

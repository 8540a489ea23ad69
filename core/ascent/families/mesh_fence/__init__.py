"""Mesh fence: panel, welded wire, concrete mesh or netting between driven posts in a straight row."""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from .geometry import laid_out
from .links import Fence
from .options import KEY, MeshFenceOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps
from .tending import tending

MESH_FENCE = Family(
    key=KEY,
    options=MeshFenceOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=Fence,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=tending,
)

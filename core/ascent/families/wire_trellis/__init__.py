"""Wire trellis: one or several wires between end assemblies over line posts, on one line or on the two ends
of T-arms.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from .geometry import laid_out
from .links import WireRow
from .options import KEY, WireTrellisOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps
from .tending import tending

WIRE_TRELLIS = Family(
    key=KEY,
    options=WireTrellisOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=WireRow,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=tending,
)

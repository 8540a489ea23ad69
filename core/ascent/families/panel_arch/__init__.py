"""Panel arch: welded panels bent over a path or a bed, one or several in a tunnel, their feet held by posts,
boards, blocks or soil.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from ...family.steps import Joined
from .geometry import laid_out
from .links import loaded
from .options import KEY, PanelArchOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps
from .tending import tending
from .wishes import WISHES

PANEL_ARCH = Family(
    key=KEY,
    options=PanelArchOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=loaded,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=tending,
    joined=Joined("panel-arch", "place"),
    wishes=WISHES,
)

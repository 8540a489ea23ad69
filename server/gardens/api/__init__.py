"""The API of gardens: every function finds what the visitor may see, then asks a service."""

from __future__ import annotations

from ninja import Router

from .building import router as building
from .exchange import router as exchange
from .gardens import router as gardens
from .history import router as history
from .log import router as log
from .people import router as people
from .season import router as season
from .shed import router as shed
from .structures import router as structures

router = Router()
for room in (building, exchange, gardens, history, log, people, season, shed, structures):
    router.add_router("", room)

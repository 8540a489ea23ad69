"""The bed that a garden is most likely to get next: like its last one, a path away from it."""

from __future__ import annotations

import math

import numpy as np

from .. import tables
from ..plan.bed import BareBed
from ..plan.garden import Garden
from ..words.quantities import to_si
from .plot import PlotDrawing, bed_middle, bed_shape, lie_of, room_for
from .shapes import shape_of

_FIRST = {"metric": (3.6, 1.2), "imperial": (12.0 * to_si("foot"), 4.0 * to_si("foot"))}
_SIDES = ((0.0, -1.0), (0.0, 1.0), (1.0, 0.0), (-1.0, 0.0))  # along, and to the left of, the last bed


def next_bed(garden: Garden, drawing: PlotDrawing | None = None) -> BareBed:
    """Return a new bed for a garden: like its last bed in kind, size, soil and direction, beside it with a
    path of the garden's width between where nothing lies there, else below everything.

    Args:
        garden: The garden.
        drawing: Its plan, where it is drawn already.
    """
    name = f"Bed {len(garden.beds) + 1}"
    if not garden.beds:
        length, width = _FIRST[garden.units]
        x, y = room_for(garden, length, width, drawing)
        return BareBed(key="bed", name=name, length=length, width=width, x=x, y=y)
    last = garden.beds[-1]
    like = BareBed(
        **last.model_dump(include=set(BareBed.model_fields) - {"key", "name", "tested", "past"}),
        key="bed",
        name=name,
    )
    for along, left in _SIDES:
        steps = [[along * (last.length + garden.path_width), left * (last.width + garden.path_width)]]
        (x, y), *_ = bed_middle(last).out(np.array(steps))
        placed = like.model_copy(update={"x": round(float(x), 3), "y": round(float(y), 3)})
        if _free(garden, placed):
            return placed
    # as wide from west to east as it lies
    turned = math.radians(like.bearing)
    wide = abs(like.length * math.sin(turned)) + abs(like.width * math.cos(turned))
    high = abs(like.length * math.cos(turned)) + abs(like.width * math.sin(turned))
    x, y = room_for(garden, wide, high, drawing)
    return like.model_copy(update={"x": x, "y": y})


def _free(garden: Garden, bed: BareBed) -> bool:
    """Return whether a bed would lie on nothing that is on the ground."""
    ground = bed_shape(lie_of(bed)).buffer(-0.005)
    taken = [bed_shape(lie_of(each)) for each in garden.beds]
    taken += [shape_of(each) for each in garden.features if tables.features()[each.kind].group != "buried"]
    return not any(ground.intersects(shape) for shape in taken)

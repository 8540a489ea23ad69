"""How two things are joined, drawn: one small sheet a joint, from its strokes."""

from __future__ import annotations

import math

from .. import tables
from ..memory import remembered
from ..tables.rows import JointStroke
from .sheet import Dot, Drawn, Flat, Line, Mark, Sheet

_REACH = 0.1  # of a drawing from its middle [m]
_TURNS = 24  # corners that a ring is drawn by


@remembered(512)
def joint_sheet(key: str) -> Sheet:
    """Return a joint drawn, in metres from its middle.

    Raises:
        UnknownItem: No such joint.
    """
    sheet = Drawn(tables.joints()[key].name, (-_REACH, -_REACH), (_REACH, _REACH))
    sheet.on("joint", *(_mark(row) for row in tables.joint_strokes().values() if row.joint == key))
    return sheet.bare()


def _mark(row: JointStroke) -> Mark:
    points: list[Flat] = list(zip(row.points[::2], row.points[1::2], strict=True))
    if row.shape == "dot":
        return Dot(points[0], row.wide, row.ink)
    if row.shape == "ring":
        (x, y), (rx, ry) = points
        turn = [math.tau * i / _TURNS for i in range(_TURNS)]
        points = [(x + rx * math.cos(a), y + ry * math.sin(a)) for a in turn]
    return Line(tuple(points), row.wide, row.ink, closed=row.shape != "line")

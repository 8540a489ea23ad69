"""A stake-out drawn from above, north up: corners, places, lines, and the tapes to the ends of a line."""

from __future__ import annotations

import math
from collections.abc import Mapping

from ..drawing.sheet import Dot, Drawn, Line, Sheet, Words, north, scale_bar
from ..ground.plot import Laid, bed_outline
from ..words.quantities import System
from .stakeout import Corner, StakeOut

_CORNER = 0.09  # half of a corner's square [m]
_NEAR = 0.25  # of names that would lie over one another [m]


def stake_sheet(
    laid: Laid, staked: StakeOut, names: Mapping[str, str], letters: Mapping[Corner, str], system: System
) -> Sheet:
    """Return a stake-out as a sheet, in metres of the plan.

    Args:
        laid: The structure where it stands.
        staked: What is marked.
        names: What each place is called, by member.
        letters: What each corner is called.
        system: Whose scale bar it gets.
    """
    spots = [mark.at for mark in staked.marks] + [corner.at for corner in staked.corners]
    outline = tuple((float(x), float(y)) for x, y in bed_outline(laid.bed))
    points = [*spots, *outline]
    low = (min(x for x, _ in points) - 0.3, min(y for _, y in points) - 0.9)
    high = (max(x for x, _ in points) + 0.9, max(y for _, y in points) + 0.5)
    sheet = Drawn(f"{laid.structure.name}: stake-out", low, high)
    sheet.on("bed", Line(outline, 0.01, "soil", closed=True, fill="bed"))
    by_key = {mark.member.key: mark for mark in staked.marks}
    for line in staked.lines:
        sheet.on("lines", Line((by_key[line[0]].at, by_key[line[-1]].at), 0.01, "water", dash=(0.12, 0.06)))
        for key in (line[0], line[-1]):
            for tape in by_key[key].tapes:
                sheet.on("tapes", Line((tape.corner.at, by_key[key].at), 0.006, "pale"))
    for corner in staked.corners:
        x, y = corner.at
        square = ((x - _CORNER, y - _CORNER), (x + _CORNER, y - _CORNER), (x + _CORNER, y + _CORNER))
        sheet.on("corners", Line((*square, (x - _CORNER, y + _CORNER)), 0.02, closed=True))
        sheet.on("names", Words((x, y + 1.6 * _CORNER), letters[corner]))
    named: list[tuple[tuple[float, float], list[str]]] = []
    for mark in staked.marks:
        sheet.on("places", Dot(mark.at, 0.04))
        near = next((each for each in named if math.dist(each[0], mark.at) < _NEAR), None)
        if near:
            near[1].append(names[mark.member.key])
        else:
            named.append((mark.at, [names[mark.member.key]]))
    for (x, y), called in named:
        sheet.on("names", Words((x + 0.08, y + 0.05), ", ".join(called), "start"))
    sheet.on("scale", *scale_bar((low[0], low[1] + 0.1), max(high[0] - low[0] - 1.0, 1.0), system))
    sheet.on("scale", *north((high[0] - 0.3, low[1] + 0.4), sheet.letter))
    return sheet.done()

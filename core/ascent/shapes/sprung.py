"""A panel bent to an arch, read from tables of the bent rod: its rise, what its feet must take, how
sharply it is bent.
"""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from .. import tables
from ..mechanics import Array, Number, interpolation, section
from ..tables import rows

_TIED = 0.03  # of the length: a tie lower than this is calculated as one at this height


class SprungFigures(NamedTuple):
    """A bent panel by its length, span and the height of its ties, without weight.

    rise: of the crown over the feet. [m]
    foot, tie: outward push on one foot, and on one side's ties. [N]
    radius: of the sharpest bend. [m]
    widest: width where it bulges most. [m]
    energy: what it holds, bent. [J]
    sway: weight per metre of arc at which it sways away. [N/m]
    drop: how far the crown comes down per weight. [m per N/m]
    tie_gain: what weight on one half adds to the push on a tie. [N per N/m]
    shift: how far the crown moves over when only one half is loaded. [m per N/m]
    """

    rise: Array
    foot: Array
    tie: Array
    radius: Array
    widest: Array
    energy: Array
    sway: Array
    drop: Array
    tie_gain: Array
    shift: Array


def bending_stiffness(mesh: rows.Mesh, width: float) -> float:
    """Return EI of a panel bent along its length: the wires that run that way. [N·m²]

    Source: handbook-8.2
    """
    wires = max(math.floor(width / mesh.up + 1e-6), 2)
    return wires * tables.mesh_materials()[mesh.material].E * section.round_bar(mesh.wire).I


def figures(
    length: Number, span: Number, hold: Number, stiffness: float, clamped: bool = False
) -> SprungFigures:
    """Return the figures of bent panels, over arrays of lengths, spans and tie heights.

    Args:
        length: Of the panel. [m]
        span: Between its feet. [m]
        hold: Height at which it is tied upright; 0 where its feet only stand against stops. [m]
        stiffness: EI of the whole panel. [N·m²]
        clamped: Whether several ties hold it straight all the way up to there.

    Source: handbook-8.2
    """
    if clamped:
        return _clamped(length, span, hold, stiffness)
    long = np.asarray(length, dtype=float)
    share = np.asarray(hold, dtype=float) / long
    share = np.where(share > 0.005, np.maximum(share, _TIED), 0.0)
    holds, openings, grids = tables.arches()
    opening = np.asarray(span, dtype=float) / long / (1.0 - 2.0 * share)

    def read(name: str) -> Array:
        return interpolation.between(holds, openings, grids[name], share, opening)

    force, load = stiffness / long**2, stiffness / long**3
    return SprungFigures(
        read("rise") * long,
        read("foot") * force,
        read("tie") * force,
        long / np.maximum(read("curvature"), 1e-9),
        read("widest") * long,
        read("energy") * stiffness / long,
        read("sway") * load,
        read("drop") * long / load,
        read("tie_gain") * force / load,
        read("shift") * long / load,
    )


def _clamped(length: Number, span: Number, hold: Number, stiffness: float) -> SprungFigures:
    """Return the figures of panels between legs that are held straight: H − M/h at the legs' tops, M/h at
    their feet.

    Source: handbook-8.2
    """
    low = np.asarray(hold, dtype=float)
    free = np.asarray(length, dtype=float) - 2 * low
    openings, columns = tables.clamped_arches()

    def read(name: str) -> Array:
        return np.asarray(np.interp(np.asarray(span, dtype=float) / free, openings, columns[name]))

    load, moment = stiffness / free**3, read("moment") * stiffness / free
    return SprungFigures(
        low + read("rise") * free,
        moment / low,
        read("thrust") * stiffness / free**2 - moment / low,
        free / np.maximum(read("curvature"), 1e-9),
        read("widest") * free,
        read("energy") * stiffness / free,
        read("sway") * load,
        read("drop") * free / load,
        read("thrust_gain") * free - read("moment_gain") * free**2 / low,
        read("shift") * free / load,
    )


def fits(length: Number, span: Number, hold: Number, clamped: bool = False) -> Array:
    """Return whether a panel of that length can be bent so: neither stretched flat nor pinched past the
    table. [m]
    """
    if clamped:
        low, high = tables.clamped_arches()[0][[0, -1]]
        wide = np.asarray(span, dtype=float) / np.maximum(
            np.asarray(length, dtype=float) - 2 * np.asarray(hold, dtype=float), 1e-9
        )
        return np.asarray((low <= wide) & (wide <= high))
    share = np.asarray(hold, dtype=float) / length
    opening = np.asarray(span, dtype=float) / length / np.maximum(1.0 - 2.0 * share, 1e-9)
    _, openings, _ = tables.arches()
    return np.asarray((openings[0] <= opening) & (opening <= openings[-1]) & (share <= 0.25))

"""A tube arch as it is bought: half a circle on straight legs, clad with mesh up its sides and lines over its
top.
"""

from __future__ import annotations

import math

import numpy as np

from ..path.geometry import Member, Point
from ..tables import rows
from .bent_panel import Curve

_TIE_EVERY = 0.30  # between the ties of the mesh along a tube [m], parts handbook 3.0


def curve(span: float, rise: float) -> Curve:
    """Return the middle of a tube from one foot to the other: across, and up; a flat one is half an ellipse.
    [m]
    """
    leg = max(rise - span / 2, 0.0)
    angles = np.linspace(math.pi, 0.0, 41)
    crown = [(span / 2 * math.cos(a), leg + (rise - leg) * math.sin(a)) for a in angles.tolist()]
    return ((-span / 2, 0.0), *crown, (span / 2, 0.0)) if leg > 0 else tuple(crown)


def arc_length(shape: Curve) -> float:
    """Return the length of the tube above the soil. [m]"""
    return float(np.sum(np.hypot(*np.diff(np.array(shape), axis=0).T)))


def ties_per_tube(clad: float) -> int:
    """Return the ties of the mesh on one tube, both sides together. [m]"""
    return 2 * (math.ceil(clad / _TIE_EVERY) + 1)


def lines(shape: Curve, clad: float, gap: float) -> tuple[tuple[float, float], ...]:
    """Return where the lines over the top run, no further apart than a gap: across, and up. [m]"""
    length = arc_length(shape)
    open_ = length - 2 * min(clad, length / 2)
    stations = np.linspace(
        min(clad, length / 2), length - min(clad, length / 2), max(math.ceil(open_ / gap), 1) + 1
    )[1:-1]
    return tuple(_at(shape, float(s)) for s in stations)


def members(
    tube: rows.Post,
    mesh: rows.Mesh,
    tie: str,
    line: str,
    shape: Curve,
    stations: list[float],
    clad: float,
    sunk: float,
    gap: float,
) -> list[Member]:
    """Return tubes, the mesh of both sides, its ties and the lines over the top.

    Args:
        tube: The tube.
        mesh: What its sides are clad with.
        tie: Key of the ties of the mesh.
        line: Key of the lines over the top.
        shape: Its curve.
        stations: Where the arches stand along the tunnel. [m]
        clad: How far up the tube the mesh reaches. [m]
        sunk: Of each leg in the soil. [m]
        gap: Between the lines. [m]
    """
    members, length = [], arc_length(shape)
    reach = min(clad, length / 2)
    up = np.linspace(0.0, reach, ties_per_tube(clad) // 2)
    for n, x in enumerate(stations):
        whole = ((shape[0][0], -sunk), *shape, (shape[-1][0], -sunk)) if sunk else shape
        way = tuple((x, y, z) for y, z in whole)
        members.append(
            Member(
                f"tube-{n + 1}",
                "arm",
                "posts",
                tube.key,
                (way[0], way[-1]),
                length + 2 * sunk,
                tube.a,
                "wires",
                lines=(way,),
            )
        )
        for m, s in enumerate((*up, *(length - up))):
            members.append(
                Member(
                    f"clad-{n + 1}-{m + 1}", "tie", "ties", tie, ((x, *_at(shape, float(s))),), shape="point"
                )
            )
    first, last = stations[0], stations[-1]
    for side, flip in (("left", False), ("right", True)):
        grid: list[tuple[Point, ...]] = []
        for s in np.arange(0.0, reach + 1e-6, mesh.up).tolist():
            y, z = _at(shape, length - s if flip else s)
            grid.append(((first, y, z), (last, y, z)))
        edge = [_at(shape, length - s if flip else s) for s in np.linspace(0.0, reach, 12).tolist()]
        grid += [
            tuple((x, y, z) for y, z in edge) for x in np.arange(first, last + 1e-6, mesh.along).tolist()
        ]
        y = edge[0][0]
        sheet: tuple[Point, ...] = (
            (first, y, 0.0),
            (last, y, 0.0),
            (last, y, reach),
            (first, y, reach),
        )  # as it lies before it is tied on
        members.append(
            Member(
                f"mesh-{side}",
                "mesh",
                "meshes",
                mesh.key,
                sheet,
                last - first,
                mesh.wire,
                "wires",
                lines=tuple(grid),
            )
        )
    for n, (y, z) in enumerate(lines(shape, clad, gap)):
        members.append(
            Member(
                f"over-{n + 1}",
                "wire",
                "wires",
                line,
                ((first, y, z), (last, y, z)),
                last - first + 0.6,
                0.003,
            )
        )
    return members


def _at(shape: Curve, along: float) -> tuple[float, float]:
    """Return the place so far along the tube from its first foot."""
    ys, zs = np.array(shape).T
    run = np.concatenate([[0.0], np.cumsum(np.hypot(np.diff(ys), np.diff(zs)))])
    return float(np.interp(along, run, ys)), float(np.interp(along, run, zs))

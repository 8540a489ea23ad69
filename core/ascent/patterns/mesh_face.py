"""A face of mesh hung between posts: which mesh a crop wants, its bays, and its ties on real wires."""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np

from .. import tables
from ..mechanics import Array
from ..path.geometry import Member, Point
from ..tables import rows
from .posts import stations

STIFF_WIRE = 0.004  # from which a panel carries its own load to the posts [m], structures handbook 12
_LACING = 0.30  # between the ties along a top line [m]
_WIRE_ENDS = 2.0  # of wire for both its ends, with a hand's length to pull by [m]


def mesh_for(plant: rows.Crop) -> rows.Mesh:
    """Return the mesh a crop starts with: fine for thin tendrils and small fruit, a hand's width for the
    rest.
    """
    fine = plant.opening_min is not None and plant.opening_min < 0.075
    low = plant.support_height_m <= 0.9
    return tables.meshes()["weld_50x100_14" if fine or low else "panel_large"]


def tie_count(height: float) -> int:
    """Return ties on an inner post for a mesh of that height (parts handbook 3.0). [m]"""
    return max(2, math.ceil(height / 0.45) + 1)


def members(
    mesh: rows.Mesh,
    tie: str,
    ties: int,
    xs: Array,
    y: float,
    low: float,
    high: float,
    held: float,
    edges: Array | None = None,
) -> list[Member]:
    """Return a row's mesh bays and their ties to the posts.

    Args:
        mesh: The mesh.
        tie: Key of the tie.
        ties: Ties on an inner post; an end post has one more.
        xs: Stations of the posts, (n,). [m]
        y: Which side of the posts it hangs on. [m]
        low, high: Bottom and top of the mesh. [m]
        held: Highest place a tie finds a post. [m]
        edges: Where its pieces meet, if not at the posts. [m]
    """
    members = []
    for index, (x0, x1) in enumerate(pairwise(xs if edges is None else edges)):
        a, b = float(x0), float(x1)
        corners: tuple[Point, ...] = ((a, y, low), (b, y, low), (b, y, high), (a, y, high))
        members.append(
            Member(
                f"mesh-{index + 1}",
                "mesh",
                "meshes",
                mesh.key,
                corners,
                b - a,
                mesh.wire,
                "panel",
                (mesh.along, mesh.up),
            )
        )
    for i, x in enumerate(xs):
        count = ties + (i in (0, len(xs) - 1))
        for j, z in enumerate(_tie_heights(count, mesh, low, min(high, held))):
            members.append(
                Member(f"tie-{i + 1}-{j + 1}", "tie", "ties", tie, ((float(x), y, z),), shape="point")
            )
    return members


def _tie_heights(count: int, mesh: rows.Mesh, low: float, top: float) -> list[float]:
    """Return where ties stand: evenly up the mesh, each on one of its real wires."""
    spread = np.linspace(low, max(top, low + 0.1), count)
    return [low + min(round((z - low) / mesh.up) * mesh.up, max(top - low, 0.0)) for z in spread]


def lacing(tie: str, length: float, xs: Array, y: float, z: float) -> list[Member]:
    """Return the ties of a mesh along its top line, between the posts. [m]"""
    places = [
        float(x) for x in stations(length, _LACING)[1:-1] if float(np.min(np.abs(xs - x))) > _LACING / 3
    ]
    return [
        Member(f"lace-{n + 1}", "tie", "ties", tie, ((x, y, z),), shape="point") for n, x in enumerate(places)
    ]


def top_line(kind: str, wire: str, rail: str, length: float, y: float, z: float) -> Member:
    """Return the wire or rail along the top of a row, bought with enough to end it round the posts. [m]"""
    line: tuple[Point, ...] = ((0.0, y, z), (length, y, z))
    if kind == "wire":
        return Member("top-line", "wire", "wires", wire, line, length + _WIRE_ENDS, tables.wires()[wire].d)
    return Member("top-line", "rail", "posts", rail, line, length, tables.posts()[rail].soil_width)

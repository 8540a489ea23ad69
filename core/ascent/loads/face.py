"""Wind on an upright leafy face, as arrays over cases."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .. import tables
from ..mechanics import Array, wind
from .cases import Cases, by_week
from .crop import Growth


@dataclass(frozen=True)
class FaceWind:
    """Wind on one metre of row, arrays (S, W, G).

    pressure: on the leafy part of the gross face. [Pa]
    force: across the row, per metre of it. [N/m]
    height: where that force acts. [m]
    skin: along the row, per metre of it. [N/m]
    end: along the row, on the end of the foliage. [N]
    leaf_height: height of the leafy band. [m]
    """

    pressure: Array
    force: Array
    height: Array
    skin: Array
    end: Array
    leaf_height: Array


def drag_coefficient(solidity: Array) -> Array:
    """Return the drag coefficient on the gross face of a long porous screen. [-]

    Args:
        solidity: Solid share of the face.

    Returns:
        Drag coefficient, linear between the table's points.

    Source: handbook-1.5
    """
    points = tables.drag_points().values()
    return np.interp(solidity, [p.solidity for p in points], [p.drag for p in points])


def leafy_pressure(gust: Array, mesh_solidity: Array | float, cover: Array) -> Array:
    """Return the wind pressure on the gross face of a mesh with leaves.

    F/A = q [Cd(mesh) + (Cd(mesh with leaf) − Cd(mesh)) ψ]: leaves stream, wire does not.

    Args:
        gust: Gust at the plant. [m/s]
        mesh_solidity: Solid share of the bare mesh.
        cover: Leaf cover of the face.

    Returns:
        Pressure. [Pa]

    Source: handbook-1.5
    """
    bare = drag_coefficient(np.asarray(mesh_solidity))
    leafy = drag_coefficient(wind.mixed_solidity(mesh_solidity, cover))
    return np.asarray(wind.gust_pressure(gust) * (bare + (leafy - bare) * wind.reconfiguration(gust)))


def at_height(low: Array | float, high: Array | float) -> tuple[Array, Array]:
    """Return the share of the gust's pressure that a band of a face gets, and the height of its resultant
    [m].

    Args:
        low: Foot of the band. [m]
        high: Top of the band. [m]

    Source: en-1991-1-4
    """
    return wind.pressure_share(low, high, tables.constant("ground_roughness"), tables.constant("gust_height"))


def wind_on_face(
    growths: tuple[Growth, ...],
    mesh_solidity: float,
    mesh_bottom: float,
    mesh_top: float,
    cases: Cases,
    shape: str = "face",
) -> FaceWind:
    """Return the wind on a face that carries one or several plantings, or on plants that stand as round
    bodies by themselves.

    Plantings whose leaves share the face overlap at random; the canopy reaches from the lowest bare
    stem to the tallest plant. The gust falls off toward the ground. A cloth does not stream as leaves do: it
    is as the mesh is.

    Args:
        growths: The plantings' courses.
        mesh_solidity: Solid share of the bare mesh.
        mesh_bottom: Bottom edge of the mesh. [m]
        mesh_top: Top edge of the mesh. [m]
        cases: The cases.
        shape: ‘face’ along a row, or ‘round’.

    Returns:
        Wind per metre of row.

    Source: handbook-1.6
    """
    mesh: Array = np.asarray(mesh_solidity)
    if cases.cloth is not None:
        mesh = by_week(wind.mixed_solidity(mesh_solidity, cases.cloth))
    covered = wind.mixed_solidity(*(s.cover for s in growths))
    cover = by_week(np.minimum(covered, tables.constant("cover_most")))
    top = by_week(np.max([s.top for s in growths], axis=0))
    bottom = min(s.bottom for s in growths)
    depth = float(np.max([s.crop.depth_m for s in growths]))
    leafy_height = np.maximum(top - bottom, 0.0)
    on_leaf = leafy_pressure(cases.gust, mesh, cover)
    on_bare = leafy_pressure(cases.gust, mesh, np.zeros((1, 1, 1)))
    rounded = tables.constant("round_body") if shape == "round" else 1.0
    on_leaf, on_bare = rounded * (on_bare + cases.leaf * (on_leaf - on_bare)), rounded * on_bare
    above = np.maximum(mesh_top - np.maximum(top, np.maximum(mesh_bottom, bottom)), 0.0)
    below = max(min(bottom, mesh_top) - mesh_bottom, 0.0)
    bands: list[tuple[Array, Array | float, tuple[Array, Array]]] = [
        (on_leaf, leafy_height, at_height(bottom, bottom + leafy_height)),
        (on_bare, above, at_height(mesh_top - above, mesh_top)),
        (on_bare, below, at_height(mesh_bottom, mesh_bottom + below)),
    ]
    forces = [pressure * tall * share for pressure, tall, (share, _) in bands]
    force = forces[0] + forces[1] + forces[2]
    moment: Array = np.zeros((1, 1, 1))
    for each, (_, _, (_, middle)) in zip(forces, bands, strict=True):
        moment = moment + each * middle
    leafed = bands[0][2][0]
    q_leaf = cases.leaf * leafed * wind.gust_pressure(cases.gust) * wind.reconfiguration(cases.gust)
    return FaceWind(
        pressure=np.where(leafy_height > 0, on_leaf * leafed, on_bare * at_height(mesh_bottom, mesh_top)[0]),
        force=force,
        height=moment / np.maximum(force, 1e-12),
        skin=tables.constant("along_skin") * q_leaf * leafy_height * cover / tables.constant("cover_most"),
        end=cases.leaf * leafed * leafy_pressure(cases.gust, 0.0, cover) * leafy_height * depth,
        leaf_height=leafy_height,
    )

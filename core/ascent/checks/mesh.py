"""Mesh between posts: its wires bend first and hang like cables once the belly grows."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from .. import tables
from ..mechanics import Array, cable, relaxation, section
from ..path.loadpath import Check
from ..tables import rows


@dataclass(frozen=True)
class MeshState:
    """A mesh bay in the wind, arrays over cases.

    load: on a metre of the most loaded level wire, one within the mesh. [N/m]
    wires: how many such wires the whole mesh amounts to.
    belly: deflection at mid-bay. [m]
    tension: pull of one level wire between ends as stiff as they are. [N] beam, bears: load per metre that
    one wire carries by bending for each metre of belly, and at most. [N/m per m] and [N/m]
    """

    load: Array
    wires: float
    belly: Array
    tension: Array
    beam: float
    bears: float

    @property
    def pull(self) -> Array:
        """Return the pull of the whole mesh on its end post. [N]"""
        return np.asarray(self.tension * self.wires)

    def bent(self, belly: Array) -> Array:
        """Return what one wire carries by bending at a belly. [N/m]"""
        return np.asarray(np.minimum(self.beam * belly, self.bears))


def wires_across(mesh: rows.Mesh, height: float) -> float:
    """Return how many level wires a mesh of that height has.

    Args:
        mesh: The mesh.
        height: Of the mesh. [m]
    """
    return max(round(height / mesh.up), 1) + 1.0


def in_wind(
    mesh: rows.Mesh,
    pressure: Array,
    span: float,
    height: float,
    end: Array,
    bays: float,
    yields: Array | float = np.inf,
) -> MeshState:
    """Return how a bay of mesh bellies and pulls.

    A wire within the mesh carries the wind on its own spacing, the wires of both edges on half of it. Between
    ends that give as springs bending and hanging share the load at one belly; once the ends yield the belly
    deepens and the pull grows no more.

    Args:
        mesh: The mesh.
        pressure: Wind on its face. [Pa]
        span: Bay between posts. [m]
        height: Height of the mesh. [m]
        end: Stiffness of an end at the mesh's middle. [N/m]
        bays: Bays whose shortening one end takes.
        yields: Pull of the whole mesh at which the ends yield. [N]

    Returns:
        The state of the bay.

    Source: handbook-12
    """
    material = tables.mesh_materials()[mesh.material]
    bar = section.round_bar(mesh.wire)
    wires = wires_across(mesh, height) - 1.0
    load = pressure * height / wires
    bending = material.E * bar.I if mesh.kind != "net" else 1e-6
    axial = relaxation.with_ends(material.E * bar.A, end / wires, span, bays)
    belly, _, tension = cable.beam_cable(load, span, bending, axial)
    most = np.asarray(yields) / wires
    belly = np.where(
        tension > most, relaxation.yielded_belly(load, span, np.minimum(tension, most), bending), belly
    )
    whole = 8.0 * bar.Z * material.median_yield / span**2 if mesh.kind != "net" else 0.0
    return MeshState(load, wires, belly, np.minimum(tension, most), 384.0 * bending / (5.0 * span**4), whole)


def wire_tension(mesh: rows.Mesh, state: MeshState, weight: Array, span: float) -> Check:
    """Return the check of one level wire against its break, its share of the hanging crop included.

    A wire that yields before it breaks lengthens, its belly deepens and its pull falls: no more comes on it
    than it needs to carry its load at that belly. What bends past its yield stays bent but does not break.

    Args:
        mesh: The mesh.
        state: Tension and belly of the mesh in the wind.
        weight: Of crop, on half a wire. [N]
        span: Distance between supports. [m]

    Source: handbook-12
    """
    material = tables.mesh_materials()[mesh.material]
    area = math.pi * mesh.wire**2 / 4
    deep = relaxation.belly_after(0.0, span, 1.0, material.ductility)
    pulled = (
        np.minimum(state.tension, relaxation.pull_at(state.load, span, deep, state.bent(deep)))
        if material.ductility
        else state.tension
    )
    tension = np.hypot(pulled, weight)
    return Check(
        "mesh-tension",
        tension,
        area * material.break_ * material.efficiency / material.factor,
        area * material.median * material.efficiency,
        "force",
        material.source,
        "judgement",
        {
            "belly": (state.belly, "length"),
            "span": (span, "length"),
            "wind": (pulled, "force"),
            "weight": (weight, "force"),
            "tension": (tension, "force"),
            "wire": (mesh.wire, "wire"),
        },
    )


def weld(mesh: rows.Mesh, tie_force: Array) -> Check:
    """Return the check of the weld beside a tie: it takes what the tie takes.

    Args:
        mesh: The mesh.
        tie_force: On the tie. [N]

    Source: astm-a1064
    """
    least = tables.constant("mesh_weld") * math.pi * mesh.wire**2 / 4
    return Check(
        "mesh-weld",
        tie_force,
        least / tables.constant("weld"),
        least * tables.constant("weld_median"),
        "force",
        "astm-a1064",
        "published",
        {"tie": (tie_force, "force"), "wire": (mesh.wire, "wire")},
    )


def slope_wires(mesh: rows.Mesh, load: Array, span: float) -> Check:
    """Return the check of a mesh that stands by itself on a slope: its own wires are the beams from foot to
    ridge.

    Args:
        mesh: The mesh.
        load: Across the slope. [Pa]
        span: From foot to ridge. [m]

    Source: handbook-12
    """
    material = tables.mesh_materials()[mesh.material]
    moment, modulus = load * mesh.along * span**2 / 8, section.round_bar(mesh.wire).Z
    return Check(
        "slope-wires",
        moment,
        0.6 * material.yield_ * modulus,
        material.median_yield * modulus,
        "moment",
        "handbook-12",
        "judgement",
        {
            "load": (load, "pressure"),
            "span": (span, "length"),
            "gap": (mesh.along, "length"),
            "moment": (moment, "moment"),
        },
    )

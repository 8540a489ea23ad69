"""Mesh between posts: its wires bend first and hang like cables once the belly grows."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from .. import rows, tables
from ..loadpath import Check
from ..mechanics import Array, cable, section


@dataclass(frozen=True)
class MeshState:
    """A mesh bay in the wind, arrays over cases.

    belly: deflection at mid-bay. [m]
    moment: bending of one level wire. [N·m]
    tension: pull of one level wire. [N]
    pull: pull of the whole mesh on its end post. [N]
    """

    belly: Array
    moment: Array
    tension: Array
    pull: Array


def wires_across(mesh: rows.Mesh, height: float) -> float:
    """Return how many level wires a mesh of that height has."""
    return max(round(height / mesh.up), 1) + 1.0


def in_wind(mesh: rows.Mesh, pressure: Array, span: float, height: float, end_stiffness: Array) -> MeshState:
    """Return how a bay of mesh bellies and pulls.

    Args:
        mesh: The mesh.
        pressure: Wind on its face. [Pa]
        span: Bay between posts. [m]
        height: Height of the mesh. [m]
        end_stiffness: Stiffness of an end post at the mesh's middle. [N/m]

    Returns:
        The state of the bay.

    Source: handbook-12
    """
    material = tables.mesh_materials()[mesh.material]
    bar = section.round_bar(mesh.wire)
    wires = wires_across(mesh, height)
    load = pressure * height / wires
    axial = cable.effective_stiffness(material.E * bar.A, end_stiffness / wires, span)
    bending = material.E * bar.I if mesh.kind != "net" else 1e-6
    belly, moment, tension = cable.beam_cable(load, span, bending, axial)
    return MeshState(belly, moment, tension, tension * wires)


def wire_tension(mesh: rows.Mesh, state: MeshState, weight: Array, span: float) -> Check:
    """Return the check of one level wire against its break, its share of the hanging crop included.

    Source: handbook-12
    """
    material = tables.mesh_materials()[mesh.material]
    area = math.pi * mesh.wire**2 / 4
    tension = np.hypot(state.tension, weight)
    return Check(
        "mesh-tension", tension, area * material.break_ * material.efficiency, material.factor, "force", material.source, "judgement",
        {"belly": (state.belly, "length"), "span": (span, "length"), "wind": (state.tension, "force"),
         "weight": (weight, "force"), "tension": (tension, "force"), "wire": (mesh.wire, "wire")},
    )  # fmt: skip


def wire_bending(mesh: rows.Mesh, state: MeshState, span: float) -> Check:
    """Return the check of one level wire bending across a bay.

    Up to a belly of a thirtieth of the bay a wire is a beam; past that it hangs as a cable, and what
    bends more stays bent but does not break: the belly is then judged by itself, not as strength.

    Source: handbook-12
    """
    material = tables.mesh_materials()[mesh.material]
    modulus = section.round_bar(mesh.wire).S
    beam_share = np.minimum(1.0, span / tables.constant("beam_limit") / np.maximum(state.belly, 1e-9))
    stress = state.moment * beam_share / modulus
    return Check(
        "mesh-bending", stress, material.yield_, 1 / 0.6, "stress", "handbook-12", "judgement",
        {"moment": (state.moment * beam_share, "moment"), "span": (span, "length"), "belly": (state.belly, "length"), "stress": (stress, "stress")},
    )  # fmt: skip


def weld(mesh: rows.Mesh, tie_force: Array) -> Check:
    """Return the check of the weld beside a tie: it takes what the tie takes.

    Source: astm-a1064
    """
    ultimate = tables.constant("mesh_weld") * math.pi * mesh.wire**2 / 4
    return Check(
        "mesh-weld", tie_force, ultimate, tables.constant("weld"), "force", "astm-a1064", "published",
        {"tie": (tie_force, "force"), "wire": (mesh.wire, "wire")},
    )  # fmt: skip


def slope_wires(mesh: rows.Mesh, load: Array, span: float) -> Check:
    """Return the check of a mesh that stands by itself on a slope: its own wires are the beams from foot to ridge.

    Args:
        mesh: The mesh.
        load: Across the slope. [Pa]
        span: From foot to ridge. [m]

    Source: handbook-12
    """
    material = tables.mesh_materials()[mesh.material]
    modulus = section.round_bar(mesh.wire).S
    stress = load * mesh.along * span**2 / 8 / modulus
    return Check(
        "slope-wires", stress, material.yield_, 1 / 0.6, "stress", "handbook-12", "judgement",
        {"load": (load, "pressure"), "span": (span, "length"), "gap": (mesh.along, "length"), "stress": (stress, "stress")},
    )  # fmt: skip

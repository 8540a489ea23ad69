"""A frame: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...patterns import mesh_face, plants, posts
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import height_of
from .options import KEY, MESHES, AFrameOptions

_ONE_CARRIES = 25.0  # what one person lifts [kg], parts handbook 7


def remarked(
    options: AFrameOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: feet on firm ground, faces that can be carried, hands that
    reach in.
    """
    bed, height = site.bed, height_of(options)
    remarks = fits.of_ground(bed, options.length)
    if options.spread < 0.45 * options.leg:
        values = {"spread": (options.spread, "length"), "wanted": (0.5 * options.leg, "length")}
        remarks.append(
            Remark("frame-narrow", "watch", values, source="handbook-parts-3.3", levers=("spread",))
        )
    if bed.raised_by > 0.1 and options.spread < bed.width - 0.02:
        remarks.append(
            Remark("feet-on-fill", "watch", source="handbook-parts-3.3", levers=("spread", "foot"))
        )
    if options.foot == "cleat" and bed.kind != "raised":
        remarks.append(Remark("no-board", "wrong", source="handbook-13", levers=("foot",)))
    if options.foot == "none":
        remarks.append(Remark("frame-loose", "watch", source="handbook-9.1", levers=("foot",)))
    mass = _face_mass(options)
    key = "face-heavy" if mass > _ONE_CARRIES else "face-folds"
    if options.filled != "bent":
        remarks.append(
            Remark(
                key,
                "watch" if mass > _ONE_CARRIES else "fine",
                {"mass": (mass, "mass")},
                source="handbook-parts-4.8",
            )
        )
    remarks += _of_mesh(options, structure)
    if options.hang == "inside" and options.spread < 1.0:
        remarks.append(
            Remark(
                "inside-tight",
                "watch",
                {"spread": (options.spread, "length")},
                source="handbook-parts-3.3",
                levers=("hang", "spread"),
            )
        )
    if options.faces == "one":
        remarks.append(Remark("wind-behind", "fine", source="handbook-9.1"))
    if options.filled != "bent" and options.brace == "none":
        remarks.append(Remark("unbraced-frame", "watch", source="handbook-9.5", levers=("brace",)))
    for planting in structure.plantings:
        crop = tables.crops()[planting.crop]
        if crop.fruit_heaviest_kg > plants.HEAVY:
            remarks.append(
                Remark(
                    "slings", "fine", {"fruit": (crop.fruit_heaviest_kg, "mass")}, source="handbook-parts-4.5"
                )
            )
        remarks += [
            *fits.of_suit(planting, KEY),
            *fits.of_row(planting, options.length),
            *fits.of_tying(planting),
        ]
        remarks += fits.of_height(planting, height, ("leg",))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of building and opening an A-frame."""
    cautions = ["services", "scissors", "hanging-fruit"]
    if geometry.by_role("grip"):
        cautions.append("driving")
    return (*cautions, "climb", "judgement")


def _of_mesh(options: AFrameOptions, structure: Structure) -> list[Remark]:
    """Return remarks on the mesh of the faces: hands, fruit, and whether it stands bent by itself."""
    if options.filled not in MESHES:
        return []
    mesh = tables.meshes()[options.mesh]
    remarks = [remark for planting in structure.plantings for remark in fits.of_through(planting, mesh)]
    if options.filled == "bent" and mesh.wire < mesh_face.STIFF_WIRE:
        remarks.append(
            Remark(
                "bent-limp",
                "wrong",
                {"wire": (mesh.wire, "wire")},
                {"mesh": mesh.name},
                "handbook-12",
                ("mesh", "filled"),
            )
        )
    if options.filled == "bent" and max(mesh.lengths_m) < 2 * options.leg - 0.01:
        values = {"long": (max(mesh.lengths_m), "length"), "needed": (2 * options.leg, "length")}
        remarks.append(
            Remark("bent-short", "wrong", values, {"mesh": mesh.name}, "handbook-parts-3.3", ("mesh", "leg"))
        )
    return remarks


def _face_mass(options: AFrameOptions) -> float:
    """Return the mass of one face: what is lifted and folded. [kg]"""
    area = options.leg * options.length
    if options.filled in MESHES:
        filled = tables.meshes()[options.mesh].kg_m2 * area
    else:
        filled = tables.posts()[options.bar].kg_m / options.bar_step * area
    rails = len(posts.stations(options.length, options.rail_spacing))
    return filled + tables.posts()[options.frame_wood].kg_m * (rails * options.leg + 2 * options.length)

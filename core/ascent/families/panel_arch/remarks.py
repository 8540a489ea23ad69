"""Panel arch: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from typing import Literal

import numpy as np

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...patterns import arch_feet, bent_panel, plants
from ...plan.structure import Structure
from ...remarks import fits
from ...shapes import sprung
from ...site import Site
from ...tables import rows
from .geometry import arc_of, clamped, hang_of, shape_of, total_of
from .options import KEY, PanelArchOptions

_NEAR = 0.005  # of a height [m]
_HEAD = 1.8  # height of a head, at which the width of an arch is given [m], structures handbook 8.3


def remarked(
    options: PanelArchOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: head height above all, and the spring that a bent panel is."""
    mesh, hold = tables.meshes()[options.panel], arch_feet.held_at(options, site.bed)
    found_ = sprung.figures(
        options.panel_length,
        options.span,
        hold,
        sprung.bending_stiffness(mesh, options.panel_width),
        clamped(options),
    )
    rise = geometry.top
    remarks: list[Remark] = []
    of_panels = options.frame == "sprung"
    if of_panels and not sprung.fits(options.panel_length, options.span, hold, clamped(options)):
        values = {
            "length": (options.panel_length, "length"),
            "span": (options.span, "length"),
            "hold": (hold, "length"),
        }
        remarks.append(
            Remark(
                "arch-impossible",
                "wrong",
                values,
                source="handbook-8.2",
                levers=("span", "panel_length", "hold_height"),
            )
        )
    hang = hang_of(structure)
    clear = rise - hang
    values = {
        "rise": (rise, "length"),
        "wanted": (options.headroom, "length"),
        "clear": (clear, "length"),
        "hang": (hang, "length"),
        "wide": (_width_at(options, site, _HEAD), "length"),
        "head": (_HEAD, "length"),
        "set": (tables.constant("set_rise"), "length"),
    }
    level: Literal["fine", "watch", "wrong"] = "fine"
    if clear < options.headroom - _NEAR:
        level = "wrong" if options.headroom > tables.constant("headroom_least") else "watch"
    remarks.append(
        Remark(
            "arch-headroom" if level == "fine" else "arch-duck",
            level,
            values,
            source="handbook-8.3",
            levers=("foot", "buried", "span", "headroom"),
        )
    )
    remarks.append(Remark("arch-width" if of_panels else "arch-wide", "fine", values, source="handbook-8.3"))
    if of_panels:
        remarks += _sprung(found_, mesh)
    if site.bed.kind == "container" and options.over == "one-bed":
        remarks += _past_pot(options, site)
    if of_panels and options.foot != "posts" and options.hold == "held" and hold < 0.3:
        remarks.append(
            Remark(
                "arch-low-hold", "watch", {"hold": (hold, "length")}, source="handbook-8.5", levers=("foot",)
            )
        )
    if options.cover != "none":
        remarks.append(Remark("cover-off", "watch", source="handbook-parts-2.2", levers=("cover",)))
    tie = tables.ties()[options.tie]
    if options.foot == "posts" and tie.fits == "tee" and tables.posts()[options.post].shape != "tee":
        remarks.append(
            Remark(
                "clip-misfit",
                "wrong",
                words={"tie": tie.name, "post": tables.posts()[options.post].name},
                source=tie.source,
                levers=("tie",),
            )
        )
    for planting in structure.plantings:
        remarks += [
            *fits.of_through(planting, mesh),
            *fits.of_suit(planting, KEY),
            *fits.of_row(planting, total_of(options)),
        ]
        remarks += fits.of_face(planting, total_of(options) * arc_of(options, site))
        heaviest = tables.crops()[planting.crop].fruit_heaviest_kg
        if heaviest > plants.HEAVY:
            remarks.append(
                Remark("slings", "fine", {"fruit": (heaviest, "mass")}, source="handbook-parts-4.5")
            )
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of building an arch of these members."""
    cautions = ["services", "driving"] if geometry.by_role("post") else []
    return (
        *cautions,
        *(("spring",) if geometry.by_role("panel") else ()),
        "cut-ends",
        "hanging-fruit",
        "climb",
        "judgement",
    )


def _sprung(figures: sprung.SprungFigures, mesh: rows.Mesh) -> list[Remark]:
    """Return what is to be said of a panel that is bent by hand."""
    push, energy = float(np.abs(figures.foot + figures.tie)), float(figures.energy)
    said = [
        Remark(
            "arch-spring",
            "watch",
            {"push": (push, "force"), "energy": (energy, "count")},
            source="handbook-8.6",
        )
    ]
    gentle = tables.constant("bend_gentle") * mesh.wire
    if float(figures.radius) < gentle:
        radius = {"radius": (float(figures.radius), "length"), "gentle": (gentle, "length")}
        said.append(
            Remark(
                "arch-sharp", "watch", radius, {"mesh": mesh.name}, "handbook-8.4", ("span", "panel_length")
            )
        )
    return said


def _past_pot(options: PanelArchOptions, site: Site) -> list[Remark]:
    """Return remarks where an arch is longer or wider than the container that its feet stand in."""
    remarks = fits.of_ground(site.bed, total_of(options), ("panels",))
    if options.span > site.bed.width + _NEAR:
        wide = {"wide": (options.span, "length"), "bed": (site.bed.width, "length")}
        remarks.append(Remark("arch-past-pot", "wrong", wide, source="handbook-parts-3.1", levers=("span",)))
    return remarks


def _width_at(options: PanelArchOptions, site: Site, height: float) -> float:
    """Return how wide the arch is at a height. [m]"""
    return 2 * bent_panel.half_width_at(shape_of(options, site), height)

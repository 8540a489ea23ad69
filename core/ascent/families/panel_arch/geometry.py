"""Panel arch: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

import numpy as np

from ... import tables
from ...path.geometry import Dimension, Geometry, Member, Plant, Supply, located
from ...patterns import arch_feet, bent_panel, plants, tube_arch
from ...plan.structure import Planting, Structure
from ...shapes import sprung
from ...site import Site
from .options import PanelArchOptions

FOOT_IN_BED = 0.10  # from the edge of a path to a foot beside it [m], common practice, no source
_STRING_IN = 0.12  # of a string's foot inside the panel [m]
_STRING_TOP = 0.15  # of the span, from the middle to where a string hangs
_LAP_EVERY = 0.6  # between the ties of a lap [m], parts handbook 3.0


def laid_out(options: PanelArchOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return panels, feet, ties and plants in metres."""
    mesh, shape, hold = (
        tables.meshes()[options.panel],
        shape_of(options, site),
        arch_feet.held_at(options, site.bed),
    )
    members, total = [], total_of(options)
    if options.frame == "tubes":
        stations, sunk = middles_of(options), arch_feet.sunk(options)
        tube, over = tables.posts()[options.tube], options.over_wire
        members += tube_arch.members(
            tube, mesh, options.clad_tie, over, shape, stations, options.clad, sunk, options.over_gap
        )
        for n, x in enumerate(stations):
            members += arch_feet.members(options, n, (x,), (x - 0.15, x + 0.15), hold)
    for n, x in enumerate(_starts(options)):
        members.append(bent_panel.member(mesh, n + 1, shape, options.panel_length, options.panel_width, x))
        edges = (x + options.inset, x + options.panel_width - options.inset)
        members += arch_feet.members(options, n, edges, (x, x + options.panel_width), hold)
    for n, x in enumerate(_starts(options)[1:]):
        along = np.linspace(0, len(shape) - 1, lap_ties(options)).round().astype(int)
        members += [
            Member(
                f"lap-{n + 1}-{i + 1}",
                "tie",
                "ties",
                options.lap_tie,
                ((x + options.overlap / 2, *shape[k]),),
                shape="point",
            )
            for i, k in enumerate(along)
        ]
    offset = _planted_at(options, site)
    grown = tuple(
        Plant(p.at, p.planting, bent_panel.way_up(shape, p.at[0], math.copysign(1.0, p.at[1]), p.at))
        for p in plants.along(plantings, total, offset)
    )
    rise = max(z for _, z in shape)
    if options.strung == "inside":
        grown = _strung(options, grown, rise)
        members += [
            Member(
                f"string-{n + 1}",
                "string",
                "twines",
                options.string,
                (p.way[-1], (p.at[0], p.at[1], 0.05)),
                round(math.dist(p.way[-1], p.at) + 0.4, 3),
                0.002,
            )
            for n, p in enumerate(grown)
        ]
    dimensions = (
        Dimension(
            "options.span", "end", (0, -options.span / 2, 0), (0, options.span / 2, 0), options.span, -0.6
        ),
        *(
            (
                Dimension(
                    "options.hold_height",
                    "end",
                    (0, options.span / 2, 0),
                    (0, options.span / 2, hold),
                    hold,
                    0.8,
                ),
            )
            if options.foot == "posts" and options.hold != "free"
            else ()
        ),
        *(
            (
                Dimension(
                    "options.depth",
                    "end",
                    (0, options.span / 2, -options.depth),
                    (0, options.span / 2, 0),
                    options.depth,
                    0.8,
                ),
            )
            if options.foot == "posts"
            else ()
        ),
        _bay(options, rise),
    )
    depth = options.depth if options.foot == "posts" else 0.0
    return Geometry(
        located(members),
        grown,
        (*dimensions, *plants.spacing_dimension(plantings, grown, offset + 0.2)),
        _supplies(options, plantings, arc_of(options, site)),
        total,
        rise,
        depth,
        climb=arc_of(options, site) / 2,
        gap=max(options.span - 2 * FOOT_IN_BED, 0.0) if options.over == "path" else 0.0,
    )


def hang_of(structure: Structure) -> float:
    """Return how far below the crown fruit and leaves hang. [m]"""
    heavy = any(tables.crops()[p.crop].fruit_heaviest_kg > plants.HEAVY for p in structure.plantings)
    return tables.constant("hang" if heavy else "hang_small")


def shape_of(options: PanelArchOptions, site: Site) -> bent_panel.Curve:
    """Return the curve of the panels above the soil; where no such bend is possible, a half ellipse that only
    shows so.
    """
    if options.frame == "tubes":
        return tube_arch.curve(options.span, options.tube_rise)
    hold, sunk = arch_feet.held_at(options, site.bed), arch_feet.sunk(options)
    if not sprung.fits(options.panel_length, options.span, hold, clamped(options)):
        angles = np.linspace(math.pi, 0.0, 61)
        rise = max((options.panel_length - options.span) / 2, 0.3)
        return tuple((options.span / 2 * math.cos(a), rise * math.sin(a)) for a in angles)
    return tuple(
        (y, z - sunk) for y, z in bent_panel.curve(options.panel_length, options.span, hold, clamped(options))
    )


def clamped(options: PanelArchOptions) -> bool:
    """Return whether posts hold it straight all the way up: boards and blocks are too low for it."""
    return options.hold == "clamped" and options.foot == "posts"


def _starts(options: PanelArchOptions) -> list[float]:
    """Return where the panels start along the tunnel; none where tubes stand. [m]"""
    count = options.panels if options.frame == "sprung" else 0
    return [n * (options.panel_width - options.overlap) for n in range(count)]


def middles_of(options: PanelArchOptions) -> list[float]:
    """Return the middles of what is bent, along the tunnel. [m]"""
    if options.frame == "sprung":
        return [x + options.panel_width / 2 for x in _starts(options)]
    return [n * options.arch_spacing for n in range(options.arches)]


def total_of(options: PanelArchOptions) -> float:
    """Return the length of the tunnel. [m]"""
    if options.frame == "tubes":
        return (options.arches - 1) * options.arch_spacing
    return options.panels * options.panel_width - (options.panels - 1) * options.overlap


def arc_of(options: PanelArchOptions, site: Site) -> float:
    """Return the length from foot to foot along the arch. [m]"""
    return (
        options.panel_length if options.frame == "sprung" else tube_arch.arc_length(shape_of(options, site))
    )


def _planted_at(options: PanelArchOptions, site: Site) -> float:
    """Return how far from the middle the plants stand: outside the feet, or inside them where a bed's soil
    ends there and no path lies between them. [m]
    """
    outside, edge = options.span / 2 + plants.OFFSET, site.bed.width / 2
    if options.over == "path" or site.bed.raised_by <= 0.1 or outside <= edge:
        return outside
    return max(min(edge, options.span / 2) - plants.OFFSET, 0.05)


def _bay(options: PanelArchOptions, rise: float) -> Dimension:
    """Return the measure of one panel, or from tube to tube."""
    name, wide = (
        ("panel_width", options.panel_width)
        if options.frame == "sprung"
        else ("arch_spacing", options.arch_spacing)
    )
    return Dimension(f"options.{name}", "elevation", (0, 0, rise), (wide, 0, rise), wide, 0.5)


def lap_ties(options: PanelArchOptions) -> int:
    """Return the number of ties at one lap."""
    return math.ceil(options.panel_length / _LAP_EVERY) + 1


def _strung(options: PanelArchOptions, grown: tuple[Plant, ...], rise: float) -> tuple[Plant, ...]:
    """Return the plants inside the arch, each at a string from its foot to the panel beside the crown."""
    strung = []
    for plant in grown:
        x, side = plant.at[0], math.copysign(1.0, plant.at[1])
        at = (x, side * max(options.span / 2 - _STRING_IN, 0.05), 0.0)
        strung.append(Plant(at, plant.planting, (at, (x, side * _STRING_TOP * options.span, rise - 0.05))))
    return tuple(strung)


def _supplies(options: PanelArchOptions, plantings: tuple[Planting, ...], arc: float) -> tuple[Supply, ...]:
    bare = tables.constant("stripped_pruned")
    return (
        *plants.stem_ties(plantings, options.stem_tie, arc / 2, bare),
        *plants.slings(plantings, options.sling),
    )

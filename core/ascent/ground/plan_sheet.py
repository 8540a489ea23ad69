"""A garden's plan as a sheet: north up, with a scale bar."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..drawing.sheet import Dot, Drawn, Flat, Ink, Line, Mark, Sheet, Words, north, scale_bar
from ..words.quantities import System
from .plot import FeatureMark, PlotDrawing, StructureMark

_DASHES = {"drip-line": (0.02, 0.10), "water-pipe": (0.30, 0.08, 0.06, 0.08), "cable": (0.18, 0.10)}
_FEATURES: dict[str, Ink] = {"path": "path", "wall": "wall", "fence": "wood", "door": "wood"}
_INKS: dict[str, Ink] = {"wood": "wood", "cane": "cane", "metal": "metal", "soil": "soil"}


def plan_sheet(plot: PlotDrawing, title: str, system: System) -> Sheet:
    """Return a garden's plan: paths lowest, then what else is on the ground, beds, structures, names."""
    sheet = Drawn(title, plot.low, plot.high)
    sheet.on("paths", *(_feature(feature) for feature in plot.features if feature.kind == "path"))
    sheet.on("features", *(_feature(feature) for feature in plot.features if feature.kind != "path"))
    for bed in plot.beds:
        ink: Ink = "wood" if bed.board else "soil"
        sheet.on("beds", Line(tuple(bed.outline), max(bed.board, 0.01), ink, closed=True, fill="bed"))
    for structure in plot.structures:
        sheet.on("structures", *_strokes(structure))
        sheet.on("plants", *(Dot(plant, 0.05, "leaf") for plant in structure.plants))
    for feature in plot.features:
        sheet.on("names", Words(_along(feature.points), feature.name))
    for bed in plot.beds:
        lowest = min(y for _, y in bed.outline)
        sheet.on("names", Words((bed.middle[0], lowest - sheet.letter * 1.1), bed.name))
    for structure in plot.structures:
        sheet.on("names", Words((structure.middle[0], structure.middle[1] + 0.12), structure.name))
    left, low, right = plot.low[0] - 0.6, plot.low[1] - 0.6, plot.high[0] + 0.5
    sheet.on("scale", *scale_bar((left, low), (plot.high[0] - plot.low[0] + 1.6) / 4, system))
    sheet.on("scale", *north((right, low + 0.1), sheet.letter))
    return sheet.done()


def _feature(feature: FeatureMark) -> Mark:
    if feature.round:
        return Dot(feature.points[0], feature.width / 2, "metal")
    ink = _FEATURES.get(feature.kind, "water")
    return Line(tuple(feature.points), feature.width, ink, dash=_DASHES.get(feature.kind, ()))


def _strokes(structure: StructureMark) -> Iterator[Mark]:
    for stroke in structure.strokes:
        ink = _INKS.get(stroke.stuff, "ink")
        if len(stroke.points) == 1:
            yield Dot(stroke.points[0], 0.04, ink)
        else:
            yield Line(stroke.points, ink=ink, dash=(0.08, 0.06) if stroke.role == "guy" else ())


def _along(points: Sequence[Flat]) -> Flat:
    (x0, y0), (x1, y1) = points[0], points[-1]
    return (x0 + 0.8 * (x1 - x0), y0 + 0.8 * (y1 - y0) + 0.06)

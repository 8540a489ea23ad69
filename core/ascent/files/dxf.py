"""A sheet as a DXF drawing in millimetres: layers with plain names, and measures as dimensions."""

from __future__ import annotations

import io
import math
import unicodedata

from ezdxf import units
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.filemanagement import new

from ..drawing.sheet import Dot, Flat, Ink, Line, Mark, Sheet, Span, Words
from .svg import COLOURS

_MM = 1000.0  # a metre
_STYLE = "EZDXF"
_LETTERS = "LETTERS"


def sheet_dxf(sheet: Sheet) -> str:
    """Return a sheet as a DXF document of the year 2010, one millimetre a unit, each layer a layer."""
    drawing = new("R2010", setup=True)
    drawing.units = units.MM
    drawing.header["$MEASUREMENT"] = 1
    style = drawing.dimstyles.duplicate_entry(_STYLE, "MEASURES")
    style.dxf.dimtxt = sheet.letter * _MM
    style.dxf.dimasz = sheet.letter * _MM * 0.6
    style.dxf.dimgap = sheet.letter * _MM * 0.3
    style.dxf.dimlfac = 1.0
    # a typeface of outlines: the one of strokes, which is the default, has few letters beside English ones
    drawing.styles.add(_LETTERS, font="NotoSans-Regular.ttf")
    for layer in sheet.layers:
        drawing.layers.add(layer.key)
        for mark in layer.marks:
            _put(drawing, layer.key, mark, sheet.letter)
    out = io.StringIO()
    drawing.write(out)
    return out.getvalue()


def _literal(text: str) -> str:
    """Return a text that stays what it is: two percent signs begin a special character in DXF, three are one.
    Line ends and other controls, which no line of text can hold, become spaces.
    """
    plain = "".join(" " if unicodedata.category(each) == "Cc" else each for each in text)
    return plain.replace("%%", "%%%%%%")


def _at(point: Flat) -> Flat:
    return point[0] * _MM, point[1] * _MM


def _colour(ink: Ink) -> int:
    return int(COLOURS[ink][1:], 16)


def _put(drawing: Drawing, layer: str, mark: Mark, letter: float) -> None:
    space = drawing.modelspace()
    given = {"layer": layer}
    match mark:
        case Line():
            line = space.add_lwpolyline([_at(p) for p in mark.points], close=mark.closed, dxfattribs=given)
            line.dxf.true_color = _colour(mark.ink)
        case Dot():
            circle = space.add_circle(_at(mark.at), mark.radius * _MM, dxfattribs=given)
            circle.dxf.true_color = _colour(mark.ink)
        case Words():
            text = space.add_text(
                _literal(mark.text), height=letter * _MM, dxfattribs={**given, "style": _LETTERS}
            )
            middle = mark.anchor == "middle"
            align = TextEntityAlignment.CENTER if middle else TextEntityAlignment.LEFT
            text.set_placement(_at(mark.at), align=align)
        case Span():
            upright = abs(mark.line[1][0] - mark.line[0][0]) < abs(mark.line[1][1] - mark.line[0][1])
            slant = abs(mark.start[0] - mark.end[0]) > 1e-6 and abs(mark.start[1] - mark.end[1]) > 1e-6
            if slant:
                away = _off(mark)
                dimension = space.add_aligned_dim(
                    _at(mark.start), _at(mark.end), away * _MM, mark.text, "MEASURES", dxfattribs=given
                )
            else:
                dimension = space.add_linear_dim(
                    _at(mark.line[0]),
                    _at(mark.start),
                    _at(mark.end),
                    angle=90.0 if upright else 0.0,
                    text=mark.text,
                    dimstyle="MEASURES",
                    dxfattribs=given,
                )
            dimension.render()
            made = dimension.dimension
            made.dxf.actual_measurement = float(made.get_measurement())


def _off(span: Span) -> float:
    """Return how far the line of a slanting measure lies off what it measures, to the left of it. [m]"""
    (x0, y0), (x1, y1) = span.start, span.end
    long = math.dist(span.start, span.end)
    dx, dy = span.line[0][0] - x0, span.line[0][1] - y0
    return ((x1 - x0) * dy - (y1 - y0) * dx) / max(long, 1e-9)

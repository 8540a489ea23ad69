"""Paper as a PDF, A4 or Letter: drawings as lines, text as text that can be searched."""

from __future__ import annotations

import io
import re
from collections.abc import Callable
from typing import Literal

from fpdf import FPDF

from ..drawing.paper import Beside, Block, Drawing, Heading, Listed, Paper, PaperTable, Text
from ..drawing.sheet import Dot, Flat, Line, Sheet, Span, Words
from .svg import COLOURS
from .typefaces import FOLDER, OWN, WEIGHTS, composed, typefaces_for, undrawn

Format = Literal["A4", "Letter"]
_OWN = "barlow"
_LEFT_OUT = "[…]"  # for letters that no typeface draws
_MM = 1000.0  # a metre
_EDGE, _FOOT = 15.0, 14.0  # of the page [mm]
_HAIR, _HEAVY = 0.15, 0.8  # least and greatest width of a line [mm]
_SMALL = 2.5  # least height of a letter on a drawing [mm]
_SIZES = {1: 20.0, 2: 14.0, 3: 12.5}  # of headings [pt]
_PLAIN, _QUIET = 10.5, 9.0  # [pt]
_LARGE = 1.2  # times plain, of what is read from a wall
_LINE = 5.2  # of plain text [mm]
_WITH_TEXT = 28.0  # of a heading with the first lines below it [mm]
_POINT = 0.3528  # [mm]
_RISE = 0.8  # of a cell as high as its letters: from its upper edge down to the line they stand on


def write_pdf(paper: Paper, form: Format = "A4") -> bytes:
    """Return paper as a PDF.

    Args:
        paper: What is on it.
        form: The size of its pages.
    """
    return _Pages(paper, form).written()


def printable(text: str) -> str:
    """Return a text in letters that the typefaces draw, without what they do not."""
    plain = composed(text.replace("→", "to").replace("≤", "at most ").replace("✓", "done"))
    if missing := undrawn(plain):
        plain = re.sub(f"[{re.escape(missing)}]+", _LEFT_OUT, plain)
    return plain


class _Footed(FPDF):
    """Pages with a line at their foot, in the own typeface and others for the letters that it lacks."""

    def __init__(self, foot: str, form: Format) -> None:
        super().__init__(format=form, unit="mm")
        for style, file in OWN.items():
            self.add_font(_OWN, style=style, fname=FOLDER / file)
        self._others: list[str] = []
        self._foot = self.set_in_type(foot)

    def set_in_type(self, text: str) -> str:
        """Return a text as it can be set, with the typefaces it needs at hand."""
        plain = printable(text)
        style = "B" if "B" in self.font_style else ""
        for face in typefaces_for(plain, style):
            family = face.file.stem
            if f"{family}{style}" in self.fonts:
                continue
            weight = {"wght": WEIGHTS[style]} if face.varies else None
            self.add_font(family, style=style, fname=face.file, variations=weight)
            self._others.append(family)
            self.set_fallback_fonts(self._others, exact_match=False)
            self.set_text_shaping(True)
        return plain

    def footer(self) -> None:
        """Write the line, as the library asks at the end of each page."""
        self.set_y(-_FOOT)
        self.set_font(_OWN, size=8)
        self.set_text_color("#4c5a63")
        self.cell(0, 6, f"{self._foot}   page {self.page_no()} of {{nb}}", align="L")


class _Pages:
    def __init__(self, paper: Paper, form: Format) -> None:
        self.pdf = _Footed(paper.foot, form)
        self.pdf.set_title(paper.title)
        self.pdf.set_creator("Ascent")
        self.pdf.set_margin(_EDGE)
        self.pdf.set_auto_page_break(True, _FOOT + 6)
        self.pdf.add_page()
        for block, after in zip(paper.blocks, (*paper.blocks[1:], None), strict=True):
            self._block(block, after)

    def _block(self, block: Block, after: Block | None) -> None:
        match block:
            case Heading():
                self._heading(block, after)
            case Text():
                self._text(block)
            case Listed():
                self._listed(block)
            case PaperTable():
                self._table(block)
            case Drawing():
                self._drawing(block)
            case Beside():
                self._beside(block)

    def written(self) -> bytes:
        out = io.BytesIO()
        self.pdf.output(out)
        return out.getvalue()

    def _font(self, size: float = _PLAIN, strong: bool = False, ink: str = "#14212b") -> None:
        self.pdf.set_font(_OWN, style="B" if strong else "", size=size)
        self.pdf.set_text_color(ink)

    def _room(self, high: float) -> None:
        """Begin a page where so much no longer fits on this one. [mm]"""
        if self.pdf.get_y() + high > self.pdf.h - _FOOT - 6:
            self.pdf.add_page()

    def _heading(self, heading: Heading, after: Block | None) -> None:
        """Write a heading where what follows it fits on the same page."""
        if heading.fresh_page and self.pdf.get_y() > _EDGE + 1:
            self.pdf.add_page()
        self._room(_WITH_TEXT + (after.high * _MM if isinstance(after, Drawing) else 0.0))
        if heading.rank > 1:
            self.pdf.ln(3.0)
        self._font(_SIZES[heading.rank], strong=True)
        high = _SIZES[heading.rank] * _POINT * 1.25
        self.pdf.multi_cell(0, high, self.pdf.set_in_type(heading.text), new_x="LMARGIN", new_y="NEXT")
        self.pdf.ln(1.0)

    def _text(self, text: Text) -> None:
        quiet = text.look == "quiet"
        self._font(_QUIET if quiet else _PLAIN, text.look == "strong", "#4c5a63" if quiet else "#14212b")
        framed = text.look == "care"
        self.pdf.set_draw_color("#14212b")
        self.pdf.set_line_width(0.3)
        self.pdf.multi_cell(
            0,
            _LINE,
            self.pdf.set_in_type(text.text),
            border=1 if framed else 0,
            padding=2 if framed else 0,
            align="L",
            new_x="LMARGIN",
            new_y="NEXT",
        )
        self.pdf.ln(1.2)

    def _listed(self, listed: Listed) -> None:
        times = _LARGE if listed.large else 1.0
        line = times * _LINE
        self._font(times * _PLAIN)
        for item in listed.items:
            self._room(line)
            x, y = self.pdf.get_x(), self.pdf.get_y()
            self.pdf.set_draw_color("#14212b")
            if listed.boxes:
                self.pdf.set_line_width(0.3)
                self.pdf.rect(x, y + 0.6, 3.6 * times, 3.6 * times)
            else:
                self.pdf.set_fill_color("#14212b")
                self.pdf.circle(x + 1.4, y + line / 2, 0.5, style="F")
            self.pdf.set_x(x + 6.0 * times)
            self.pdf.multi_cell(0, line, self.pdf.set_in_type(item), align="L", new_x="LMARGIN", new_y="NEXT")
            if listed.large:
                self.pdf.ln(0.8)
        self.pdf.ln(1.5)

    def _table(self, table: PaperTable) -> None:
        self._font(_QUIET)
        self.pdf.set_draw_color(COLOURS["pale"])
        self.pdf.set_fill_color("#ffffff")
        self.pdf.set_line_width(_HAIR)
        with self.pdf.table(
            col_widths=table.widths,
            text_align="LEFT",
            line_height=4.6,
            borders_layout="HORIZONTAL_LINES",
            padding=(0.6, 1.0, 0.6, 0.0),
        ) as rows:
            for cells in (table.head, *table.rows):
                row = rows.row()
                for cell in cells:
                    row.cell(self.pdf.set_in_type(cell))
        self.pdf.ln(2.0)

    def _drawing(self, drawing: Drawing) -> None:
        wide = self.pdf.epw
        sheet = drawing.sheet
        scale = min(
            wide / (sheet.high[0] - sheet.low[0]), drawing.high * _MM / (sheet.high[1] - sheet.low[1])
        )
        high = (sheet.high[1] - sheet.low[1]) * scale
        self._room(high)
        self._draw(sheet, self.pdf.l_margin, self.pdf.get_y(), scale)
        self.pdf.set_y(self.pdf.get_y() + high + 2.0)

    def _beside(self, beside: Beside) -> None:
        wide = beside.wide * _MM
        self._room(wide + 2.0)
        top = self.pdf.get_y()
        sheet = beside.sheet
        self._draw(sheet, self.pdf.l_margin, top, wide / (sheet.high[0] - sheet.low[0]))
        self.pdf.set_xy(self.pdf.l_margin + wide + 5.0, top + 2.0)
        self._font(strong=True)
        self.pdf.multi_cell(0, _LINE, self.pdf.set_in_type(beside.title), new_x="LEFT", new_y="NEXT")
        self._font()
        self.pdf.multi_cell(
            0, _LINE, self.pdf.set_in_type(beside.text), align="L", new_x="LEFT", new_y="NEXT"
        )
        self.pdf.set_xy(self.pdf.l_margin, max(top + wide, self.pdf.get_y()) + 2.0)

    def _draw(self, sheet: Sheet, left: float, top: float, scale: float) -> None:
        """Draw a sheet with its upper left corner there, at a scale in millimetres a metre."""

        def at(point: Flat) -> tuple[float, float]:
            return left + (point[0] - sheet.low[0]) * scale, top + (sheet.high[1] - point[1]) * scale

        letter = max(sheet.letter * scale, _SMALL)
        for layer in sheet.layers:
            for mark in layer.marks:
                match mark:
                    case Line():
                        self._line(mark, at, scale)
                    case Dot():
                        self.pdf.set_fill_color(COLOURS[mark.ink])
                        x, y = at(mark.at)
                        self.pdf.circle(x, y, max(mark.radius * scale, 0.3), style="F")
                    case Words():
                        self._words(mark, at, letter)
                    case Span():
                        self._line(mark.strokes, at, scale)
                        self._words(mark.words, at, letter)

    def _line(self, line: Line, at: Callable[[Flat], tuple[float, float]], scale: float) -> None:
        self.pdf.set_draw_color(COLOURS[line.ink])
        self.pdf.set_line_width(min(max(line.width * scale, _HAIR), _HEAVY))
        places = [at(point) for point in line.points]
        if line.dash:
            self.pdf.set_dash_pattern(line.dash[0] * scale, line.dash[-1] * scale)
        if line.closed:
            if line.fill:
                self.pdf.set_fill_color(COLOURS[line.fill])
            self.pdf.polygon(places, style="DF" if line.fill else "D")
        else:
            self.pdf.polyline(places)
        if line.dash:
            self.pdf.set_dash_pattern()

    def _words(self, words: Words, at: Callable[[Flat], tuple[float, float]], letter: float) -> None:
        self._font(letter / _POINT)
        text = self.pdf.set_in_type(words.text)
        x, y = at(words.at)
        long = self.pdf.get_string_width(text)
        left = x - (long / 2 if words.anchor == "middle" else 0.0)
        if not typefaces_for(text):
            self.pdf.text(left, y, text)
            return
        # the library sets other typefaces, and from right to left, in cells only
        self.pdf.set_auto_page_break(False)
        self.pdf.set_xy(left - self.pdf.c_margin, y - _RISE * self.pdf.font_size)
        self.pdf.cell(long + 2 * self.pdf.c_margin, self.pdf.font_size, text)
        self.pdf.set_auto_page_break(True, _FOOT + 6)

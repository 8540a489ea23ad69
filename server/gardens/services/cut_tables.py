"""How stock is cut, as a table: of one structure or of a garden's all."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable

from ascent.files.csv_tables import plain_cell
from ascent.report.readout import CutReport


def cuts_csv(cuts: Iterable[CutReport]) -> str:
    """Return a cut list as CSV: a row for each stock length that is cut otherwise."""
    handle = io.StringIO()
    writer = csv.writer(handle)
    writer.writerow(["stock", "for", "length", "how many", "from the shed", "cuts of each", "left of each"])
    for cut in cuts:
        pieces = " + ".join(text for _, text in cut.cuts)
        row = [cut.name, cut.use, cut.length_text, cut.bars, cut.own, pieces, cut.rest_text]
        writer.writerow([plain_cell(cell) if isinstance(cell, str) else cell for cell in row])
    return handle.getvalue()

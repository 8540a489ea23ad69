"""Section and allowable of a post from its row."""

from __future__ import annotations

import math

from .. import tables
from ..mechanics import section
from ..mechanics.section import SectionProperties
from ..memory import remembered
from ..tables import rows


@remembered(512)
def of_post(post: rows.Post) -> SectionProperties:
    """Return the section of a post, strong or usual way first.

    Source: handbook-3.1
    """
    match post.shape:
        case "square" | "rect":
            return section.rectangle(post.a, post.b)
        case "round":
            return section.round_bar(post.a)
        case "tube":
            return section.tube(post.a, post.b)
        case "cane":
            return section.tube(post.a, (post.a - post.b) / 2)
        case "tee":
            return section.tee(post.a, post.b)
    row = tables.sections()[post.shape]
    return SectionProperties(row.A, row.I, row.S, row.Z, row.I_other, row.S_other, row.Z_other)


def perimeter(post: rows.Post) -> float:
    """Return the length of a string round a post. [m]"""
    if post.shape in ("round", "tube", "cane"):
        return math.pi * post.a
    return 2.0 * (post.a + post.b) if post.shape == "rect" else 4.0 * post.a

"""Runs of twine between posts: how hard they pull where plants lean on them, and what that asks of twine and
posts.
"""

from __future__ import annotations

import numpy as np

from .. import tables
from ..checks import strings
from ..mechanics import Array, cable
from ..path.loadpath import Check
from ..tables import rows


def tension(twine: rows.Twine, load: Array, span: float, spans: int, end_stiffness: Array) -> Array:
    """Return the pull of a run of twine drawn tight by hand under a side load. [N]

    Args:
        twine: The twine; its stiffness is its break over its stretch.
        load: Side load per metre. [N/m]
        span: Between posts. [m]
        spans: Number of spans.
        end_stiffness: Of each end post. [N/m]

    Source: handbook-11
    """
    axial = twine.break_N / twine.stretch
    return cable.elastic_tension(load, span, tables.constant("twine_pretension"), axial, end_stiffness, spans)


def run(twine: rows.Twine, load: Array, span: float, pull: Array, days: Array) -> Check:
    """Return the check of a run of twine that plants lean on. Load [N/m], span [m], pull [N], days in use
    [d].

    Source: handbook-11
    """
    pulled = np.hypot(pull, load * span / 2)
    return Check(
        "run",
        pulled,
        *strings.twine_strength(twine, days),
        "force",
        "handbook-11",
        "judgement",
        {
            "load": (load, "line_load"),
            "span": (span, "length"),
            "pull": (pull, "force"),
            "sag": (load * span**2 / (8 * np.maximum(pull, 1e-9)), "length"),
            "demand": (pulled, "force"),
        },
        "twine",
    )

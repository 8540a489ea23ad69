"""How crops are tended on a support: what their training asks for, and what a mesh or a string adds to it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

from .. import tables
from ..family.care import Care
from ..path.geometry import Geometry
from ..plan.structure import Planting
from ..site import Site
from ..tables import rows
from .plants import HEAVY

# steps and days between visits are those of the crops handbook, section 4
_TIE, _TIE_DAYS, _FIRST = 0.25, 10.0, 14.0
_WIND, _WIND_DAYS = 0.065, 3.0
_BELOW, _STEM_CLEAR = 0.25, 0.25  # of the tip from the top when it is let down, of fruit from the soil [m]
_LET_DOWN, _LET_DOWN_DAYS = 0.40, 14.0
_TRAPS = (0.5, 1.3)  # fruit diameters between which an opening holds fruit, crops handbook 5.6
_CROWN = 0.9  # of an arch's height from which a tip is laid over
_Made = Callable[[int, rows.Crop, Planting], list[Care]]
_ANTICLOCKWISE, _CLOCKWISE = "anticlockwise", "clockwise"


def rounds(plantings: Sequence[Planting], *made: _Made) -> tuple[Care, ...]:
    """Return the cares of every planting, made by functions of its number and its crop."""
    return tuple(
        care
        for number, planting in enumerate(plantings)
        for make in made
        for care in make(number, tables.crops()[planting.crop], planting)
    )


def trained(number: int, crop: rows.Crop, planting: Planting) -> list[Care]:
    """Return what a crop's own training asks for on any support that it climbs or is tied to.

    Source: crops-4
    """
    made = _TRAINED.get(crop.training)
    return made(number, crop, planting) if made else []


def tied(number: int, crop: rows.Crop, planting: Planting) -> list[Care]:
    """Return the ties of a stem that leans, and the pruning that goes with them."""
    return [Care("tie", number, first=_FIRST, step=_TIE, cap=_TIE_DAYS), *pruned(number, crop, planting)]


def clipped(number: int, crop: rows.Crop, planting: Planting) -> list[Care]:
    """Return the clips of a stem on a string."""
    return [Care("clip", number, first=_FIRST, step=_TIE, cap=_TIE_DAYS), *pruned(number, crop, planting)]


def wound(number: int, crop: rows.Crop, planting: Planting) -> list[Care]:
    """Return the winding of a stem round its string."""
    return [Care("wind", number, heights=(0.3,), step=_WIND, cap=_WIND_DAYS), *pruned(number, crop, planting)]


def let_down(number: int, top: float, spare: float) -> list[Care]:
    """Return the letting down of stems that reach the top of their strings, as long as string is left. [m]

    Source: crops-4
    """
    times = int(spare / _LET_DOWN + 1e-6)
    if not times:
        return []
    values = {
        "below": (_BELOW, "length"),
        "moved": (_LET_DOWN, "length"),
        "clear": (_STEM_CLEAR, "length"),
        "string": (spare, "length"),
    }
    return [
        Care(
            "lower",
            number,
            heights=(max(top - _BELOW, 0.3),),
            step=_LET_DOWN,
            cap=_LET_DOWN_DAYS,
            times=times,
            values=values,
        )
    ]


def pruned(number: int, crop: rows.Crop, planting: Planting) -> list[Care]:
    """Return the side shoots, the lower leaves and the tip of a crop that is pruned to its stems."""
    if crop.training != "TIE" or planting.training == "free":
        return []
    return [
        Care("sucker", number, first=21.0, cap=7.0),
        Care(
            "strip", number, first=max(crop.first_low_d - crop.set_to_pick_d + 21.0, 30.0), cap=14.0, times=3
        ),
        Care("stop", number),
    ]


def woven(number: int, heights: Sequence[float], job: str = "weave") -> list[Care]:
    """Return the runs that go on as the plants pass their heights, and the one tightening after the last.
    [m]
    """
    cares = [
        Care(
            job,
            number,
            heights=(round(height, 3),),
            key=f"run-{n}",
            values={"height": (height, "length"), "run": (float(n), "count")},
        )
        for n, height in enumerate(heights, start=1)
    ]
    if not cares:
        return []
    return [*cares, Care("retighten", number, heights=(heights[-1],), cap=14.0, times=1, after=14.0)]


def corralled(number: int, crop: rows.Crop, height: float) -> list[Care]:
    """Return the two strings round a row that would lodge, a third and two thirds up. [m]"""
    return [
        Care(
            "corral",
            number,
            heights=(round(share * min(height, crop.height_m), 2),),
            key=f"run-{n}",
            values={"height": (share * min(height, crop.height_m), "length")},
        )
        for n, share in ((1, 1 / 3), (2, 2 / 3))
    ]


def trapped(number: int, crop: rows.Crop, opening: float) -> list[Care]:
    """Return the freeing of fruit that sets in openings it cannot leave. [m]

    Source: crops-5.6
    """
    fruit = crop.fruit_max
    if not fruit or not _TRAPS[0] * fruit <= opening <= _TRAPS[1] * fruit:
        return []
    values = {"fruit": (fruit, "length"), "opening": (opening, "length")}
    first = max(crop.first_low_d - crop.set_to_pick_d, 20.0)
    return [Care("free-fruit", number, first=first, cap=6.0, values=values)]


def slung(number: int, crop: rows.Crop) -> list[Care]:
    """Return the slings of heavy fruit, from when the first are as large as a fist.

    Source: handbook-season-5
    """
    if crop.fruit_heaviest_kg < HEAVY or not crop.fruit_max:
        return []
    first = crop.first_low_d - 0.55 * crop.set_to_pick_d
    return [
        Care(
            "sling", number, first=first, cap=7.0, times=3, values={"mass": (crop.fruit_heaviest_kg, "mass")}
        )
    ]


def over(number: int, crop: rows.Crop, height: float) -> list[Care]:
    """Return the laying of tips over the crown of an arch. [m]"""
    if crop.training not in ("GUIDE", "TWINE", "TIE") or crop.height_m < _CROWN * height:
        return []
    return [Care("crown", number, heights=(_CROWN * height,), cap=7.0, times=3, until="cover")]


def passed(number: int, crop: rows.Crop, top: float) -> list[Care]:
    """Return the extension of a support that its crop grows past. [m]"""
    if crop.training != "FRONT" or crop.height_m <= top + 0.1:
        return []
    return [Care("extend", number, heights=(top,))]


def _once(care: Care) -> _Made:
    return lambda number, crop, planting: [replace(care, planting=number)]


def _led(number: int, crop: rows.Crop, planting: Planting) -> list[Care]:
    turn = _CLOCKWISE if crop.key == "hops" else _ANTICLOCKWISE
    return [
        Care("lead", number, first=_FIRST, step=0.5, cap=7.0, times=3, words={"turn": turn}),
        Care("pinch", number, heights=(crop.height_m,), until="top"),
    ]


def _round(number: int, crop: rows.Crop, planting: Planting) -> list[Care]:
    return corralled(number, crop, crop.height_m)


_TRAINED: dict[str, _Made] = {
    "TIE": tied,
    "WEAVE": _once(Care("tie-branch", 0, first=_FIRST, step=0.25, cap=14.0, until="pods")),
    "STAKE": _once(Care("tie-branch", 0, first=_FIRST, step=0.25, cap=14.0, until="pods")),
    "STALK": _once(Care("trunk", 0, heights=(0.25,), step=0.12, cap=10.0)),
    "GUIDE": _once(Care("guide", 0, first=16.0, step=0.38, cap=7.0, until="cover")),
    "TWINE": _led,
    "FRONT": _once(Care("front", 0, heights=(0.2,), step=0.25, cap=10.0, until="pods")),
    "CORRAL": _round,
    "LAY": _once(Care("lay", 0, first=30.0, step=0.45, cap=10.0, until="cool")),
}


def usual(options: Any, geometry: Geometry, plantings: tuple[Planting, ...], site: Site) -> tuple[Care, ...]:
    """Return what the crops ask for on a support that adds nothing of its own."""
    return rounds(plantings, trained)

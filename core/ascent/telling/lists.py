"""The lines of a shopping list."""

from __future__ import annotations

from collections.abc import Iterable

from ..buying.lists import Part
from ..words.quantities import System, with_sizes, write
from .readout import PartReport


def part_reports(parts: Iterable[Part], system: System) -> tuple[PartReport, ...]:
    """Return the lines of a shopping list in words."""
    return tuple(_part(part, system) for part in parts)


def _part(part: Part, system: System) -> PartReport:
    long = part.pack in ("panel", "sheet", "roll", "coil", "spool") or (part.pack == "piece" and part.length)
    size = write(part.pack_size, "length", system) if long else ""
    of = f" of {part.pack_size:g}" if part.pack == "pack" else f" of {size}" if size else ""
    plural = "" if part.packs == 1 else "s"
    cut = f", cut to {write(part.length, 'length', system)}" if part.pack == "spool" else ""
    return PartReport(
        key=part.key,
        price_key=part.price_key,
        name=with_sizes(part.name, system),
        use=with_sizes(part.use, system, exact=True),
        count=part.count,
        buy=f"{part.packs} {part.pack}{plural}{of}{cut}",
        price=part.price,
        cost=round(part.cost, 2),
        lasts=f"{part.life:g} season{'' if part.life == 1 else 's'}" if part.life else "",
    )

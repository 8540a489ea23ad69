"""How long it takes to build what is laid out, and whether the ground is dug for it."""

from __future__ import annotations

from dataclasses import dataclass

from .. import tables
from ..path.geometry import Geometry, Member
from ..tables.rows import Anchor, Mesh, Post, Trait

_SLIM = 0.021  # a stake or cane so thick at most is pushed in by hand [m]
_OF_ROLE = {
    "guy": "guy",
    "tie": "tie",
    "panel": "bent",
    "string": "string",
    "run": "run",
    "wire": "wire",
    "rail": "lashed",
    "strut": "lashed",
    "arm": "lashed",
    "fitting": "fitting",
}


@dataclass(frozen=True)
class Labour:
    """Minutes of one practised adult, and whether holes are dug."""

    minutes: float
    digs: bool

    def hours(self, trait: Trait, years: float) -> float:
        """Return the hours of it in a season: what moves to another bed is set up each season, what stays
        once in the years it is used.
        """
        return self.minutes / 60 / (1.0 if trait.moves == "yes" else max(years, 1.0))


def labour_of(geometry: Geometry, setting: str = "driven") -> Labour:
    """Return the work of building a structure; stems are tied as they grow, which is no part of it.

    Args:
        geometry: The structure laid out.
        setting: How its posts are set.

    Source: handbook-parts-5.1
    """
    known = tables.work()
    minutes, digs = known["site"].minutes, False
    for member in geometry.members:
        kind = _kind_of(member, setting)
        if kind:
            minutes += known[kind].minutes + known[kind].per_m * member.buy_length
            digs = digs or known[kind].digs
    return Labour(minutes, digs)


def _kind_of(member: Member, setting: str) -> str:
    """Return the row of work.csv that a member is; nothing of what stands there already or takes no time."""
    if member.table not in tables.ITEM_TABLES:
        return ""
    item = tables.item(member.table, member.item)
    kind = _OF_ROLE.get(member.role, "")
    match member.role:
        case "post" if isinstance(item, Post):
            by_hand = item.soil_width < _SLIM or item.shape == "cane"
            kind = setting if setting in ("tamped", "concrete") else "pushed" if by_hand else "driven"
        case "anchor" if isinstance(item, Anchor):
            kind = "deadman" if item.mass_kg and item.top_m > 0 else "anchor"
        case "mesh" if isinstance(item, Mesh):
            kind = "panel" if item.stiff else "roll"
        case "ring":
            kind = "cut_ring" if isinstance(item, Mesh) else "ring"
    return kind

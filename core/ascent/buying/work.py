"""How long it takes to build what is laid out, and whether the ground is dug for it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from .. import tables
from ..families import family_of
from ..family.steps import Step
from ..path.geometry import Geometry, Member
from ..patterns import posts
from ..plan.fields import Typed
from ..plan.structure import Build
from ..site import Site
from ..tables.rows import Anchor, Mesh, Post, Trait

_IN_GROUND = 0.02  # below which a strut is a stake [m]
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
    """Minutes from beginning to end, those of everybody together, whether holes are dug, and the keys of the
    tools it takes that not everybody has.
    """

    minutes: float
    hands: float
    digs: bool
    tools: frozenset[str]

    def hours(self, trait: Trait, years: float) -> float:
        """Return the hours of it in a season: what moves to another bed is set up each season, what stays
        once in the years it is used.
        """
        return self.hands / 60 / (1.0 if trait.moves == "yes" else max(years, 1.0))


def labour_of(structure: Build, options: Typed, geometry: Geometry, site: Site) -> Labour:
    """Return the work of building a structure by its steps; stems are tied as they grow, which is no part of
    it.

    Args:
        structure: What is built.
        options: Its options.
        geometry: It laid out.
        site: Where it stands.

    Source: handbook-parts-5.1
    """
    setting = setting_of(options)
    steps = family_of(structure.family).steps(options, geometry, structure.plantings, site, "usual")
    members = {member.key: member for member in geometry.members}
    spent = [
        (step_minutes(step, [members[key] for key in step.members], setting, len(geometry.plants)), step)
        for step in steps
    ]
    kinds = {_kind_of(member, setting) for member in geometry.members} - {""}
    return Labour(
        site_minutes() + sum(minutes for minutes, _ in spent),
        # whoever helps at the first step helps to mark out
        sum(minutes * people_of(step) for minutes, step in spent) + site_minutes() * people_of(steps[0]),
        any(tables.work()[kind].digs for kind in kinds),
        frozenset(tool for step in steps for tool in tools_of(step) if tool in tables.tools()),
    )


def step_minutes(step: Step, members: Sequence[Member], setting: str, plants: int) -> float:
    """Return the minutes of one step: of the members it sets, or by its own row where it sets none. [min]"""
    if members:
        return sum(member_minutes(member, setting) for member in members)
    return beside_minutes(step.row, plants)


def tools_of(step: Step) -> list[str]:
    """Return the tools of a step, in its order."""
    return [tool.strip() for tool in (tables.steps()[step.row].tools or "").split(";") if tool.strip()]


def people_of(step: Step) -> int:
    """Return how many are needed for a step."""
    return step.hands or tables.steps()[step.row].people


def setting_of(options: Typed) -> str:
    """Return how a structure's posts are set."""
    return str(getattr(options, "setting", "driven"))


def site_minutes() -> float:
    """Return the minutes of beginning and marking out. [min]"""
    return tables.work()["site"].minutes


def member_minutes(member: Member, setting: str) -> float:
    """Return the minutes that one member takes, by how posts are set. [min]"""
    kind = _kind_of(member, setting)
    row = tables.work()[kind] if kind else None
    return row.minutes + row.per_m * member.buy_length if row else 0.0


def beside_minutes(step: str, plants: int) -> float:
    """Return the minutes of a step that sets no member, by its row of steps.csv: looking, watering,
    planting. [min]
    """
    known = tables.work()
    return known[step].minutes + known[step].per_plant * plants if step in known else 0.0


def _kind_of(member: Member, setting: str) -> str:
    """Return the row of work.csv that a member is; nothing of what stands there already or takes no time."""
    if member.table not in tables.ITEM_TABLES:
        return ""
    item = tables.item(member.table, member.item)
    kind = _OF_ROLE.get(member.role, "")
    match member.role:
        case "post" if isinstance(item, Post):
            by_hand = posts.by_hand(item)
            kind = setting if setting in ("tamped", "concrete") else "pushed" if by_hand else "driven"
        case "strut" if isinstance(item, Post) and min(z for _, _, z in member.points) < -_IN_GROUND:
            kind = "pushed" if posts.by_hand(item) else "driven"
        case "anchor" if isinstance(item, Anchor):
            kind = "deadman" if item.mass_kg and item.top_m > 0 else "anchor"
        case "mesh" if isinstance(item, Mesh):
            kind = "panel" if item.stiff else "roll"
        case "ring":
            kind = "cut_ring" if isinstance(item, Mesh) else "ring"
    return kind

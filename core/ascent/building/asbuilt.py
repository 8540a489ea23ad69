"""A structure as it really went in: what differs from the plan, and whether it still holds, post by post
where posts differ.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from pydantic import ValidationError

from .. import tables
from ..analysis.design import Design, design_of, geometry_of
from ..errors import InvalidPlan, Problem, UnreadableQuantity
from ..families import family_of
from ..files.plan import problems_of
from ..path.geometry import Geometry
from ..plan.fields import Joining
from ..plan.record import Differs, Record
from ..plan.structure import AsBuilt, Build, Structure
from ..site import Site
from ..words.quantities import System, read
from .work import work_of


@dataclass(frozen=True)
class Stood:
    """A part of the structure that stands otherwise than the rest: which members, and the whole as if all
    stood so; that is the careful side, since the rest of it helps.
    """

    members: tuple[str, ...]
    options: Mapping[str, Any]
    design: Design


@dataclass(frozen=True)
class AsBuiltCheck:
    """How a structure stands as planned, as built all over, and where single members differ."""

    planned: Design
    whole: Design
    parts: tuple[Stood, ...]

    @property
    def worst(self) -> Design:
        """Return the least of what was built."""
        return max((self.whole, *(part.design for part in self.parts)), key=lambda e: e.greatest_utilisation)


def being_built(structure: Structure) -> Structure:
    """Return a structure as it is being built, or was: what was kept of it when building began, else its
    plan.
    """
    built = structure.built
    if built is None:
        return structure
    kept = {name: getattr(built, name) for name in Build.model_fields}
    if built.taken is not None:
        kept["taken"] = built.taken
    return structure.model_copy(update=kept)


def with_options(structure: Structure, options: Mapping[str, Any]) -> Structure:
    """Return a structure with options that came out otherwise.

    Raises:
        InvalidPlan: An option that the kind does not have, or a value that is not allowed, by its name.
    """
    family = family_of(structure.family)
    known = f"one of {', '.join(sorted(family.options.model_fields))} is allowed"
    problems = [
        Problem(f"differs.{name}", name, known) for name in options if name not in family.options.model_fields
    ]
    if problems:
        raise InvalidPlan(problems)
    try:
        whole = family.options.model_validate({**structure.options, **options})
    except ValidationError as error:
        raise InvalidPlan(problems_of(error, ("differs",))) from error
    return structure.model_copy(update={"options": whole.model_dump(mode="json")})


def differing(record: Record | None) -> tuple[dict[str, Any], dict[str, dict[str, Any]]]:
    """Return what differs all over, by option, and what differs at single members, by member and option."""
    whole: dict[str, Any] = {}
    single: dict[str, dict[str, Any]] = {}
    for differs in record.differs.values() if record else ():
        if differs.member:
            single.setdefault(differs.member, {})[differs.option] = differs.value
        else:
            whole[differs.option] = differs.value
    return whole, single


def check_differs(structure: Structure, site: Site, record: Record) -> None:
    """Refuse a record that says of the structure what cannot be.

    Raises:
        InvalidPlan: An option that no step says may differ, a member that is not there, or a value that is
            not allowed.
    """
    geometry = geometry_of(site.bed, structure)
    known = {member.key for member in geometry.members}
    for key, differs in record.differs.items():
        if differs.member and differs.member not in known:
            allowed = "a part of the structure as it is being built is allowed"
            raise InvalidPlan([Problem(f"differs.{key}.member", differs.member, allowed)])
        with_options(structure, {differs.option: differs.value})
    steps = {step.key for step in work_of(site, structure, geometry, record.joining)}
    either = steps | {step.key for step in work_of(site, structure, geometry, other(record.joining))}
    either |= set(tables.steps())  # what was ticked before a step was put in other words
    allowed = f"one of {', '.join(sorted(either))} is allowed"
    if unknown := [key for key in record.ticks if key not in either]:
        raise InvalidPlan([Problem(f"ticks.{key}", key, allowed) for key in unknown])


def as_read(structure: Structure, record: Record, system: System) -> Record:
    """Return a record whose measures and counts are read where they came as somebody wrote them.

    Raises:
        InvalidPlan: What cannot be read, or is not allowed, by its name.
    """
    options = family_of(structure.family).options
    properties = options.model_json_schema()["properties"]
    read_: dict[str, Differs] = {}
    problems = []
    for key, differs in record.differs.items():
        field = properties.get(differs.option, {})
        kind = field.get("kind", "")
        if not isinstance(differs.value, str) or kind in ("", "item", "choice"):
            read_[key] = differs
            continue
        try:
            value = read(differs.value, kind, system, field.get("minimum"), field.get("maximum"))
        except UnreadableQuantity as error:
            problems.append(Problem(f"differs.{key}", differs.value, error.allowed))
            continue
        read_[key] = differs.model_copy(update={"value": int(value) if kind == "count" else float(value)})
    if problems:
        raise InvalidPlan(problems)
    return record.model_copy(update={"differs": read_})


def other(joining: Joining) -> Joining:
    """Return the other way of joining."""
    return "usual" if joining == "other" else "other"


def as_built(site: Site, structure: Structure, record: Record | None) -> AsBuiltCheck:
    """Return a structure as it is being built, checked as planned and as it went in.

    Single members that differ are calculated as if all stood like them, those alike together.

    Args:
        site: Where it stands.
        structure: The structure, with what was kept of it when building began.
        record: What was done.

    Raises:
        InvalidPlan: Something that differs is not allowed.
    """
    planned = being_built(structure)
    whole, single = differing(record)
    base = with_options(planned, whole) if whole else planned
    first = design_of(site, planned)
    alike: dict[tuple[tuple[str, Any], ...], list[str]] = {}
    for member, options in single.items():
        alike.setdefault(tuple(sorted(options.items())), []).append(member)
    parts = tuple(
        Stood(tuple(members), dict(options), design_of(site, with_options(base, dict(options))))
        for options, members in alike.items()
    )
    return AsBuiltCheck(first, design_of(site, base) if whole else first, parts)


def coming_off(site: Site, structure: Structure, record: Record | None = None) -> tuple[Structure, Geometry]:
    """Return a structure as it really went in, laid out without what stays in the ground or on a wall when
    it is taken down.

    Args:
        site: Where it stands.
        structure: The structure, with what was kept of it when building began.
        record: What was done.

    Raises:
        InvalidPlan: Something that differs is not allowed.

    Source: handbook-season-9
    """
    whole, single = differing(record)
    stands = being_built(structure)
    stands = with_options(stands, whole) if whole else stands
    geometry = geometry_of(site.bed, stands)
    members = {member.key: member for member in geometry.members}
    for key, options in single.items():
        others = geometry_of(site.bed, with_options(stands, options)).members
        members.update({other.key: other for other in others if other.key == key and key in members})
    work = work_of(site, stands, geometry, record.joining if record else "usual")
    stay = {member.key for step in work if step.row.stays for member in step.members}
    used = {key for step in work if step.row.stays for key in step.step.supplies}
    kept = tuple(member for key, member in members.items() if key not in stay)
    supplies = tuple(supply for supply in geometry.supplies if supply.key not in used)
    return stands, replace(geometry, members=kept, supplies=supplies)


def kept_of(structure: Structure, on: dt.date) -> AsBuilt:
    """Return what is kept of a structure when building begins."""
    fields = structure.model_dump(exclude={"built", "name", "key"})
    return AsBuilt(on=on, **fields)

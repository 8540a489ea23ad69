"""Values born in a reader's units: what a family proposes in round metres becomes round feet and inches."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from ..analysis.design import Design
from ..families import family_of
from ..family.options import extra_of
from ..family.protocol import Family, Proposal, Reason
from ..plan.fields import Typed
from ..plan.structure import Planting, Structure
from ..site import Site
from ..words.quantities import System

_INCH = 0.0254
# inches, and the share by which a value may move for it
_ROUNDER = ((12, 0.04), (6, 0.03), (3, 0.03), (1, 0.03))
_NEAR = 1e-9


def to_inches(value: float) -> float:
    """Return the roundest number of inches near a length, else the nearest half inch. [m]"""
    for inches, share in _ROUNDER:
        near = round(value / (inches * _INCH)) * inches * _INCH
        if near > 0 and abs(near - value) <= share * value:
            return round(near, 4)
    return round(max(round(value / (_INCH / 2)), 1) * _INCH / 2, 4)


def rounded_for(system: System, family_key: str, proposal: Proposal, site: Site) -> Proposal:
    """Return a proposal with lengths that are round in a reader's units, as far as it still fits with them.

    A length stays as it is where rounding would make something not do: a post too short, a row too full.

    Args:
        system: The reader's units.
        family_key: Whose proposal.
        proposal: In round metres.
        site: Where it is to stand.
    """
    if system == "metric":
        return proposal
    family: Family[Typed] = family_of(family_key)
    before = _wrong(family, proposal, site)
    for name in family.options.model_fields:
        if extra_of(family.options, name)["kind"] != "length" or name in proposal.given:
            continue
        value = float(getattr(proposal.options, name))
        rounder = _rounded(family, proposal, name, to_inches(value))
        if rounder and _wrong(family, rounder, site) <= before:
            proposal = rounder
    for number, planting in enumerate(proposal.plantings):
        spaced = planting.model_copy(update={"spacing": to_inches(planting.spacing)})
        plantings = (*proposal.plantings[:number], spaced, *proposal.plantings[number + 1 :])
        rounder = replace(
            proposal, plantings=plantings, reasons=_said(proposal.reasons, planting.spacing, spaced.spacing)
        )
        if _wrong(family, rounder, site) <= before:
            proposal = rounder
    return proposal


def _rounded(family: Family[Any], proposal: Proposal, name: str, value: float) -> Proposal | None:
    """Return a proposal with another value of a length; nothing where that is not allowed or changes
    nothing.
    """
    now = float(getattr(proposal.options, name))
    metadata = family.options.model_fields[name].metadata
    low, high = (float(next(getattr(m, side) for m in metadata if hasattr(m, side))) for side in ("ge", "le"))
    if not low <= value <= high or abs(value - now) < _NEAR:
        return None
    options = proposal.options.model_copy(update={name: value})
    return replace(proposal, options=options, reasons=_said(proposal.reasons, now, value))


def _said(reasons: Mapping[str, Reason], old: float, new: float) -> dict[str, Reason]:
    """Return reasons that name the new length."""
    return {
        name: replace(
            reason,
            values={
                key: (new if kind == "length" and abs(value - old) < _NEAR else value, kind)
                for key, (value, kind) in reason.values.items()
            },
        )
        for name, reason in reasons.items()
    }


def _wrong(family: Family[Typed], proposal: Proposal, site: Site) -> frozenset[str]:
    plantings: tuple[Planting, ...] = proposal.plantings
    structure = Structure(
        key="new", name="new", family=family.key, options=proposal.options.model_dump(), plantings=plantings
    )
    return Design(site, structure).unfit.keys

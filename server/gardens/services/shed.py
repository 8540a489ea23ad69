"""The shed: what is in it, what a structure has of it, and what comes back when one is taken down."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ascent import plan as model
from ascent.analysis.design import geometry_of
from ascent.building.asbuilt import coming_off
from ascent.buying.back import put_back
from ascent.buying.lists import shopping, taken_by, total
from ascent.buying.shed import amount_of, had_by, row_of, spare_of, taken_of, worn
from ascent.files.stock_line import read_stock
from ascent.plan.upgrades import free_key
from ascent.report.changes import written_fields
from ascent.report.shed import amount_text, stock_state, stock_words, whole_text, widths_written
from ascent.site import Site
from ascent.wording import money
from ascent.words.texts import say
from django.db.models import Q
from django.http import Http404

from .. import schemas
from ..models import Garden, Thing
from .access import Granted, Visitor
from .building import record_of
from .edits import stem_of
from .garden import garden_out
from .state import State, from_core, place_of, state_of, stock_in, unreadable, whole
from .writing import Wanted, change_garden

_NEAR = 1e-6
_SHED = Q(kind=Thing.STOCK) | Q(kind=Thing.STRUCTURE)


def line_read(granted: Granted, sent: schemas.LineIn) -> schemas.StockChange:
    """Return what a line tells of a thing in the shed.

    Raises:
        InvalidPlan: It names nothing that is known.
    """
    found = read_stock(sent.text, place_of(granted.garden).units)
    return schemas.StockChange.model_validate(found.model_dump(exclude={"key"}))


def shed_out(granted: Granted) -> schemas.ShedOut:
    """Return what is in a garden's shed, who has of it, and what is free."""
    state = state_of(granted.garden, _SHED)
    place = place_of(granted.garden)
    structures = _structures(state)
    taken = taken_of(structures)
    rows = []
    for held in state.values():
        if held.kind != Thing.STOCK or held.fault:
            continue
        stock = model.Stock.model_validate(held.document)
        free = amount_of(stock) - taken.get(stock.key, 0.0)
        state_text = stock_state(stock, place.units)
        if free < -_NEAR:
            over = say("stock.over", place.units, words={"over": amount_text(stock, -free, place.units)})
            state_text = f"{over}; {state_text}"
        free = max(free, 0.0)
        rows.append(
            schemas.StockRow(
                key=held.key,
                revision=held.revision,
                written={**written_fields(stock, place.units), **widths_written(stock, place.units)},
                fields=stock,
                item=row_of(stock).key,
                roles=list(row_of(stock).serves),
                words=stock_words(stock, place.units),
                state=state_text,
                amount_text=whole_text(stock, place.units),
                free=free,
                free_text=amount_text(stock, free, place.units),
                planned=not (stock.in_use or worn(stock)),
                used_by=[s.name for s in structures if any(t.stock == stock.key for t in s.taken)],
            )
        )
    return schemas.ShedOut(
        id=granted.garden.pk,
        role=granted.role,
        name=place.name,
        units=place.units,
        rows=rows,
        unreadable=[held.name for held in unreadable(state) if held.kind == Thing.STOCK],
    )


def _structures(state: State) -> list[model.Structure]:
    return [
        model.Structure.model_validate(held.document)
        for held in state.values()
        if held.kind == Thing.STRUCTURE and not held.fault
    ]


def free_for(garden: Garden, key: str = "") -> tuple[model.Spare, ...]:
    """Return what of a garden's shed is free for a structure, what it has already among it."""
    state = state_of(garden, _SHED)
    return spare_of(stock_in(state), (s for s in _structures(state) if s.key != key))


def had(garden: Garden, having: Sequence[model.Taken]) -> tuple[model.Spare, ...]:
    """Return what is had of a garden's shed."""
    return had_by(stock_in(state_of(garden, Q(kind=Thing.STOCK))), having) if having else ()


def taken_for(site: Site, structure: model.Structure, spare: tuple[model.Spare, ...]) -> schemas.TakenOut:
    """Return what a structure can have of what is free, and what that saves."""
    geometry, prices = geometry_of(site.bed, structure), site.garden.prices
    parts = shopping(geometry, prices, spare)
    saved = total(shopping(geometry, prices)) - total(parts)
    own = [part for part in parts if part.own]
    words = f"{len(own)} of {len(parts)} kinds of part; saves {money(saved, site.garden.currency)}"
    return schemas.TakenOut(taken=taken_by(parts), words=words if own else "Nothing in the shed fits it.")


def take_down(row: Thing, granted: Granted, sent: schemas.DownIn, visitor: Visitor) -> schemas.GardenOut:
    """Take a structure down: it is gone from its bed, and what is worth keeping is in the shed, older."""

    def make(_garden: Garden, state: State) -> Wanted:
        held = state.get((Thing.STRUCTURE, row.key))
        if held is None or held.fault:
            raise Http404
        core = whole(state)
        bed = next(bed for bed in core.beds if bed.key == held.home)
        structure = next(s for s in bed.structures if s.key == row.key)
        taken = {key for _, key in state}

        def free(name: str) -> str:
            return free_key(stem_of(name, Thing.STOCK), taken)

        site = Site(garden=core, bed=bed)
        stood, geometry = coming_off(site, structure, record_of(core, row.key))
        shed = put_back(core.stock, stood, geometry, sent.seasons, free)
        bare = bed.model_copy(update={"structures": tuple(s for s in bed.structures if s.key != row.key)})
        beds = tuple(bare if each.key == bed.key else each for each in core.beds)
        return Wanted(from_core(core.model_copy(update={"beds": beds, "stock": shed}), state))

    done = change_garden(granted.garden.pk, visitor, make)
    return garden_out(replace(granted, garden=done.garden), visitor)

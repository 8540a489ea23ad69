"""A structure on the bench: read, evaluated, proposed, built, saved."""

from __future__ import annotations

import csv
import datetime as dt
import io
from collections.abc import Callable
from dataclasses import replace

from ascent import plan as model
from ascent.buying.shed import less
from ascent.errors import InvalidPlan, Problem, guarded
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.files.csv_tables import plain_cell
from ascent.ground.wanted import likely_beds, likely_hosts, site_for, stood
from ascent.report.changes import differences
from ascent.report.choosing import need_of, order_of, way_report
from ascent.report.divides import divide_reports
from ascent.report.readout import (
    CurveReport,
    LinkFixes,
    Report,
    SensitivityReport,
    Sizing,
    SolidReport,
    WishReport,
)
from ascent.report.report import full_report
from ascent.report.sensitivity import curve_report, sensitivity_report
from ascent.report.sizes import link_fixes, sizing
from ascent.report.solids import solid_report
from ascent.report.taught import counted_with
from ascent.report.wishes import ways_to
from ascent.site import Site
from ascent.sizing.choose import SIZED_BY
from ascent.sizing.offer import Offer, choices, offer
from ascent.wording import read_gust
from ascent.words.quantities import read, write
from ascent.words.texts import template
from django.http import Http404

from .. import schemas
from ..models import Garden, Thing
from .access import Granted, Visitor
from .cut_tables import cuts_csv
from .edits import Stale, new_key, with_no_lost
from .garden import sides
from .known import known_of
from .log import broken_in
from .shed import free_for, had, taken_for
from .state import Held, State, checked, of_row, place_of, places_logged, state_of, whole
from .writing import Wanted, change_garden


def site_of(row: Thing, sent: schemas.Draft | None = None) -> Site:
    """Return a structure's bed and garden as the core knows them, with what a draft changes of the bed."""
    bed = Thing.objects.filter(garden_id=row.garden_id, kind=Thing.BED, key=row.home).first()
    if bed is None:
        raise Http404
    changes = {"soil": sent.soil, "exposure": sent.exposure} if sent else {}
    having = sent.taken if sent else model.Structure.model_validate(_read(row).document).taken
    return Site(
        garden=place_of(row.garden),
        bed=model.BareBed(**{**_read(bed).document, **changes}),
        spare=had(row.garden, having),
    )


def _read(row: Thing) -> Held:
    """Return a stored thing, or refuse one that cannot be read.

    Raises:
        InvalidPlan: What is wrong with it.
    """
    held = of_row(row)
    if held.fault:
        raise InvalidPlan(
            [Problem(row.kind, held.name, f"what is stored of it cannot be read: {held.fault}")]
        )
    return held


def structure_of(row: Thing, sent: schemas.Draft) -> model.Structure:
    """Return a draft as the core's structure, where the stored one stands.

    Raises:
        InvalidPlan: A wrong option, with its path.
    """
    changed = {
        "name": sent.name,
        "options": sent.options,
        "plantings": sent.plantings,
        "taken": sent.taken,
        "covers": sent.covers,
    }
    return checked(model.Structure.model_validate(_read(row).document).model_copy(update=changed))


def structure_out(row: Thing, granted: Granted) -> schemas.StructureOut:
    """Return a structure as the bench takes it up."""
    site = site_of(row)
    structure = model.Structure.model_validate(_read(row).document)
    return schemas.StructureOut(
        id=row.pk,
        key=row.key,
        garden=row.garden_id,
        bed=row.home,
        bed_name=site.bed.name,
        family=structure.family,
        sides=sides(site.bed, structure.turn),
        units=site.garden.units,
        currency=site.garden.currency,
        revision=row.revision,
        may_edit=granted.role != "read",
        broken=broken_in(known_of(row.garden)).get(row.key, ""),
        draft=_draft(structure, site),
    )


def _draft(structure: model.Structure, site: Site) -> schemas.Draft:
    return schemas.Draft(
        name=structure.name,
        options=structure.options,
        plantings=structure.plantings,
        soil=site.bed.soil,
        exposure=site.exposure.key,
        taken=structure.taken,
        covers=structure.covers,
    )


def report_of(row: Thing, sent: schemas.Draft, day: dt.date | None) -> Report:
    """Return the report of a draft."""
    site = site_of(row, sent)
    return full_report(site, structure_of(row, sent), site.garden.units, day)


def fixes_of(row: Thing, sent: schemas.Draft, link: str) -> LinkFixes:
    """Return the fixes of one link of a draft.

    Raises:
        InvalidPlan: The structure has no such link.
    """
    site = site_of(row, sent)
    return link_fixes(site, structure_of(row, sent), link, site.garden.units)


def sizing_of(row: Thing, sent: schemas.SizingIn, enough: Callable[[], bool]) -> Sizing:
    """Return a draft sized for an aim, with what the shed has free for it."""
    site = site_of(row, sent.draft)
    site = site.model_copy(update={"spare": free_for(row.garden, row.key)})
    return sizing(site, structure_of(row, sent.draft), site.garden.units, sent.wanted, enough)


def taken_of(row: Thing, sent: schemas.TakeIn) -> schemas.TakenOut:
    """Return what a draft can have of the shed, or that it has nothing."""
    if not sent.have:
        return schemas.TakenOut(taken=(), words="")
    site = site_of(row, sent.draft)
    spare = free_for(row.garden, row.key)
    return taken_for(site, structure_of(row, sent.draft), spare)


def save(row: Thing, granted: Granted, sent: schemas.SaveIn, visitor: Visitor) -> schemas.StructureOut:
    """Save a draft and what it changes of the bed, all or nothing.

    Raises:
        Stale: The structure was saved by someone else since.
    """
    site_of(row)  # a bed that nobody can read is not written over
    structure = structure_of(row, sent.draft)

    def make(garden: Garden, state: State) -> Wanted:
        held = state.get((Thing.STRUCTURE, row.key))
        if held is None:
            raise Http404
        if held.revision != sent.revision:
            units = place_of(garden).units
            answer = [
                d
                for d in differences(held.typed, structure, units)
                if d.path not in ("along", "across", "turn")
            ]
            fresh = Thing.objects.filter(pk=row.pk).first() or row
            raise Stale(schemas.StructureConflict(saved=structure_out(fresh, granted), differences=answer))
        stands = {name: held.document[name] for name in ("along", "across", "turn") if name in held.document}
        bed = state[Thing.BED, held.home]
        after = {
            **state,
            held.ref: replace(held, document={**structure.model_dump(mode="json"), **stands}),
            bed.ref: replace(bed, document={**bed.document, **_of_bed(bed, sent.draft, place_of(garden))}),
        }
        return Wanted(after)

    done = change_garden(granted.garden.pk, visitor, make)
    saved = Thing.objects.filter(pk=row.pk).select_related("garden").first()
    if saved is None:
        raise Http404
    answer = structure_out(saved, granted)
    return answer.model_copy(
        update={"revision": done.answer["revisions"].get(f"structure/{row.key}", answer.revision)}
    )


def _of_bed(bed: Held, sent: schemas.Draft, place: model.Place) -> dict[str, str]:
    """Return what a draft changes of its bed; an exposure that is the garden's own stays the garden's."""
    own = bed.document.get("exposure")
    exposure = {} if own is None and sent.exposure == place.exposure else {"exposure": sent.exposure}
    return {"soil": sent.soil, **exposure}


def _bed_of(garden: Garden, key: str) -> tuple[model.Garden, model.Bed]:
    core = whole(state_of(garden))
    bed = next((bed for bed in core.beds if bed.key == key), None)
    if bed is None:
        raise Http404
    return core, bed


def _place_for(garden: Garden, key: str, sent: schemas.WantedIn, *, shed: bool = False) -> tuple[Site, Need]:
    """Return where what is wanted would stand, and what is wanted, as the core knows them.

    Raises:
        InvalidPlan: A bed that is not alike, a wall or fence out of reach.
    """
    core, bed = _bed_of(garden, key)
    site = site_for(core, bed, sent.beds, sent.host, free_for(garden) if shed else ())
    return site, need_of(sent, sent.others, 1 + len(sent.beds))


def proposal(
    granted: Granted, key: str, need: schemas.NeedIn, enough: Callable[[], bool]
) -> schemas.ProposalOut:
    """Return a structure for a need on a bed, sized until it holds, with the reason for every value."""
    site, _ = place = _place_for(granted.garden, key, need, shed=need.shed)
    offered = _offered(*place, need, enough)
    values = [
        schemas.ProposedValue(option=v.option, label=v.label, value=v.text, reason=v.reason)
        for v in offered.values
    ]
    report = full_report(site, offered.structure, site.garden.units)
    return schemas.ProposalOut(draft=_draft(offered.structure, site), values=values, report=report)


def _known(field: str, family: str) -> None:
    if family not in FAMILIES:
        raise InvalidPlan([Problem(field, family, f"one of {', '.join(FAMILIES)} is allowed")])


def _offered(site: Site, wanted: Need, need: schemas.NeedIn, enough: Callable[[], bool]) -> Offer:
    _known("family", need.family)
    if need.chosen:
        structure = checked(
            model.Structure(
                key="new",
                name=need.chosen.name,
                family=need.family,
                options=need.chosen.options,
                plantings=tuple(need.chosen.plantings),
            )
        )
        return Offer(structure, ())
    return offer(site, need.family, wanted, site.garden.units, enough)


def supports(granted: Granted, key: str, sent: schemas.WantedIn) -> schemas.SupportsOut:
    """Return every kind of support as it would stand on a bed, those that suit the crop best first.

    Raises:
        InvalidPlan: No such crop.
    """
    site, need = _place_for(granted.garden, key, sent)
    core, bed = _bed_of(granted.garden, key)
    found, failed = choices(site, need)
    return schemas.SupportsOut(
        supports=found,
        taught_said=counted_with(site, [each.crop for each in need.crops]),
        failed=[template("choose.failed").format(name=template(f"family.{kind}.name")) for kind in failed],
        beds=[
            schemas.AlikeOut(
                key=each.key, name=each.name, path="" if path is None else write(path, "length", core.units)
            )
            for each, path in likely_beds(core, bed)
        ],
        hosts=[schemas.HostOut(key=each.key, name=each.name) for each in likely_hosts(core, bed)],
        sized_by=SIZED_BY,
    )


def way(
    granted: Granted, key: str, family: str, sent: schemas.ChooseIn, enough: Callable[[], bool]
) -> schemas.KindReport:
    """Return one kind of support for a need on a bed, sized and measured.

    Raises:
        InvalidPlan: No such kind or crop.
    """
    _known("family", family)
    site, need = _place_for(granted.garden, key, sent, shed=True)
    found = guarded(
        f"a way of {family}",
        lambda: way_report(site, family, need, sent.wants, site.garden.units, enough, closely=sent.closely),
        None,
    )
    if found is None:
        name = template(f"family.{family}.name")
        raise InvalidPlan([Problem("family", name, template("choose.failed").format(name=name))])
    return found


def order(granted: Granted, sent: schemas.OrderIn) -> schemas.OrderOut:
    """Return ways of building in order.

    Raises:
        InvalidPlan: No such kind.
    """
    for family in sent.ways:
        _known("ways", family)
    core = place_of(granted.garden)
    return schemas.OrderOut(places=order_of(sent.ways, sent.first, core.currency, core.units))


def divides(
    granted: Granted, key: str, sent: schemas.DividesIn, enough: Callable[[], bool]
) -> schemas.DividesOut:
    """Return the choices that divide growers, as they come out for a way of building on a bed.

    Raises:
        InvalidPlan: No such kind or crop.
    """
    for family in sent.ways:
        _known("ways", family)
    place = _place_for(granted.garden, key, sent.need, shed=sent.need.shed)
    structure = _offered(*place, sent.need, enough).structure
    units = place[0].garden.units
    return schemas.DividesOut(divides=divide_reports(place[0], structure, sent.ways, sent.first, units))


def sensitivity_of(row: Thing, sent: schemas.Draft) -> SensitivityReport:
    """Return what a draft's limit gust rests on most."""
    site = site_of(row, sent)
    return sensitivity_report(site, structure_of(row, sent), site.garden.units)


def curve_of(row: Thing, sent: schemas.CurveIn) -> CurveReport:
    """Return what one option of a draft moves.

    Raises:
        InvalidPlan: The structure has no such option.
    """
    site = site_of(row, sent.draft)
    return curve_report(site, structure_of(row, sent.draft), sent.option, site.garden.units)


def solid_of(row: Thing, sent: schemas.SolidIn) -> SolidReport:
    """Return a draft in three dimensions."""
    site = site_of(row, sent.draft)
    return solid_report(site, structure_of(row, sent.draft), site.garden.units, sent.day)


def ways_of(row: Thing, sent: schemas.WishIn) -> WishReport:
    """Return the ways from a draft to what is wished of it.

    Raises:
        InvalidPlan: No such wish, or a number of it missing or out of its bounds.
    """
    site = site_of(row, sent.draft)
    return ways_to(site, structure_of(row, sent.draft), sent.wish, sent.wanted, site.garden.units)


def build(
    granted: Granted, key: str, need: schemas.NeedIn, visitor: Visitor, enough: Callable[[], bool]
) -> schemas.StructureOut:
    """Put the proposed structure on the bed, or one on each of several, on ground that nothing else takes if
    there is any; the one on the bed is answered.
    """

    def make(garden: Garden, state: State) -> Wanted:
        core, bed = _bed_of(garden, key)
        offered = _offered(*_place_for(garden, key, need), need, enough).structure
        spare = free_for(garden) if need.shed else ()
        after, made, logged = dict(state), [], places_logged(garden)
        for home, placed in stood(core, bed, offered, need.beds, need.host):
            structure = placed.model_copy(
                update={"key": new_key(after, Thing.STRUCTURE, offered.name, logged)}
            )
            if spare:
                taken = taken_for(Site(garden=core, bed=home), structure, spare).taken
                structure = structure.model_copy(update={"taken": taken})
                spare = less(spare, taken)
            held = Held(Thing.STRUCTURE, structure.key, home.key, structure.model_dump(mode="json"))
            after[held.ref] = held
            made.append(structure.key)
        return Wanted(after, answer={"made": made[0]})

    done = change_garden(granted.garden.pk, visitor, make)
    row = Thing.objects.filter(garden=done.garden, kind=Thing.STRUCTURE, key=done.answer["made"]).first()
    if row is None:
        raise Http404
    return structure_out(row, granted)


def remove(row: Thing, granted: Granted, visitor: Visitor) -> None:
    """Take a structure off its bed; it can be put back."""
    gone = (Thing.STRUCTURE, row.key)
    change_garden(granted.garden.pk, visitor, lambda _garden, state: Wanted(with_no_lost(state, gone)))


def parts_csv(row: Thing, granted: Granted) -> str:
    """Return the shopping list of a saved structure as CSV."""
    report = report_of(row, structure_out(row, granted).draft, None)
    handle = io.StringIO()
    writer = csv.writer(handle)
    writer.writerow(["part", "for", "needed", "buy", "price each", "cost", "currency", "lasts"])
    currency = plain_cell(place_of(row.garden).currency)
    for part in report.parts:
        writer.writerow(
            [
                part.name,
                part.use,
                part.count,
                part.buy,
                f"{part.price:.2f}",
                f"{part.cost:.2f}",
                currency,
                part.lasts,
            ]
        )
    writer.writerow(["total", "", "", "", "", f"{report.cost:.2f}", currency, ""])
    return handle.getvalue()


def cuts_table(row: Thing, granted: Granted) -> str:
    """Return the cut list of a saved structure as CSV."""
    return cuts_csv(report_of(row, structure_out(row, granted).draft, None).cuts)


def read_quantity(sent: schemas.QuantityIn) -> schemas.QuantityOut:
    """Return what a person wrote as a quantity.

    Raises:
        UnreadableQuantity: It is none of that kind, or outside what is allowed.
    """
    said = ""
    if sent.kind == "speed" and sent.exposure:
        value, said = read_gust(
            sent.text, sent.system, sent.exposure, sent.low or 0.0, sent.high or model.GREATEST_GUST
        )
    else:
        value = read(sent.text, sent.kind, sent.system, sent.low, sent.high)
    return schemas.QuantityOut(value=value, text=write(value, sent.kind, sent.system), said=said)

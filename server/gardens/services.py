"""What the API does: read, evaluate, save. The server's one door into the core."""

from __future__ import annotations

import csv
import io
from functools import lru_cache
from typing import Any, TypeVar

from ascent import model, tables
from ascent.errors import InvalidPlan
from ascent.families import FAMILIES, family_of
from ascent.family import Need
from ascent.offer import Offer, offer
from ascent.plan import check_structure, problems_of
from ascent.present import fix_reports, full_report, sizing
from ascent.quantities import read, write
from ascent.readout import Report, Sizing
from ascent.report import evaluate
from ascent.wording import read_gust
from django.contrib.auth.models import AbstractBaseUser, AnonymousUser
from django.db import transaction
from django.http import Http404
from pydantic import ValidationError

from . import schemas
from .models import Bed, Garden, Structure

Row = TypeVar("Row", Garden, Bed, Structure)
Person = AbstractBaseUser | AnonymousUser
_COMPASS = ("north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west")


class Stale(Exception):
    """Someone else saved in between."""

    def __init__(self, saved: schemas.StructureOut) -> None:
        super().__init__("stale")
        self.saved = saved


def gardens_of(person: Person) -> list[Garden]:
    """Return a person's gardens."""
    return list(Garden.objects.filter(owner_id=person.pk).order_by("pk"))


def own_garden(person: Person, garden_id: int) -> Garden:
    """Return a garden of the person's own.

    Raises:
        Http404: No such garden, or someone else's.
    """
    return _found(Garden.objects.filter(owner_id=person.pk, pk=garden_id).first())


def own_bed(person: Person, bed_id: int) -> Bed:
    """Return a bed of the person's own gardens, or raise Http404."""
    return _found(Bed.objects.select_related("garden").filter(garden__owner_id=person.pk, pk=bed_id).first())


def own_structure(person: Person, structure_id: int) -> Structure:
    """Return a structure of the person's own gardens, or raise Http404."""
    rows = Structure.objects.select_related("bed__garden")
    return _found(rows.filter(bed__garden__owner_id=person.pk, pk=structure_id).first())


def _found(row: Row | None) -> Row:
    if row is None:
        raise Http404
    return row


def site_of(bed: Bed, draft: schemas.Draft | None = None) -> model.Site:
    """Return a bed and its garden as the core knows them, with what a draft changes of the bed."""
    changes = {"soil": draft.soil, "exposure": draft.exposure} if draft else {}
    return model.Site(garden=model.Garden(**bed.garden.document), bed=model.Bed(**{**bed.document, **changes}))


def structure_of(row: Structure, draft: schemas.Draft) -> model.Structure:
    """Return a draft as the core's structure.

    Raises:
        InvalidPlan: A wrong option, with its path.
    """
    return _checked(
        model.Structure(
            key=row.document["key"], name=draft.name, family=row.document["family"], options=draft.options, plantings=draft.plantings
        )
    )


def _checked(structure: model.Structure) -> model.Structure:
    problems = check_structure(structure)
    if problems:
        raise InvalidPlan(problems)
    options = family_of(structure.family).options.model_validate(structure.options)
    return structure.model_copy(update={"options": options.model_dump(mode="json")})


@lru_cache(maxsize=512)
def _line(site_json: str, structure_json: str) -> dict[str, Any]:
    site = model.Site.model_validate_json(site_json)
    report = full_report(site, model.Structure.model_validate_json(structure_json), site.garden.units)
    h = report.headline
    return {
        "state": h.state, "words": h.words, "limit": h.limit_text, "forecast": h.forecast_text, "design": h.design_text,
        "weakest": h.weakest_text, "week": h.week_label, "design_m_s": site.design_gust,
        "season": [(week.limit, week.rare) for week in report.weeks],
    }  # fmt: skip


def garden_out(garden: Garden) -> schemas.GardenOut:
    """Return a garden with every structure's limit gust, weakest link and week."""
    document = model.Garden(**garden.document)
    beds = garden.beds.prefetch_related("structures")
    gust = document.design_gust or tables.exposures()[document.exposure].design_gust_m_s
    return schemas.GardenOut(
        id=garden.pk, name=document.name, units=document.units, currency=document.currency, exposure=document.exposure,
        climate=document.climate, design_gust=gust, design_gust_text=write(gust, "speed", document.units),
        own_design_gust=document.design_gust is not None, last_frost=document.last_frost, first_frost=document.first_frost, beds=[bed_out(bed) for bed in beds],
    )  # fmt: skip


def bed_out(bed: Bed) -> schemas.BedOut:
    """Return a bed with its structures."""
    site = site_of(bed)
    units = site.garden.units
    size = f"{write(site.bed.length, 'length', units)} × {write(site.bed.width, 'length', units)}"
    soil = tables.soils()[site.bed.soil].name
    raised = f", raised {write(site.bed.fill_depth, 'length', units)} over" if site.bed.kind == "raised" else ","
    words = f"{size}{raised} {soil}, {site.exposure.name}"
    lines = []
    for row in bed.structures.all():
        structure = model.Structure(**row.document)
        crops = ", ".join(tables.crops()[p.crop].name for p in structure.plantings)
        found = _line(site.model_dump_json(), structure.model_dump_json())
        lines.append(schemas.StructureLine(id=row.pk, name=structure.name, crops=crops, **found))
    return schemas.BedOut(id=bed.pk, name=site.bed.name, words=words, sides=sides(site.bed), structures=lines)


def sides(bed: model.Bed) -> dict[str, str]:
    """Return what the two sides of a row in a bed are called, by compass."""

    def name(bearing: float) -> str:
        return f"{_COMPASS[round(bearing / 45) % 8]} side"

    return {"left": name(bed.bearing - 90), "right": name(bed.bearing + 90), "both": "both sides"}


def structure_out(row: Structure) -> schemas.StructureOut:
    """Return a structure as the bench takes it up."""
    site = site_of(row.bed)
    structure = model.Structure(**row.document)
    return schemas.StructureOut(
        id=row.pk, garden=row.bed.garden_id, bed=row.bed_id, bed_name=site.bed.name, family=structure.family, sides=sides(site.bed),
        units=site.garden.units, revision=row.revision,
        draft=schemas.Draft(
            name=structure.name, options=_checked(structure).options, plantings=structure.plantings, soil=site.bed.soil,
            exposure=site.exposure.key,
        ),
    )  # fmt: skip


def report_of(row: Structure, draft: schemas.Draft, week: int | None) -> Report:
    """Return the report of a draft."""
    site = site_of(row.bed, draft)
    return full_report(site, structure_of(row, draft), site.garden.units, week)


def fixes_of(row: Structure, draft: schemas.Draft, link: str) -> schemas.FixesOut:
    """Return the fixes of one link of a draft."""
    site = site_of(row.bed, draft)
    fixes = fix_reports(evaluate(site, structure_of(row, draft)), link, site.garden.units)
    return schemas.FixesOut(link=link, fixes=list(fixes))


def sizing_of(row: Structure, draft: schemas.Draft) -> Sizing:
    """Return the changes that together make a draft hold."""
    site = site_of(row.bed, draft)
    return sizing(site, structure_of(row, draft), site.garden.units)


@transaction.atomic
def save(row: Structure, sent: schemas.SaveIn) -> schemas.StructureOut:
    """Save a draft and what it changes of the bed, all or nothing.

    Raises:
        Stale: The structure was saved by someone else since.
    """
    row = Structure.objects.select_related("bed__garden").get(pk=row.pk)
    if row.revision != sent.revision:
        raise Stale(structure_out(row))
    structure = structure_of(row, sent.draft)
    row.document = structure.model_dump(mode="json")
    row.revision += 1
    row.save(update_fields=["document", "revision"])
    row.bed.document = {**row.bed.document, "soil": sent.draft.soil, "exposure": sent.draft.exposure}
    row.bed.save(update_fields=["document"])
    return structure_out(row)


def proposal(bed: Bed, need: schemas.NeedIn) -> schemas.ProposalOut:
    """Return a structure for a need, sized until it holds, with the reason for every value."""
    site = site_of(bed)
    offered = _offered(site, need)
    structure = offered.structure
    draft = schemas.Draft(
        name=structure.name, options=structure.options, plantings=structure.plantings, soil=site.bed.soil, exposure=site.exposure.key
    )
    values = [schemas.ProposedValue(option=v.option, label=v.label, value=v.text, reason=v.reason) for v in offered.values]
    return schemas.ProposalOut(draft=draft, values=values, report=full_report(site, structure, site.garden.units))


def _offered(site: model.Site, need: schemas.NeedIn) -> Offer:
    return offer(site, next(iter(FAMILIES)), Need(need.crop, need.count, need.side, need.training), site.garden.units)


@transaction.atomic
def build(bed: Bed, need: schemas.NeedIn) -> schemas.StructureOut:
    """Put the proposed structure on the bed."""
    structure = _offered(site_of(bed), need).structure
    row = Structure.objects.create(bed=bed, document=structure.model_dump(mode="json"))
    row.document["key"] = f"{structure.family}-{row.pk}"
    row.save(update_fields=["document"])
    return structure_out(row)


@transaction.atomic
def change_garden(garden: Garden, change: schemas.GardenChange) -> schemas.GardenOut:
    """Change a garden's own settings.

    Raises:
        InvalidPlan: A wrong value, with its path.
    """
    changes = {k: v for k, v in change.model_dump(mode="json", exclude_unset=True).items() if v is not None or k == "design_gust"}
    if "prices" in changes:
        changes["prices"] = {**garden.document.get("prices", {}), **changes["prices"]}
    try:
        garden.document = model.Garden(**{**garden.document, **changes}).model_dump(mode="json", exclude={"beds"})
    except ValidationError as error:
        raise InvalidPlan(problems_of(error)) from error
    garden.save(update_fields=["document"])
    return garden_out(garden)


@transaction.atomic
def add_bed(garden: Garden, sent: schemas.BedIn) -> schemas.GardenOut:
    """Add a bed to a garden."""
    bed = model.Bed(key="new", **sent.model_dump())
    row = Bed.objects.create(garden=garden, document=bed.model_dump(mode="json", exclude={"structures"}))
    row.document["key"] = f"bed-{row.pk}"
    row.save(update_fields=["document"])
    return garden_out(garden)


def parts_csv(row: Structure) -> str:
    """Return the shopping list of a saved structure as CSV."""
    out = structure_out(row)
    report = report_of(row, out.draft, None)
    handle = io.StringIO()
    writer = csv.writer(handle)
    writer.writerow(["part", "for", "needed", "buy", "price each", "cost", "currency", "lasts"])
    currency = row.bed.garden.document.get("currency", "cu")
    for part in report.parts:
        writer.writerow([part.name, part.use, part.count, part.buy, f"{part.price:.2f}", f"{part.cost:.2f}", currency, part.lasts])
    writer.writerow(["total", "", "", "", "", f"{report.cost:.2f}", currency, ""])
    return handle.getvalue()


def read_quantity(sent: schemas.QuantityIn) -> schemas.QuantityOut:
    """Return what a person wrote as a quantity.

    Raises:
        UnreadableQuantity: It is none of that kind, or outside what is allowed.
    """
    said = ""
    if sent.kind == "speed" and sent.exposure:
        value, said = read_gust(sent.text, sent.system, sent.exposure, sent.low or 0.0, sent.high or 45.0)
    else:
        value = read(sent.text, sent.kind, sent.system, sent.low, sent.high)
    return schemas.QuantityOut(value=value, text=write(value, sent.kind, sent.system), said=said)


def load_plan(owner: AbstractBaseUser, plan: model.Plan) -> Garden:
    """Store a plan's garden for an owner."""
    with transaction.atomic():
        garden = Garden.objects.create(owner_id=owner.pk, document=plan.garden.model_dump(mode="json", exclude={"beds"}))
        for bed in plan.garden.beds:
            row = Bed.objects.create(garden=garden, document=bed.model_dump(mode="json", exclude={"structures"}))
            for structure in bed.structures:
                Structure.objects.create(bed=row, document=_checked(structure).model_dump(mode="json"))
    return garden

"""What a garden looks like: its plan, its lines, its shade, its shopping."""

from __future__ import annotations

import csv
import hashlib
import io
import json
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import lru_cache, partial
from typing import Any, get_args

import markdown_it
from ascent import plan as model
from ascent import tables
from ascent.analysis.design import design_of
from ascent.building.asbuilt import as_built
from ascent.buying.lists import bill, shopping, total
from ascent.buying.parts import Shelf
from ascent.buying.shed import had_by, taken_of
from ascent.errors import InvalidPlan, Problem, guarded
from ascent.files.csv_tables import plain_cell
from ascent.ground.clashes import Looked, Warned, clashes, clashes_since, gaps, of_ways, warned
from ascent.ground.next_bed import next_bed
from ascent.ground.plot import Flat, Laid, PlotDrawing, laid_out, lie_of, plot_of, room_for, stretch_of
from ascent.ground.shade import Shade, shade_of
from ascent.ground.shapes import Clash
from ascent.memory import Same, text_of
from ascent.report.changes import built_text, written_fields
from ascent.report.headline import brief, season_of_limits
from ascent.report.lists import cut_reports, part_reports
from ascent.report.remarks import cautions_of
from ascent.site import Site
from ascent.wording import day_text, money
from ascent.words.quantities import System, write
from ascent.words.texts import template
from django.conf import settings

from .. import schemas
from ..models import Change, Garden
from .access import Granted, Visitor
from .known import Known, before, known_of, nearest
from .log import broken_in
from .state import PLACE, Held, State, place_of, state_of, stock_in, unreadable, whole, words_of

_COMPASS = ("north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west")
_DONE = ("do", "restore", "import")


def last_change(garden: Garden, visitor: Visitor) -> Change | None:
    """Return the person's last change that still stands."""
    return (
        Change.objects.filter(garden=garden, who_id=visitor.pk, way__in=_DONE, fate="stands")
        .order_by("-number")
        .first()
    )


def next_redo(garden: Garden, visitor: Visitor) -> Change | None:
    """Return the change of the person that was undone last."""
    return (
        Change.objects.filter(garden=garden, who_id=visitor.pk, way__in=_DONE, fate="undone")
        .order_by("number")
        .first()
    )


def garden_out(granted: Granted, visitor: Visitor) -> schemas.GardenOut:
    """Return a garden with its plan and what is in the way on it."""
    known = known_of(granted.garden)
    own, shown = _own(granted, known, visitor), shown_of(known)
    fields = {name: getattr(shown, name) for name in type(shown).model_fields}
    return schemas.GardenOut.model_construct(**fields, role=own.role, undo=own.undo, redo=own.redo)


def garden_text(granted: Granted, visitor: Visitor) -> tuple[bytes, str]:
    """Return a garden as JSON, made once for all who see it at one number, and a mark that changes
    with it.
    """
    known = known_of(granted.garden)
    own = _own(granted, known, visitor).model_dump_json().encode()
    shown = known.once("text", lambda: shown_of(known).model_dump_json().encode())
    mark = known.once("mark", lambda: hashlib.sha256(repr(known.print).encode()).hexdigest()[:24])
    return b"".join((own[:-1], b",", shown[1:])), f"{mark}-{hashlib.sha256(own).hexdigest()[:8]}"


def garden_since(granted: Granted, number: int, visitor: Visitor) -> schemas.GardenSince:
    """Return what of a garden differs from a number that somebody has seen, or all of it."""
    known, then = known_of(granted.garden), before(granted.garden.pk, number)
    if then is None:
        return schemas.GardenSince(difference=None, garden=garden_out(granted, visitor))
    found = difference_of(then, known, _own(granted, known, visitor))
    return schemas.GardenSince.model_construct(difference=found, garden=None)


def changed_by(then: Known, granted: Granted, visitor: Visitor) -> schemas.GardenDifference:
    """Return what a write has made of a garden."""
    known = known_of(granted.garden)
    return difference_of(then, known, _own(granted, known, visitor))


def _own(granted: Granted, known: Known, visitor: Visitor) -> schemas.Own:
    if granted.role == "read":
        return schemas.Own(role="read", undo=None, redo=None)
    last, redo = last_change(known.garden, visitor), next_redo(known.garden, visitor)
    units = known.core.units
    return schemas.Own(
        role=granted.role,
        undo=words_of(last, units) if last else None,
        redo=words_of(redo, units) if redo else None,
    )


def shown_of(known: Known) -> schemas.GardenShown:
    """Return a garden as everybody sees it."""
    return known.once("shown", lambda: _shown(known))


def _shown(known: Known) -> schemas.GardenShown:
    core, state, drawn = known.core, known.state, drawn_of(known)
    records = {record.structure: record for record in core.records}
    return schemas.GardenShown.model_construct(
        id=known.garden.pk,
        owner=known.garden.owner.get_username(),
        name=core.name,
        units=core.units,
        number=known.number,
        place=_place(state[PLACE], core),
        beds=[_bed(held, core) for held in state.values() if held.kind == "bed" and not held.fault],
        features=[
            _feature(Same(held.document), held.key, held.revision, core.units)
            for held in state.values()
            if held.kind == "feature" and not held.fault
        ],
        structures=[
            _structure(
                state["structure", placed.structure.key],
                placed,
                records.get(placed.structure.key),
                core.units,
            )
            for placed in known.laid
        ],
        needs=[
            _need(Same(held.document), held.key, held.revision, core.units)
            for held in state.values()
            if held.kind == "need" and not held.fault and ("bed", held.document["bed"]) in state
        ],
        plot=drawn.plot,
        room=drawn.room,
        next_bed=drawn.next_bed,
        warnings=drawn.warnings,
        unreadable=[
            schemas.UnreadableRow(
                kind=held.kind,
                key=held.key,
                name=held.name,
                revision=held.revision,
                why=held.fault,
                text=_kept(held),
            )
            for held in unreadable(state)
        ],
    )


_LISTED = ("beds", "features", "structures", "needs")


def difference_of(then: Known, now: Known, own: schemas.Own) -> schemas.GardenDifference:
    """Return what of a garden is otherwise than it was."""
    was, shown = shown_of(then), shown_of(now)
    rows = {name: {row.key: row for row in getattr(was, name)} for name in _LISTED}
    fresh = {
        name: [row for row in getattr(shown, name) if rows[name].get(row.key) != row] for name in _LISTED
    }
    old = [key for name in _LISTED for key in rows[name]]
    new = [row.key for name in _LISTED for row in getattr(shown, name)]
    there = set(new)
    plot, undrawn = _differs(was.plot, shown.plot)
    return schemas.GardenDifference.model_construct(
        role=own.role,
        undo=own.undo,
        redo=own.redo,
        since=then.number,
        number=shown.number,
        name=shown.name,
        units=shown.units,
        place=shown.place,
        room=shown.room,
        next_bed=shown.next_bed,
        beds=fresh["beds"],
        features=fresh["features"],
        structures=fresh["structures"],
        needs=fresh["needs"],
        gone=[key for key in old if key not in there],
        order=new if old != new else None,
        plot=plot,
        undrawn=list(undrawn),
        warnings=shown.warnings if shown.warnings != was.warnings else None,
        unreadable=shown.unreadable if shown.unreadable != was.unreadable else None,
    )


@dataclass(frozen=True)
class _Drawn:
    """A garden's plan and what is in the way on it."""

    plot: PlotDrawing
    room: Flat
    next_bed: model.BareBed
    looked: Looked
    warnings: tuple[Warned, ...]

    @property
    def ways(self) -> list[Clash]:
        """Return what tells where nobody gets to."""
        return of_ways(self.looked.found)


def drawn_of(known: Known) -> _Drawn:
    """Return the plan of a garden, looked at anew only round what moved since it was looked at last."""
    return known.once("drawn", lambda: _drawn(known, nearest(known)))


def _drawn(known: Known, then: Known | None) -> _Drawn:
    core, laid = known.core, known.laid
    drawing = plot_of(core, laid)
    if then is None:
        found = clashes(core, laid)
    else:
        seen: _Drawn = then.made("drawn")
        # who gets where hangs on where things are, not on what they are called or on what is ticked
        ways = seen.ways if _ways_of(then) == _ways_of(known) else None
        found = clashes_since(seen.looked, core, laid, ways)
    looked = Looked(core, laid, found)
    return _Drawn(
        drawing, room_for(core, 0.0, 0.0, drawing), next_bed(core, drawing), looked, warned(found, core.units)
    )


def _ways_of(known: Known) -> tuple[Any, ...]:
    """Return all that decides who gets where on a plan."""
    return known.once(
        "ways",
        lambda: (
            tuple((bed.key, bed.name, lie_of(bed)) for bed in known.core.beds),
            tuple((f.points, f.width) for f in known.core.features if f.kind in ("wall", "fence")),
            tuple(Same(standing) for standing in known.laid),
        ),
    )


def _kept(held: Held) -> str:
    """Return the text of a document as it was stored."""
    return json.dumps(held.document, indent=1, ensure_ascii=False)


def _place(held: Held, core: model.Garden) -> schemas.PlaceRow:
    gust = core.design_gust or tables.exposures()[core.exposure].design_gust_m_s
    fields = model.Place.model_validate({name: getattr(core, name) for name in model.Place.model_fields})
    return schemas.PlaceRow(
        revision=held.revision,
        written={**written_fields(fields, core.units), **_warm(fields, core.units)},
        design_gust=gust,
        design_gust_text=write(gust, "speed", core.units),
        fields=fields,
    )


def _warm(place: model.Place, units: System) -> dict[str, str]:
    """Return how the measures of a garden's warmth are written."""
    warmth = place.warmth
    if warmth is None:
        return {}
    months = {"coldest": warmth.coldest, "warmest": warmth.warmest}
    return {
        "warmth.height": write(warmth.height, "length", units),
        **{
            f"warmth.{name}.{end}": write(getattr(month, end), "temperature", units) if month else ""
            for name, month in months.items()
            for end in ("low", "high")
        },
    }


def _bed(held: Held, core: model.Garden) -> schemas.BedRow:
    same = Same(held.document)
    return _bed_row(held.key, held.revision, same, core.exposure, core.design_gust, core.units)


@lru_cache(maxsize=2048)
def _bed_row(
    key: str, revision: int, same: Same, exposure: str, gust: float | None, units: System
) -> schemas.BedRow:
    bed = model.BareBed.model_validate(same.things[0])
    site = Site(garden=model.Place(name="-", exposure=exposure, design_gust=gust), bed=bed)
    over = (
        f", {_RAISED[bed.kind]} {write(bed.fill_depth, 'length', units)} over" if bed.kind in _RAISED else ","
    )
    soil = tables.soils()[bed.fill if bed.kind == "container" else bed.soil].name
    length, width = write(bed.length, "length", units), write(bed.width, "length", units)
    words = f"{length} × {width}{over} {soil}, {site.exposure.name}"
    held_by = {"volume": write(bed.volume, "volume", units)} if bed.kind == "container" else {}
    return schemas.BedRow(
        key=key,
        revision=revision,
        written={**written_fields(bed, units), **held_by},
        words=words,
        gust=schemas.WrittenGust(value=site.design_gust, text=write(site.design_gust, "speed", units)),
        sides=sides(bed),
        fields=bed,
    )


_RAISED = {"raised": "raised", "straw-bale": "straw bales", "container": "container filled"}


@lru_cache(maxsize=2048)
def _feature(same: Same, key: str, revision: int, units: System) -> schemas.FeatureRow:
    feature = model.Feature.model_validate(same.things[0])
    words = feature.kind.replace("-", " ")
    if feature.depth is not None:
        words += f", {write(feature.depth, 'length', units)} deep"
    return schemas.FeatureRow(
        key=key, revision=revision, written=written_fields(feature, units), words=words, fields=feature
    )


@lru_cache(maxsize=512)
def _need(same: Same, key: str, revision: int, units: System) -> schemas.NeedRow:
    need = model.KeptNeed.model_validate(same.things[0])
    crop = tables.crops()[need.crop].name
    words = f"{crop}, {need.count} plants" if need.count else f"{crop}, as many as fit"
    gust = write(need.wants.gust, "speed", units) if need.wants.gust else ""
    headroom = write(need.wants.headroom, "length", units) if need.wants.headroom else ""
    return schemas.NeedRow(key=key, revision=revision, words=words, gust=gust, headroom=headroom, fields=need)


def _structure(held: Held, laid: Laid, record: model.Record | None, units: System) -> schemas.StructureRow:
    return _structure_row(Same(laid, record), held.id or 0, held.revision, held.home, units)


@lru_cache(maxsize=2048)
def _structure_row(same: Same, id: int, revision: int, home: str, units: System) -> schemas.StructureRow:
    laid, record = same.things
    structure = laid.structure
    return schemas.StructureRow(
        id=id,
        key=structure.key,
        revision=revision,
        name=structure.name,
        bed=home,
        crops=_crops(structure),
        along=structure.along,
        across=structure.across,
        turn=structure.turn,
        length=laid.geometry.length,
        stretch=stretch_of(structure),
        written=_written(text_of(structure), units),
        built=built_text(record) if record else "",
    )


@lru_cache(maxsize=2048)
def _written(text: str, units: System) -> dict[str, str]:
    """Return every field of a structure as it is written. It is shared; do not change it."""
    return written_fields(model.Structure.model_validate_json(text), units)


def _crops(structure: model.Structure) -> str:
    return ", ".join(tables.crops()[planting.crop].name for planting in structure.plantings)


def sides(bed: model.BareBed, turn: float = 0.0) -> dict[str, str]:
    """Return what the two sides of a row in a bed are called, by compass."""

    def name(bearing: float) -> str:
        return f"{_COMPASS[round(bearing / 45) % 8]} side"

    bearing = bed.bearing + turn
    return {"left": name(bearing - 90), "right": name(bearing + 90), "both": "both sides"}


def plot_out(
    core: model.Garden, stored: Known, about: str = "", problems: tuple[str, ...] = ()
) -> schemas.PlotOut:
    """Return a plan that is not stored, with its warnings and the distances of one thing on it.

    Where nobody gets to is told as it is in the stored garden: what is carried is looked at for that when it
    is put down.
    """
    laid, before = laid_out(core), drawn_of(stored)
    things: list[Any] = [*core.beds, *core.features, *(placed.structure for placed in laid)]
    thing = next((thing for thing in things if thing.key == about), None)
    plot, gone = _differs(before.plot, plot_of(core, laid))
    found = clashes_since(before.looked, core, laid, before.ways)
    return schemas.PlotOut(
        written=written_fields(thing, core.units) if thing else {},
        plot=plot,
        gone=gone,
        warnings=warned(found, core.units),
        gaps=gaps(core, laid, about, core.units) if about else (),
        problems=problems,
    )


def _differs(before: PlotDrawing, after: PlotDrawing) -> tuple[PlotDrawing, tuple[str, ...]]:
    """Return what of a plan is drawn otherwise than before, and the keys of what is gone."""
    kinds = ("beds", "features", "structures")
    known: dict[str, Any] = {mark.key: mark for kind in kinds for mark in getattr(before, kind)}
    there = {mark.key for kind in kinds for mark in getattr(after, kind)}
    new = {
        kind: tuple(mark for mark in getattr(after, kind) if known.get(mark.key) != mark) for kind in kinds
    }
    return after.model_copy(update=new), tuple(key for key in known if key not in there)


@dataclass(frozen=True)
class _Asked:
    """How a structure stands: known again by its site, itself and what went in otherwise, whoever asks and
    pauses for whom.
    """

    site: str
    structure: str
    record: str
    pause: Callable[[], None] = field(compare=False)


@lru_cache(maxsize=2048)
def _line(asked: _Asked) -> dict[str, Any]:
    site = Site.model_validate_json(asked.site)
    structure = model.Structure.model_validate_json(asked.structure)
    e = design_of(site, structure).calculate(asked.pause)
    cost = total(shopping(e.geometry, site.garden.prices, site.spare))
    otherwise = ""
    if asked.record:
        e = as_built(site, structure, model.Record.model_validate_json(asked.record)).worst
        otherwise = " as it went in"
    asked.pause()
    said = brief(site, e, site.garden.units)
    return {
        "state": said.state,
        "words": said.words + otherwise,
        "limit": said.limit_text,
        "forecast": said.forecast_text,
        "design": said.required_text,
        "weakest": said.weakest_text,
        "week": said.week_label,
        "required_m_s": e.required_gust,
        "once": said.return_period_text,
        "cost": money(cost, site.garden.currency),
        "season": season_of_limits(e),
    }


def lines(
    granted: Granted, keys: list[str], enough: Callable[[], bool], pause: Callable[[], None]
) -> list[schemas.StructureLine]:
    """Return how structures stand: those named, or as many as one call takes, so that a large garden comes in
    by and by. Whenever it can, it pauses for others.

    What is calculated once is known the next time, so that whoever asks again for what is missing gets
    further.
    """
    state = known_of(granted.garden).state
    place = place_of(granted.garden)
    lost = {held.ref for held in unreadable(state)}
    wanted = [
        held
        for held in state.values()
        if held.kind == "structure" and held.ref not in lost and (held.key in keys or not keys)
    ]
    wanted = wanted[: schemas.MOST_LINES]
    sites = {home: _site(place, state["bed", home].document) for home in {held.home for held in wanted}}
    shed = stock_in(state)
    went_in = _went_in(state)
    broken = broken_in(known_of(granted.garden))
    structure_lines: list[schemas.StructureLine] = []
    known = _line.cache_info().misses
    for held in wanted:
        if _line.cache_info().misses > known and enough():  # what is known costs nothing
            break
        structure = model.Structure.model_validate(held.document)
        still = structure.model_copy(update={"along": 0.0, "across": 0.0, "turn": 0.0})
        site = sites[held.home]
        if structure.taken:
            site = site.model_copy(update={"spare": had_by(shed, structure.taken)})
        record = went_in.get(structure.key, "")
        asked = _Asked(text_of(site), still.model_dump_json(), record, pause)
        line = guarded(f"the line of {structure.key}", partial(_line, asked), None) or _no_line()
        if structure.key in broken:
            line = {**line, "state": "inadequate", "broken": broken[structure.key]}
        structure_lines.append(schemas.StructureLine(key=structure.key, crops=_crops(structure), **line))
    return structure_lines


def _no_line() -> dict[str, Any]:
    """Return the line of a structure that cannot be calculated: that is said, and the others are shown."""
    nothing = dict.fromkeys(("limit", "forecast", "design", "once", "weakest", "week", "cost"), "")
    return {**nothing, "state": None, "words": template("season.no-line"), "required_m_s": 0.0, "season": []}


def _went_in(state: State) -> dict[str, str]:
    """Return what went in otherwise than planned, by structure; ticks change nothing of it."""
    records = (
        model.Record.model_validate(held.document)
        for held in state.values()
        if held.kind == "record" and not held.fault
    )
    return {
        record.structure: record.model_copy(update={"ticks": {}, "pulls": {}}).model_dump_json()
        for record in records
        if record.differs
    }


def _site(place: model.Place, bed: dict[str, Any]) -> Site:
    """Return a bed and its garden, wherever on the plan the bed lies."""
    return Site(garden=place, bed=model.BareBed.model_validate({**bed, "x": 0.0, "y": 0.0}))


def shade_out(granted: Granted, date: str, hour: float) -> schemas.ShadeOut:
    """Return the shadows at an hour of a day, and the hours of sun of each bed, in words.

    Raises:
        InvalidPlan: No such day.
    """
    core = whole(state_of(granted.garden))
    shade = shade_of(core, laid_out(core), _day(date), hour)
    beds = [
        schemas.BedShade(bed=b.bed, text=_sun_text(b.open, b.lost), lost=round(b.lost, 2), open=b.open)
        for b in shade.beds
    ]
    return schemas.ShadeOut(
        words=_sun_words(date, hour, shade),
        altitude=shade.altitude,
        azimuth=shade.azimuth,
        rises=shade.rises,
        sets=shade.sets,
        shadows=[(s.outline, s.cover) for s in shade.shadows],
        beds=beds,
    )


def _day(date: str) -> str:
    try:
        model.day_of_year(date)
    except ValueError as error:
        raise InvalidPlan([Problem("date", date, "month and day such as 08-15 are allowed")]) from error
    return date


def _sun_text(open_hours: float, lost: float) -> str:
    return f"{open_hours - lost:.1f} of {open_hours:.1f} h of sun"


def _sun_words(date: str, hour: float, shade: Shade) -> str:
    minutes = round(hour * 60)
    where = _COMPASS[round(shade.azimuth / 45) % 8]
    up = f"the sun {shade.altitude:.0f}° high in the {where}" if shade.altitude > 0 else "the sun is down"
    return f"{day_text(date)}, {minutes // 60}:{minutes % 60:02d} sun time: {up}"


def parts_out(granted: Granted) -> schemas.GardenParts:
    """Return what to buy for the whole garden: together, and structure by structure."""
    core = whole(state_of(granted.garden))
    ids = dict(granted.garden.things.filter(kind="structure").values_list("key", "pk"))
    laid = laid_out(core)
    owns = {placed.structure.key: had_by(core.stock, placed.structure.taken) for placed in laid}
    taken = taken_of(placed.structure for placed in laid)
    spare = had_by(core.stock, [model.Taken(stock=key, amount=amount) for key, amount in taken.items()])
    together, bars = bill([placed.geometry for placed in laid], core.prices, spare)
    single = [(placed, shopping(placed.geometry, core.prices, owns[placed.structure.key])) for placed in laid]
    apart = sum(total(parts) for _, parts in single)
    cautions = dict.fromkeys(
        text for placed in laid for text in cautions_of(placed.structure.family, placed.geometry)
    )
    structures = [
        schemas.StructureParts(
            id=ids[placed.structure.key],
            name=placed.structure.name,
            parts=part_reports(parts, core.units),
            cost=round(total(parts), 2),
        )
        for placed, parts in single
    ]
    return schemas.GardenParts(
        currency=core.currency,
        together=part_reports(together, core.units),
        cuts=cut_reports(bars, core.units),
        shelves={key: template(f"shelf.{key}") for key in ("shed", *get_args(Shelf))},
        cost=round(total(together), 2),
        apart=round(apart, 2),
        saved_text=money(apart - total(together), core.currency),
        structures=structures,
        cautions=list(cautions),
    )


def parts_csv(granted: Granted, by_structure: bool) -> str:
    """Return the garden's shopping list as CSV, together or by structure."""
    out = parts_out(granted)
    handle = io.StringIO()
    writer = csv.writer(handle)
    writer.writerow(["structure", "part", "for", "needed", "buy", "price each", "cost", "currency", "lasts"])
    rows = (
        [(s.name, p) for s in out.structures for p in s.parts]
        if by_structure
        else [("all", p) for p in out.together]
    )
    currency = plain_cell(out.currency)
    for name, part in rows:
        cost = (f"{part.price:.2f}", f"{part.cost:.2f}", currency)
        writer.writerow([plain_cell(name), part.name, part.use, part.count, part.buy, *cost, part.lasts])
    writer.writerow(
        ["total", "", "", "", "", "", f"{out.apart if by_structure else out.cost:.2f}", currency, ""]
    )
    return handle.getvalue()


@lru_cache(maxsize=1)
def method_html() -> str:
    """Return docs/method.md as HTML; raw HTML in it stays text."""
    text = (settings.ROOT / "docs" / "method.md").read_text(encoding="utf-8")
    return str(markdown_it.MarkdownIt("commonmark", {"html": False}).enable("table").render(text))

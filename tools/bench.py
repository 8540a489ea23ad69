"""The budgets, measured: medians and ratios. Nothing here is asserted; a test never fails for being slow.

Run by ./ascent bench, on this machine, with nothing else running.
"""

from __future__ import annotations

import datetime as dt
import gzip
import itertools
import json
import random
import statistics
import sys
import threading
import time
import urllib.request
from collections.abc import Callable
from typing import Any

import brotli
from ascent.analysis.design import Design, design_of, geometry_of
from ascent.analysis.sensitivity import sensitivity
from ascent.building.asbuilt import as_built
from ascent.buying.cuts import StockLength, cut
from ascent.buying.lists import bill
from ascent.families import family_of
from ascent.family.protocol import Need
from ascent.files.pdf import write_pdf
from ascent.files.plan import read_plan
from ascent.ground.plot import laid_out
from ascent.loads import cases as case_sets
from ascent.path.geometry import Geometry
from ascent.plan.bed import Bed
from ascent.plan.garden import Garden
from ascent.plan.needs import Wants
from ascent.plan.record import Differs, Record
from ascent.plan.structure import Structure
from ascent.report.building import build_report, paper_of
from ascent.report.report import full_report
from ascent.site import Site
from ascent.sizing.choose import way_of
from ascent.sizing.fixes import fixes_for
from ascent.sizing.offer import choices
from ascent.sizing.size import size
from first_hour import first_hour
from Pynite import FEModel3D
from strain import many, strain
from trials.served import ROOT, HttpVisit, served


def timed(do: Callable[[], Any], times: int) -> list[float]:
    """Return the milliseconds of each run after one to warm up."""
    do()
    took = []
    for _ in range(times):
        start = time.perf_counter()
        do()
        took.append((time.perf_counter() - start) * 1e3)
    return took


def never_pause() -> None:
    """Do not wait between the steps of a calculation."""


def median(values: list[float]) -> float:
    return statistics.median(values)


def share(values: list[float], part: float) -> float:
    return sorted(values)[min(int(len(values) * part), len(values) - 1)]


def say(what: str, measured: str, budget: str = "") -> None:
    """Print one line of the table."""
    print(f"{what:<62}{measured:>26}   {budget}", flush=True)


def stretched(structure: Structure) -> Structure:
    """Return a structure with a second planting, which makes its season about forty weeks long."""
    first = structure.plantings[0]
    late = first.model_copy(update={"planted": "06-20"})
    early = first.model_copy(update={"crop": "fava", "planted": "01-20"})
    return structure.model_copy(update={"plantings": (early, late)})


def core() -> None:
    """Measure every family on a structure of the demo, its season stretched, beside a general frame library
    on the same cases.
    """
    garden = read_plan((ROOT / "docs" / "examples" / "lantern-quay.json").read_bytes()).garden
    seen: set[str] = set()
    print(
        f"{'family':<16}{'weeks':>6}{'load path ms':>14}{'evaluation ms':>15}{'report ms':>11}"
        f"{'links':>7}{'options':>9}{'lines':>7}{'frame library':>15}"
    )
    for bed in garden.beds:
        for structure in bed.structures:
            if structure.family not in seen:
                seen.add(structure.family)
                family_row(Site(garden=garden, bed=bed), structure)
    bed = next(bed for bed in garden.beds if bed.name == "Long Plot A")
    site, structure = Site(garden=garden, bed=bed), bed.structures[0]
    evaluation = design_of(site, structure)
    weakest = evaluation.weakest(evaluation.worst_week)
    say("fixes of the weakest link", f"{median(timed(lambda: fixes_for(evaluation, weakest), 5)):.0f} ms")
    weak = structure.model_copy(update={"options": {**structure.options, "post_spacing": 3.0, "depth": 0.3}})
    say(
        "several changes together, until it holds",
        f"{median(timed(lambda: size(site, weak, 'metric'), 2)):.0f} ms",
    )
    say("what it rests on", f"{median(timed(lambda: sensitivity(site, structure), 5)):.0f} ms")
    need = Need("tom-slicer", None, "right", "pruned")
    choosing(need)
    cutting(garden)
    building(garden)
    say("every kind as a picture", f"{median(timed(lambda: choices(site, need), 5)):.0f} ms", "≤ 3 s")


def choosing(need: Need) -> None:
    """Measure what to build on a bed of 3.6 m: every kind sized, in how many trials, of how many ways."""
    bed = Bed(key="b", name="b", length=3.6, width=1.0)
    where = Site(garden=Garden(name="g"), bed=bed)
    way_of(where, "stake", need, Wants(), "metric")
    kinds = [support.family for support in choices(where, need)]
    glances = [
        timed(lambda kind=kind: way_of(where, kind, need, Wants(), "metric", closely=False), 1)[0]
        for kind in kinds
    ]
    say(
        "what to build, a first look: the first kind, all",
        f"{glances[0]:.0f}, {sum(glances):.0f} ms",
        "≤ 300, ≤ 3000",
    )
    taken: list[float] = []
    for kind in kinds:
        start = time.perf_counter()
        sized = way_of(where, kind, need, Wants(), "metric").sized
        taken.append(time.perf_counter() - start)
        say(
            f"   {kind} sized, trials, ways a second",
            f"{taken[-1] * 1e3:.0f} ms, {sized.tried}, {sized.size / taken[-1]:.2g}"
            + ("" if sized.proven else ", not proven"),
        )
    say("what to build, closely: the first kind, all", f"{taken[0]:.2f}, {sum(taken):.1f} s")


def cutting(garden: Garden) -> None:
    """Measure how stock is cut: the demo's list, triplets that fill a bar, lengths drawn at random."""
    laid = [placed.geometry for placed in laid_out(garden)]
    bill(laid, {})
    say("the demo's list, cut", f"{median(timed(lambda: bill(laid, {}), 5)):.0f} ms")
    chance = random.Random(1)
    for count in (20, 40):
        sizes: list[int] = []
        for _ in range(count):
            first = chance.randint(380, 490)
            second = chance.randint(250, (1000 - first) // 2)
            sizes += [first, second, 1000 - first - second]
        start = time.perf_counter()
        found = cut(tuple(size / 1000 for size in sizes), (StockLength(1.0, 1.0),), seconds=10.0)
        took = time.perf_counter() - start
        say(
            f"   {count} triplets: bars, least, time",
            f"{len(found.bars)}, {found.least:.1f}, {took * 1e3:.0f} ms",
        )
    needs = [length for _ in range(20) for length in [chance.randint(1, 800) / 1000] * chance.randint(1, 99)]
    start = time.perf_counter()
    found = cut(tuple(needs), (StockLength(1.0, 1.0),))
    took = time.perf_counter() - start
    say(
        f"   {len(needs)} pieces of 20 lengths: bars, least, time",
        f"{len(found.bars)}, {found.least:.1f}, {took * 1e3:.0f} ms",
    )


def building(garden: Garden) -> None:
    """Measure what stands between the plan and the ground: steps, as built, and the files that go out."""
    on = dt.date(2026, 4, 12)
    for name in ("quay-fence", "lantern-arch", "chandlers-wire"):
        bed, structure = next((b, s) for b in garden.beds for s in b.structures if s.key == name)
        site = Site(garden=garden, bed=bed)
        post = next(m.key for m in geometry_of(bed, structure).by_role("post"))
        short = Differs(option="depth", value=0.4, member=post, at=dt.datetime(2026, 4, 12, tzinfo=dt.UTC))
        record = Record(key="r", name="r", structure=name, begun=on, differs={"d": short})
        told = timed(lambda b=bed, s=structure: build_report(garden, b, s, None, "metric"), 5)
        check = timed(lambda s=structure, r=record, at=site: as_built(at, s, r), 9)
        again = timed(lambda s=structure, at=site: Design(at, s).calculate(never_pause), 9)
        paper = timed(
            lambda b=bed, s=structure: write_pdf(paper_of(garden, b, s, None, "metric", on), "A4"), 3
        )
        say(
            f"   {name}: told, as built (two evaluations of the one), PDF",
            f"{median(told):.0f} ms, {median(check):.0f} ms ({median(again):.0f}), {median(paper):.0f} ms",
            "as built 50 ms, PDF 2 s",
        )


def family_row(site: Site, structure: Structure) -> None:
    """Print one family: its load path over about 40 weeks × 3 winds × 2 soil states, and the frame library's
    time over ours.
    """
    long = stretched(structure)
    family = family_of(structure.family)
    options = family.options.model_validate(structure.options)
    geometry = family.geometry(options, long.plantings, site)
    winds = case_sets.site_winds(site, design_of(site, structure).required_gust)

    def path() -> None:
        for link in family.loaded(options, geometry, long, site, winds).path():
            _ = link.utilisation

    ours = median(timed(path, 40))
    evaluation = design_of(site, long)
    whole = median(timed(lambda: Design(site, long).calculate(never_pause), 15))
    words = median(timed(lambda: full_report(site, structure, "metric"), 10))
    model = frame_of(geometry, evaluation.season.weeks * 3)
    start = time.perf_counter()
    model.analyze_linear()
    theirs = (time.perf_counter() - start) * 1e3
    room = ROOT / "core" / "ascent" / "families" / family.key.replace("-", "_")
    lines = sum(len(path.read_text().splitlines()) for path in room.glob("*.py"))
    print(
        f"{family.key:<16}{evaluation.season.weeks:>6}{ours:>14.2f}{whole:>15.1f}{words:>11.1f}{len(evaluation.links):>7}{len(family.options.model_fields):>9}"
        f"{lines:>7}{theirs / ours:>13.0f} ×",
        flush=True,
    )


def frame_of(geometry: Geometry, cases: int) -> FEModel3D:
    """Return what of a structure a frame library can stand up, with one load case for each week and wind."""
    model = FEModel3D()
    model.add_material("m", 2e11, 8e10, 0.3, 7850)
    model.add_section("s", 1e-4, 1e-8, 1e-8, 2e-8)
    names: dict[tuple[float, float, float], str] = {}

    def node(point: tuple[float, float, float]) -> str:
        x, y, z = point
        place = (round(x, 3), round(y, 3), round(max(z, 0.0), 3))
        if place not in names:
            names[place] = f"n{len(names)}"
            model.add_node(names[place], *place)
            if place[2] <= 0.06:
                model.def_support(names[place], True, True, True, True, True, True)
        return names[place]

    standing = [m for m in geometry.members if m.role in ("post", "stem", "rail", "arm", "panel", "ring")]
    count = 0
    for member in standing:
        for line in (
            member.lines[:1]
            if member.role == "panel"
            else member.lines[-3:]
            if member.role == "ring"
            else (member.points,)
        ):
            for a, b in itertools.pairwise(line):
                if node(a) != node(b):
                    model.add_member(f"m{count}", node(a), node(b), "m", "s")
                    count += 1
    free = [name for (_, _, z), name in names.items() if z > 0.06]
    for name, way in itertools.product(free, ("DX", "DY", "DZ", "RX", "RY", "RZ")):
        model.def_support_spring(
            name, way, 1.0
        )  # what only lies on another member, or is tied to it, is no frame by itself
    for case in range(cases):
        for name in free:
            model.add_node_load(name, "FY", 10.0 + case, f"c{case}")
        model.add_load_combo(f"c{case}", {f"c{case}": 1.0})
    return model


class Visitor(HttpVisit):
    """A visit whose every answer must be good."""

    def get(self, method: str, path: str, body: Any = None) -> bytes:
        """Send one request and return the body of its answer."""
        status, data = self.ask(method, path, body)
        if status >= 400:
            raise SystemExit(f"{method} {path} answered {status}: {data[:200]!r}")
        return data


def server() -> None:
    """Measure the live edit against an empty typed endpoint of the same server."""
    with served() as (port, _home):
        measure(Visitor(port))
        sizes(port)


def measure(visitor: Visitor) -> None:
    """Time the empty endpoint and live edits of the demo fence, each edit a value not asked before."""
    garden = json.loads(visitor.get("GET", "/api/gardens"))[0]["id"]
    rows = json.loads(visitor.get("GET", f"/api/gardens/{garden}"))["structures"]
    structure = next(row["id"] for row in rows if row["name"] == "Lantern Row")
    draft = json.loads(visitor.get("GET", f"/api/structures/{structure}"))["draft"]
    empty = timed(lambda: visitor.get("GET", "/api/empty"), 300)
    depths = iter(range(10_000))

    def edit() -> None:
        changed = {**draft, "options": {**draft["options"], "depth": 0.4 + next(depths) * 1e-4}}
        visitor.get("POST", f"/api/structures/{structure}/report", {"draft": changed})

    edits = timed(edit, 200)
    say("empty typed endpoint: median, 95th percentile", f"{median(empty):.2f}, {share(empty, 0.95):.2f} ms")
    say(
        "live edit, request to response: median, 95th percentile",
        f"{median(edits):.1f}, {share(edits, 0.95):.1f} ms",
        "≤ 50 ms at the 95th",
    )
    say("live edit over empty endpoint", f"{median(edits) / median(empty):.0f} ×")
    plan(visitor, garden, f"the demo garden, {len(rows)} structures")
    other = f"/api/gardens/{crowd(visitor, garden, 0.3)}"
    busy = threading.Thread(
        target=_keep_asking, args=(Visitor(visitor.connection.port), other, [f"row-{n}" for n in range(20)])
    )
    busy.start()
    beside = timed(edit, 60)
    busy.join()
    say(
        "live edit while twenty others are worked out: 95th percentile",
        f"{share(beside, 0.95):.1f} ms",
        "≤ 50 ms",
    )
    plan(visitor, large := crowd(visitor, garden), "a garden of 200 structures")
    season(visitor, garden, "the demo garden")
    season(visitor, large, "a garden of 200 structures")


def _keep_asking(visitor: Visitor, path: str, keys: list[str]) -> None:
    """Ask how structures stand as a browser does, until it is known."""
    while stand(visitor, path, keys) < len(keys):
        time.sleep(0.1)


def crowd(visitor: Visitor, garden: int, depth: float = 0.5) -> int:
    """Make a garden of 200 structures from that depth on, by its plan file, and return its number."""
    document = many(json.loads(visitor.get("GET", f"/api/gardens/{garden}/plan.json")), depth)
    return int(json.loads(visitor.get("POST", "/api/gardens/import", {"text": json.dumps(document)}))["id"])


def plan(visitor: Visitor, garden: int, which: str) -> None:
    """Time the plan of a garden: opened, moved on, saved, shaded, its lines calculated for the first time and
    again.
    """
    path = f"/api/gardens/{garden}"
    out = json.loads(visitor.get("GET", path))
    keys = [row["key"] for row in out["structures"]]
    bed = out["beds"][1]
    places = iter(range(100_000))

    def edit() -> dict[str, Any]:
        return {"kind": "bed", "key": bed["key"], "change": {"x": bed["fields"]["x"] + next(places) * 1e-3}}

    say(
        f"{which}: opened, {len(visitor.get('GET', path)) / 1000:.0f} kB",
        f"{median(timed(lambda: visitor.get('GET', path), 12)):.0f} ms",
        "≤ 1 s",
    )
    moved = timed(lambda: visitor.get("POST", f"{path}/draft", {"edits": [edit()], "about": bed["key"]}), 20)
    say(
        "   while a bed is carried: median, 95th percentile",
        f"{median(moved):.0f}, {share(moved, 0.95):.0f} ms",
    )
    say(
        "   a change saved",
        f"{median(timed(lambda: visitor.get('POST', f'{path}/edits', {'edits': [edit()]}), 12)):.0f} ms",
    )
    say(
        "   shade of a day",
        f"{median(timed(lambda: visitor.get('GET', f'{path}/shade?date=08-10&hour=15'), 5)):.0f} ms",
    )
    start = time.perf_counter()
    fifties = [keys[i : i + 50] for i in range(0, len(keys), 50)]
    first = 0.0
    for fifty in fifties:
        while stand(visitor, path, fifty) < len(fifty):
            first = first or time.perf_counter() - start
    first = first or time.perf_counter() - start
    say(
        "   how they stand, the first of them, all",
        f"{first * 1e3:.0f}, {(time.perf_counter() - start) * 1e3:.0f} ms",
    )
    again = timed(lambda: [stand(visitor, path, fifty) for fifty in fifties], 5)
    say("   how they stand, known", f"{median(again):.0f} ms")


def season(visitor: Visitor, garden: int, which: str) -> None:
    """Time the year of a garden, first and again, its week, a sowing that is dragged, its calendar."""
    path = f"/api/gardens/{garden}"
    start = time.perf_counter()
    size = len(visitor.get("GET", f"{path}/year"))
    first = (time.perf_counter() - start) * 1e3
    known = median(timed(lambda: visitor.get("GET", f"{path}/year"), 7))
    say(f"{which}: its year, first and again, {size / 1e3:.0f} kB", f"{first:.0f}, {known:.0f} ms", "≤ 1 s")
    week = timed(lambda: visitor.get("GET", f"{path}/week"), 7)
    say(f"   its week, {len(visitor.get('GET', f'{path}/week')) / 1000:.0f} kB", f"{median(week):.0f} ms")
    report = json.loads(visitor.get("GET", f"{path}/year"))["report"]
    row, sheet = report["rows"][0], {"monday": report["mondays"][0], "weeks": len(report["mondays"])}
    days = iter(range(10_000))

    def sown() -> None:
        planted = f"{5 + next(days) % 2:02d}-{1 + next(days) % 28:02d}"
        planting = row["growing"][0]["planting"]
        asked = {"structure": row["structure"], "planting": planting, "planted": planted, **sheet}
        visitor.get("POST", f"{path}/year/draft", asked)

    dragged = timed(sown, 60)
    say(
        "   a sowing dragged: median, 95th percentile",
        f"{median(dragged):.0f}, {share(dragged, 0.95):.0f} ms",
        "≤ 50 ms",
    )
    start = time.perf_counter()
    size = len(visitor.get("GET", f"{path}/season.ics"))
    say(f"   its calendar, {size / 1000:.0f} kB", f"{(time.perf_counter() - start) * 1e3:.0f} ms")


def stand(visitor: Visitor, path: str, keys: list[str]) -> int:
    """Ask how structures stand and return of how many it is said."""
    return len(json.loads(visitor.get("GET", f"{path}/lines?" + "&".join(f"keys={key}" for key in keys))))


def sizes(port: int) -> None:
    """Measure what a first visit loads before a route's own chunk, as the server sends it."""
    manifest = json.loads((ROOT / "client" / "dist" / ".vite" / "manifest.json").read_text(encoding="utf-8"))
    entry = next(item for item in manifest.values() if item.get("isEntry"))
    names = {entry["file"], *entry.get("css", [])}
    waiting = list(entry.get("imports", []))
    while waiting:
        item = manifest[waiting.pop()]
        names |= {item["file"], *item.get("css", [])}
        waiting += item.get("imports", [])
    total = 0
    for name in sorted(names):
        asked = urllib.request.Request(
            f"http://127.0.0.1:{port}/static/{name}", headers={"Accept-Encoding": "br"}
        )
        with urllib.request.urlopen(asked, timeout=10) as answer:
            total += len(answer.read())
    say("first load, script and style, as sent (brotli)", f"{total / 1000:.0f} kB", "≤ 300 kB")
    for name, page in (
        ("the bench's own chunk: brotli, gzip", "BenchPage"),
        ("the plan's own chunk: brotli, gzip", "PlotPage"),
    ):
        item = next(item for key, item in manifest.items() if page in key)
        code = (ROOT / "client" / "dist" / item["file"]).read_bytes()
        say(name, f"{len(brotli.compress(code)) / 1000:.0f}, {len(gzip.compress(code)) / 1000:.0f} kB")


if __name__ == "__main__":
    say("what", "median", "budget")
    if "--journeys" in sys.argv:
        first_hour(say)
    else:
        if "--strain" not in sys.argv:
            core()
            server()
            first_hour(say)
        strain(say)

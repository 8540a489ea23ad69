"""What a bad day costs: the longest valid requests, the worst refusals, thirty people at once. Part of
./ascent bench; only against itself.

Thirty people: each on a line of their own, signed in as the demo, does one thing and then looks at it for
half a second to one and a half: half of it live edits design, a fifth carrying a bed, a tenth each
opening the garden, saving, and asking how all stands.
"""

from __future__ import annotations

import json
import random
import threading
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from ascent.plan.garden import FORMAT_VERSION
from config.bounds import most_bytes
from trials.served import ROOT, HttpVisit, served

_PEOPLE, _SECONDS = 30, 60.0
_PAUSE = (0.5, 1.5)
MILLION = 1_000_000


def strain(say: Callable[..., None]) -> None:
    """Measure and print."""
    with served() as (port, _):
        refusals(port, say)
    with served() as (port, _):
        longest(port, say)
    for large in (False, True):
        with served() as (port, _):
            crowd(port, say, large)


def peak(port: int) -> float:
    """Return the most memory the server of a port has had. [MB]"""
    for folder in Path("/proc").glob("[0-9]*"):
        try:
            words = (folder / "cmdline").read_bytes().split(b"\0")
            if str(port).encode() in words and b"config.serving" in words:
                line = next(
                    line for line in (folder / "status").read_text().splitlines() if line.startswith("VmHWM")
                )
                return int(line.split()[1]) / 1000
        except OSError:
            continue
    return 0.0


def timed(visit: HttpVisit, method: str, path: str, body: Any) -> tuple[float, int, int]:
    """Return seconds, status and length of an answer."""
    start = time.perf_counter()
    status, data = visit.ask(method, path, body)
    return time.perf_counter() - start, status, len(data)


def plan(**garden: Any) -> dict[str, Any]:
    """Return a request with a plan file in it."""
    return {
        "text": json.dumps(
            {"format": "ascent-plan", "version": FORMAT_VERSION, "garden": {"name": "g", **garden}}
        )
    }


def refusals(port: int, say: Callable[..., None]) -> None:
    """Send the worst megabyte that is refused, in several forms."""
    visit = HttpVisit(port)
    before = peak(port)
    worst = (0.0, "", 0, 0)
    forms = {
        "empty beds": plan(beds=[{}] * (MILLION // 4)),
        "empty structures": plan(beds=[{"structures": [{}] * 249} for _ in range(399)]),
        "unknown keys": plan(**{f"k{n}": 1 for n in range(MILLION // 12)}),
        "many keys in many beds": plan(beds=[{f"k{n}": 1 for n in range(250)}] * 399),
        "nothing but brackets": {"text": "[" * MILLION},
        "points": plan(features=[{"points": [[0]] * 900}] * 200),
        "digits": {"text": "9" * MILLION},
        "a table": {"what": "beds", "text": "name,length,width\n" + "x,y,z\n" * (MILLION // 6)},
    }
    for name, body in forms.items():
        seconds, status, length = timed(visit, "POST", "/api/gardens/1/import/preview", body)
        if status not in (400, 422):
            raise SystemExit(f"{name} answered {status}")
        worst = max(worst, (seconds, name, status, length))
    say(
        "refusal of the worst 1 MB: slowest of 8 forms",
        f"{worst[0] * 1e3:.0f} ms, {worst[3] / 1000:.0f} kB",
        worst[1],
    )
    say("worst refusal of each endpoint's largest body: slowest", *_everywhere(visit))
    say("   peak memory of the server, before and after", f"{before:.0f}, {peak(port):.0f} MB")


def _everywhere(visit: HttpVisit) -> tuple[str, str]:
    """Send each endpoint the worst refusal of the largest body it reads; return the slowest."""
    document = json.loads((ROOT / "server" / "openapi.json").read_text(encoding="utf-8"))
    worst = (0.0, "")
    for address, verbs in document["paths"].items():
        path = address.format(
            garden_id=1,
            structure_id=1,
            bed="cove-bed",
            number=0,
            name="n",
            what="beds",
            family="stake",
            token="t",  # noqa: S106
        )
        for verb in (verb for verb, operation in verbs.items() if "requestBody" in operation):
            most = min(most_bytes(path), 1_000_000)
            for form in (
                {f"k{n}": 1 for n in range(min(most // 13, 990))},
                {name: [{}] * min(most // 30, 990) for name in ("edits", "draft", "text", "wanted")},
                {
                    "draft": {
                        "options": {f"k{n}": [[]] * 20 for n in range(min(most // 120, 990))},
                        "plantings": [{}] * 4,
                        "name": "x",
                        "soil": "x",
                        "exposure": "x",
                    }
                },
            ):
                seconds, status, _ = timed(visit, verb.upper(), path, form)
                if status >= 500 or (status == 200 and form):
                    raise SystemExit(f"{verb} {path} answered {status}")
                worst = max(worst, (seconds, f"{verb} {address}"))
    return f"{worst[0] * 1e3:.0f} ms", worst[1]


def longest(port: int, say: Callable[..., None]) -> None:
    """Ask for the longest that may be asked: a raft of cages at all its limits, a garden at all its
    limits.
    """
    visit = HttpVisit(port)
    document = json.loads(visit.ask("GET", "/api/gardens/1/plan.json")[1])
    row = next(s for bed in document["garden"]["beds"] for s in bed["structures"] if s["family"] == "cage")
    planting = {**row["plantings"][0], "count": 600, "spacing": 0.05}
    options = {**row["options"], "length": 30.0, "rows": 8, "row_spacing": 0.3, "stakes": 1}
    crowd = [{**planting, "key": f"p{n}"} for n in range(1, 5)]
    big = {**row, "options": options, "plantings": crowd, "along": 0.0, "across": 0.0, "turn": 0.0}
    bed = {"key": "b", "name": "b", "length": 60.0, "width": 20.0, "structures": [big]}
    garden = json.loads(visit.ask("POST", "/api/gardens/import", plan(beds=[bed], exposure="storm-swept"))[1])
    number = garden["structures"][0]["id"]
    draft = json.loads(visit.ask("GET", f"/api/structures/{number}")[1])["draft"]
    lengths = {}
    for what, more in (
        ("report", {}),
        ("fixes", {"link": "tipping"}),
        ("sizing", {}),
        ("sensitivity", {}),
        ("curve", {"option": "rows"}),
        ("solid", {}),
    ):
        lengths[what], status, _ = timed(
            visit, "POST", f"/api/structures/{number}/{what}", {"draft": draft, **more}
        )
        if status != 200:
            raise SystemExit(f"{what} answered {status}")
    say(
        "2,400 caged plants on 30 m × 8 rows: slowest of six",
        f"{max(lengths.values()):.1f} s",
        max(lengths, key=lambda key: lengths[key]),
    )
    say("   " + ", ".join(lengths), ", ".join(f"{seconds:.1f}" for seconds in lengths.values()) + " s")
    fence = next(
        s for each in document["garden"]["beds"] for s in each["structures"] if s["family"] == "mesh-fence"
    )
    beds = [
        {
            "key": f"b{n}",
            "name": f"Bed {n}",
            "length": 6.0,
            "width": 1.2,
            "x": 7.0 * (n % 20),
            "y": 2.5 * (n // 20),
            "structures": [
                {**fence, "key": f"s{n}-{i}", "name": f"Row {n}", "across": 0.3 * i}
                for i in range(2 if n < 200 else 1)
            ],
        }
        for n in range(400)
    ]
    full = json.loads(visit.ask("POST", "/api/gardens/import", plan(beds=beds))[1])["id"]
    for what, path in (
        ("opened", ""),
        ("shade of a day", "/shade?date=08-10&hour=15"),
        ("shopping", "/parts"),
    ):
        say(
            f"   a garden of 400 beds and 600 structures: {what}",
            f"{timed(visit, 'GET', f'/api/gardens/{full}{path}', None)[0]:.1f} s",
        )


class _Person(threading.Thread):
    """Does one thing after another, with looks at it in between."""

    def __init__(self, port: int, number: int, end: float, garden: int) -> None:
        super().__init__(daemon=True)
        self.visit, self.chance, self.end, self.number = HttpVisit(port), random.Random(number), end, number
        self.path = f"/api/gardens/{garden}"
        self.times: list[float] = []
        self.statuses: list[int] = []

    def run(self) -> None:
        """Go on until the time is over."""
        garden = json.loads(self.visit.ask("GET", self.path)[1])
        row = garden["structures"][self.number % len(garden["structures"])]
        bed = garden["beds"][self.number % len(garden["beds"])]
        draft = json.loads(self.visit.ask("GET", f"/api/structures/{row['id']}")[1])["draft"]
        keys = "&".join(f"keys={each['key']}" for each in garden["structures"][:12])
        while time.monotonic() < self.end:
            place = {"x": bed["fields"]["x"] + self.chance.uniform(-0.2, 0.2)}
            edit = {"kind": "bed", "key": bed["key"], "change": place}
            names = [
                name
                for name, value in draft["options"].items()
                if isinstance(value, float) and name in ("depth", "in_soil", "length")
            ]
            near = {name: round(draft["options"][name] * self.chance.uniform(0.97, 1.0), 4) for name in names}
            changed = {**draft, "options": {**draft["options"], **near}}
            method, path, body = self.chance.choices(
                (
                    ("POST", f"/api/structures/{row['id']}/report", {"draft": changed}),
                    ("POST", f"{self.path}/draft", {"edits": [edit], "about": bed["key"]}),
                    ("GET", self.path, None),
                    ("POST", f"{self.path}/edits", {"edits": [edit]}),
                    ("GET", f"{self.path}/lines?{keys}", None),
                ),
                (5, 2, 1, 1, 1),
            )[0]
            seconds, status, _ = timed(self.visit, method, path, body)
            self.times.append(seconds)
            self.statuses.append(status)
            time.sleep(self.chance.uniform(*_PAUSE))


def many(document: dict[str, Any], depth: float = 0.5) -> dict[str, Any]:
    """Return a plan of 200 structures from the demo's, each a little deeper than the one before."""
    home = next(bed for bed in document["garden"]["beds"] if bed["key"] == "long-plot-a")
    row = home["structures"][0]
    beds = [
        {
            **home,
            "key": f"bed-{n}",
            "name": f"Bed {n}",
            "x": 7.0 * (n % 14),
            "y": 2.0 * (n // 14),
            "structures": [
                {
                    **row,
                    "key": f"row-{n}",
                    "name": f"Row {n}",
                    "options": {**row["options"], "depth": depth + n * 1e-3},
                }
            ],
        }
        for n in range(200)
    ]
    kept = {name: value for name, value in document["garden"].items() if name not in ("records", "diaries")}
    return {**document, "garden": {**kept, "beds": beds}}


def crowd(port: int, say: Callable[..., None], large: bool) -> None:
    """Let thirty people work for a minute on the demo's garden, or on one of 200 structures."""
    garden = 1
    if large:
        visit = HttpVisit(port)
        document = many(json.loads(visit.ask("GET", "/api/gardens/1/plan.json")[1]))
        garden = json.loads(visit.ask("POST", "/api/gardens/import", {"text": json.dumps(document)})[1])["id"]
    end = time.monotonic() + _SECONDS
    people = [_Person(port, number, end, garden) for number in range(_PEOPLE)]
    for person in people:
        person.start()
    for person in people:
        person.join()
    times = sorted(seconds for person in people for seconds in person.times)
    wrong = sum(status >= 400 and status != 422 for person in people for status in person.statuses)
    on = "200 structures" if large else "the demo garden"
    what = f"{_PEOPLE} people for {_SECONDS:.0f} s on {on}: requests, errors"
    say(what, f"{len(times)}, {wrong}", "0 errors")
    say(
        "   median, 95th percentile",
        f"{times[len(times) // 2]:.2f}, {times[int(len(times) * 0.95)]:.2f} s",
        "0.5, 1.5 s" if large else "0.3, 0.8 s",
    )

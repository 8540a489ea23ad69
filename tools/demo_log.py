"""Write the log of the demo garden: four years of Lantern Quay, made up, the same at each run.

Harvests are the forecast of the core times a factor of their year; photos are drawn here. Run by hand when
the demo changes: PYTHONPATH=core .venv/bin/python tools/demo_log.py
"""

from __future__ import annotations

import datetime as dt
import hashlib
import io
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import numpy as np
from ascent.analysis.design import geometry_of
from ascent.files.plan import read_plan, write_plan
from ascent.log.members import member_called
from ascent.plan.entries import Entry
from ascent.plan.garden import Garden
from ascent.season.harvest import harvest_of
from ascent.season.tasks import Tended
from ascent.site import plain_site
from PIL import Image, ImageDraw

EXAMPLES = Path(__file__).resolve().parent.parent / "docs" / "examples"
TODAY = dt.date(2026, 8, 10)
# support: what its crop bore in 2023, 2024, 2025 and so far in 2026, over what the tables say
BORE = {
    "twine-beam": (0.72, 0.84, 0.78, 0.8),
    "lantern-arch": (1.1, 1.02, 1.15, 1.0),
    "runner-row": (1.2, 0.95, 1.3, 1.1),
    "paste-raft": (0.8, 0.7, 0.85, 0.9),
    "wall-beans": (0.0, 1.05, 0.0, 0.95),
    "chandlers-wire": (0.0, 0.82, 0.0, 0.85),
    "quay-fence": (0.0, 0.0, 0.0, 1.1),
    "lantern-row": (0.0, 0.0, 0.0, 0.8),
    "bollard-fence": (0.9, 1.0, 0.8, 1.05),
    "pea-thicket": (0.95, 0.9, 1.1, 1.0),
}
FIRST, SECOND = dt.date(2023, 8, 19), dt.date(2025, 7, 26)  # the two storms
STOOD = ("twine-beam", "lantern-arch", "runner-row", "wall-beans", "gull-frame", "chandlers-wire")


def harvests(garden: Garden) -> Iterator[dict[str, Any]]:
    """Yield each week's picking of each support."""
    rng = np.random.default_rng(20260810)
    for bed in garden.beds:
        for structure in bed.structures:
            grown = Tended(plain_site(garden, bed), structure, geometry_of(bed, structure)).grown[0]
            first = grown.date(grown.course.start)
            mondays = tuple(first - dt.timedelta(days=first.weekday() - 7 * n) for n in range(53))
            usual = harvest_of(grown, mondays).usual
            for year, factor in zip(range(2023, 2027), BORE.get(structure.key, ()), strict=False):
                for monday, kg in zip(mondays, usual, strict=True):
                    back = round(365.2425 * (2026 - year))
                    day = monday - dt.timedelta(days=back - int(rng.integers(1, 6)))
                    weight = kg * factor * float(rng.lognormal(0.0, 0.2))
                    if factor and weight > 0.15 and day < TODAY:
                        yield {
                            "kind": "harvest",
                            "on": day,
                            "structure": structure.key,
                            "crop": grown.planting.crop,
                            "mass": round(weight, 2),
                        }


def storms(photos: dict[str, str]) -> Iterator[dict[str, Any]]:
    """Yield both storms, how supports were found, and the fence that fell, with its repair."""
    for day, gust in ((FIRST, 24.5), (SECOND, 22.0)):
        yield {"kind": "storm", "on": day, "gust": gust, "note": "From the harbour, at night."}
        for key in STOOD:
            yield {"kind": "storm", "on": day + dt.timedelta(days=1), "structure": key, "found": "stood"}
    after = FIRST + dt.timedelta(days=1)
    yield {
        "kind": "storm",
        "on": after,
        "structure": "cove-fence",
        "found": "fell",
        "note": "The whole fence lies in the path. The posts pulled out of the loose ground.",
        "photos": [photos["fell"]],
    }
    yield {
        "kind": "repair",
        "on": after + dt.timedelta(days=3),
        "structure": "cove-fence",
        "minutes": 210,
        "cost": 46.5,
        "note": "Longer posts, 20 cm deeper.",
        "photos": [photos["mended"]],
    }
    yield {
        "kind": "storm",
        "on": SECOND + dt.timedelta(days=1),
        "structure": "cove-fence",
        "found": "leans",
        "note": "Leans towards the path, holds.",
    }


def others(garden: Garden, photos: dict[str, str]) -> Iterator[dict[str, Any]]:
    """Yield frosts, pests, treatments, wear, measures, work and photos."""
    places = {structure.key: (bed, structure) for bed in garden.beds for structure in bed.structures}

    def part(key: str, word: str, number: int) -> str:
        member = member_called(geometry_of(*places[key]), word, number)
        if member is None:
            raise SystemExit(f"{key} has no {word} {number}")
        return member.key

    for year, last, low in (
        (2023, "04-29", -1.5),
        (2024, "04-17", -2.0),
        (2025, "05-06", -0.5),
        (2026, "04-21", -1.0),
    ):
        yield {"kind": "frost", "on": dt.date.fromisoformat(f"{year}-{last}"), "low": low}
    for year in (2023, 2024, 2025, 2026):
        yield {
            "kind": "sighting",
            "on": dt.date(year, 6, 14),
            "structure": "runner-row",
            "crop": "bean-runner",
            "what": "black aphids",
        }
        yield {
            "kind": "treatment",
            "on": dt.date(year, 6, 15),
            "structure": "runner-row",
            "crop": "bean-runner",
            "what": "soap",
            "waits": 3,
        }
        yield {"kind": "water", "on": dt.date(year, 7, 9), "bed": "twine-bed", "volume": 0.12, "minutes": 25}
    for year, day in ((2024, 30), (2026, 21)):
        yield {
            "kind": "break",
            "on": dt.date(year, 7, day),
            "structure": "twine-beam",
            "member": part("twine-beam", "string", 5),
            "note": "Rubbed through at the beam.",
        }
        yield {
            "kind": "repair",
            "on": dt.date(year, 7, day + 1),
            "structure": "twine-beam",
            "minutes": 15,
            "cost": 1.2,
        }
    yield {
        "kind": "lean",
        "on": dt.date(2026, 6, 24),
        "structure": "chandlers-wire",
        "member": part("chandlers-wire", "post", 2),
        "moved": 0.012,
        "height": 1.2,
        "pull": 150.0,
        "note": "Pulled with the luggage scale.",
    }
    yield {
        "kind": "sag",
        "on": dt.date(2026, 7, 29),
        "structure": "chandlers-wire",
        "member": part("chandlers-wire", "wire", 1),
        "moved": 0.05,
    }
    yield {
        "kind": "hours",
        "on": dt.date(2026, 5, 12),
        "minutes": 62,
        "note": "Looked over all supports before planting.",
    }
    yield {
        "kind": "photo",
        "on": dt.date(2026, 8, 3),
        "structure": "lantern-arch",
        "note": "The arch is closed.",
        "photos": [photos["arch"]],
    }
    yield {"kind": "cost", "on": dt.date(2026, 3, 7), "cost": 18.4, "what": "two balls of jute"}
    yield {
        "kind": "note",
        "on": dt.date(2025, 10, 19),
        "note": "All down and dry by the third week of October.",
    }


def drawn(name: str) -> bytes:
    """Return a drawn picture: a bed with a fence that fell, the same mended, or an arch, under a flat sky."""
    image = Image.new("RGB", (960, 640), (214, 226, 232))
    pen = ImageDraw.Draw(image)
    pen.rectangle((0, 430, 960, 640), fill=(122, 98, 74))
    pen.rectangle((0, 418, 960, 434), fill=(92, 122, 70))
    if name == "arch":
        for inset in range(0, 60, 14):
            pen.arc((250 + inset, 90 + inset, 710 - inset, 760), 180, 360, fill=(70, 82, 74), width=5)
        rng = np.random.default_rng(3)
        for angle in np.linspace(np.pi, 2 * np.pi, 90):
            x = 480 + 225 * np.cos(angle) + rng.normal(0, 10)
            y = 425 + 330 * np.sin(angle) + rng.normal(0, 10)
            pen.ellipse((x - 22, y - 16, x + 22, y + 16), fill=(66, 120 + int(rng.integers(0, 40)), 62))
    else:
        lean = 150 if name == "fell" else 0
        for x in range(140, 860, 140):
            foot, top = (x, 470), (x + lean * 1.6, 470 - (330 - lean * 1.5))
            pen.line((*foot, *top), fill=(104, 74, 48), width=14)
        for part in np.linspace(0.15, 0.95, 7):
            drop = (330 - lean * 1.5) * part
            shift = lean * 1.6 * part
            pen.line((140 + shift, 470 - drop, 840 + shift, 470 - drop), fill=(120, 130, 126), width=3)
    handle = io.BytesIO()
    image.save(handle, "JPEG", quality=82, optimize=True)
    return handle.getvalue()


def main() -> None:
    """Write the log into the plan file of the demo, and its photos beside it."""
    path = EXAMPLES / "lantern-quay.json"
    garden = read_plan(path.read_bytes()).garden
    folder = EXAMPLES / "photos"
    folder.mkdir(exist_ok=True)
    for old in folder.glob("*.jpg"):
        old.unlink()
    photos = {}
    for name in ("fell", "mended", "arch"):
        content = drawn(name)
        photos[name] = hashlib.sha256(content).hexdigest()
        (folder / f"{photos[name]}.jpg").write_bytes(content)
    said = [*harvests(garden), *storms(photos), *others(garden, photos)]
    said.sort(key=lambda each: (each["on"], each.get("structure", ""), each["kind"], str(each.get("found"))))
    log = [
        Entry(
            key=f"quay-{number:03d}",
            at=dt.datetime.combine(each["on"], dt.time(18, 30), dt.UTC),
            who="lantern-quay",
            **each,
        )
        for number, each in enumerate(said, start=1)
    ]
    path.write_text(write_plan(garden, log), encoding="utf-8")


if __name__ == "__main__":
    main()

"""Copy the typefaces that paper needs beside its own out of the client's packages into the core, with a list
of the letters that each file is for.

Run by ./ascent when it sets the client up.
"""

from __future__ import annotations

import csv
import json
import re
import shutil
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
PACKAGES = ROOT / "client" / "node_modules"
FOLDER = ROOT / "core" / "ascent" / "data" / "typefaces"
LATIN = "latin"  # what the typeface of the app has itself
# package, and the file of a weight: of one design, or of one that varies
WANTED = (
    *(
        (f"@fontsource/noto-sans{script}", f"noto-sans{script}-{{part}}-{weight}-normal.woff2", style)
        for script in ("", "-arabic", "-hebrew")
        for weight, style in ((400, ""), (600, "B"))
    ),
    *(
        (f"@fontsource-variable/noto-{name}", f"noto-{name}-{{part}}-wght-normal.woff2", "varies")
        for name in ("sans-sc", "sans-jp", "sans-kr", "emoji")
    ),
)


def parts() -> Iterator[tuple[Path, str, str]]:
    """Yield each file that is wanted, its style and the letters it is for."""
    for package, name, style in WANTED:
        ranges = json.loads((PACKAGES / package / "unicode.json").read_text("utf-8"))
        for part, letters in ranges.items():
            file = PACKAGES / package / "files" / name.format(part=re.sub(r"[\[\]]", "", part))
            if part != LATIN and file.exists():
                yield file, style, letters.replace("U+", "").replace(",", " ")


def main() -> None:
    """Copy them."""
    shutil.rmtree(FOLDER, ignore_errors=True)
    FOLDER.mkdir(parents=True)
    with (FOLDER / "typefaces.csv").open("w", encoding="utf-8", newline="") as handle:
        rows = csv.writer(handle, lineterminator="\n")
        rows.writerow(("file", "style", "letters"))
        for file, style, letters in parts():
            shutil.copy2(file, FOLDER / file.name)
            rows.writerow((file.name, style, letters))
    licence = PACKAGES / WANTED[0][0] / "LICENSE"
    shutil.copy2(licence, FOLDER / "licence.txt")


if __name__ == "__main__":
    main()

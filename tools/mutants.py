"""Put single mistakes into the core, one at a time, and tell which of them no test of it notices.

A mistake is of a kind that people make: a factor halved or doubled, one off in a count, plus for minus,
times for divided by, the lesser for the greater, sine for cosine, the other of two names, a digit of a
table. Each is made in a copy of the core in which those tests run that ran over its line when nothing was
wrong, the quickest first, until one fails. A wrong digit of a table is looked for by every test, those of
the tables first.

`./ascent bench --mutants 100` makes so many; `--mutants-in families` only in that folder. Which test runs
over which line is found once for a state of the core, in some minutes, and kept in `var/`.
"""

from __future__ import annotations

import ast
import hashlib
import os
import pickle
import random
import shutil
import subprocess
import sys
import tempfile
import time
from collections import Counter
from collections.abc import Iterable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

import coverage

ROOT = Path(__file__).resolve().parent.parent
CORE = ROOT / "core"
FOLDERS = (
    "mechanics",
    "checks",
    "loads",
    "patterns",
    "families",
    "report",
    "sizing",
    "buying",
    "ground",
    "words",
    "data",
)
_NEAR = 0.005  # what is added to or taken from a length to let it be as good as another [m]
QUICK = (
    "test_data",
    "test_courses",
    "practice",
    "test_parts",
    "test_tables",
    "test_quantities",
    "test_report",
    "test_plot",
    "test_fits",
    "test_files",
    "test_library",
    "test_views",
    "test_solid",
    "test_any_shade",
    "test_any_garden",
    "test_sweep",
)
SLOW = (
    "test_statements",
    "test_curves",
    "test_plan",
    "test_fixes",
    "test_any_family",
    "test_every_family",
    "test_hostile",
)
TABLES = (
    "published.test_handbook_tables",
    "test_data",
    "test_tables",
)  # where a wrong digit is looked for first
_NO_SHRINKING = """\
import hypothesis
hypothesis.settings.register_profile("found", phases=[hypothesis.Phase.explicit, hypothesis.Phase.generate])
hypothesis.settings.load_profile("found")
"""
_BATCH_S = 8.0  # tests that take so long together are run together
_SWAPS = {
    ast.Add: "-",
    ast.Sub: "+",
    ast.Mult: "/",
    ast.Div: "*",
    ast.Lt: ">=",
    ast.LtE: "<",
    ast.Gt: "<=",
    ast.GtE: ">",
    ast.And: "or",
    ast.Or: "and",
}
_NAMES = {
    "min": "max",
    "max": "min",
    "sin": "cos",
    "cos": "sin",
    "minimum": "maximum",
    "maximum": "minimum",
    "ceil": "floor",
    "floor": "ceil",
    "allowed": "median",
    "median": "allowed",
    "hypot": "maximum",
    "across": "along",
    "along": "across",
    "width": "depth",
}
_QUIET = {"texts"}
_NO_NUMBER = {"price", "price_m", "price_m2", "kg", "kg_m", "kg_m2"}


@dataclass(frozen=True)
class Mistake:
    """A mistake in a file: what stood between two places, and what stands there instead."""

    path: Path
    start: int
    end: int
    new: str
    line: int

    def says(self, text: str) -> str:
        """Return where it is and what it changes."""
        was = text[self.start : self.end]
        return f"{self.path.relative_to(CORE / 'ascent')}:{self.line}: {was} → {self.new}"


def folder_of(path: Path) -> str:
    """Return the folder a file counts to."""
    return path.relative_to(CORE / "ascent").parts[0]


def in_code(path: Path) -> list[Mistake]:
    """Return every mistake that can be made in a module."""
    text = path.read_text(encoding="utf-8")
    starts = [0]
    for line in text.splitlines(keepends=True):
        starts.append(starts[-1] + len(line))
    tree = ast.parse(text)
    skipped = _skipped(tree)
    mistakes: list[Mistake] = []

    def place(node: ast.expr) -> tuple[int, int]:
        raw = text.splitlines()
        low = starts[node.lineno - 1] + len(raw[node.lineno - 1].encode()[: node.col_offset].decode())
        high = starts[(node.end_lineno or 0) - 1] + len(
            raw[(node.end_lineno or 0) - 1].encode()[: node.end_col_offset].decode()
        )
        return low, high

    for node in ast.walk(tree):
        if id(node) in skipped:
            continue
        if isinstance(node, ast.Constant) and type(node.value) in (int, float):
            low, high = place(node)
            new = (
                repr(node.value + 1)
                if isinstance(node.value, int)
                else repr(node.value * random.choice((0.5, 2.0)) or 1.0)
            )
            mistakes.append(Mistake(path, low, high, new, node.lineno))
        elif isinstance(node, ast.BinOp) and type(node.op) in _SWAPS:
            low, high = place(node.left)[1], place(node.right)[0]
            between = text[low:high]
            sign = {ast.Add: "+", ast.Sub: "-", ast.Mult: "*", ast.Div: "/"}[type(node.op)]
            at = between.find(sign)
            if at >= 0 and between.count(sign) == 1:
                mistakes.append(Mistake(path, low + at, low + at + 1, _SWAPS[type(node.op)], node.lineno))
        elif isinstance(node, ast.Attribute | ast.Name):
            name = node.attr if isinstance(node, ast.Attribute) else node.id
            if name in _NAMES:
                _, high = place(node)
                mistakes.append(Mistake(path, high - len(name), high, _NAMES[name], node.lineno))
    return mistakes


def _guards(node: ast.AST) -> bool:
    """Return whether a node is a number so small that it only keeps a rounding error from mattering."""
    return _small(node, 1e-4)


def _small(node: ast.AST, least: float) -> bool:
    return isinstance(node, ast.Constant) and isinstance(node.value, float) and 0 < node.value <= least


def _skipped(tree: ast.Module) -> set[int]:
    """Return what says nothing of numbers: annotations, bounds and labels of options, drawing, words, numbers
    in keys; and what only guards against rounding, with all that is added to or taken from it.
    """
    skipped: set[int] = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.JoinedStr):
            skipped |= {id(n) for n in ast.walk(node)}
        if _guards(node) or (isinstance(node, ast.BinOp) and _guards(node.right)):
            skipped.add(id(node))
        if (
            isinstance(node, ast.BinOp)
            and isinstance(node.op, ast.Add | ast.Sub)
            and _small(node.right, _NEAR)
        ):
            skipped |= {id(node), id(node.right)}  # some millimetres that do not matter to a gardener
        if isinstance(node, ast.Compare):
            skipped |= {id(each) for each in node.comparators if _small(each, _NEAR)}
        if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "round":
            skipped |= {id(digits) for digits in node.args[1:]}
        if isinstance(node, ast.keyword) and node.arg in ("quad_segs", "grid_size"):
            skipped.add(id(node.value))  # how finely a curve is drawn
        if isinstance(node, ast.AnnAssign):
            skipped |= {id(n) for n in ast.walk(node.annotation)}
            if isinstance(node.value, ast.Call) and getattr(node.value.func, "id", "") in (
                "measure",
                "choice",
                "item",
            ):
                skipped |= {id(n) for n in ast.walk(node)}
        if isinstance(node, ast.FunctionDef):
            if (
                node.name in ("remarked", "cautions", "proposed", "__init__", "service")
                or "sketch" in node.name
                or "sheet" in node.name
                or "dimension" in node.name
            ):
                skipped |= {id(n) for n in ast.walk(node)}
            skipped |= {id(n) for each in (*node.args.args, *node.decorator_list) for n in ast.walk(each)}
        if isinstance(node, ast.Call) and getattr(node.func, "id", "") in (
            "Arrow",
            "Dimension",
            "Reason",
            "Remark",
        ):
            skipped |= {id(n) for n in ast.walk(node)}
    return skipped


def in_data(path: Path) -> list[Mistake]:
    """Return a wrong digit for every number of a table."""
    mistakes, at = [], 0
    lines = path.read_text(encoding="utf-8").splitlines(keepends=True)
    heads = lines[0].strip().split(",")
    for number, line in enumerate(lines, start=1):
        cells, start = line.rstrip("\n").split(","), at
        for head, cell in zip(heads, cells, strict=False):
            digits = [i for i, c in enumerate(cell) if c in "123456789"]
            if (
                number > 1
                and digits
                and head not in _NO_NUMBER
                and cell.replace(".", "").replace("-", "").isdigit()
            ):
                where = start + digits[0]
                mistakes.append(
                    Mistake(path, where, where + 1, str((int(cell[digits[0]]) + 3) % 9 + 1), number)
                )
            start += len(cell) + 1
        at += len(line)
    return mistakes


def all_mistakes(folder: str | None) -> dict[str, list[Mistake]]:
    """Return the mistakes that can be made in each folder."""
    pools: dict[str, list[Mistake]] = {name: [] for name in FOLDERS if folder in (None, name)}
    for path in sorted((CORE / "ascent").rglob("*.py")):
        if (name := folder_of(path)) in pools and path.stem not in _QUIET:
            pools[name] += in_code(path)
    if "data" in pools:
        for path in sorted((CORE / "ascent" / "data").glob("*.csv")):
            if path.stem not in ("sources", "gauges", "suits"):
                pools["data"] += in_data(path)
    return pools


def _modules(place: Path, name: str) -> list[str]:
    return [f"{name}.{each.stem}" for each in sorted(place.glob("test_*.py"))] if place.is_dir() else [name]


def _named(home: Path, parts: Iterable[str]) -> list[str]:
    return [m for part in parts for m in _modules(home / "tests" / part, f"tests.{part}")]


def _fails(home: Path, tests: Iterable[str]) -> bool:
    words = [sys.executable, "-m", "unittest", "-f", *tests]
    around = {**os.environ, "PYTHONPATH": str(home)}
    done = subprocess.run(words, cwd=home, env=around, capture_output=True, timeout=900, check=False)
    return done.returncode != 0


@dataclass(frozen=True)
class Runs:
    """Which tests run over which line of which file, and how long each takes. [s]"""

    over: dict[str, dict[int, set[str]]]
    long: dict[str, float]

    def batches(self, mistake: Mistake, home: Path) -> Iterator[tuple[str, list[str]]]:
        """Yield the tests that may notice a mistake, in batches with a name, the quickest first."""
        if mistake.path.suffix == ".csv":
            yield "tables", _named(home, TABLES)
            yield "sheets", _named(home, ("sheets", "published"))
            yield "quick", _named(home, QUICK)
            yield "slow", _named(home, SLOW)
            return
        lines = self.over.get(str(mistake.path.relative_to(CORE)), {})
        tests = set().union(*(lines.get(line, set()) for line in _used_at(mistake)))
        batch: list[str] = []
        spent = 0.0
        for test in sorted(tests, key=lambda one: self.long[one]):
            batch.append(test)
            spent += self.long[test]
            if spent > _BATCH_S:
                yield f"{len(batch)} tests", batch
                batch, spent = [], 0.0
        if batch:
            yield f"{len(batch)} tests", batch


def _used_at(mistake: Mistake) -> set[int]:
    """Return the lines where a mistake comes to bear: those of its statement; of a module's constant, those
    that name it.
    """
    tree = ast.parse(mistake.path.read_text(encoding="utf-8"))
    around = [
        node
        for node in ast.walk(tree)
        if isinstance(node, ast.stmt) and node.lineno <= mistake.line <= (node.end_lineno or 0)
    ]
    inner = min(around, key=lambda node: (node.end_lineno or 0) - node.lineno)
    lines = {mistake.line, *range(inner.lineno, (inner.end_lineno or 0) + 1)}
    if inner in tree.body and isinstance(inner, ast.Assign | ast.AnnAssign):
        targets = inner.targets if isinstance(inner, ast.Assign) else [inner.target]
        named = {n.id for target in targets for n in ast.walk(target) if isinstance(n, ast.Name)}
        lines |= {n.lineno for n in ast.walk(tree) if isinstance(n, ast.Name) and n.id in named}
    return lines


def who_runs(home: Path) -> Runs:
    """Return which tests run over which line: of quick modules the module, of slow ones each test."""
    state = hashlib.sha256()
    for path in sorted([*(CORE / "ascent").rglob("*.py"), *(CORE / "tests").rglob("*.py")]):
        state.update(path.read_bytes())
    kept = ROOT / "var" / f"mutants-{state.hexdigest()[:16]}.pickle"
    if kept.exists():
        return pickle.loads(kept.read_bytes())  # noqa: S301 - our own, written below
    slow = set(_named(home, SLOW))
    modules = _named(home, SLOW[::-1]) + _named(home, ("sheets", "published", *QUICK))

    def one(module: str) -> tuple[str, float, coverage.CoverageData]:
        file, settings = home / f".{module}.coverage", home / f".{module}.rc"
        each = "\ndynamic_context = test_function" if module in slow else f"\ncontext = {module}"
        settings.write_text(f"[run]\nsource = ascent{each}\n", encoding="utf-8")
        began = time.perf_counter()
        words = ["coverage", "run", f"--rcfile={settings}", f"--data-file={file}", "-m", "unittest", module]
        around = {**os.environ, "PYTHONPATH": str(home)}
        subprocess.run([sys.executable, "-m", *words], cwd=home, env=around, capture_output=True, check=False)
        data = coverage.CoverageData(str(file))
        data.read()
        return module, time.perf_counter() - began, data

    over: dict[str, dict[int, set[str]]] = {}
    long: dict[str, float] = {}
    with ThreadPoolExecutor(2) as pool:
        for module, took, data in pool.map(one, modules):
            tests = {name for name in data.measured_contexts() if name}
            long.update(dict.fromkeys(tests, took / max(len(tests), 1)))
            for file in data.measured_files():
                lines = over.setdefault(str(Path(file).relative_to(home)), {})
                for line, contexts in data.contexts_by_lineno(file).items():
                    lines.setdefault(line, set()).update(name for name in contexts if name)
            print(f"{took:5.0f} s  {module}", flush=True)
    runs = Runs(over, long)
    kept.parent.mkdir(exist_ok=True)
    kept.write_bytes(pickle.dumps(runs))
    return runs


def noticed(mistake: Mistake, home: Path, runs: Runs) -> str:
    """Return which tests notice a mistake, empty where none does."""
    copy = home / "ascent" / mistake.path.relative_to(CORE / "ascent")
    text = mistake.path.read_text(encoding="utf-8")
    copy.write_text(text[: mistake.start] + mistake.new + text[mistake.end :], encoding="utf-8")
    try:
        return next((name for name, tests in runs.batches(mistake, home) if _fails(home, tests)), "")
    except subprocess.TimeoutExpired:
        return "never ends"
    finally:
        copy.write_text(text, encoding="utf-8")


def run(count: int, folder: str | None) -> None:
    """Make so many mistakes, spread evenly over the folders, and print what survives and how many of each
    folder were noticed.
    """
    random.seed(os.environ.get("MUTANTS", "trellis"))
    pools = all_mistakes(folder)
    chosen = [
        m for pool in pools.values() for m in random.sample(pool, min(len(pool), max(count // len(pools), 1)))
    ]
    random.shuffle(chosen)
    total, caught = Counter[str](), Counter[str]()
    with tempfile.TemporaryDirectory() as place:
        homes = [Path(place) / str(n) for n in range(2)]
        for home in homes:
            shutil.copytree(CORE, home / "core", ignore=shutil.ignore_patterns("__pycache__", "build"))
            shutil.copytree(ROOT / "docs", home / "docs")
            (home / "core" / "sitecustomize.py").write_text(_NO_SHRINKING, encoding="utf-8")

        runs = who_runs(homes[0] / "core")

        def work(share: int) -> None:
            for mistake in chosen[share :: len(homes)]:
                began = time.perf_counter()
                stage = noticed(mistake, homes[share] / "core", runs)
                name = folder_of(mistake.path)
                total[name] += 1
                caught[name] += bool(stage)
                says = mistake.says(mistake.path.read_text(encoding="utf-8"))
                print(f"{stage or 'SURVIVES':10} {time.perf_counter() - began:5.0f} s  {says}", flush=True)

        with ThreadPoolExecutor(len(homes)) as pool:
            list(pool.map(work, range(len(homes))))
    for name in pools:
        print(f"{name:10} {caught[name]} of {total[name]} noticed")


if __name__ == "__main__":
    where = sys.argv[2] if len(sys.argv) > 2 else "all"
    run(int(sys.argv[1]), None if where == "all" else where)

"""docs/library.md runs from top to bottom, and the core needs nothing but what it says it needs."""

from __future__ import annotations

import ast
import contextlib
import io
import re
import shutil
import subprocess
import sys
import tempfile
import tomllib
from pathlib import Path

from ascent.errors import BrokenTable
from ascent.family.dependencies import dependencies_beside

from tests.support import ROOT, NearTestCase


class LibraryTest(NearTestCase):
    def test_the_page_runs(self):
        page = (ROOT / "docs" / "library.md").read_text(encoding="utf-8")
        blocks = re.findall(r"```python\n(.*?)```", page, re.DOTALL)
        self.assertGreater(len(blocks), 7)
        names: dict[str, object] = {}
        said = io.StringIO()
        with contextlib.redirect_stdout(said):
            for block in blocks:
                exec(compile(block, "library.md", "exec"), names)  # noqa: S102 - the page itself is under test
        text = said.getvalue()
        self.assertIn("15 m/s once in ten seasons", text)
        self.assertIn("Holds gusts up to", text)
        self.assertIn("137.8", text)
        self.assertNotIn("nan", text)

    def test_it_says_all_that_it_imports(self):
        told = tomllib.loads((ROOT / "core" / "pyproject.toml").read_text(encoding="utf-8"))
        named = {re.split(r"[<>=]", each)[0] for each in told["project"]["dependencies"]}
        found = set()
        for path in (ROOT / "core" / "ascent").rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
                if isinstance(node, ast.ImportFrom) and node.level == 0 and node.module:
                    found.add(node.module.split(".")[0])
                elif isinstance(node, ast.Import):
                    found |= {alias.name.split(".")[0] for alias in node.names}
        called = {"fpdf": "fpdf2", "fontTools": "fonttools"}  # as they are sold
        imported = {called.get(each, each) for each in found}
        loaded = {"brotli", "uharfbuzz"}  # by those of paper, for other scripts
        self.assertEqual(imported - set(sys.stdlib_module_names) - {"ascent"}, named - loaded)

    def test_a_missing_table_of_a_family_is_an_error(self):
        with (
            tempfile.TemporaryDirectory() as there,
            self.assertRaisesRegex(BrokenTable, "dependencies.csv is missing"),
        ):
            dependencies_beside(f"{there}/__init__.py")


class WheelTest(NearTestCase):
    """The wheel, built and installed apart from this checkout, is the same program."""

    def run_in(self, where: str, *words: str) -> str:
        done = subprocess.run(
            [sys.executable, *words], cwd=where, capture_output=True, text=True, check=False, timeout=300
        )
        self.assertEqual(done.returncode, 0, done.stderr[-2000:])
        return done.stdout

    def test_it_has_every_file_and_runs_the_page(self):
        with tempfile.TemporaryDirectory() as there:
            source = shutil.copytree(
                ROOT / "core",
                f"{there}/core",
                ignore=shutil.ignore_patterns("tests", "__pycache__", "build", "*.egg-info"),
            )
            pip = ("-m", "pip", "--disable-pip-version-check", "--quiet")
            self.run_in(
                there,
                *pip,
                "wheel",
                "--no-deps",
                "--no-build-isolation",
                "--no-index",
                "-w",
                there,
                str(source),
            )
            (wheel,) = Path(there).glob("ascent_core-*.whl")
            self.run_in(
                there, *pip, "install", "--no-deps", "--no-index", "--target", f"{there}/site", str(wheel)
            )
            shutil.rmtree(source)
            mine = {
                path.relative_to(ROOT / "core").as_posix()
                for path in (ROOT / "core" / "ascent").rglob("*")
                if path.is_file() and "__pycache__" not in path.parts
            }
            site = Path(there) / "site"
            theirs = {
                path.relative_to(site).as_posix()
                for path in (site / "ascent").rglob("*")
                if path.is_file() and "__pycache__" not in path.parts
            }
            self.assertEqual(mine, theirs)
            shutil.copytree(ROOT / "docs", f"{there}/docs")
            said = self.run_in(there, "-I", "-c", _RUN, str(site))
        self.assertEqual(said, self.run_in(str(ROOT), "-I", "-c", _RUN, str(ROOT / "core")))


_RUN = """
import re
import sys
from pathlib import Path
sys.path.insert(0, sys.argv[1])
import ascent
assert ascent.__file__.startswith(sys.argv[1]), ascent.__file__
names = {}
text = Path("docs/library.md").read_text(encoding="utf-8")
for block in re.findall(r"```python\\n(.*?)```", text, re.DOTALL):
    exec(compile(block, "library.md", "exec"), names)
"""

"""docs/library.md runs from top to bottom, and the core needs nothing but what it says it needs."""

from __future__ import annotations

import ast
import contextlib
import io
import re
import sys
import tomllib

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
        self.assertIn("Holds to a gust of", text)
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
        self.assertEqual(imported - set(sys.stdlib_module_names) - {"ascent"}, named)

    def test_all_its_data_goes_with_it(self):
        told = tomllib.loads((ROOT / "core" / "pyproject.toml").read_text(encoding="utf-8"))
        kinds = {pattern.split(".")[-1] for pattern in told["tool"]["setuptools"]["package-data"]["ascent"]}
        self.assertEqual({path.suffix[1:] for path in (ROOT / "core" / "ascent" / "data").iterdir()}, kinds)

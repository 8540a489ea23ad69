"""Formulas say what they take, in which unit, and whose they are."""

from __future__ import annotations

import importlib
import inspect
import pkgutil
import re

import ascent.checks
import ascent.mechanics
from ascent import tables

from tests.support import NearTestCase


def public_functions(package):
    """Yield every public function defined in a package's modules."""
    for info in pkgutil.iter_modules(package.__path__):
        module = importlib.import_module(f"{package.__name__}.{info.name}")
        for name, function in inspect.getmembers(module, inspect.isfunction):
            if function.__module__ == module.__name__ and not name.startswith("_"):
                yield f"{info.name}.{name}", function


class DocstringTest(NearTestCase):
    def test_mechanics_document_every_argument_with_its_unit_and_source(self):
        for name, function in public_functions(ascent.mechanics):
            with self.subTest(name):
                text = inspect.getdoc(function)
                section = re.search(r"Args:\n(.*?)\n\n", text, re.DOTALL)[1]
                named = re.findall(r"^    (\w+):", section, re.MULTILINE)
                self.assertEqual(named, list(inspect.signature(function).parameters))
                self.assertIn("Returns:", text)
                self.assertIn(re.search(r"^Source: (\S+)$", text, re.MULTILINE)[1], tables.sources())

    def test_checks_cite_known_sources(self):
        cited = 0
        for name, function in public_functions(ascent.checks):
            found = re.search(r"^Source: (\S+)$", inspect.getdoc(function) or "", re.MULTILINE)
            if found:
                cited += 1
                with self.subTest(name):
                    self.assertIn(found[1], tables.sources())
        self.assertGreater(cited, 20)

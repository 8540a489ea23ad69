"""Formulas say what they take, in which unit, and whose they are."""

from __future__ import annotations

import importlib
import inspect
import pkgutil
import re

import ascent
import ascent.checks
import ascent.mechanics
from ascent import tables

from tests.support import NearTestCase


def modules():
    """Yield every module of the core."""
    for info in pkgutil.walk_packages(ascent.__path__, "ascent."):
        if not info.name.endswith("__main__"):
            yield importlib.import_module(info.name)


def public_functions(package):
    """Yield every public function defined in a package's modules, with its name."""
    for module in modules():
        if not module.__name__.startswith(f"{package.__name__}."):
            continue
        for name, function in inspect.getmembers(module, inspect.isfunction):
            if function.__module__ == module.__name__ and not name.startswith("_"):
                yield f"{module.__name__}.{name}", inspect.unwrap(function)


def quantities_of(function) -> list[str]:
    """Return which arguments of a function, or its result, are numbers or arrays of them."""
    hints = {name: str(hint) for name, hint in function.__annotations__.items()}
    return [name for name, hint in hints.items() if re.search(r"\bfloat\b|\bArray\b", hint)]


class EveryFunctionTest(NearTestCase):
    def test_every_public_function_says_what_it_does_in_a_sentence(self):
        for name, function in public_functions(ascent):
            with self.subTest(name):
                first = re.split(r"\n\n", inspect.getdoc(function) or "")[0]
                self.assertRegex(first, r"^[A-Z]\w+(, \w+)* ", "begins with what it does")
                self.assertRegex(first, r"[.\])]$", "ends as a sentence does, or with its unit")

    def test_every_quantity_has_its_unit(self):
        """Numbers without a dimension are marked [-]."""
        for name, function in public_functions(ascent):
            if quantities_of(function):
                with self.subTest(name):
                    self.assertRegex(inspect.getdoc(function), r"\[[^\]]+\]")

    def test_arguments_and_sources_that_are_documented_exist(self):
        for name, function in public_functions(ascent):
            text = inspect.getdoc(function)
            with self.subTest(name):
                section = re.search(r"^Args:\n(.*?)(\n\n|\Z)", text, re.DOTALL | re.MULTILINE)
                parameters = list(inspect.signature(function).parameters)
                for line in re.findall(r"^    ([\w, ]+):", section[1] if section else "", re.MULTILINE):
                    self.assertLessEqual(set(line.split(", ")), set(parameters))
                cited = re.search(r"^Source: ([a-z0-9.-]+)$", text, re.MULTILINE)
                self.assertTrue(cited is None or cited[1] in tables.sources(), cited)

    def test_no_two_classes_share_a_name(self):
        names: dict[str, set[str]] = {}
        for module in modules():
            for name, kind in inspect.getmembers(module, inspect.isclass):
                if kind.__module__ == module.__name__ and not name.startswith("_"):
                    names.setdefault(name, set()).add(module.__name__)
        self.assertGreater(len(names), 300)
        self.assertEqual({name: where for name, where in names.items() if len(where) > 1}, {})


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

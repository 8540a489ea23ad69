"""The words people read: short sentences, no word that the guide rules out, every placeholder whole."""

from __future__ import annotations

import csv
import json
import re
import string
import unittest
from collections.abc import Iterator

from ascent.words.texts import catalogue

from tests.support import ROOT

DATA = ROOT / "core" / "ascent" / "data"
FAMILIES = ROOT / "core" / "ascent" / "families"
MOST_WORDS = 20
# columns of tables that people read as they stand
READ = {
    "jobs": ("title", "why", "how"),
    "steps": ("title", "do", "check", "undo", "springs"),
    "storm_moves": ("title", "how"),
    "scouts": ("title", "look"),
    "tools": ("name",),
}
# the column “not” of the guide's table of words, and the idioms it rules out
NOT = re.compile(
    r"\b(windward|leeward|lee|haulm|still air|working wind|(goes|go|gives|lets go) first|(goes|go) over|"
    r"reckon\w*|bears|sails?|mid-bay|soil line|falls? short|should stand|asked for|by judgement|"
    r"a fault of ours|takes? away|taken away|forget|throw out|in the round|drawn flat|the bench|nobody|"
    r"somebody|dominoes|like cards|as it went in|went in otherwise|stuff)\b",
    re.IGNORECASE,
)


def walked(texts: dict, path: str = "") -> Iterator[tuple[str, str]]:
    for key, value in texts.items():
        if isinstance(value, dict):
            yield from walked(value, f"{path}{key}.")
        elif isinstance(value, str):
            yield f"{path}{key}", value


def all_texts() -> list[tuple[str, str]]:
    """Return every text that people read, by where it stands."""
    found = list(walked(catalogue()))
    for table, columns in READ.items():
        for path in (DATA / f"{table}.csv", *FAMILIES.glob(f"*/{table}.csv")):
            with path.open(encoding="utf-8", newline="") as file:
                for row in csv.DictReader(file):
                    found += [(f"{table}.{row['key']}.{c}", row[c]) for c in columns if row.get(c)]
    client = ROOT / "client" / "src" / "texts" / "texts.json"
    return found + list(walked(json.loads(client.read_text(encoding="utf-8")), "client."))


class WordsTest(unittest.TestCase):
    def test_there_are_many(self):
        self.assertGreater(len(all_texts()), 3500)

    def test_no_word_that_the_guide_rules_out(self):
        for where, text in all_texts():
            with self.subTest(where):
                self.assertEqual([found.group(0) for found in NOT.finditer(text)], [])

    def test_no_sentence_is_longer_than_twenty_words(self):
        for where, text in all_texts():
            if where.endswith(".formula"):
                continue
            for sentence in re.split(r"(?<=[.!?])\s+|[:;]\s", text):
                with self.subTest(where):
                    self.assertLessEqual(len(sentence.split()), MOST_WORDS, sentence)

    def test_every_placeholder_is_a_plain_name(self):
        for where, text in all_texts():
            with self.subTest(where):
                names = [name for _, name, _, _ in string.Formatter().parse(text) if name is not None]
                self.assertTrue(all(re.fullmatch(r"[a-zA-Z_0-9]+", name) for name in names), names)

    def test_the_interface_gives_every_text_its_values_and_holds_none_that_nobody_shows(self):
        code = "".join(
            p.read_text(encoding="utf-8") for p in sorted((ROOT / "client" / "src").rglob("*.ts*"))
        )
        client = {where: text for where, text in all_texts() if where.startswith("client.")}
        for where, text in client.items():
            key = where.removeprefix("client.")
            wanted = {name for _, name, _, _ in string.Formatter().parse(text) if name is not None}
            with self.subTest(key):
                self.assertTrue(f'"{key}"' in code, key)  # else it would print the whole client
                for given in re.findall(
                    rf'say\(\s*"{re.escape(key)}"(\)|,\s*\{{.*?\}}\s*,?\s*\))', code, re.DOTALL
                ):
                    for name in wanted:
                        self.assertRegex(given, rf"\b{name}\b")

    def test_every_link_fits_after_a_colon_and_every_failure_is_a_sentence(self):
        """“First to fail: {link}.” and “{goes} A lower crop would help.”"""
        texts = catalogue()
        for key, title in texts["link"].items():
            self.assertFalse(title.startswith("Against "), key)
            self.assertFalse(title.endswith("."), key)
        for key, sentence in texts["fails"].items():
            self.assertRegex(sentence, r"^[A-Z].* .*\.$", key)

    def test_what_to_look_out_for_is_told_in_at_most_five_words(self):
        texts = catalogue()
        for key, brief in texts["brief"].items():
            self.assertLessEqual(len(brief.split()), 5, key)
            self.assertFalse(brief[0].isupper() or brief.endswith("."), key)

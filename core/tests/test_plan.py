"""The plan file: schema, every wrong field named, and the command line's exit codes."""

from __future__ import annotations

import contextlib
import copy
import io
import json
import tempfile
from pathlib import Path

import jsonschema
from ascent import cli
from ascent.errors import InvalidPlan
from ascent.files.plan import plan_schema, read_plan
from ascent.plan.garden import FORMAT_VERSION
from ascent.plan.upgrades import upgraded_thing
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import EXAMPLES, NearTestCase, some

HOLDS = json.loads((EXAMPLES / "holds.json").read_text(encoding="utf-8"))


def changed(path: tuple, value) -> str:
    """Return the example with one field changed."""
    document = copy.deepcopy(HOLDS)
    step = document
    for part in path[:-1]:
        step = step[part]
    step[path[-1]] = value
    return json.dumps(document)


def run(*words: str) -> tuple[int, str, str]:
    """Return exit code, output and errors of the command line."""
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        code = cli.main(list(words))
    return code, out.getvalue(), err.getvalue()


class FormatTest(NearTestCase):
    def test_examples_fit_the_published_schema_and_round_trip(self):
        schema = json.loads((EXAMPLES.parent / "plan.schema.json").read_text(encoding="utf-8"))
        self.assertEqual(schema, json.loads(json.dumps(plan_schema())))
        jsonschema.Draft202012Validator.check_schema(schema)
        for path in EXAMPLES.glob("*.json"):
            with self.subTest(path.name):
                text = path.read_text(encoding="utf-8")
                jsonschema.validate(json.loads(text), schema)
                plan = read_plan(text)
                self.assertEqual(read_plan(plan.model_dump_json()), plan)

    def test_there_are_three_examples(self):
        self.assertEqual(len(list(EXAMPLES.glob("*.json"))), 3)

    def test_schema_and_reader_refuse_alike(self):
        schema = plan_schema()
        bed = ("garden", "beds", 0)
        for path, value in (
            ((*bed, "length"), -1),
            ((*bed, "colour"), "red"),
            (("version",), 9),
            ((*bed, "structures", 0, "options", "depth"), 99),
        ):
            text = changed(path, value)
            with self.subTest(path[-1]):
                with self.assertRaises(jsonschema.ValidationError):
                    jsonschema.validate(json.loads(text), schema)
                with self.assertRaises(InvalidPlan):
                    read_plan(text)


class RefusalTest(NearTestCase):
    def test_every_wrong_field_is_named_at_once_with_path_value_and_allowed(self):
        document = json.loads(changed(("garden", "beds", 0, "length"), -2))
        document["garden"]["last_frost"] = "13-40"
        document["garden"]["beds"][0]["soil"] = "firm_lome"
        with self.assertRaises(InvalidPlan) as caught:
            read_plan(json.dumps(document))
        found = {p.path: p for p in caught.exception.problems}
        self.assertEqual(set(found), {"garden.beds[0].length", "garden.last_frost", "garden.beds[0].soil"})
        self.assertEqual(found["garden.beds[0].length"].given, "-2")
        self.assertIn("greater than or equal to 0.3", found["garden.beds[0].length"].allowed)
        self.assertIn("firm_loam", found["garden.beds[0].soil"].allowed)

    def test_options_are_named_too(self):
        for option, value in (
            ("depth", 9),
            ("post", "tpost_9"),
            ("ends", "glue"),
            ("stray", 1),
            ("depth", "deep"),
            ("mesh", "clip_tpost"),
        ):
            with self.subTest(option), self.assertRaises(InvalidPlan) as caught:
                read_plan(changed(("garden", "beds", 0, "structures", 0, "options", option), value))
            self.assertEqual(
                [p.path for p in caught.exception.problems],
                [f"garden.beds[0].structures[0].options.{option}"],
            )

    def test_a_post_must_serve_as_what_it_is_used_for(self):
        with self.assertRaises(InvalidPlan):
            read_plan(changed(("garden", "beds", 0, "structures", 0, "options", "rail"), "cane_10"))

    def test_infinite_and_missing_numbers(self):
        text = json.dumps(HOLDS).replace('"length": 6.0', '"length": Infinity')
        with self.assertRaises(InvalidPlan) as caught:
            read_plan(text)
        self.assertEqual(caught.exception.problems[0].path, "garden.beds[0].length")

    def test_a_key_that_stands_twice(self):
        document = copy.deepcopy(HOLDS)
        document["garden"]["beds"] *= 2
        with self.assertRaises(InvalidPlan) as caught:
            read_plan(json.dumps(document))
        self.assertEqual(
            [p.path for p in caught.exception.problems],
            ["garden.beds[1].key", "garden.beds[1].structures[0].key"],
        )

    def test_unknown_family_and_version(self):
        with self.assertRaises(InvalidPlan) as caught:
            read_plan(changed(("garden", "beds", 0, "structures", 0, "family"), "sky-hook"))
        self.assertIn("mesh-fence", caught.exception.problems[0].allowed)
        with self.assertRaises(InvalidPlan) as caught:
            read_plan(changed(("version",), 99))
        self.assertEqual(caught.exception.problems[0].path, "version")

    @settings(max_examples=150, deadline=None, derandomize=True)
    @given(st.binary(max_size=200))
    def test_any_bytes_are_read_or_refused(self, data):
        with contextlib.suppress(InvalidPlan):
            read_plan(data)

    def test_lists_without_end(self):
        with self.assertRaises(InvalidPlan):
            read_plan("[" * 200_000)

    @settings(max_examples=150, deadline=None, derandomize=True)
    @given(st.data())
    def test_a_damaged_plan_is_read_or_refused(self, data):
        document = copy.deepcopy(HOLDS)
        step = document
        while isinstance(step, dict | list) and step:
            key = data.draw(st.sampled_from(sorted(step) if isinstance(step, dict) else range(len(step))))
            if not isinstance(step[key], dict | list) or data.draw(st.booleans()):
                step[key] = data.draw(
                    st.none()
                    | st.booleans()
                    | st.integers()
                    | st.floats(allow_nan=False)
                    | st.text(max_size=5)
                    | st.lists(st.integers(), max_size=2)
                )
                break
            step = step[key]
        with contextlib.suppress(InvalidPlan):
            read_plan(json.dumps(document))


class CommandLineTest(NearTestCase):
    def test_exit_codes(self):
        self.assertEqual(run("check", str(EXAMPLES / "holds.json"))[0], 0)
        self.assertEqual(run("check", str(EXAMPLES / "falls-short.json"))[0], 1)
        self.assertEqual(run("check", str(EXAMPLES / "lantern-quay.json"))[0], 1)

    def test_what_is_wrong_goes_to_standard_error_with_its_path(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "plan.json"
            path.write_text(changed(("garden", "beds", 0, "length"), -2), encoding="utf-8")
            code, out, err = run("check", str(path))
            self.assertEqual((code, out), (2, ""))
            self.assertIn("garden.beds[0].length", err)
            path.write_bytes(b"\xff\xfe\x00")
            self.assertEqual(run("check", str(path))[0], 2)
        code, _, err = run("check", "/nowhere/plan.json")
        self.assertEqual(code, 2)
        self.assertIn("/nowhere/plan.json", err)

    def test_json_is_the_whole_report(self):
        code, out, _ = run("check", str(EXAMPLES / "holds.json"), "--json")
        report = json.loads(out)["lantern-row"]
        self.assertEqual(code, 0)
        self.assertEqual(report["headline"]["state"], "adequate")
        self.assertTrue({"links", "weeks", "parts", "views"} <= set(report))

    def test_text_names_the_weakest_link(self):
        _, out, _ = run("check", str(EXAMPLES / "falls-short.json"))
        self.assertIn("too weak", out)
        self.assertRegex(out, r"(?m)^  ! Soil grip .* use +\d\.\d\d ")
        self.assertIn("After days of rain", out)

    def test_schema_is_printed(self):
        self.assertEqual(json.loads(run("schema")[1]), json.loads(json.dumps(plan_schema())))


class DamageTest(NearTestCase):
    """Plan files damaged at random: each is read, or refused with every wrong path; never anything else."""

    DEMO = json.loads((EXAMPLES / "lantern-quay.json").read_text(encoding="utf-8"))
    WRONG = (
        None,
        -1,
        1e9,
        "",
        "x" * 200,
        [],
        {},
        True,
        [[]],
        {"a": 1},
        3.7,
        "firm_lome",
        "-05",
        float("1e308"),
    )

    @staticmethod
    def places(document, path=()):
        """Yield the path of everything in a document."""
        for key, value in document.items() if isinstance(document, dict) else enumerate(document):
            yield (*path, key)
            if isinstance(value, dict | list):
                yield from DamageTest.places(value, (*path, key))

    @given(st.data())
    @settings(max_examples=some(400, 3), deadline=None)
    def test_damaged_files(self, data):
        document = copy.deepcopy(self.DEMO)
        garden = document["garden"]
        garden["beds"], garden["features"] = garden["beds"][:3], garden["features"][:3]
        places = list(self.places(document))
        for _ in range(data.draw(st.integers(1, 4))):
            path = data.draw(st.sampled_from(places))
            step = document
            try:
                for part in path[:-1]:
                    step = step[part]
                if data.draw(st.booleans()) and isinstance(step, dict):
                    del step[path[-1]]
                else:
                    step[path[-1]] = copy.deepcopy(data.draw(st.sampled_from(self.WRONG)))
            except (KeyError, IndexError, TypeError):
                continue  # an earlier damage took the place away
        try:
            plan = read_plan(json.dumps(document))
        except InvalidPlan as error:
            self.assertTrue(error.problems)
            self.assertTrue(all(problem.path and problem.allowed for problem in error.problems))
        else:
            self.assertEqual(read_plan(plan.model_dump_json()), plan)

    @given(st.binary(max_size=300))
    @settings(max_examples=200, deadline=None)
    def test_any_bytes(self, content):
        with contextlib.suppress(InvalidPlan):
            read_plan(content)

    def test_every_wrong_path_at_once(self):
        document = copy.deepcopy(self.DEMO)
        garden = document["garden"]
        garden["beds"][0]["length"], garden["beds"][4]["soil"] = -1, "mud"
        garden["features"][1]["points"], garden["latitude"] = [[0, 0]], 99
        garden["beds"][1]["structures"][0]["plantings"][0]["count"] = 0
        with self.assertRaises(InvalidPlan) as caught:
            read_plan(json.dumps(document))
        paths = {problem.path for problem in caught.exception.problems}
        self.assertEqual(
            paths,
            {
                "garden.latitude",
                "garden.beds[0].length",
                "garden.beds[4].soil",
                "garden.features[1]",
                "garden.beds[1].structures[0].plantings[0].count",
            },
        )

    def test_a_planting_has_a_key_of_its_own(self):
        path = ("garden", "beds", 0, "structures", 0, "plantings")
        planting = HOLDS["garden"]["beds"][0]["structures"][0]["plantings"][0]
        with self.assertRaises(InvalidPlan) as caught:
            read_plan(changed(path, [planting, planting]))
        self.assertIn("a key of its own for each planting", str(caught.exception))
        self.assertRegex(str(caught.exception), r"structures\[0\]\.plantings: .*‘p1’ stands for two")
        with self.assertRaises(InvalidPlan) as caught:
            read_plan(changed((*path, 0, "key"), "Late Row"))
        self.assertRegex(
            str(caught.exception), r'plantings\[0\]\.key: "Late Row" .*small letters, figures and hyphens'
        )
        two = read_plan(changed(path, [planting, {**planting, "key": "late"}])).garden.beds[0].structures[0]
        self.assertEqual(
            [each.path("count") for each in two.plantings], ["plantings.p1.count", "plantings.late.count"]
        )

    def test_plantings_of_version_3_are_numbered_and_keep_what_they_have(self):
        old = json.loads((Path(__file__).parent / "old" / "plan-3.json").read_text(encoding="utf-8"))
        before = old["garden"]["beds"][0]["structures"][0]["plantings"]
        after = read_plan(json.dumps(old)).garden.beds[0].structures[0].plantings
        self.assertEqual([each.key for each in after], ["p1", "p2"])
        self.assertEqual(
            [each.model_dump(exclude={"key", "along", "raised", "year"}) for each in after], before
        )

    def test_what_was_built_stands_beside_the_plan(self):
        """It is kept as it was, brought up with the rest, and what is wrong in it is named."""
        structure = HOLDS["garden"]["beds"][0]["structures"][0]
        built = {"on": "2026-04-30", **{name: structure[name] for name in ("family", "options", "plantings")}}
        path = ("garden", "beds", 0, "structures", 0, "built")
        plan = read_plan(changed(path, built))
        found = plan.garden.beds[0].structures[0].built
        self.assertEqual(
            (str(found.on), found.options, found.plantings[0].key), ("2026-04-30", structure["options"], "p1")
        )
        self.assertEqual(read_plan(plan.model_dump_json()), plan)
        with self.assertRaises(InvalidPlan) as caught:
            read_plan(changed((*path,), {**built, "options": {**structure["options"], "depth": 9.0}}))
        self.assertIn("garden.beds[0].structures[0].built.options.depth", str(caught.exception))
        old = upgraded_thing("structure", {"built": {"plantings": [{"crop": "leek"}]}, "plantings": []}, 3)
        self.assertEqual(old["built"]["plantings"], [{"key": "p1", "crop": "leek"}])

    def test_an_older_file_is_brought_up_and_a_newer_one_refused(self):
        files = sorted((EXAMPLES.parent.parent / "core" / "tests" / "old").glob("plan-*.json"))
        self.assertEqual(len(files), FORMAT_VERSION - 1, "one file of every older version is kept")
        for version, file in enumerate(files, start=1):
            with self.subTest(file.name):
                old = file.read_text(encoding="utf-8")
                self.assertEqual(json.loads(old)["version"], version)
                self.assertEqual(read_plan(old).version, FORMAT_VERSION)
                with self.assertRaises(InvalidPlan) as caught:
                    read_plan(old.replace(f'"version": {version}', f'"version": {FORMAT_VERSION + 1}'))
                self.assertIn(f"version 1 to {FORMAT_VERSION}", str(caught.exception))

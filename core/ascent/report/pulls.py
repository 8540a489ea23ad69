"""Pull tests in words: what they say of the soil beside what is assumed, and how sure that is."""

from __future__ import annotations

from collections.abc import Mapping

from ..building.pull_test import Compared, compared, how_sure, post_of
from ..errors import InvalidPlan
from ..plan.bed import Tested
from ..plan.record import PullTest, Record
from ..plan.structure import Structure
from ..site import Site
from ..words.quantities import System, write
from ..words.texts import say, template
from .build_readout import PullReport, PullsReport


def pulls_report(
    site: Site, structure: Structure, record: Record | None, names: Mapping[str, str], system: System
) -> PullsReport:
    """Return the pull tests of a structure in words.

    Args:
        site: Where it stands.
        structure: As it is being built.
        record: What was done of it.
        names: What its places are called, by member.
        system: The reader's units.
    """
    posts = tuple((key, name) for key, name in names.items() if _can_be_pulled(site, structure, key))
    tests = record.pulls if record else {}
    done = tuple(_told(site, structure, key, test, names, system) for key, test in tests.items())
    tested = site.bed.tested
    used = ""
    if tested:
        words = {"on": tested.on.isoformat()}
        values = {"grip": (tested.grip, "ratio"), "stiffness": (tested.stiffness, "ratio")}
        used = say("pull.used", system, values, words)
    return PullsReport(posts=posts, done=done, used=used)


def _can_be_pulled(site: Site, structure: Structure, key: str) -> bool:
    try:
        post_of(site, structure, key)
    except InvalidPlan:
        return False
    return True


def _told(
    site: Site, structure: Structure, key: str, test: PullTest, names: Mapping[str, str], system: System
) -> PullReport:
    readings = tuple(
        (write(reading.pull, "force", system), write(reading.moved, "length", system))
        for reading in test.readings
    )
    words = say(
        "pull.words",
        system,
        {"height": (test.height, "length"), "pull": (max(r.pull for r in test.readings), "force")},
        {"post": names.get(test.member, test.member), "state": test.state, "count": str(len(test.readings))},
    )
    given = {"key": key, "post": names.get(test.member, test.member), "words": words, "readings": readings}
    try:
        found = compared(site, structure, test)
    except InvalidPlan as error:
        wrong = "; ".join(str(problem) for problem in error.problems)
        return PullReport(**given, stiffness="", grip="", tested=None, wrong=wrong)
    return PullReport(
        **given,
        stiffness=_stiffness(found, system),
        grip=_grip(found, system),
        tested=Tested(on=test.at.date(), grip=round(found.grip, 2), stiffness=round(found.stiffer or 1.0, 2)),
        wrong="",
    )


def _stiffness(found: Compared, system: System) -> str:
    if found.stiffer is None or found.found.modulus is None:
        return template("pull.limber")
    spread = ""
    if found.found.low is not None and found.found.high is not None:
        low, high = found.found.low / found.assumed, found.found.high / found.assumed
        spread = say("pull.spread", system, {"low": (low, "ratio"), "high": (high, "ratio")})
    left = ""
    if found.found.left is not None:
        left = say("pull.left", system, {"left": (found.found.left, "length")})
    values = {"ratio": (found.stiffer, "ratio")}
    sure = template(f"pull.sure-{how_sure(found.found)}")
    return say("pull.stiffness", system, values, {"spread": spread, "sure": sure, "left": left})


def _grip(found: Compared, system: System) -> str:
    values = {"held": (found.found.held, "force"), "table": (found.capacity, "force")}
    if found.moved_on:
        return say("pull.moved-on", system, values)
    key = "grip-more" if found.grip > 1.0 else "grip-less"
    return say(f"pull.{key}", system, values)

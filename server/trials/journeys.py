"""The first hour of five gardeners, from signing up to a printed sheet, with every action counted."""

from __future__ import annotations

import re
import time
from collections.abc import Callable
from dataclasses import dataclass, field

from playwright.sync_api import Locator, Page, expect

_LOOKING_MS = 180_000  # all kinds are calculated within this, also on a slow machine


@dataclass
class Gardener:
    """Hands on a page: whatever they do is one action.

    first: seconds from asking what to build to the first answer that can be built.
    """

    page: Page
    origin: str
    actions: int = 0
    first: float = 0.0
    begun: float = field(default_factory=time.perf_counter)

    def press(self, what: Locator) -> None:
        """Press a button, a link, a tick or a picture."""
        what.click()
        self.actions += 1

    def write(self, label: str, text: str) -> None:
        """Write into a field and leave it."""
        place = self.page.get_by_label(label, exact=True)
        place.fill(text)
        place.press("Tab")
        self.actions += 1

    def choose(self, label: str, name: str | re.Pattern[str]) -> None:
        """Choose one of a list."""
        place = self.page.get_by_role("combobox", name=label, exact=True).first
        if place.evaluate("each => each.tagName") == "SELECT":
            wanted = [each for each in place.locator("option").all_inner_texts() if re.search(name, each)]
            place.select_option(wanted[0])
        else:
            place.fill(str(name))
            self.page.get_by_role("option", name=name, exact=True).click()
        self.actions += 1

    def button(self, name: str) -> None:
        """Press a button of a name."""
        self.press(self.page.get_by_role("button", name=name, exact=True))

    def radio(self, name: str) -> None:
        """Choose by a picture or a line of words."""
        self.press(self.page.get_by_role("radio", name=re.compile(name)))

    def tick(self, name: str) -> None:
        """Tick or untick something."""
        self.press(self.page.get_by_role("checkbox", name=name, exact=True))

    def sign_up(self, name: str) -> None:
        """Make an account."""
        self.page.goto(self.origin)
        out = self.page.get_by_role("button", name="sign out", exact=True)
        door = self.page.get_by_role("button", name="Make an account", exact=True)
        expect(out.or_(door).first).to_be_visible(timeout=60_000)
        if out.is_visible():  # a demo lets everybody in
            out.click()
        self.press(door)
        self.page.get_by_label("Name").fill(name)
        self.page.get_by_label("Password", exact=True).fill("tall-peas-9")
        self.actions += 2
        self.button("Make the account")
        expect(self.page.get_by_role("heading", name="A new garden")).to_be_visible()

    def in_feet(self) -> None:
        """Measure in feet and inches."""
        self.choose("Measured in", "feet")

    def what_matters(self) -> None:
        """Open what can be asked of a support."""
        self.press(self.page.get_by_text("What matters", exact=True))

    def build(self) -> None:
        """Take what is first once everything is calculated, to its sheet."""
        build = self.page.get_by_role("button", name="Build this", exact=True)
        asked = time.perf_counter()
        expect(build).to_be_enabled(timeout=_LOOKING_MS)
        self.first = self.first or time.perf_counter() - asked
        progress = self.page.get_by_role("status", name="Progress")
        expect(progress.get_by_role("button")).to_have_count(0, timeout=_LOOKING_MS)
        expect(build).to_be_enabled(timeout=_LOOKING_MS)
        self.press(build)
        expect(self.page.get_by_role("heading", name=re.compile("^Build "))).to_be_visible(timeout=60_000)
        expect(self.page.get_by_role("link", name="Print the build sheet")).to_be_visible()

    @property
    def minutes(self) -> float:
        """Return the minutes since the journey began."""
        return (time.perf_counter() - self.begun) / 60


def beginner(hand: Gardener) -> None:
    """A raised bed of 4 × 8 ft, 60 dollars; pliers, a hammer and a drill."""
    hand.sign_up("wren")
    hand.in_feet()
    hand.radio("raised")
    hand.button("Plan its first support")
    hand.what_matters()
    hand.write(_money(hand), "60")
    hand.tick("I have every tool")
    hand.tick("a drill")
    hand.build()


def balcony(hand: Gardener) -> None:
    """Two pots of 40 cm on a windy balcony: they would tip over by themselves, so they have its railing."""
    hand.sign_up("lark")
    hand.radio("^open")
    hand.radio("container")
    hand.write("How many alike", "2")
    hand.button("Plan its first support")
    hand.choose("Crop", "Tomato, indeterminate, cherry")
    hand.what_matters()
    hand.tick("a wall, fence, railing or pole is there to fix it to")
    hand.build()


def allotment(hand: Gardener) -> None:
    """An open hill of heavy clay; canes of two seasons, jute, and T-posts that were used before."""
    hand.sign_up("rook")
    hand.radio("^open")
    hand.write("Length", "6 m")
    hand.choose("Soil", "firm clay (heavy clay)")
    hand.button("Plan its first support")
    hand.choose("Crop", "Pole (snap) bean")
    hand.what_matters()
    for line in ("20 bamboo canes 1.8 m, two years old", "50 m jute", "6 used T-posts 1.8 m"):
        hand.write("You have", line)
        hand.button("Add to the shed")
        expect(hand.page.get_by_label("You have", exact=True)).to_have_value("")
    hand.build()


def arch(hand: Gardener) -> None:
    """An arch over a path of 4 ft between two beds, for somebody of 6 ft 2 in, with children about, and a
    water pipe along the path.
    """
    hand.sign_up("finch")
    hand.in_feet()
    hand.write("Length", "8 ft")
    hand.button("Add the bed only")
    expect(hand.page.get_by_role("link", name="Plan a support on First bed")).to_be_visible()
    hand.button("bed")
    expect(hand.page.get_by_role("heading", name="Bed 2", exact=True)).to_be_visible()
    hand.write("North", "-8 ft")
    hand.page.get_by_role("application").press("Escape")
    hand.button("water pipe")
    hand.write("North 1", "-4 ft")
    hand.write("North 2", "-4 ft")
    hand.press(hand.page.get_by_role("link", name="Plan a support on First bed"))
    hand.choose("Also on", "Bed 2, a path of 4 ft between")
    hand.choose("Crop", "Cucumber, slicing / round vining")
    hand.what_matters()
    hand.tick("people walk under it")
    hand.write("Clear height", "6 ft 2 in")
    hand.tick("children or others may pull on it")
    hand.build()


def grower(hand: Gardener) -> None:
    """Rows of 30 m and 20 m, of tomatoes."""
    hand.sign_up("heron")
    hand.write("Length", "30 m")
    hand.write("Width", "0.9 m")
    hand.button("Plan its first support")
    hand.build()
    hand.press(hand.page.get_by_role("banner").get_by_role("link", name=re.compile("garden|yard", re.I)).last)
    hand.button("bed")
    hand.write("Length", "20 m")
    hand.write("Width", "0.9 m")
    hand.press(hand.page.get_by_role("link", name="Plan a support", exact=True))
    hand.build()


def _money(hand: Gardener) -> str:
    """Return the label of the field for money, in whatever currency."""
    label = hand.page.get_by_text(re.compile("^Money, "))
    return label.inner_text().strip()


JOURNEYS: dict[str, Callable[[Gardener], None]] = {
    "beginner": beginner,
    "balcony": balcony,
    "allotment": allotment,
    "arch": arch,
    "grower": grower,
}

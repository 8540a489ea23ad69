"""A supplier over a real socket, as it should be and with every fault of the stand-in."""

from __future__ import annotations

import re

from ascent.errors import InvalidPlan
from django.test import SimpleTestCase, override_settings
from gardens.services import supplier
from gardens.tests.support import ApiTestCase
from playwright.sync_api import expect
from simulators.supplier import NAME, Fault, Stall

from .browser import BrowserTestCase


def stall(case: SimpleTestCase, *faults: Fault) -> Stall:
    """Return an open stall that is closed at the end of a test."""
    opened = Stall(faults=faults).opened()
    case.addCleanup(opened.server_close)
    case.addCleanup(opened.shutdown)
    return opened


class ReaderTest(SimpleTestCase):
    def test_the_whole_list_comes_page_by_page(self):
        shop = stall(self)
        prices = supplier.list_of(shop.address)
        self.assertEqual(prices.supplier, NAME)
        self.assertEqual(len(prices.items), len(shop.goods))
        self.assertGreater(shop.asked, 1)
        self.assertEqual(len({item.key for item in prices.items}), len(prices.items))

    def test_what_passes_is_waited_for(self):
        for faults in (("busy", "busy"), ("cut",), ("slow",), ("cut", "busy")):
            with self.subTest(faults=faults):
                shop = stall(self, *faults)
                self.assertEqual(len(supplier.list_of(shop.address).items), len(shop.goods))

    def test_what_does_not_pass_is_refused_in_words(self):
        for faults, named in (
            (("busy",) * 3, "answer 503"),
            (("cut",) * 3, "half an answer"),
            (("garbled",), "prise"),
            (("endless",), "an answer without end"),
            (("moved",), "answer 302"),
        ):
            with self.subTest(faults=faults), self.assertRaisesRegex(InvalidPlan, named):
                supplier.list_of(stall(self, *faults).address)

    def test_one_that_is_not_there_or_not_set(self):
        shop = stall(self)
        for address, named in (
            ("", "ASCENT_SUPPLIER"),
            ("file:///etc/hosts", "ASCENT_SUPPLIER"),
            ("http://127.0.0.1:9/x", "no answer"),
            (shop.address.replace("prices", "nothing"), "answer 404"),
        ):
            with self.subTest(address), self.assertRaisesRegex(InvalidPlan, named):
                supplier.list_of(address)


class SupplierTest(ApiTestCase):
    def look(self, *faults: Fault):
        with override_settings(SUPPLIER=stall(self, *faults).address):
            return self.call("get", f"gardens/{self.garden.pk}/supplier")

    def test_it_is_looked_at_then_taken_in_as_one_change(self):
        out = self.look()
        self.assertEqual(out["report"]["warned"][-1].split(":")[0], "Not to be had now")
        before = self.call("get", f"gardens/{self.garden.pk}")["place"]["fields"]["prices"]
        body = {"what": "prices", "text": out["text"], "take_away": False, "number": out["number"]}
        after = self.call("post", f"gardens/{self.garden.pk}/import", body)["place"]["fields"]["prices"]
        self.assertEqual(len(after) - len(before), len(out["report"]["lines"]))
        again = self.look()
        self.assertEqual(again["report"]["lines"], [])
        self.call("post", f"gardens/{self.garden.pk}/undo")
        self.assertEqual(self.call("get", f"gardens/{self.garden.pk}")["place"]["fields"]["prices"], before)

    def test_other_money_and_an_old_list_are_told(self):
        for fault, told in (("foreign", "are in zł, this garden’s in €"), ("stale", "It was good until")):
            with self.subTest(fault):
                warned = " ".join(self.look(*[fault] * 20)["report"]["warned"])
                self.assertIn(told, warned)

    def test_a_list_with_a_price_that_cannot_be_is_refused(self):
        text = self.look()["text"]
        body = {"what": "prices", "text": re.sub(r'"price":[0-9.]+', '"price":-4', text, count=1)}
        self.refused("post", f"gardens/{self.garden.pk}/import/preview", body, "items[0].price", "0")


class PricesTest(BrowserTestCase):
    def test_prices_are_asked_for_seen_and_taken(self):
        page = self.page
        with override_settings(SUPPLIER=stall(self).address):
            self.open(f"/gardens/{self.garden.pk}/parts")
            region = page.get_by_role("region", name="A supplier’s prices")
            region.get_by_role("button", name="Ask a supplier for prices").click()
            expect(region.get_by_role("heading", name=NAME)).to_be_visible()
            region.get_by_role("button", name=re.compile("^Take .* prices$")).click()
            expect(region.get_by_role("status")).to_contain_text("Imported as one change")
        self.garden.refresh_from_db()
        self.assertGreater(len(self.garden.document["prices"]), 50)

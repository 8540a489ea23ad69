"""Sharing, leaving, and a forgotten password, on the real pages."""

from __future__ import annotations

import shutil

from django.conf import settings
from django.contrib.auth import get_user_model
from django.test import override_settings
from gardens.models import Garden
from playwright.sync_api import Page, expect

from .browser import BrowserTestCase


class SharingPagesTest(BrowserTestCase):
    def enter(self, name: str, password: str, page: Page) -> None:
        page.goto(f"{self.live_server_url}/")
        page.get_by_label("Name", exact=True).fill(name)
        page.get_by_label("Password", exact=True).fill(password)
        page.get_by_role("button", name="Sign in").click()

    def test_shared_by_name_to_change_seen_by_the_other_and_taken_back(self):
        self.expected_errors = 12  # a name that is nobody's, what a visitor may not see
        get_user_model().objects.create_user("tobin", password="tall-peas-9")
        self.open(f"/gardens/{self.garden.pk}/people")
        page = self.page
        page.get_by_label("Account", exact=True).fill("nobody-here")
        page.get_by_role("button", name="Share", exact=True).click()
        expect(page.get_by_role("alert")).to_contain_text(
            "‘nobody-here’ cannot be used. The name of somebody else’s account is allowed"
        )
        page.get_by_label("Account", exact=True).fill("tobin")
        page.get_by_label("may change it too").check()
        page.get_by_role("button", name="Share", exact=True).click()
        expect(page.get_by_role("group", name="What tobin may do")).to_be_visible()

        context = self.new_context()
        other = self.new_page(context)
        self.enter("tobin", "tall-peas-9", other)
        expect(other.get_by_text("mara’s garden; you may look and change.")).to_be_visible()
        other.locator("[data-item=cove-bed]").focus()
        other.keyboard.press("ArrowUp")
        other.wait_for_timeout(900)  # kept once the keys rest
        self.saved(other)
        self.assertEqual(self.fields("cove-bed")["y"], 8.4)
        page.get_by_role("link", name="history").click()
        expect(page.get_by_role("button", name="Cove Bed: moved")).to_contain_text("tobin")

        self.open(f"/gardens/{self.garden.pk}/people")
        page.get_by_role("button", name="Stop sharing").click()
        expect(page.get_by_text("Not shared. Only you see this garden.")).to_be_visible()
        other.goto(f"{self.live_server_url}/gardens/{self.garden.pk}")
        expect(other.get_by_text("This page does not exist")).to_be_visible()
        context.close()

    def test_a_garden_that_is_deleted_is_restored_as_it_was(self):
        before = self.garden.things.count()
        self.open(f"/gardens/{self.garden.pk}/people")
        self.page.get_by_role("button", name="Delete this garden").click()
        expect(self.page.get_by_role("heading", name="Deleted gardens")).to_be_visible()
        expect(self.page.get_by_role("link", name="Lantern Quay")).to_have_count(0)
        self.assertFalse(Garden.objects.filter(pk=self.garden.pk).exists())
        self.page.get_by_role("button", name="Restore Lantern Quay").click()
        self.page.get_by_role("link", name="Lantern Quay").click()
        expect(self.item("cove-bed")).to_be_visible()
        self.assertEqual(Garden.objects.get(pk=self.garden.pk).things.count(), before)

    def test_too_many_wrong_passwords_are_told_to_wait(self):
        self.expected_errors = 40
        context = self.new_context()
        page = self.new_page(context)
        for _ in range(settings.AXES_FAILURE_LIMIT):
            self.enter("mara", "guess", page)
            expect(page.get_by_role("alert")).to_be_visible()
        expect(page.get_by_role("alert")).to_contain_text("too many tries")
        context.close()

    def test_a_second_garden_is_one_s_own_and_both_are_found(self):
        self.open("/account")
        self.page.get_by_role("button", name="New garden").click()
        expect(self.page.get_by_role("heading", name="A new garden")).to_be_visible()
        self.page.get_by_label("Garden", exact=True).fill("Second Quay")
        self.page.get_by_role("button", name="Add the bed only").click()
        expect(self.page.get_by_role("region", name="First bed")).to_be_visible()
        self.open("/account")
        for name in ("Lantern Quay", "Second Quay"):
            expect(self.page.get_by_role("link", name=name)).to_be_visible()


@override_settings(DEMO=True, DEMO_USER="mara", EMAIL_BACKEND="accounts.letters.LetterBox")
class ForgottenTest(BrowserTestCase):
    def test_out_of_the_demo_a_new_account_a_forgotten_password_and_back(self):
        self.expected_errors = 12
        shutil.rmtree(settings.MAIL_FOLDER, ignore_errors=True)
        page = self.page
        self.open("/")
        page.get_by_role("button", name="sign out").click()
        page.get_by_role("button", name="Make an account").click()
        page.get_by_label("Name", exact=True).fill("tobin")
        page.get_by_label("Mail, for a forgotten password").fill("tobin@example.org")
        page.get_by_label("Password", exact=True).fill("tall-peas-9")
        page.get_by_role("button", name="Make the account").click()
        expect(page.get_by_role("heading", name="A new garden")).to_be_visible()
        page.get_by_role("button", name="sign out").click()
        page.get_by_role("button", name="Forgotten password").click()
        page.get_by_label("Mail", exact=True).fill("tobin@example.org")
        page.get_by_role("button", name="Send a link").click()
        expect(page.get_by_role("status")).to_contain_text("a link is on its way")
        page.get_by_text("A new password for Ascent, to tobin@example.org").click()
        page.locator(".letter a").click()
        page.get_by_label("New password").fill("brand-new-peas-3")
        page.get_by_role("button", name="Set it").click()
        page.get_by_role("link", name="Sign in with it").click()
        page.get_by_label("Name", exact=True).fill("tobin")
        page.get_by_label("Password", exact=True).fill("brand-new-peas-3")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", name="A new garden")).to_be_visible()
        page.get_by_role("button", name="sign out").click()
        page.get_by_role("button", name="Back to the demo").click()
        expect(page.get_by_role("heading", name="Lantern Quay")).to_be_visible()

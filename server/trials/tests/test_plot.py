"""The plan with hands on it: moved, turned, stretched, copied, removed, by mouse, key and number; undone; in
the way.
"""

from __future__ import annotations

import re
from datetime import UTC, datetime, timedelta

from django.contrib.auth import get_user_model
from gardens.models import Change, Share, Thing
from playwright.sync_api import expect

from .browser import BrowserTestCase, pick


class PlotTest(BrowserTestCase):
    def drag(
        self, key: str, dx: float, dy: float, *, hold: bool = False, at: tuple[float, float] = (0.12, 0.9)
    ) -> None:
        """Take a thing by a spot of its box and carry it."""
        box = self.item(key).locator("path, circle").first.bounding_box()
        x, y = box["x"] + box["width"] * at[0], box["y"] + box["height"] * at[1]
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + dx / 2, y + dy / 2, steps=4)
        self.page.mouse.move(x + dx, y + dy, steps=4)
        if not hold:
            self.page.mouse.up()

    def wait_for(self, key: str, field: str, test) -> float:
        """Wait until a stored field passes a test."""
        for _ in range(60):
            value = self.fields(key)[field]
            if test(value):
                return value
            self.page.wait_for_timeout(50)
        raise AssertionError(f"{key}.{field} is {value}")

    def test_a_bed_is_carried_with_what_stands_on_it_and_distances_are_shown(self):
        self.plan()
        self.drag("loft-bed-2", 26, 0, hold=True)
        expect(self.page.locator(".plannames text", has_text=re.compile(r"\d\.\d\d m")).first).to_be_visible()
        self.page.mouse.up()
        x = self.wait_for("loft-bed-2", "x", lambda x: x != 7.2)
        self.assertGreater(x, 7.8)
        self.saved()
        self.page.keyboard.press("Control+z")
        self.wait_for("loft-bed-2", "x", lambda x: x == 7.2)
        self.page.reload()
        self.page.get_by_role("button", name="redo", exact=True).click()  # undo and redo work across a reload
        self.wait_for("loft-bed-2", "x", lambda found: found == x)

    def test_no_name_lies_over_another(self):
        """Names that are level or upright, by the boxes they are drawn in: two may touch, none may cover
        another's letters.
        """
        self.plan()
        expect(self.page.locator(".plannames text", has_text="m/s").nth(15)).to_be_visible(timeout=15_000)
        boxes = self.page.locator(".plannames text").evaluate_all(
            "all => all.map(text => [text.textContent, text.getBoundingClientRect()])"
            ".map(([says, box]) => [says, box.left, box.top, box.right, box.bottom])"
        )
        self.assertGreater(len(boxes), 25)
        for n, (says, left, top, right, bottom) in enumerate(boxes):
            for other, low_x, low_y, high_x, high_y in boxes[n + 1 :]:
                over = min(right, high_x) - max(left, low_x), min(bottom, high_y) - max(top, low_y)
                self.assertFalse(over[0] > 3 and over[1] > 6, f"{says} over {other} by {over}")

    def test_it_comes_into_line_with_its_neighbours(self):
        Thing.objects.filter(garden=self.garden, kind="bed").exclude(key__startswith="loft-bed").delete()
        Thing.objects.filter(garden=self.garden, kind="structure").delete()
        self.plan()
        self.drag("loft-bed-2", 3, 0)
        self.page.wait_for_timeout(300)
        before = self.fields("loft-bed-2")
        self.drag("loft-bed-2", 40, 6)
        self.wait_for("loft-bed-2", "x", lambda x: x > before["x"] + 0.5)
        self.assertEqual(self.fields("loft-bed-2")["y"], 14.8, "its ends line up with Loft Bed 1 again")

    def test_too_near_is_said_while_it_is_moved(self):
        self.plan()
        self.page.keyboard.down("Alt")  # without coming into line
        self.drag("loft-bed-2", -20, 0, hold=True)
        expect(self.page.locator("title", has_text="between Loft Bed")).to_have_count(1)
        self.page.mouse.up()
        self.page.keyboard.up("Alt")

    def test_stretched_by_a_side_and_turned_by_its_handle(self):
        self.plan("chandlers")
        knob = self.page.locator(".knob", has_text="stretch the length").first.bounding_box()
        self.page.mouse.move(knob["x"] + knob["width"] / 2, knob["y"] + knob["height"] / 2)
        self.page.mouse.down()
        self.page.mouse.move(knob["x"] + 30, knob["y"] + knob["height"] / 2, steps=5)
        self.page.mouse.up()
        length = self.wait_for("chandlers", "length", lambda value: value != 12.0)
        self.assertAlmostEqual(
            self.fields("chandlers")["x"] - length / 2, 12.0, delta=0.01, msg="the other end stays"
        )
        self.saved()  # and drawn as it is saved: handles lie still
        knob = self.page.locator(".knob", has_text="turn").bounding_box()
        self.page.mouse.move(knob["x"] + knob["width"] / 2, knob["y"] + knob["height"] / 2)
        self.page.mouse.down()
        self.page.mouse.move(knob["x"] - 10, knob["y"] - 80, steps=6)
        self.page.mouse.up()
        bearing = self.wait_for("chandlers", "bearing", lambda value: value != 90.0)
        self.assertEqual(bearing % 5, 0)

    def test_by_key_a_move_a_turn_a_copy_and_an_end(self):
        self.page = self.another()  # its clock is stopped
        self.plan()
        bed = self.item("marrow-bed")
        bed.focus()
        self.page.clock.install()
        self.page.clock.pause_at(
            datetime.now(UTC) + timedelta(hours=1)
        )  # on a slow machine no pause ends between two keys
        for key in ("ArrowRight", "ArrowRight", "Shift+ArrowUp", "]"):
            self.page.keyboard.press(key)
        self.page.clock.resume()
        self.wait_for("marrow-bed", "bearing", lambda value: value == 95.0)
        self.assertEqual((self.fields("marrow-bed")["x"], self.fields("marrow-bed")["y"]), (17.9, 13.0))
        self.assertEqual(
            Change.objects.filter(garden=self.garden).count(),
            1,
            "keys that follow one another are one change",
        )
        self.page.keyboard.press("Control+k")
        expect(self.page.get_by_label("Go anywhere")).to_be_visible()
        self.page.keyboard.type("copy")
        expect(self.page.locator(".palettebox li[aria-selected=true]")).to_contain_text("Copy")
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("heading", name="Marrow Bed 2", level=1)).to_be_visible()
        self.item("marrow-bed-2").focus()
        self.page.keyboard.press("Delete")
        expect(self.page.get_by_role("region", name="Marrow Bed 2")).to_have_count(0)
        self.saved()
        self.page.keyboard.press("Control+z")
        expect(self.page.get_by_role("region", name="Marrow Bed 2")).to_be_visible()

    def test_by_number_in_any_unit_and_what_is_refused_stays(self):
        self.expected_errors = 2
        self.plan("cove-bed")
        length = self.page.get_by_label("Length", exact=True)
        length.fill("14' 6\"")
        self.page.keyboard.press("Enter")
        self.assertAlmostEqual(
            self.wait_for("cove-bed", "length", lambda value: value != 3.6), 4.4196, places=4
        )
        length.fill("900 m")
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text(
            "‘900 m’ cannot be used. 0.30 m to 60.00 m is allowed"
        )
        bearing = self.page.get_by_label("Bearing", exact=True)
        bearing.fill("NE")
        self.page.keyboard.press("Enter")
        self.wait_for("cove-bed", "bearing", lambda value: value == 45.0)

    def test_a_structure_is_carried_to_another_bed_and_lengthened(self):
        self.plan("lantern-row")
        self.page.get_by_label("Length", exact=True).fill("4.8 m")
        self.page.keyboard.press("Enter")
        self.wait_for("lantern-row", "options", lambda options: options["length"] == 4.8)
        pick(self.page, "Bed", "Chandler’s")
        for _ in range(60):
            if Thing.objects.get(garden=self.garden, key="lantern-row").home == "chandlers":
                break
            self.page.wait_for_timeout(50)
        expect(self.page.get_by_role("region", name="Chandler’s")).to_contain_text("Lantern Row")

    def test_things_are_added_and_a_line_is_bent(self):
        self.plan()
        self.page.locator(".adder", has_text="water pipe").click()
        expect(self.page.get_by_role("heading", name="Water pipe", level=1)).to_be_visible()
        expect(self.page.get_by_text("Have buried services marked")).to_be_visible()
        self.page.get_by_role("button", name="Add a corner").click()
        self.page.get_by_label("North 2", exact=True).fill("3 m")
        self.page.keyboard.press("Enter")
        points = self.wait_for("water-pipe-2", "points", lambda points: points[1][1] == 3.0)
        self.assertEqual(len(points), 3)

    def test_wheel_and_keys_zoom_the_ground_is_dragged(self):
        self.plan()
        bed = self.item("chandlers").locator("path").first
        before = bed.bounding_box()
        plan = self.page.locator(".plan").bounding_box()
        self.page.mouse.move(plan["x"] + 40, plan["y"] + 300)
        self.page.mouse.wheel(0, -120)
        self.page.wait_for_timeout(200)
        self.assertGreater(bed.bounding_box()["width"], before["width"] * 1.1)
        self.page.locator(".plan").focus()
        self.page.keyboard.press("0")
        self.page.mouse.down()
        self.page.mouse.move(plan["x"] + 90, plan["y"] + 330, steps=4)
        self.page.mouse.up()
        self.page.wait_for_timeout(100)
        self.assertAlmostEqual(bed.bounding_box()["x"], before["x"] + 50, delta=3)
        self.assertEqual(Change.objects.count(), 0, "moving the view changes nothing")

    def test_shade_at_an_hour_and_each_bed_s_sun(self):
        self.plan()
        self.page.get_by_role("button", name="shade").click()
        expect(self.page.locator(".shadewords")).to_contain_text("15:00 sun time: the sun")
        expect(self.page.locator("path[fill='var(--shadow)']").first).to_be_attached()
        expect(self.page.locator(".plannames")).to_contain_text(["h of sun"])
        self.page.get_by_label("Hour of sun time").focus()
        self.page.keyboard.press("ArrowRight")
        expect(self.page.locator(".shadewords")).to_contain_text("15:15")

    def test_two_hundred_structures(self):
        row = Thing.objects.get(garden=self.garden, key="lantern-row")
        beds, rows = [], []
        for n in range(193):
            x, y = 40.0 + 7 * (n % 14), 2.0 * (n // 14)
            bed = {**self.fields("long-plot-a"), "key": f"many-{n}", "name": f"Bed {n}", "x": x, "y": y}
            beds.append(Thing(garden=self.garden, kind="bed", key=f"many-{n}", document=bed))
            document = {**row.document, "key": f"row-{n}", "name": f"Row {n}"}
            rows.append(
                Thing(
                    garden=self.garden, kind="structure", key=f"row-{n}", home=f"many-{n}", document=document
                )
            )
        Thing.objects.bulk_create([*beds, *rows])
        self.plan()
        expect(self.item("row-192")).to_be_visible()
        expect(self.page.get_by_role("region", name="Bed 192")).to_contain_text("fails first", timeout=45_000)
        self.item("many-100").focus()
        self.page.keyboard.press("ArrowRight")
        self.wait_for("many-100", "x", lambda x: x == round(40.0 + 7 * (100 % 14) + 0.1, 3))


class TouchTest(BrowserTestCase):
    size = (390, 844)

    def test_a_finger_moves_the_plan_two_zoom_it_and_only_what_is_chosen_is_carried(self):
        context = self.new_context(has_touch=True, is_mobile=True)
        self.sign_in(context)
        page = self.new_page(context)
        self.plan("", page)
        bed = page.locator("[data-item=chandlers] path").first
        expect(bed).to_be_visible()
        hand = context.new_cdp_session(page)

        def touch(kind: str, *points: tuple[float, float]) -> None:
            spots = [{"x": x, "y": y, "id": n} for n, (x, y) in enumerate(points)]
            hand.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": spots})

        def spot() -> tuple[float, float]:
            box = bed.bounding_box()
            return box["x"] + box["width"] / 2, box["y"] + box[
                "height"
            ] * 0.85  # beside the row that stands on it

        def carry(x: float, y: float, dx: float, dy: float) -> None:
            touch("touchStart", (x, y))
            for n in range(1, 9):
                touch("touchMove", (x + dx * n / 8, y + dy * n / 8))
                page.wait_for_timeout(16)
            touch("touchEnd")
            page.wait_for_timeout(300)

        x, y = spot()
        carry(x, y, 0, 50)
        self.assertAlmostEqual(spot()[1] - y, 50, delta=6)
        wide = bed.bounding_box()["width"]
        x, y = spot()
        touch("touchStart", (x - 30, y), (x + 30, y))
        for n in range(1, 11):
            touch("touchMove", (x - 30 - 6 * n, y), (x + 30 + 6 * n, y))
            page.wait_for_timeout(16)
        touch("touchEnd")
        page.wait_for_timeout(300)
        self.assertAlmostEqual(bed.bounding_box()["width"] / wide, 3.0, delta=0.3)
        self.assertEqual(Change.objects.count(), 0)
        page.touchscreen.tap(*spot())
        expect(page.get_by_role("heading", name="Chandler’s", level=1)).to_be_visible()
        x, y = spot()
        carry(x + 20, y, 0, 40)
        self.saved(page)
        self.assertLess(self.fields("chandlers")["y"], 16.0)
        context.close()


class TogetherTest(BrowserTestCase):
    def test_two_people_move_the_same_bed(self):
        self.expected_errors = 1
        other = self.another()
        self.plan("cove-bed")
        self.plan("cove-bed", other)
        for page, text in ((self.page, "20 m"), (other, "22 m")):
            field = page.get_by_label("East", exact=True)
            field.fill(text)
            page.keyboard.press("Enter")
            if page is self.page:
                self.saved()
        alert = other.get_by_role("alert", name="Someone else saved meanwhile")
        expect(alert.get_by_role("radio", name="East, theirs: 20.00 m")).to_be_visible()
        alert.get_by_role("radio", name="East, theirs: 20.00 m").check()
        alert.get_by_role("button", name="Save this").click()
        expect(other.get_by_label("East", exact=True)).to_have_value("20.00 m")
        self.assertEqual(self.fields("cove-bed")["x"], 20.0)

    def test_when_the_server_is_away_the_plan_is_kept_and_sent_later(self):
        self.expected_errors = 40
        self.plan("cove-bed")
        self.page.route("**/edits", lambda route: route.abort())
        self.item("cove-bed").focus()
        self.page.keyboard.press("Shift+ArrowRight")
        expect(self.page.get_by_role("status").first).to_contain_text("stored on this device")
        self.page.reload()  # kept for this tab, too
        expect(self.page.get_by_role("status").first).to_contain_text("stored on this device")
        self.page.unroute("**/edits")
        self.saved()
        self.assertEqual(self.fields("cove-bed")["x"], 8.6)

    def test_shared_to_look_at_nothing_can_be_changed(self):
        tobin = get_user_model().objects.create_user("tobin")
        Share.objects.create(garden=self.garden, person=tobin)
        self.owner = tobin
        context = self.new_context()
        self.sign_in(context)
        page = self.new_page(context)
        self.plan("cove-bed", page)
        expect(page.get_by_text("Plan a support")).to_have_count(0)
        expect(page.get_by_label("Length", exact=True)).to_be_disabled()
        self.open(self.structure(), page)
        expect(page.get_by_text("view only: your changes are not saved")).to_be_visible()
        context.close()


class PagesTest(BrowserTestCase):
    def test_the_read_only_link_is_made_opened_and_withdrawn(self):
        self.expected_errors = 12
        self.open(f"/gardens/{self.garden.pk}/people")
        self.page.get_by_role("button", name="Make a link").click()
        link = self.page.get_by_label("The link").input_value()
        context = self.new_context()
        visitor = self.new_page(context)
        visitor.goto(link)
        expect(visitor.get_by_text("mara’s garden; you may look.")).to_be_visible()
        self.page.get_by_role("button", name="Withdraw the link").click()
        expect(self.page.get_by_role("button", name="Make a link")).to_be_visible()
        visitor.reload()
        expect(visitor.get_by_role("button", name="Sign in")).to_be_visible()
        visitor.goto(link)
        expect(visitor.get_by_text("This page does not exist")).to_be_visible()
        context.close()

    def test_what_is_taken_away_is_said_and_brought_back_at_once(self):
        self.plan("cove-bed")
        self.page.get_by_role("button", name="Remove").click()
        told = self.page.get_by_role("alert").filter(has_text="Cove Bed removed")
        expect(told).to_be_visible()
        told.get_by_role("button", name="Undo the removal").click()
        expect(self.item("cove-bed")).to_have_count(1)
        expect(told).to_have_count(0)
        self.saved()
        self.assertEqual(self.fields("cove-bed")["name"], "Cove Bed")
        self.page.get_by_role("button", name="redo", exact=True).click()
        expect(told).to_be_visible()
        self.page.get_by_role("button", name="undo", exact=True).click()
        expect(self.item("cove-bed")).to_have_count(1)
        expect(told).to_have_count(0)

    def test_history_is_looked_at_and_restored(self):
        self.plan("cove-bed")
        self.item("cove-bed").focus()
        self.page.keyboard.press("Delete")
        expect(self.page.get_by_role("region", name="Cove Bed")).to_have_count(0)
        self.saved()
        self.page.get_by_role("link", name="history").click()
        expect(self.page.get_by_text("Cove Bed removed; Cove Fence removed")).to_be_visible()
        self.page.get_by_role("button", name=re.compile("as it began")).click()
        expect(self.page.get_by_role("img", name="21 beds, 23 supports")).to_be_visible()
        self.page.get_by_role("button", name="Restore this state").click()
        expect(self.page.get_by_text("Restored.")).to_be_visible()
        self.page.get_by_role("link", name="plan", exact=True).click()
        expect(self.page.get_by_role("region", name="Cove Bed")).to_be_visible()

    def test_a_plan_file_goes_out_and_comes_in_and_a_damaged_one_changes_nothing(self):
        self.expected_errors = 1
        self.open(f"/gardens/{self.garden.pk}/files")
        page = self.page
        with page.expect_download() as download:
            page.get_by_role("link", name="Plan file", exact=True).click()
        text = download.value.path().read_text(encoding="utf-8")
        chooser = page.get_by_label("The file", exact=True)
        chooser.set_input_files(
            {"name": "same.json", "mimeType": "application/json", "buffer": text.encode()}
        )
        expect(page.get_by_text("It changes nothing")).to_be_visible()
        changed = text.replace('"Cove Bed"', '"Gull Bed"')
        chooser.set_input_files(
            {"name": "new.json", "mimeType": "application/json", "buffer": changed.encode()}
        )
        expect(page.get_by_text("bed Gull Bed: name Cove Bed → Gull Bed")).to_be_visible()
        page.get_by_role("button", name="Import").click()
        expect(page.get_by_text("Imported as one change")).to_be_visible()
        damaged = changed.replace('"length": 24.0', '"length": -1').replace('"sandy"', '"sandi"')
        chooser.set_input_files(
            {"name": "bad.json", "mimeType": "application/json", "buffer": damaged.encode()}
        )
        expect(page.get_by_role("alert")).to_contain_text("Correct these 2 places")
        expect(page.get_by_role("alert")).to_contain_text("garden.beds[0].length")
        self.assertEqual(self.fields("sand-strip")["length"], 24.0)

    def test_a_table_of_beds_from_a_spreadsheet(self):
        self.open(f"/gardens/{self.garden.pk}/files")
        table = "\ufeffname;length;width\r\nKai Bed;3,6;1,2\r\n"
        self.page.get_by_label("The file", exact=True).set_input_files(
            {"name": "b.csv", "mimeType": "text/csv", "buffer": table.encode()}
        )
        expect(self.page.get_by_text("bed Kai Bed added")).to_be_visible()
        self.page.get_by_role("button", name="Import").click()
        expect(self.page.get_by_text("Imported as one change")).to_be_visible()
        self.assertEqual(self.fields("kai-bed")["width"], 1.2)

    def test_anything_is_found_by_typing(self):
        self.open(self.structure())
        expect(self.page.get_by_label("What it holds")).to_be_visible()
        self.page.keyboard.press("Control+k")
        self.find("shopping", "Shopping list")
        expect(self.page.get_by_role("heading", name="Shopping list")).to_be_visible()
        self.page.keyboard.press("/")
        self.find("quay fence bench", "Quay Fence")
        expect(self.page.get_by_role("heading", name="Quay Fence")).to_be_visible()
        self.page.keyboard.press("Control+k")
        self.page.keyboard.type("no such thing")
        expect(self.page.get_by_text("Nothing is called that")).to_be_visible()
        self.page.keyboard.press("Escape")
        expect(self.page.get_by_role("dialog")).to_have_count(0)

    def find(self, text: str, name: str) -> None:
        """Type into the palette and take what comes first."""
        expect(self.page.locator(".palettebox input")).to_be_focused()
        self.page.keyboard.type(text)
        expect(self.page.locator(".palettebox li[aria-selected=true]")).to_contain_text(name)
        self.page.keyboard.press("Enter")

    def test_password_changed_and_account_deleted(self):
        self.open("/account")
        page = self.page
        form = page.get_by_role("form", name="Change the password")
        form.get_by_label("Now").fill("tall-beans-9")
        form.get_by_label("New").fill("taller-beans-10")
        form.get_by_role("button").click()
        expect(page.get_by_role("status")).to_contain_text("The password is changed")
        self.expected_errors = 3
        end = page.get_by_role("form", name="Delete the account")
        end.get_by_label("Password").fill("taller-beans-10")
        end.get_by_role("button").click()
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        self.assertFalse(get_user_model().objects.exists())

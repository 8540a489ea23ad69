"""The hanging scale: its protocol, its faults, and the reader that survives all of them."""

from __future__ import annotations

import contextlib
import socketserver
import threading
from collections.abc import Iterator

from ascent.errors import InvalidPlan
from ascent.files.scale import ScaleFault, Weighed, identity_of, line_of
from django.test import SimpleTestCase, override_settings
from hypothesis import given, settings
from hypothesis import strategies as st
from simulators.scale import FAULTS, Scale

from gardens.services.scale import pull_of

from .support import ApiTestCase

PASSES = ("garbled", "dropped", "half", "long", "busy", "swinging")
STAYS = {"overload": "overloaded", "battery": "battery"}


@contextlib.contextmanager
def scale(*faults: str, pull: float = 80.0) -> Iterator[Scale]:
    """Open a simulated scale."""
    standing = Scale(faults=faults, pulls=(pull,)).opened()
    try:
        yield standing
    finally:
        standing.shutdown()
        standing.server_close()


class LineTest(SimpleTestCase):
    """docs/scale-protocol.md, line by line."""

    def test_what_the_page_allows(self):
        self.assertEqual(line_of(b"S +00123.4 N\r\n"), Weighed(123.4, True))
        self.assertFalse(line_of(b"U -00001.0 N\r\n").at_rest)
        self.assertAlmostEqual(line_of(b"S +00010.0 kg").force, 98.0665, 3)
        self.assertAlmostEqual(line_of(b"S +00010.0 lb").force, 44.4822, 3)
        self.assertEqual(line_of(b"E 3\r\n"), ScaleFault(3))
        self.assertEqual(identity_of(b"ID ascent-scale/1 yard scale\r\n"), "yard scale")

    @settings(max_examples=400, deadline=None, derandomize=True)
    @given(st.binary(max_size=80))
    def test_anything_else_is_passed_over(self, data):
        said = line_of(data)
        if isinstance(said, Weighed):
            self.assertRegex(data, rb"^[SU] [+-]\d{1,6}\.\d (N|kg|lb)\r?\n?$")
        elif said:
            self.assertRegex(data, rb"^E [1-4]\r?\n?$")

    @settings(max_examples=200, deadline=None, derandomize=True)
    @given(st.floats(-4900, 4900), st.sampled_from("SU"))
    def test_what_is_written_is_read(self, force, mark):
        self.assertAlmostEqual(line_of(f"{mark} {force:+08.1f} N\r\n".encode()).force, force, 0)


class ReaderTest(SimpleTestCase):
    def test_reads_through_noise_and_drift(self):
        with scale(pull=123.0) as standing:
            name, force = pull_of(standing.address)
        self.assertIn("simulated", name)
        self.assertLess(abs(force - 123.0), 2.5)

    def test_survives_every_fault_that_passes(self):
        for fault in PASSES:
            with self.subTest(fault), scale(fault, fault) as standing:
                self.assertLess(abs(pull_of(standing.address)[1] - 80.0), 3.0)
        with scale(*PASSES) as standing:
            self.assertLess(abs(pull_of(standing.address)[1] - 80.0), 3.0)

    def test_says_which_fault_stays(self):
        for fault, said in STAYS.items():
            with self.subTest(fault), scale(fault) as standing, self.assertRaises(InvalidPlan) as caught:
                pull_of(standing.address)
            self.assertIn(said, str(caught.exception))

    def test_gives_up_on_what_is_silent_foreign_or_never_rests(self):
        self.assertEqual(set(FAULTS), {*PASSES, *STAYS, "silent", "foreign"}, "every fault is tried")
        for faults, said in (
            (["silent"] * 3, "no answer"),
            (["foreign"], "something else"),
            (["swinging"] * 200, "never rests"),
        ):
            with self.subTest(said), scale(*faults) as standing, self.assertRaises(InvalidPlan) as caught:
                pull_of(standing.address)
            self.assertIn(said, str(caught.exception))

    def test_no_scale_and_no_address(self):
        for address in ("", "127.0.0.1", "127.0.0.1:1"):
            with self.assertRaises(InvalidPlan):
                pull_of(address)

    def test_fuzzed_it_gives_a_number_or_a_refusal(self):
        """A service that says anything at all, without end."""
        noise = [bytes([n % 256, (7 * n) % 256, 10, 83, 32]) * (n % 37) for n in range(400)]

        class Babble(socketserver.StreamRequestHandler):
            def handle(self) -> None:
                self.rfile.readline(64)
                self.wfile.write(b"ID ascent-scale/1 babble\r\n")
                with contextlib.suppress(OSError):
                    for part in noise:
                        self.wfile.write(part)

        with socketserver.ThreadingTCPServer(("127.0.0.1", 0), Babble) as server:
            server.daemon_threads = True
            threading.Thread(target=server.serve_forever, daemon=True).start()
            with self.assertRaises(InvalidPlan):
                pull_of(f"127.0.0.1:{server.server_address[1]}")
            server.shutdown()


class PullTest(ApiTestCase):
    def test_a_pull_is_read_kept_worked_out_and_used_for_the_bed(self):
        with scale(pull=95.0) as standing, override_settings(SCALE=standing.address):
            read = self.call("post", f"gardens/{self.garden.pk}/scale", {})
        self.assertLess(abs(read["pull"] - 95.0), 3.0)
        test = {
            "member": "post@0",
            "height": 1.2,
            "readings": [{"pull": pull, "moved": 0.00017 * pull} for pull in (40, 80, read["pull"])],
            "at": "2026-04-12T10:00:00Z",
        }
        change = {
            "structure": "lantern-row",
            "begun": "2026-04-12",
            "name": "Lantern Row",
            "pulls": {"p1": test},
        }
        edit = {"kind": "record", "act": "add", "key": "r", "change": change}
        self.call("post", f"gardens/{self.garden.pk}/edits", {"edits": [edit]})
        pulls = self.call("get", f"structures/{self.structure.pk}/building")["report"]["pulls"]
        self.assertIn("times as stiff as assumed", pulls["done"][0]["stiffness"])
        self.assertEqual(pulls["used"], "")
        use = {
            "kind": "bed",
            "act": "change",
            "key": self.bed.key,
            "change": {"tested": pulls["done"][0]["tested"]},
        }
        self.call("post", f"gardens/{self.garden.pk}/edits", {"edits": [use]})
        pulls = self.call("get", f"structures/{self.structure.pk}/building")["report"]["pulls"]
        self.assertIn("2026-04-12", pulls["used"])

    def test_a_scale_that_is_not_there_is_said(self):
        with override_settings(SCALE=""):
            self.refused("post", f"gardens/{self.garden.pk}/scale", {}, "scale", "ASCENT_SCALE")

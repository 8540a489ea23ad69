"""A simulated hanging scale: a small local service that speaks docs/scale-protocol.md, with noise, drift,
drop-outs and faults. For trying, never for weighing.

Run as ``python -m simulators.scale --port N --faults garbled,dropped``.
"""

from __future__ import annotations

import argparse
import random
import socketserver
import threading
import time
from collections.abc import Sequence
from typing import Literal as Only
from typing import get_args

Fault = Only[
    "garbled", "dropped", "silent", "half", "long", "overload", "battery", "busy", "swinging", "foreign"
]
FAULTS: tuple[Fault, ...] = get_args(Fault)
NAME = "yard scale (simulated)"
_SILENT = 20.0  # [s]
_NOISE, _DRIFT = 0.25, 0.05  # [N], and of it each second


class Scale(socketserver.ThreadingTCPServer):
    """The service: pulls of so many newtons hang on it, one after the other each time it is asked who it is,
    and again from the first. Each fault happens as often as it is named, one a reading; ‘foreign’ makes it
    say that it is something else.
    """

    daemon_threads = True
    allow_reuse_address = True

    def __init__(
        self, port: int = 0, faults: Sequence[Fault] = (), pulls: Sequence[float] = (0.0,), seed: int = 1
    ) -> None:
        super().__init__(("127.0.0.1", port), _Line)
        self.faults = list(faults)
        self.pulls, self.turn = tuple(pulls), -1
        self.chance = random.Random(seed)  # noqa: S311 - a play scale
        self.began = time.monotonic()

    @property
    def address(self) -> str:
        """Return where it listens."""
        return f"127.0.0.1:{self.server_address[1]}"

    def opened(self) -> Scale:
        """Serve in a thread until it is closed."""
        threading.Thread(target=self.serve_forever, daemon=True).start()
        return self

    def reads(self) -> float:
        """Return what it reads now: the pull, noise, and a slow drift. [N]"""
        drift = _DRIFT * (time.monotonic() - self.began) % 1.0
        return self.pulls[max(self.turn, 0) % len(self.pulls)] + drift + self.chance.gauss(0.0, _NOISE)


class _Line(socketserver.StreamRequestHandler):
    server: Scale

    def handle(self) -> None:
        """Answer line by line until the other side goes."""
        try:
            while asked := self.rfile.readline(64):
                if not self._answered(asked.strip()):
                    return
        except OSError:
            return

    def _answered(self, asked: bytes) -> bool:
        faults = self.server.faults
        if asked == b"ID":
            foreign = "foreign" in faults
            self.server.turn += 1
            self.wfile.write(b"HELLO\r\n" if foreign else f"ID ascent-scale/1 {NAME}\r\n".encode("ascii"))
            return True
        if asked != b"R":
            return True
        fault = faults.pop(0) if faults else None
        force = self.server.reads()
        lines: dict[Fault | None, bytes] = {
            "garbled": b"\xff\x00S +0x12 N\r\n",
            "half": b"S +00",
            "long": b"S +" + b"0" * 500 + b".0 N\r\n",
            "overload": b"E 1\r\n",
            "battery": b"E 2\r\n",
            "busy": b"E 4\r\n",
            "swinging": f"U {force + self.server.chance.uniform(-40, 40):+08.1f} N\r\n".encode("ascii"),
        }
        if fault == "dropped":
            return False
        if fault == "silent":
            time.sleep(_SILENT)
            return False
        self.wfile.write(lines.get(fault, f"S {force:+08.1f} N\r\n".encode("ascii")))
        return fault != "half"


def main() -> None:
    """Serve until told to stop."""
    parser = argparse.ArgumentParser(prog="simulators.scale")
    parser.add_argument("--port", type=int, default=0)
    parser.add_argument("--pulls", default="80", help="newtons that hang on it one after the other")
    parser.add_argument("--faults", default="", help=f"any of {', '.join(FAULTS)}, apart by commas")
    asked = parser.parse_args()
    faults = [fault for fault in FAULTS for each in asked.faults.split(",") if each == fault]
    scale = Scale(asked.port, faults, [float(pull) for pull in asked.pulls.split(",")])
    print(f"{NAME} at {scale.address}")
    scale.serve_forever()


if __name__ == "__main__":
    main()

"""Killing the server while it writes: what it acknowledged must be there afterwards, and the data file sound.

One process keeps the application loaded and forks a server from it each time, so that a start takes
milliseconds.
"""

from __future__ import annotations

import base64
import io
import json
import os
import random
import signal
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
from contextlib import closing, suppress
from dataclasses import dataclass, field
from http.client import HTTPConnection, HTTPException
from pathlib import Path
from typing import Any

from PIL import Image

from .served import ROOT, HttpVisit, demo_home, free_port

_FORKING = """
import os, signal, sys
import waitress
from config.serving import application, options
from django.db import connections
from django.test import Client
visitor = Client()
for _ in range(2):  # everything that is loaded at the first request is loaded before the first fork
    visitor.get("/", headers={"host": "localhost"})
    change = {"edits": [{"kind": "place", "change": {"currency": "cu"}}]}
    as_here = {"host": "localhost"}
    visitor.post("/api/gardens/1/edits", change, content_type="application/json", headers=as_here)
connections.close_all()
signal.signal(signal.SIGCHLD, signal.SIG_IGN)
print("ready", flush=True)
for _ in sys.stdin:
    child = os.fork()
    if child == 0:
        waitress.serve(application, host="127.0.0.1", port=int(sys.argv[1]), **options(), _quiet=True)
    print(child, flush=True)
"""
_WRITERS = ("cove-bed", "chandlers", "marrow-bed", "twine-bed")
_PATIENCE = 20.0
_DEVICES = 3
_AT = "2026-08-01T18:00:00Z"


@dataclass
class Tally:
    """What came of it."""

    kills: int = 0
    acknowledged: int = 0
    logged: int = 0
    lost: list[str] = field(default_factory=list)
    damaged: list[str] = field(default_factory=list)
    seconds: float = 0.0

    def __str__(self) -> str:
        return (
            f"kills: {self.kills} in {self.seconds:.0f} s, {self.acknowledged} changes acknowledged, "
            f"{self.logged} of them entries of the log"
        )


class _Writer(threading.Thread):
    """Moves one bed again and again, and remembers what was acknowledged last."""

    def __init__(self, port: int, bed: str, start: int) -> None:
        super().__init__(daemon=True)
        self.port, self.bed = port, bed
        self.sent = self.acknowledged = start
        self.count = 0
        self.stopping = False

    def run(self) -> None:
        """Write until the server is gone or enough is done."""
        with suppress(OSError, HTTPException, ValueError):
            visit = HttpVisit(self.port)
            while not self.stopping:
                self.sent += 1
                change = {"x": self.sent / 1000.0}
                status, _ = visit.ask(
                    "POST",
                    "/api/gardens/1/edits",
                    {"edits": [{"kind": "bed", "key": self.bed, "change": change}]},
                )
                if status == 200:
                    self.acknowledged, self.count = self.sent, self.count + 1


class _Device:
    """A device that writes in the log, every other entry with a photo: what it has sent, what was
    acknowledged, and the one that it sends again until it is.
    """

    def __init__(self, number: int) -> None:
        self.number, self.made = number, 0
        self.acknowledged: dict[str, bool] = {}
        self.pending: dict[str, Any] | None = None

    def next(self) -> dict[str, Any]:
        """Return the entry to be sent: the last one again where no answer came."""
        if self.pending is None:
            self.made += 1
            key = f"device-{self.number}-{self.made}"
            change: dict[str, Any] = {"kind": "note", "on": "2026-08-01", "at": _AT, "note": key}
            if self.made % 2:
                change["pictures"] = [_picture(self.number, self.made)]
            self.pending = {"kind": "entry", "act": "add", "key": key, "change": change}
        return self.pending

    def done(self) -> None:
        """Note that the entry was acknowledged."""
        if self.pending is not None:
            self.acknowledged[self.pending["key"]] = "pictures" in self.pending["change"]
            self.pending = None


def _picture(number: int, made: int) -> str:
    """Return a photo that no other entry has, in base64."""
    handle = io.BytesIO()
    colour = (60 * number, made % 256, made // 256 % 256)
    Image.new("RGB", (64, 48), colour).save(handle, "PNG")
    return base64.b64encode(handle.getvalue()).decode()


class _Logger(threading.Thread):
    """A device at work until the server is gone."""

    def __init__(self, port: int, device: _Device) -> None:
        super().__init__(daemon=True)
        self.port, self.device, self.count = port, device, 0

    def run(self) -> None:
        """Write until the server is gone."""
        with suppress(OSError, HTTPException, ValueError):
            visit = HttpVisit(self.port)
            while True:
                entry = self.device.next()
                status, _ = visit.ask(
                    "POST", "/api/gardens/1/edits/photos", {"edits": [entry]}, mark=f"mark-{entry['key']}"
                )
                if status != 200:
                    return
                self.device.done()
                self.count += 1


def kill_while_writing(times: int, seed: int = 0) -> Tally:
    """Kill the server that many times while four clients write to it and three devices write in its log, and
    look each time at what is left.
    """
    chance = random.Random(seed)  # noqa: S311 - when to kill is no secret
    tally, begun, port = Tally(), time.monotonic(), free_port()
    with tempfile.TemporaryDirectory() as home:
        environment = demo_home(home, with_client=False)
        command = [sys.executable, "-c", _FORKING, str(port)]
        with subprocess.Popen(
            command,
            cwd=ROOT / "server",
            env=environment,
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
        ) as parent:
            assert parent.stdin and parent.stdout  # noqa: S101 - asked for just above
            parent.stdout.readline()
            values = dict.fromkeys(_WRITERS, 1000)
            devices = [_Device(number) for number in range(_DEVICES)]
            for _ in range(times):
                parent.stdin.write("\n")
                parent.stdin.flush()
                child = int(parent.stdout.readline())
                _wait(port)
                writers = [_Writer(port, bed, values[bed]) for bed in _WRITERS]
                loggers = [_Logger(port, device) for device in devices]
                for thread in (*writers, *loggers):
                    thread.start()
                _first_write(writers)
                time.sleep(chance.uniform(0.0, 0.25))
                os.kill(child, signal.SIGKILL)
                for thread in (*writers, *loggers):
                    thread.join(_PATIENCE)
                tally.kills += 1
                logged = sum(logger.count for logger in loggers)
                tally.acknowledged += logged + sum(writer.count for writer in writers)
                tally.logged += logged
                _look(Path(home) / "demo.sqlite3", writers, tally)
                _look_at_log(Path(home) / "demo.sqlite3", devices, tally)
                values = {writer.bed: writer.sent for writer in writers}
            parent.stdin.close()
    tally.seconds = time.monotonic() - begun
    return tally


def _first_write(writers: list[_Writer]) -> None:
    """Wait until something was acknowledged, so that the kill comes in the middle of writing."""
    end = time.monotonic() + _PATIENCE
    while time.monotonic() < end and not any(writer.count for writer in writers):
        time.sleep(0.002)


def _wait(port: int) -> None:
    """Wait until the server answers."""
    end = time.monotonic() + _PATIENCE
    while time.monotonic() < end:
        with suppress(OSError):
            with closing(HTTPConnection("127.0.0.1", port, timeout=2)) as connection:
                connection.request("GET", "/api/session")
                connection.getresponse().read()
            return
        time.sleep(0.005)
    raise TimeoutError("the server did not come back")


def _look(path: Path, writers: list[_Writer], tally: Tally) -> None:
    """Compare what was acknowledged with what is stored."""
    with closing(sqlite3.connect(path, timeout=_PATIENCE)) as database:
        state = database.execute("PRAGMA integrity_check").fetchone()[0]
        loose = database.execute("PRAGMA foreign_key_check").fetchall()
        changes, count = database.execute(
            "SELECT changes, (SELECT COUNT(*) FROM gardens_change) FROM gardens_garden"
        ).fetchone()
        stored = {
            key: json.loads(text)["x"]
            for key, text in database.execute("SELECT key, document FROM gardens_thing WHERE kind = 'bed'")
        }
    if state != "ok" or loose or changes != count:
        tally.damaged.append(
            f"after kill {tally.kills}: {state}, {len(loose)} loose, {count} of {changes} changes"
        )
    for writer in writers:
        value = round(stored[writer.bed] * 1000)
        if writer.count and not writer.acknowledged <= value <= writer.sent:
            tally.lost.append(
                f"after kill {tally.kills}: {writer.bed} holds {value}, acknowledged {writer.acknowledged}"
            )


def _look_at_log(path: Path, devices: list[_Device], tally: Tally) -> None:
    """Compare what devices were told is in the log with what is there: each entry once, its photo with it;
    besides those, at most the one that each still sends.
    """
    with closing(sqlite3.connect(path, timeout=_PATIENCE)) as database:
        rows = database.execute(
            "SELECT key, document FROM gardens_logentry WHERE garden_id = 1 AND key LIKE 'device-%'"
        ).fetchall()
        photos = {sha for (sha,) in database.execute("SELECT sha FROM gardens_photo WHERE garden_id = 1")}
    stored = {key: json.loads(text)["photos"] for key, text in rows}
    if len(stored) != len(rows):
        tally.damaged.append(f"after kill {tally.kills}: {len(rows) - len(stored)} entries doubled")
    known: dict[str, bool] = {}
    for device in devices:
        known |= device.acknowledged
        if device.pending:
            known[device.pending["key"]] = "pictures" in device.pending["change"]
            stored.setdefault(device.pending["key"], [""])
    for key, pictured in known.items():
        if key not in stored:
            tally.lost.append(f"after kill {tally.kills}: {key} is not in the log")
        elif stored[key] != [""] and (bool(stored[key]) != pictured or not photos.issuperset(stored[key])):
            tally.lost.append(f"after kill {tally.kills}: {key} has lost its photo")
    if more := stored.keys() - known.keys():
        tally.damaged.append(f"after kill {tally.kills}: nobody wrote {sorted(more)[0]}")

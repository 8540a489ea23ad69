"""A garden with its photos as one file: a zip of the plan file and the photos that its log shows."""

from __future__ import annotations

import json
import tempfile
import zipfile
from typing import IO, Any

from ascent.errors import InvalidPlan, Problem

from ..models import Garden, Photo
from .access import Granted, Visitor
from .exchange import plan_text
from .photos import MOST_BYTES, MOST_PHOTOS, keep_file

LAYOUT = 1  # version of the archive, in its file ‘archive.json’
_PLAN, _ABOUT, _FOLDER = "plan.json", "archive.json", "photos/"
_MOST_PLAN = 8_000_000  # bytes of the plan file in it
_SPOOL = 8_000_000  # bytes that are held in memory before they go to a file
_ALLOWED = "a zip that Ascent wrote, with plan.json and photos, is allowed"


def archive_of(granted: Granted, visitor: Visitor) -> IO[bytes]:
    """Return a garden with its photos as a zip, from its beginning."""
    handle = tempfile.SpooledTemporaryFile(max_size=_SPOOL)  # noqa: SIM115 - whoever sends it closes it
    text = plan_text(granted, visitor)
    shown = {sha for entry in json.loads(text)["log"] for sha in entry.get("photos", ())}
    with zipfile.ZipFile(handle, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(_ABOUT, json.dumps({"format": "ascent-archive", "layout": LAYOUT}) + "\n")
        archive.writestr(_PLAN, text)
        rows = Photo.objects.filter(garden=granted.garden).values_list("sha", "large")
        for sha, large in rows.iterator(chunk_size=20):
            if sha in shown:
                archive.writestr(f"{_FOLDER}{sha}.jpg", bytes(large), zipfile.ZIP_STORED)
    handle.seek(0)
    return handle


def taken_in(garden: Garden, handle: IO[bytes]) -> str:
    """Keep the photos of an archive in a garden, and return its plan file, to be taken in as any other; what
    shows one of them names it as it is kept.

    Raises:
        InvalidPlan: It is no such archive, or a photo in it is none.
    """
    try:
        with zipfile.ZipFile(handle) as archive:
            return _taken_in(garden, archive)
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError, OSError, KeyError) as error:
        raise InvalidPlan([Problem("archive", "a file that cannot be read", _ALLOWED)]) from error


def _taken_in(garden: Garden, archive: zipfile.ZipFile) -> str:
    infos = archive.infolist()
    files = [info for info in infos if info.filename.startswith(_FOLDER) and not info.is_dir()]
    if len(files) > MOST_PHOTOS:
        allowed = f"up to {MOST_PHOTOS} photos are allowed"
        raise InvalidPlan([Problem("archive", f"{len(files)} photos", allowed)])
    about = _json(_bounded(archive, archive.getinfo(_ABOUT), 1000))
    if not isinstance(about, dict) or about.get("layout") != LAYOUT:
        raise InvalidPlan([Problem("archive", "another layout", f"layout {LAYOUT} is allowed")])
    plan = _json(_bounded(archive, archive.getinfo(_PLAN), _MOST_PLAN))
    log = plan.get("log", []) if isinstance(plan, dict) else []
    entries = [each for each in log if isinstance(each, dict)] if isinstance(log, list) else []
    shown = {sha for entry in entries for sha in entry.get("photos") or () if isinstance(sha, str)}
    kept = {}
    for info in files:
        name = info.filename.removeprefix(_FOLDER).removesuffix(".jpg")
        if name in shown:
            kept[name] = keep_file(garden, _bounded(archive, info, MOST_BYTES), info.filename)
    for entry in entries:
        if isinstance(entry.get("photos"), list):
            entry["photos"] = [kept.get(sha, sha) if isinstance(sha, str) else sha for sha in entry["photos"]]
    return json.dumps(plan, ensure_ascii=False)


def _bounded(archive: zipfile.ZipFile, info: zipfile.ZipInfo, most: int) -> bytes:
    """Return a file of an archive, read no further than it may go whatever the archive says of it."""
    with archive.open(info) as file:
        content = file.read(most + 1)
    if len(content) > most:
        allowed = f"up to {most} bytes are allowed"
        raise InvalidPlan([Problem(info.filename[:80], "a file that is too large", allowed)])
    return content


def _json(content: bytes) -> Any:
    try:
        return json.loads(content)
    except (ValueError, RecursionError) as error:
        raise InvalidPlan([Problem("archive", "a file that is no JSON", _ALLOWED)]) from error

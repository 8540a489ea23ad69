"""The stand-in for mail: letters are written to files of this mode's own folder, closed to others; a demo
shows its own.
"""

from __future__ import annotations

import datetime as dt
import email
import email.policy
import logging
import secrets
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from django.conf import settings
from django.core.mail import EmailMessage
from django.core.mail.backends.base import BaseEmailBackend
from django.db import connections

from . import schemas
from .files import closed_folder, write_whole

_LATEST = 20
_MOST_WAITING = 100
_log = logging.getLogger(__name__)
_clerk = ThreadPoolExecutor(1, "letters")


class LetterBox(BaseEmailBackend):
    """Writes each letter whole into a file that only this account of the machine can read."""

    def send_messages(self, email_messages: Sequence[EmailMessage]) -> int:
        """Write letters; return how many."""
        folder = closed_folder(settings.MAIL_FOLDER)
        for message in email_messages:
            name = f"{dt.datetime.now(dt.UTC):%Y%m%d-%H%M%S}-{secrets.token_hex(6)}.eml"
            write_whole(folder / name, message.message().as_bytes())
        return len(email_messages)


def later(post: Callable[[], None]) -> None:
    """Have letters looked up and written after the answer, so that the answer takes the same time whether
    there is one or not.
    """
    if settings.LETTERS_AT_ONCE:
        post()
        return
    if _clerk._work_queue.qsize() < _MOST_WAITING:
        _clerk.submit(_posted, post)


def _posted(post: Callable[[], None]) -> None:
    try:
        post()
    except Exception:
        _log.exception("a letter could not be written")
    finally:
        connections.close_all()


def letters() -> list[schemas.Letter]:
    """Return the latest letters of this mode, newest first; a file that holds none is passed over."""
    folder: Path = settings.MAIL_FOLDER
    files = sorted(folder.glob("*.eml"), reverse=True)[:_LATEST] if folder.exists() else []
    return [letter for path in files if (letter := _letter(path))]


def _letter(path: Path) -> schemas.Letter | None:
    message = email.message_from_bytes(path.read_bytes(), policy=email.policy.default)
    body = message.get_body(("plain",))
    if body is None or not message["To"]:
        return None
    when = dt.datetime.fromtimestamp(path.stat().st_mtime, dt.UTC)
    return schemas.Letter(
        when=when, to=str(message["To"]), subject=str(message["Subject"]), text=body.get_content().strip()
    )

"""Forget what has served its time: ended sessions, failed tries, marks of writes long done, gardens
deleted long ago.
"""

from __future__ import annotations

import datetime as dt
from typing import Any

from axes.models import AccessAttempt, AccessFailureLog, AccessLog
from django.core.management import call_command
from django.core.management.base import BaseCommand
from django.utils import timezone

from gardens.models import Sent
from gardens.services.owned import purge_deleted
from gardens.services.photos import purge_unused

_KEPT = dt.timedelta(days=30)


class Command(BaseCommand):
    """Purge; the server does so by itself once a day."""

    help = __doc__

    def handle(self, *_args: Any, **_options: Any) -> None:
        """Delete what is older than it is good for."""
        before = timezone.now() - _KEPT
        call_command("clearsessions")
        for kind in (AccessAttempt, AccessFailureLog, AccessLog):
            kind.objects.filter(attempt_time__lt=before).delete()
        Sent.objects.filter(when__lt=before).delete()
        purge_deleted()
        purge_unused()

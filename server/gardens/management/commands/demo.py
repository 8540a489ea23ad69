"""Load the demo garden for its demo account, once; --fresh starts over."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from ascent.plan import read_plan
from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand

from gardens.models import Garden
from gardens.services.state import load_plan


class Command(BaseCommand):
    """Lantern Quay, an invented harbour-side co-op garden."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take --fresh."""
        parser.add_argument("--fresh", action="store_true")

    def handle(self, *_args: Any, **options: Any) -> None:
        """Load it unless it is there."""
        users = get_user_model().objects
        if options["fresh"]:
            users.filter(username=settings.DEMO_USER).delete()
        user, created = users.get_or_create(username=settings.DEMO_USER)
        if created:
            user.set_unusable_password()
            user.save()
        if not Garden.objects.filter(owner=user).exists():
            plan = settings.ROOT / "docs" / "examples" / "lantern-quay.json"
            load_plan(user, read_plan(plan.read_text(encoding="utf-8")))

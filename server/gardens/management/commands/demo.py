"""Load the demo garden for its demo account, once; --fresh starts over."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from ascent.files.plan import read_plan
from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand
from django.db import transaction

from gardens.models import Garden, Share
from gardens.services import photos
from gardens.services.state import commit, from_core, load_plan, state_of

NEIGHBOUR = "ropewalk-loft"


def keep_drawn_photos(garden: Garden) -> None:
    """Keep the photos that the demo's log shows."""
    for file in sorted((settings.ROOT / "docs" / "examples" / "photos").glob("*.jpg")):
        photos.keep_file(garden, file.read_bytes(), file.name)


class Command(BaseCommand):
    """Lantern Quay, an invented harbour-side co-op garden, shared with a neighbour who has changed a thing or
    two.
    """

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take --fresh."""
        parser.add_argument("--fresh", action="store_true")

    def handle(self, *_args: Any, **options: Any) -> None:
        """Load it unless it is there."""
        users = get_user_model().objects
        if options["fresh"]:
            users.filter(username__in=(settings.DEMO_USER, NEIGHBOUR)).delete()
        owner, neighbour = (users.get_or_create(username=name)[0] for name in (settings.DEMO_USER, NEIGHBOUR))
        for user in (owner, neighbour):
            user.set_unusable_password()
            user.save()
        if not Garden.objects.filter(owner=owner).exists():
            self.load(owner.pk, neighbour.pk, owner)

    def load(self, owner: int, neighbour: int, user: Any) -> None:
        """Load the plan as it was, and then what has become of it."""
        plan = read_plan((settings.ROOT / "docs" / "examples" / "lantern-quay.json").read_bytes())
        now = plan.garden
        moved = tuple(
            bed.model_copy(update={"x": bed.x - 0.3}) if bed.key == "barrel-4" else bed for bed in now.beds
        )
        before = now.model_copy(update={"path_width": 0.6, "beds": moved})
        garden = load_plan(user, plan.model_copy(update={"garden": before}))
        keep_drawn_photos(garden)
        Share.objects.create(garden=garden, person_id=neighbour, may_edit=True)
        for who, wanted in ((neighbour, before.model_copy(update={"beds": now.beds})), (owner, now)):
            state = state_of(garden)
            with transaction.atomic():
                commit(garden, state, from_core(wanted, state), who)

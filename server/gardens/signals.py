"""What follows wherever a right to change a garden ends: taken back, given up, or gone with its account."""

from __future__ import annotations

from typing import Any

from django.db.models.signals import post_delete, pre_save
from django.dispatch import receiver

from .models import Share
from .services.feed import end_with


@receiver(pre_save, sender=Share)
def share_changes(instance: Share, **_more: Any) -> None:
    """Withdraw a calendar feed that somebody knows who from now on may only look."""
    if not instance.may_edit and Share.objects.filter(pk=instance.pk, may_edit=True).exists():
        end_with(instance.garden_id, instance.person.get_username())


@receiver(post_delete, sender=Share)
def share_ended(instance: Share, **_more: Any) -> None:
    """Withdraw a calendar feed that somebody knows who no longer may change the garden."""
    if instance.may_edit:
        end_with(instance.garden_id, instance.person.get_username())

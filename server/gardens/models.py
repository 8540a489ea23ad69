"""Gardens as stored: who owns them, and the core's own documents."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Garden(models.Model):
    """A garden of one owner; `document` is the core's Garden without its beds."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="gardens")
    document = models.JSONField()

    def __str__(self) -> str:
        return str(self.document.get("name", "garden"))


class Bed(models.Model):
    """A bed; `document` is the core's Bed without its structures."""

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="beds")
    document = models.JSONField()

    class Meta:
        ordering = ("pk",)

    def __str__(self) -> str:
        return str(self.document.get("name", "bed"))


class Structure(models.Model):
    """A structure; `document` is the core's Structure. `revision` grows with every save."""

    bed = models.ForeignKey(Bed, on_delete=models.CASCADE, related_name="structures")
    document = models.JSONField()
    revision = models.PositiveIntegerField(default=1)

    class Meta:
        ordering = ("pk",)

    def __str__(self) -> str:
        return str(self.document.get("name", "structure"))

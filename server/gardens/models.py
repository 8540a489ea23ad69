"""Gardens as stored: who may see them, the core's own documents, and every change made to them."""

from __future__ import annotations

from ascent.plan.garden import FORMAT_VERSION
from django.conf import settings
from django.db import models


def present_form() -> int:
    """Return the version of the form in which documents are stored now: the plan file's."""
    return FORMAT_VERSION


class KeptGardens(models.Manager["Garden"]):
    """The gardens that are not deleted."""

    def get_queryset(self) -> models.QuerySet[Garden]:
        """Return the gardens that anybody may still open."""
        return super().get_queryset().filter(deleted_at=None)


class Garden(models.Model):
    """A garden of one owner; `document` is the core's Place, in the `form` it was stored in. `changes` counts
    the changes made so far.

    One with a `deleted_at` is nobody's to open: its owner can restore it until it is purged.
    """

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="gardens")
    document = models.JSONField()
    form = models.PositiveSmallIntegerField(default=present_form)
    revision = models.PositiveIntegerField(default=1)
    changes = models.PositiveIntegerField(default=0)
    deleted_at = models.DateTimeField(null=True, blank=True)

    objects = KeptGardens()
    with_deleted = models.Manager["Garden"]()

    def __str__(self) -> str:
        return str(self.document.get("name", "garden"))


class Thing(models.Model):
    """A bed, a feature, a structure or a thing in the shed of a garden; `document` is the core's own, `home`
    the key of a structure's bed.

    A key is one thing's alone in its garden, whatever its kind.

    `revision` grows with every save. A thing that was taken away and is put back keeps its number, so that
    its address stays.
    """

    BED, FEATURE, STRUCTURE, STOCK, NEED = "bed", "feature", "structure", "stock", "need"
    RECORD, DIARY = "record", "diary"

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="things")
    kind = models.CharField(
        max_length=10, choices=[(k, k) for k in (BED, FEATURE, STRUCTURE, STOCK, NEED, RECORD, DIARY)]
    )
    key = models.CharField(max_length=64)
    home = models.CharField(max_length=64, blank=True, default="")
    document = models.JSONField()
    form = models.PositiveSmallIntegerField(default=present_form)
    revision = models.PositiveIntegerField(default=1)

    class Meta:
        ordering = ("pk",)
        constraints = [models.UniqueConstraint(fields=("garden", "key"), name="one_thing_one_key")]

    def __str__(self) -> str:
        return str(self.document.get("name", self.kind))


class LogEntry(models.Model):
    """One thing that happened in a garden; `document` is the core's Entry. Day, kind and place stand beside
    it to be looked for: a log grows for years, and no page reads all of it.
    """

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="entries")
    key = models.CharField(max_length=64)
    on = models.DateField()
    kind = models.CharField(max_length=10)
    structure = models.CharField(max_length=64, blank=True, default="")
    bed = models.CharField(max_length=64, blank=True, default="")
    document = models.JSONField()
    form = models.PositiveSmallIntegerField(default=present_form)
    revision = models.PositiveIntegerField(default=1)

    class Meta:
        ordering = ("-on", "-pk")
        constraints = [models.UniqueConstraint(fields=("garden", "key"), name="one_entry_one_key")]
        indexes = [
            models.Index(fields=("garden", "on"), name="entries_by_day"),
            models.Index(fields=("garden", "structure", "on"), name="entries_by_structure"),
        ]

    def __str__(self) -> str:
        return f"{self.kind} {self.on}"


class Photo(models.Model):
    """A photo of a garden's log, once however many entries show it: by the digest of its content. Its own
    table, so that no other question reads the pictures; in the data file, so that every backup has them.
    """

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="photos")
    sha = models.CharField(max_length=64)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    large = models.BinaryField()
    small = models.BinaryField()
    added = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=("garden", "sha"), name="one_photo_once")]

    def __str__(self) -> str:
        return self.sha[:12]


class Change(models.Model):
    """One saved change of a garden: who, when, and every thing before and after.

    `way` tells a change from its undoing; `fate` says whether it stands, is undone, or is undone for good.
    """

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="log")
    number = models.PositiveIntegerField()
    who = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)
    when = models.DateTimeField(auto_now_add=True)
    way = models.CharField(
        max_length=8, choices=[(w, w) for w in ("do", "undo", "redo", "restore", "import")], default="do"
    )
    about = models.PositiveIntegerField(null=True)
    fate = models.CharField(
        max_length=8, choices=[(f, f) for f in ("stands", "undone", "gone")], default="stands"
    )
    form = models.PositiveSmallIntegerField(default=present_form)
    edits = models.JSONField()

    class Meta:
        ordering = ("-number",)
        constraints = [models.UniqueConstraint(fields=("garden", "number"), name="one_change_a_number")]

    def __str__(self) -> str:
        return f"{self.garden} {self.number}"


class Share(models.Model):
    """Someone besides the owner who may read a garden, or change it too."""

    garden = models.ForeignKey(Garden, on_delete=models.CASCADE, related_name="shares")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="shares")
    may_edit = models.BooleanField(default=False)

    class Meta:
        constraints = [models.UniqueConstraint(fields=("garden", "person"), name="one_share_a_person")]

    def __str__(self) -> str:
        return f"{self.garden} for {self.person}"


class ReadLink(models.Model):
    """An address by which anyone may read a garden until it is withdrawn."""

    garden = models.OneToOneField(Garden, on_delete=models.CASCADE, related_name="link")
    token = models.CharField(max_length=64, unique=True)
    made = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return f"link to {self.garden}"


class Feed(models.Model):
    """A garden's calendar as it was sent out last: what its entries were by their keys, what it was made of,
    and its text; the address of the feed, empty where it has none.

    ended_with: who no longer may change the garden, for which the address was withdrawn. each_task: whether
    each task is an entry of its own.
    """

    garden = models.OneToOneField(Garden, on_delete=models.CASCADE, related_name="feed")
    token = models.CharField(max_length=64, blank=True, default="")
    sent = models.JSONField(default=dict)
    made_of = models.CharField(max_length=64, blank=True, default="")
    text = models.BinaryField(default=bytes)
    ended_with = models.CharField(max_length=150, blank=True, default="")
    each_task = models.BooleanField(default=False)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=("token",), condition=~models.Q(token=""), name="one_feed_a_token")
        ]

    def __str__(self) -> str:
        return f"calendar of {self.garden}"


class Weather(models.Model):
    """What a weather service has said of a garden last, and on which of the garden's days."""

    garden = models.OneToOneField(Garden, on_delete=models.CASCADE, related_name="weather")
    document = models.JSONField()
    day = models.DateField()
    at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"weather of {self.garden}"


class Sent(models.Model):
    """A write that was done, by the mark its sender gave it: sent once more, it is answered and not done
    again. `what`: a digest of the request, by which another write with the same mark is found out; empty of
    older ones.
    """

    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="sent")
    mark = models.CharField(max_length=64)
    what = models.CharField(max_length=64, blank=True, default="")
    answer = models.JSONField(default=dict)
    when = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=("person", "mark"), name="one_write_a_mark")]

    def __str__(self) -> str:
        return self.mark

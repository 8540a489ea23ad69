"""Beds and structures become things of one table, which features join; every change is kept from here on."""

import django.db.models.deletion
from ascent.plan.upgrades import lay_out
from django.conf import settings
from django.db import migrations, models


def move(apps, schema_editor):
    """Carry beds and structures over; beds get a place on the plan, structures keep their numbers."""
    Garden, Bed, Structure, Thing = (apps.get_model("gardens", name) for name in ("Garden", "Bed", "Structure", "Thing"))
    for garden in Garden.objects.all():
        beds = list(Bed.objects.filter(garden=garden).order_by("pk"))
        for structure in Structure.objects.filter(bed__garden=garden).select_related("bed"):
            Thing.objects.create(
                pk=structure.pk, garden=garden, kind="structure", key=structure.document["key"], home=structure.bed.document["key"],
                document=structure.document, revision=structure.revision,
            )
        for bed, document in zip(beds, lay_out([bed.document for bed in beds]), strict=True):
            bed.document = document
            bed.save()
    for bed in Bed.objects.order_by("pk"):
        Thing.objects.create(garden=bed.garden, kind="bed", key=bed.document["key"], document=bed.document)


class Migration(migrations.Migration):

    dependencies = [
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
        ("gardens", "0001_initial"),
    ]

    operations = [
        migrations.AddField("garden", "revision", models.PositiveIntegerField(default=1)),
        migrations.AddField("garden", "changes", models.PositiveIntegerField(default=0)),
        migrations.CreateModel(
            name="Thing",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("kind", models.CharField(choices=[("bed", "bed"), ("feature", "feature"), ("structure", "structure")], max_length=10)),
                ("key", models.CharField(max_length=64)),
                ("home", models.CharField(blank=True, default="", max_length=64)),
                ("document", models.JSONField()),
                ("revision", models.PositiveIntegerField(default=1)),
                ("garden", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="things", to="gardens.garden")),
            ],
            options={"ordering": ("pk",)},
        ),
        migrations.CreateModel(
            name="Change",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("number", models.PositiveIntegerField()),
                ("when", models.DateTimeField(auto_now_add=True)),
                (
                    "way",
                    models.CharField(
                        choices=[("do", "do"), ("undo", "undo"), ("redo", "redo"), ("restore", "restore"), ("import", "import")],
                        default="do",
                        max_length=8,
                    ),
                ),
                ("about", models.PositiveIntegerField(null=True)),
                ("fate", models.CharField(choices=[("stands", "stands"), ("undone", "undone"), ("gone", "gone")], default="stands", max_length=8)),
                ("edits", models.JSONField()),
                ("garden", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="log", to="gardens.garden")),
                ("who", models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, to=settings.AUTH_USER_MODEL)),
            ],
            options={"ordering": ("-number",)},
        ),
        migrations.CreateModel(
            name="ReadLink",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("token", models.CharField(max_length=64, unique=True)),
                ("made", models.DateTimeField(auto_now_add=True)),
                ("garden", models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name="link", to="gardens.garden")),
            ],
        ),
        migrations.CreateModel(
            name="Share",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("may_edit", models.BooleanField(default=False)),
                ("garden", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="shares", to="gardens.garden")),
                (
                    "person",
                    models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="shares", to=settings.AUTH_USER_MODEL),
                ),
            ],
        ),
        migrations.AddConstraint("thing", models.UniqueConstraint(fields=("garden", "kind", "key"), name="one_thing_a_key")),
        migrations.AddConstraint("change", models.UniqueConstraint(fields=("garden", "number"), name="one_change_a_number")),
        migrations.AddConstraint("share", models.UniqueConstraint(fields=("garden", "person"), name="one_share_a_person")),
        migrations.RunPython(move, migrations.RunPython.noop),
        migrations.DeleteModel("Structure"),
        migrations.DeleteModel("Bed"),
    ]

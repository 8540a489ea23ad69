"""Documents say in which form they are stored; a key is one thing's alone in its garden; what was sent is
remembered.
"""

import django.db.models.deletion
import gardens.models
from ascent.plan.upgrades import keys_apart
from django.conf import settings
from django.db import migrations, models

_BEFORE = 2  # the form of everything stored until now


def part_keys(apps, _schema):
    """Give a number to the key of a structure or a feature that a bed, or an older structure, has; in the log
    as well.
    """
    Garden, Thing, Change = (apps.get_model("gardens", name) for name in ("Garden", "Thing", "Change"))
    for garden in Garden.objects.only("pk"):
        taken: set[str] = set()
        renamed = {}
        for kind in ("bed", "structure", "feature"):
            rows = list(Thing.objects.filter(garden=garden, kind=kind).order_by("pk"))
            for row, found in zip(rows, keys_apart([{"key": row.key} for row in rows], taken), strict=True):
                if found["key"] != row.key:
                    renamed[kind, row.key] = found["key"]
                    row.key, row.document = found["key"], {**row.document, "key": found["key"]}
                    row.save(update_fields=["key", "document"])
        if renamed:
            for change in Change.objects.filter(garden=garden):
                change.edits = [_renamed(edit, renamed.get((edit["kind"], edit["key"]))) for edit in change.edits]
                change.save(update_fields=["edits"])


def _renamed(edit, key):
    if key is None:
        return edit
    sides = {side: {**edit[side], "key": key} for side in ("before", "after") if edit[side]}
    return {**edit, "key": key, **sides}


class Migration(migrations.Migration):
    dependencies = [
        ("gardens", "0002_things_and_changes"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        *(
            operation
            for name in ("garden", "thing", "change")
            for operation in (
                migrations.AddField(name, "form", models.PositiveSmallIntegerField(default=_BEFORE)),
                migrations.AlterField(name, "form", models.PositiveSmallIntegerField(default=gardens.models.present_form)),
            )
        ),
        migrations.RunPython(part_keys, migrations.RunPython.noop),
        migrations.RemoveConstraint("thing", "one_thing_a_key"),
        migrations.AddConstraint("thing", models.UniqueConstraint(fields=("garden", "key"), name="one_thing_one_key")),
        migrations.CreateModel(
            name="Sent",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("mark", models.CharField(max_length=64)),
                ("answer", models.JSONField(default=dict)),
                ("when", models.DateTimeField(auto_now_add=True)),
                ("person", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="sent", to=settings.AUTH_USER_MODEL)),
            ],
            options={"constraints": [models.UniqueConstraint(fields=("person", "mark"), name="one_write_a_mark")]},
        ),
    ]

import django.db.models.deletion
import gardens.models
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("gardens", "0011_deleted_at")]

    operations = [
        migrations.CreateModel(
            name="LogEntry",
            fields=[
                (
                    "id",
                    models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID"),
                ),
                ("key", models.CharField(max_length=64)),
                ("on", models.DateField()),
                ("kind", models.CharField(max_length=10)),
                ("structure", models.CharField(blank=True, default="", max_length=64)),
                ("bed", models.CharField(blank=True, default="", max_length=64)),
                ("document", models.JSONField()),
                ("form", models.PositiveSmallIntegerField(default=gardens.models.present_form)),
                ("revision", models.PositiveIntegerField(default=1)),
                (
                    "garden",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="entries",
                        to="gardens.garden",
                    ),
                ),
            ],
            options={
                "ordering": ("-on", "-pk"),
                "constraints": [
                    models.UniqueConstraint(fields=("garden", "key"), name="one_entry_one_key")
                ],
                "indexes": [
                    models.Index(fields=["garden", "on"], name="entries_by_day"),
                    models.Index(fields=["garden", "structure", "on"], name="entries_by_structure"),
                ],
            },
        ),
    ]

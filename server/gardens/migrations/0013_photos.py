import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("gardens", "0012_log")]

    operations = [
        migrations.CreateModel(
            name="Photo",
            fields=[
                (
                    "id",
                    models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID"),
                ),
                ("sha", models.CharField(max_length=64)),
                ("width", models.PositiveIntegerField()),
                ("height", models.PositiveIntegerField()),
                ("large", models.BinaryField()),
                ("small", models.BinaryField()),
                ("added", models.DateTimeField(auto_now_add=True)),
                (
                    "garden",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="photos",
                        to="gardens.garden",
                    ),
                ),
            ],
            options={
                "constraints": [
                    models.UniqueConstraint(fields=("garden", "sha"), name="one_photo_once")
                ]
            },
        ),
    ]

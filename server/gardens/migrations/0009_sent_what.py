from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("gardens", "0008_feed")]

    operations = [
        migrations.AddField(
            model_name="sent",
            name="what",
            field=models.CharField(blank=True, default="", max_length=64),
        ),
    ]

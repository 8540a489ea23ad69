from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("gardens", "0009_sent_what")]

    operations = [
        migrations.AddField("feed", "made_of", models.CharField(blank=True, default="", max_length=64)),
        migrations.AddField("feed", "text", models.BinaryField(default=bytes)),
        migrations.AddField("feed", "ended_with", models.CharField(blank=True, default="", max_length=150)),
    ]

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("gardens", "0010_feed_kept")]

    operations = [
        migrations.AddField("garden", "deleted_at", models.DateTimeField(blank=True, null=True)),
    ]

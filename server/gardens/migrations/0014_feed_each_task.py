from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("gardens", "0013_photos")]

    operations = [
        migrations.AddField(
            model_name="feed", name="each_task", field=models.BooleanField(default=False)
        ),
    ]

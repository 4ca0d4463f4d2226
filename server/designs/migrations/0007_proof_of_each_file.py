from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("designs", "0006_own_recipes")]

    operations = [
        migrations.AddField(
            model_name="export", name="sha256", field=models.CharField(blank=True, default="", max_length=64)
        ),
        migrations.AddField(model_name="export", name="profile", field=models.JSONField(null=True)),
        migrations.AddField(
            model_name="export", name="holds", field=models.JSONField(null=True)
        ),
    ]

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
        ('designs', '0002_variants'),
    ]

    operations = [
        migrations.AddField(
            model_name='revision',
            name='by',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name='revision',
            name='sentence',
            field=models.CharField(blank=True, default='', max_length=400),
        ),
        migrations.AddField(
            model_name='revision',
            name='picture',
            field=models.JSONField(null=True),
        ),
        migrations.CreateModel(
            name='KeptFile',
            fields=[
                ('name', models.CharField(max_length=64, primary_key=True, serialize=False)),
                ('title', models.CharField(max_length=200)),
                ('size', models.PositiveIntegerField()),
                ('added', models.DateTimeField(auto_now_add=True)),
            ],
        ),
        migrations.CreateModel(
            name='FileUse',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('file', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='uses', to='designs.keptfile')),
                ('revision', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='files', to='designs.revision')),
            ],
            options={'constraints': [models.UniqueConstraint(fields=('revision', 'file'), name='one_use_a_revision')]},
        ),
    ]

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("bench", "0005_let_a_known_length_be_unsaid"),
    ]

    operations = [
        migrations.AddField(
            model_name="mat",
            name="place",
            field=models.CharField(
                blank=True,
                default="",
                help_text="where it lies, as its instructor calls it",
                max_length=80,
            ),
            preserve_default=False,
        ),
    ]

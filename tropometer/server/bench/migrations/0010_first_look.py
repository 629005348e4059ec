import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    """What a machine reads of a swing before anybody has looked at it."""

    dependencies = [("bench", "0009_say_what_a_mark_s_error_shares")]

    operations = [
        migrations.CreateModel(
            name="FirstLook",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                (
                    "swing",
                    models.OneToOneField(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="first_look",
                        to="bench.swing",
                    ),
                ),
                (
                    "mats",
                    models.JSONField(
                        default=dict, help_text="mats carried over, as schemas.MatValue, by clip"
                    ),
                ),
                ("tapes", models.JSONField(default=list, help_text="as schemas.FirstTape, the surest first")),
            ],
        ),
    ]

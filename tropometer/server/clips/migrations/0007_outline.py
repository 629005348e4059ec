"""Places on the outline of the body, beside the landmarks."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("clips", "0006_swings_found"),
    ]

    operations = [
        migrations.AddField(
            model_name="proposals",
            name="outline",
            field=models.BinaryField(
                default=b"", help_text="float32 (n, 8, 2) of the same frames; empty: older"
            ),
        ),
    ]

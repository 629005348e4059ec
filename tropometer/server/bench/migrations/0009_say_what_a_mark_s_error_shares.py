from django.db import migrations, models


class Migration(migrations.Migration):
    """How much of a proposed mark's error is the same on all frames of its clip."""

    dependencies = [("bench", "0008_say_what_hurts_and_what_goes_wrong")]

    operations = [
        migrations.AddField(
            model_name="mark",
            name="shared_px",
            field=models.FloatField(
                db_default=0.0, default=0.0, help_text="of sd_px: the same on all frames that have one"
            ),
        ),
        migrations.AddConstraint(
            model_name="mark",
            constraint=models.CheckConstraint(
                condition=models.Q(("shared_px__gte", 0), ("shared_px__lte", models.F("sd_px"))),
                name="mark_shares_at_most_all",
            ),
        ),
    ]

"""The camera's facts are gone from the known length; every edit has its number."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("bench", "0010_move_facts")]

    operations = [
        migrations.AlterField(
            model_name="benchedit",
            name="number",
            field=models.PositiveIntegerField(help_text="its place among the clip's edits, from 1"),
        ),
        migrations.RemoveConstraint(
            model_name="calibration",
            name="calibration_distance_plausible",
        ),
        migrations.RemoveField(
            model_name="calibration",
            name="camera_distance_m",
        ),
        migrations.RemoveField(
            model_name="calibration",
            name="squared",
        ),
        migrations.AddConstraint(
            model_name="benchedit",
            constraint=models.UniqueConstraint(fields=("clip", "number"), name="edit_number_once_a_clip"),
        ),
    ]

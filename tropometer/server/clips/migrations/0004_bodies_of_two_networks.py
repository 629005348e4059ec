import django.db.models.deletion
from django.db import migrations, models

TO_BODIES = """
    INSERT INTO clips_seenbody (clip_id, network, first_frame, landmarks, outline, squares)
    SELECT clip_id, 'fast', first_frame, landmarks, outline, ''::bytea FROM clips_proposals
"""
TO_PROPOSALS = """
    UPDATE clips_proposals SET first_frame = b.first_frame, landmarks = b.landmarks, outline = b.outline
    FROM clips_seenbody b WHERE b.clip_id = clips_proposals.clip_id AND b.network = 'fast'
"""


class Migration(migrations.Migration):
    """A body seen by either of two networks in a row of its own."""

    dependencies = [("clips", "0003_film_from_behind_and_up_the_line")]

    operations = [
        migrations.CreateModel(
            name="SeenBody",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                (
                    "clip",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="bodies",
                        to="clips.clip",
                    ),
                ),
                (
                    "network",
                    models.CharField(choices=[("fast", "fast"), ("close", "close")], max_length=5),
                ),
                ("first_frame", models.PositiveIntegerField()),
                (
                    "landmarks",
                    models.BinaryField(
                        help_text="float32 (n, 33, 3): x, y in pixels, visibility; NaN: nobody"
                    ),
                ),
                (
                    "outline",
                    models.BinaryField(
                        default=b"", help_text="float32 (n, 8, 2) of the same frames; empty: older"
                    ),
                ),
                (
                    "squares",
                    models.BinaryField(
                        default=b"",
                        help_text="float32 (n, 4) about it: centre, side (pixels), lean (radians); empty: older",
                    ),
                ),
            ],
        ),
        migrations.AddConstraint(
            model_name="seenbody",
            constraint=models.UniqueConstraint(fields=("clip", "network"), name="one_body_a_network"),
        ),
        migrations.AddConstraint(
            model_name="seenbody",
            constraint=models.CheckConstraint(
                condition=models.Q(("network__in", ("fast", "close"))), name="body_network_known"
            ),
        ),
        # Back again, the columns are there before they are filled, and filled before they may not be empty.
        migrations.AlterField("proposals", "first_frame", models.PositiveIntegerField(null=True)),
        migrations.AlterField("proposals", "landmarks", models.BinaryField(null=True)),
        migrations.RunSQL(TO_BODIES, TO_PROPOSALS),
        migrations.RemoveField("proposals", "first_frame"),
        migrations.RemoveField("proposals", "landmarks"),
        migrations.RemoveField("proposals", "outline"),
        migrations.AddField(
            "proposals",
            "closer",
            models.PositiveSmallIntegerField(
                null=True, help_text="percent of the frames looked at more closely; null: none, or all"
            ),
        ),
    ]

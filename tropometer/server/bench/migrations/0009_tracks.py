"""Followed and hidden marks, camera facts apart from the known length, and an undoable log of edits."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("bench", "0008_mat"), ("clips", "0007_outline")]

    operations = [
        migrations.CreateModel(
            name="CameraFacts",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                (
                    "clip",
                    models.OneToOneField(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="camera_facts",
                        to="clips.clip",
                    ),
                ),
                ("distance_m", models.FloatField(help_text="to the player, along the floor", null=True)),
                ("height_m", models.FloatField(null=True)),
                (
                    "squared",
                    models.BooleanField(default=False, help_text="squared to a stick, not placed by eye"),
                ),
                ("plumb", models.JSONField(help_text="ax, ay, bx, by of an upright edge, pixels", null=True)),
            ],
        ),
        migrations.CreateModel(
            name="HiddenMark",
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
                        related_name="hidden_marks",
                        to="clips.clip",
                    ),
                ),
                ("name", models.CharField(max_length=24)),
                ("frame", models.PositiveIntegerField()),
            ],
        ),
        migrations.CreateModel(
            name="Track",
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
                        on_delete=django.db.models.deletion.CASCADE, related_name="tracks", to="clips.clip"
                    ),
                ),
                ("name", models.CharField(max_length=24)),
                (
                    "basis",
                    models.JSONField(help_text="placed: [frame, x, y] in order; hidden: frames between them"),
                ),
                ("first_frame", models.PositiveIntegerField()),
                (
                    "values",
                    models.BinaryField(
                        help_text="float32 (n, 3): x, y, the flow's own standard deviation; NaN: stopped"
                    ),
                ),
            ],
        ),
        migrations.AddField(
            model_name="benchedit",
            name="before",
            field=models.JSONField(default=dict, help_text="the edit that brings back what was there"),
        ),
        migrations.AddField(
            model_name="benchedit",
            name="gesture",
            field=models.UUIDField(help_text="what one drag or one key did; undone together", null=True),
        ),
        migrations.AddField(
            model_name="benchedit",
            name="number",
            field=models.PositiveIntegerField(
                null=True, help_text="its place among the clip's edits, from 1"
            ),
        ),
        migrations.AddField(
            model_name="benchedit",
            name="undone",
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name="benchedit",
            name="way",
            field=models.CharField(default="do", help_text="do, undo or redo", max_length=4),
        ),
        migrations.AddIndex(
            model_name="benchedit",
            index=models.Index(fields=["gesture"], name="edit_by_gesture"),
        ),
        migrations.AddConstraint(
            model_name="benchedit",
            constraint=models.CheckConstraint(
                condition=models.Q(("way__in", ("do", "undo", "redo"))), name="edit_way_known"
            ),
        ),
        migrations.AddConstraint(
            model_name="camerafacts",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    ("distance_m__isnull", True),
                    models.Q(("distance_m__gte", 1), ("distance_m__lte", 30)),
                    _connector="OR",
                ),
                name="camera_distance_plausible",
            ),
        ),
        migrations.AddConstraint(
            model_name="camerafacts",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    ("height_m__isnull", True),
                    models.Q(("height_m__gte", 0.05), ("height_m__lte", 5)),
                    _connector="OR",
                ),
                name="camera_height_plausible",
            ),
        ),
        migrations.AddConstraint(
            model_name="hiddenmark",
            constraint=models.UniqueConstraint(
                fields=("clip", "name", "frame"), name="hidden_mark_once_a_frame"
            ),
        ),
        migrations.AddConstraint(
            model_name="hiddenmark",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    (
                        "name__in",
                        [
                            "ball",
                            "club_head",
                            "grip",
                            "grip_butt",
                            "head",
                            "lead_ankle",
                            "lead_elbow",
                            "lead_foot_inner",
                            "lead_foot_outer",
                            "lead_heel",
                            "lead_hip",
                            "lead_hip_edge",
                            "lead_knee",
                            "lead_shoulder",
                            "lead_toe",
                            "lead_wrist",
                            "neck",
                            "seat",
                            "sternum",
                            "trail_ankle",
                            "trail_elbow",
                            "trail_foot_inner",
                            "trail_foot_outer",
                            "trail_heel",
                            "trail_hip",
                            "trail_hip_edge",
                            "trail_knee",
                            "trail_shoulder",
                            "trail_toe",
                            "trail_wrist",
                        ],
                    )
                ),
                name="hidden_mark_name_known",
            ),
        ),
        migrations.AddConstraint(
            model_name="track",
            constraint=models.UniqueConstraint(fields=("clip", "name"), name="track_once_a_mark"),
        ),
        migrations.AddConstraint(
            model_name="track",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    (
                        "name__in",
                        (
                            "lead_heel",
                            "lead_toe",
                            "lead_foot_outer",
                            "lead_foot_inner",
                            "lead_ankle",
                            "lead_knee",
                            "trail_heel",
                            "trail_toe",
                            "trail_foot_outer",
                            "trail_foot_inner",
                            "trail_ankle",
                            "trail_knee",
                            "ball",
                            "grip",
                            "club_head",
                        ),
                    )
                ),
                name="track_name_known",
            ),
        ),
    ]

import django.contrib.postgres.fields
import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("people", "0002_name_the_teaching_model"),
    ]

    operations = [
        migrations.CreateModel(
            name="Ache",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                ("part", models.CharField(blank=True, help_text="empty: the whole person", max_length=16)),
                ("trouble", models.CharField(max_length=10)),
                (
                    "agreed_by",
                    models.CharField(blank=True, help_text="a physician or physiotherapist", max_length=120),
                ),
                ("agreed_on", models.DateField(blank=True, null=True)),
            ],
            options={
                "ordering": ["id"],
            },
        ),
        migrations.CreateModel(
            name="MotionMeasured",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                ("motion", models.CharField(help_text="its id in the book", max_length=40)),
                ("degrees", models.FloatField()),
                ("measured_on", models.DateField()),
            ],
            options={
                "ordering": ["id"],
            },
        ),
        migrations.AddField(
            model_name="student",
            name="bad_clubs",
            field=django.contrib.postgres.fields.ArrayField(
                base_field=models.CharField(max_length=6),
                default=list,
                help_text="those that do not",
                size=None,
            ),
        ),
        migrations.AddField(
            model_name="student",
            name="good_clubs",
            field=django.contrib.postgres.fields.ArrayField(
                base_field=models.CharField(max_length=6),
                default=list,
                help_text="those that go well",
                size=None,
            ),
        ),
        migrations.AddField(
            model_name="student",
            name="misses",
            field=django.contrib.postgres.fields.ArrayField(
                base_field=models.CharField(max_length=12),
                default=list,
                help_text="what usually goes wrong",
                size=None,
            ),
        ),
        migrations.AddConstraint(
            model_name="student",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    (
                        "misses__contained_by",
                        [
                            "heavy",
                            "thin",
                            "topped",
                            "slice",
                            "hook",
                            "push",
                            "pull",
                            "shank",
                            "high",
                            "low",
                            "short",
                            "two_way",
                        ],
                    )
                ),
                name="student_misses_known",
            ),
        ),
        migrations.AddConstraint(
            model_name="student",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    ("good_clubs__contained_by", ["wedge", "iron", "wood", "driver"]),
                    ("bad_clubs__contained_by", ["wedge", "iron", "wood", "driver"]),
                ),
                name="student_clubs_known",
            ),
        ),
        migrations.AddField(
            model_name="ache",
            name="student",
            field=models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="aches", to="people.student"
            ),
        ),
        migrations.AddField(
            model_name="motionmeasured",
            name="student",
            field=models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="motions", to="people.student"
            ),
        ),
        migrations.AddConstraint(
            model_name="ache",
            constraint=models.UniqueConstraint(
                fields=("student", "part", "trouble"), name="ache_once_a_student"
            ),
        ),
        migrations.AddConstraint(
            model_name="ache",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    ("part", ""),
                    (
                        "part__in",
                        (
                            "neck",
                            "low_back",
                            "trunk",
                            "lead_hip",
                            "trail_hip",
                            "lead_knee",
                            "trail_knee",
                            "lead_ankle",
                            "trail_ankle",
                            "lead_shoulder",
                            "trail_shoulder",
                            "lead_wrist",
                            "trail_wrist",
                        ),
                    ),
                    _connector="OR",
                ),
                name="ache_part_known",
            ),
        ),
        migrations.AddConstraint(
            model_name="ache",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    ("trouble__in", ("stiff", "pain", "injury", "operation", "replaced", "dizziness"))
                ),
                name="ache_trouble_known",
            ),
        ),
        migrations.AddConstraint(
            model_name="ache",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    models.Q(("agreed_by", ""), ("agreed_on__isnull", True)),
                    models.Q(models.Q(("agreed_by", ""), _negated=True), ("agreed_on__isnull", False)),
                    _connector="OR",
                ),
                name="ache_agreed_by_somebody_on_a_day",
            ),
        ),
        migrations.AddConstraint(
            model_name="motionmeasured",
            constraint=models.UniqueConstraint(fields=("student", "motion"), name="motion_once_a_student"),
        ),
        migrations.AddConstraint(
            model_name="motionmeasured",
            constraint=models.CheckConstraint(
                condition=models.Q(("degrees__gte", -180), ("degrees__lte", 180)),
                name="motion_degrees_plausible",
            ),
        ),
    ]

import django.contrib.postgres.fields
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("bench", "0007_say_what_kind_of_swing_it_is"),
        ("people", "0003_say_what_hurts_and_what_goes_wrong"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.AddField(
            model_name="swing",
            name="hurts",
            field=django.contrib.postgres.fields.ArrayField(
                base_field=models.CharField(max_length=16),
                default=list,
                help_text="parts of the body that hurt",
                size=None,
            ),
        ),
        migrations.AddField(
            model_name="swing",
            name="misses",
            field=django.contrib.postgres.fields.ArrayField(
                base_field=models.CharField(max_length=12),
                default=list,
                help_text="what usually goes wrong",
                size=None,
            ),
        ),
        migrations.AddConstraint(
            model_name="swing",
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
                name="swing_misses_known",
            ),
        ),
        migrations.AddConstraint(
            model_name="swing",
            constraint=models.CheckConstraint(
                condition=models.Q(
                    (
                        "hurts__contained_by",
                        [
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
                        ],
                    )
                ),
                name="swing_hurts_known",
            ),
        ),
    ]

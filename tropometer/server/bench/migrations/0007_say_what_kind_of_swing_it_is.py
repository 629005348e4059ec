from typing import Any

from django.db import migrations, models
from django.db.models import Q

CLASSES = ("wedge", "iron", "wood", "driver")
LENGTHS = ("pitch", "lead_arm_level", "shoulder_high", "full")
CALLED = {"wedge": "wedge", "iron": "iron", "wood": "wood", "hybrid": "wood", "driver": "driver"}


def take_from_the_club_s_name(apps: Any, schema_editor: Any) -> None:
    """A club that was called an iron is one; how far a swing was meant to go nobody has said."""
    swings = apps.get_model("bench", "Swing").objects.filter(club_class__isnull=True)
    for word, kind in CALLED.items():
        swings.filter(club__icontains=word).update(club_class=kind)


class Migration(migrations.Migration):
    """Length and class of club belong to a swing."""

    dependencies = [("bench", "0006_name_the_place_of_a_mat")]

    operations = [
        migrations.AddField(
            model_name="swing",
            name="club_class",
            field=models.CharField(
                choices=[(each, each) for each in CLASSES],
                help_text="null: not said",
                max_length=6,
                null=True,
            ),
        ),
        migrations.AddField(
            model_name="swing",
            name="swing_length",
            field=models.CharField(
                choices=[(each, each) for each in LENGTHS],
                help_text="null: not said",
                max_length=14,
                null=True,
            ),
        ),
        migrations.RunPython(take_from_the_club_s_name, migrations.RunPython.noop),
        migrations.AddConstraint(
            model_name="swing",
            constraint=models.CheckConstraint(
                condition=Q(club_class__in=CLASSES), name="swing_club_class_known"
            ),
        ),
        migrations.AddConstraint(
            model_name="swing",
            constraint=models.CheckConstraint(
                condition=Q(swing_length__in=LENGTHS), name="swing_length_known"
            ),
        ),
    ]

"""Carry what was known of cameras over from the known lengths, and number the edits of each clip."""

from typing import Any

from django.db import migrations


def carry_over(apps: Any, schema_editor: Any) -> None:
    facts = apps.get_model("bench", "CameraFacts")
    for known in apps.get_model("bench", "Calibration").objects.all():
        if known.camera_distance_m is not None or known.squared:
            facts.objects.create(
                clip_id=known.clip_id, distance_m=known.camera_distance_m, squared=known.squared
            )
    number: dict[Any, int] = {}
    for edit in apps.get_model("bench", "BenchEdit").objects.order_by("at", "id"):
        edit.number = number[edit.clip_id] = number.get(edit.clip_id, 0) + 1
        edit.save(update_fields=["number"])


class Migration(migrations.Migration):
    dependencies = [("bench", "0009_tracks")]

    operations = [migrations.RunPython(carry_over, migrations.RunPython.noop)]

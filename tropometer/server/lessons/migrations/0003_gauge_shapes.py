"""Gauges of lessons that were drawn before draw shapes that name their reading, as they do now."""

from typing import Any

from django.apps.registry import Apps
from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor


def to_shapes(apps: Apps, editor: BaseDatabaseSchemaEditor) -> None:
    """Turn each span into a shape."""
    for frame in apps.get_model("lessons", "LessonFrame").objects.iterator():
        for gauge in frame.drawn["gauges"]:
            spans = gauge.pop("spans", [])
            gauge.setdefault("shapes", [_shape(gauge["id"], span) for span in spans])
        frame.save(update_fields=["drawn"])


def to_spans(apps: Apps, editor: BaseDatabaseSchemaEditor) -> None:
    """Keep what the older way of drawing knew: spans with a value."""
    for frame in apps.get_model("lessons", "LessonFrame").objects.iterator():
        for gauge in frame.drawn["gauges"]:
            gauge["lines"] = [line for line in gauge["lines"] if line["style"] in ("plumb", "gate")]
            gauge["spans"] = [
                {
                    **{key: shape[key] for key in ("frame", "at", "value", "u95")},
                    "a": shape["points"][0],
                    "b": shape["points"][-1],
                }
                for shape in gauge.pop("shapes", [])
                if shape["style"] == "span" and shape["value"] is not None
            ]
        frame.save(update_fields=["drawn"])


def _shape(gauge: str, span: dict[str, Any]) -> dict[str, Any]:
    reading = "trail_hip_gap" if gauge == "trail_plumb" else "hip_moved"
    points = [span.pop("a"), span.pop("b")]
    return {**span, "points": points, "style": "span", "reading": reading, "unit": "m"}


class Migration(migrations.Migration):
    dependencies = [("lessons", "0002_initial")]

    operations = [migrations.RunPython(to_shapes, to_spans)]

from django.db import migrations


def say_who_is_seen(apps, schema_editor):
    """A frame was of its clip's player all along."""
    frames = apps.get_model("lessons", "LessonFrame").objects.filter(clip__isnull=False)
    for frame in frames.select_related("clip__swing").iterator():
        frame.student_id = frame.clip.swing.student_id
        frame.save(update_fields=["student"])


class Migration(migrations.Migration):
    dependencies = [
        ("lessons", "0003_versions_templates_and_sending_later"),
        ("clips", "0005_show_who_plays"),
        ("bench", "0012_carry_marks_to_pegs"),
    ]
    operations = [migrations.RunPython(say_who_is_seen, migrations.RunPython.noop)]

from django.db import migrations

# The five drills that lessons knew: what each was against, and which drill of the book it has become.
DRILLS = {
    "stick_off_trail_hip": ("sways", "stick_by_the_hip"),
    "band_across_trail_hip": ("sways", "band_across_the_hip"),
    "arms_folded_shift": ("hangs_back", "pressure_first"),
    "flare_one_notch": ("restricted_turn", "flare_a_notch"),
    "wall_behind_seat": ("seat_leaves_the_wall", "wall_behind"),
}


def _words_of(drill, hand):
    lead, trail = ("left", "right") if hand == "right" else ("right", "left")
    said = {
        field: text.replace("{lead}", lead).replace("{trail}", trail)
        for field, text in drill.items()
        if isinstance(text, str)
    }
    return {
        "id": said["id"],
        "name": said["name"],
        "set_up": said["set_up"],
        "feel": said["feel"],
        "not_felt": "",
        "cue": "",
        "steps": [],
        "dose": said["dose"],
        "camera_shows": said["camera_shows"],
        "view": None,
        "caution": said["caution"],
        "done_wrong": "",
        "cautions": [],
    }


def keep_drills(apps, schema_editor):
    """A lesson's drill becomes the plan of its swing, in the words in which it was sent."""
    plans = apps.get_model("judging", "Plan")
    for lesson in (
        apps.get_model("lessons", "Lesson").objects.exclude(drill="").select_related("swing__student")
    ):
        if lesson.drill not in DRILLS or lesson.swing.student is None:
            continue
        fault, drill = DRILLS[lesson.drill]
        chosen = {"fault": fault, "words": "", "drills": [{"drill": drill, "dose": ""}], "goal": None}
        sent = lesson.drill_as_sent and {
            "model": "",
            "focus": [
                {
                    "fault": fault,
                    "name": lesson.drill_as_sent["purpose"],
                    "words": "",
                    "drills": [_words_of(lesson.drill_as_sent, lesson.swing.student.hand)],
                    "goal": None,
                    "cautions": [],
                }
            ],
        }
        plans.objects.get_or_create(
            swing_id=lesson.swing_id, defaults={"document": {"focus": [chosen]}, "as_sent": sent or None}
        )


class Migration(migrations.Migration):
    dependencies = [
        ("lessons", "0001_initial"),
        ("judging", "0001_decisions_and_plans"),
    ]

    operations = [
        migrations.RunPython(keep_drills, migrations.RunPython.noop),
        migrations.RemoveField(model_name="lesson", name="drill"),
        migrations.RemoveField(model_name="lesson", name="drill_as_sent"),
    ]

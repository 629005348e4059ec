"""An answer is about one side of its limit alone: what may be off is kept as a one-sided bound."""

from django.db import migrations, models
from django.db.models import F, Q

TWO_SIDED, ONE_SIDED = 1.959964, 1.644854


def narrowed(apps, editor):  # type: ignore[no-untyped-def]
    """What was kept was the half-width of a 95 % interval; the answers given then stay as they were given."""
    rows = apps.get_model("drill_checks", "CheckedDrill").objects.filter(give_or_take__isnull=False)
    rows.exclude(answer="unsure").update(give_or_take=F("give_or_take") * ONE_SIDED / TWO_SIDED)


def widened(apps, editor):  # type: ignore[no-untyped-def]
    """Back to that half-width."""
    rows = apps.get_model("drill_checks", "CheckedDrill").objects.filter(give_or_take__isnull=False)
    rows.exclude(answer="unsure").update(give_or_take=F("give_or_take") * TWO_SIDED / ONE_SIDED)


class Migration(migrations.Migration):
    dependencies = [("drill_checks", "0001_initial")]

    operations = [
        migrations.RemoveConstraint(model_name="checkeddrill", name="drill_check_answer_has_its_number"),
        migrations.RenameField(model_name="checkeddrill", old_name="u95", new_name="give_or_take"),
        migrations.AlterField(
            model_name="checkeddrill",
            name="give_or_take",
            field=models.FloatField(null=True, help_text="how far off that may be on the limit's side"),
        ),
        migrations.AddConstraint(
            model_name="checkeddrill",
            constraint=models.CheckConstraint(
                condition=Q(answer="not_read") | Q(beyond__isnull=False, give_or_take__isnull=False),
                name="drill_check_answer_has_its_number",
            ),
        ),
        migrations.RunPython(narrowed, widened),
    ]

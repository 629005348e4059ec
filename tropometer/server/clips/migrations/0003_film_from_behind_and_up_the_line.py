from django.db import migrations, models

VIEWS = ("face_on", "from_behind", "down_the_line", "up_the_line")


class Migration(migrations.Migration):
    """Two more sides from which a swing is filmed."""

    dependencies = [("clips", "0002_initial")]

    operations = [
        migrations.RemoveConstraint(model_name="clip", name="clip_view_known"),
        migrations.AlterField(
            model_name="clip",
            name="view",
            field=models.CharField(choices=[(view, view) for view in VIEWS], max_length=16),
        ),
        migrations.AddConstraint(
            model_name="clip",
            constraint=models.CheckConstraint(
                condition=models.Q(("view__in", VIEWS)), name="clip_view_known"
            ),
        ),
    ]

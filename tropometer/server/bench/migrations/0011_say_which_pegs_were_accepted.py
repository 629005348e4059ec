from django.db import migrations, models


class Migration(migrations.Migration):
    """Whether a peg stands where a machine proposed it: it is as exact as that."""

    dependencies = [("bench", "0010_first_look")]

    operations = [
        migrations.AddField(
            model_name="peg",
            name="accepted",
            field=models.BooleanField(
                db_default=False,
                default=False,
                help_text="as a machine proposed it, which is as exact as it is",
            ),
        ),
    ]

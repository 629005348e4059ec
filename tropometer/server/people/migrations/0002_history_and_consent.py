from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("people", "0001_initial")]

    operations = [
        migrations.AddField(
            "student",
            "history",
            models.TextField(
                blank=True, default="", help_text="what the instructor keeps in mind", max_length=2000
            ),
            preserve_default=False,
        ),
        migrations.AddField("student", "minor", models.BooleanField(default=False)),
        migrations.AddField(
            "student",
            "guardian",
            models.CharField(blank=True, default="", help_text="who consented for a minor", max_length=120),
            preserve_default=False,
        ),
        migrations.AddField("student", "consent_on", models.DateField(blank=True, null=True)),
        migrations.AddConstraint(
            "student",
            models.CheckConstraint(
                condition=models.Q(
                    ("consent_on__isnull", True), models.Q(("guardian", ""), _negated=True), _connector="OR"
                ),
                name="student_consent_is_somebodys",
            ),
        ),
    ]

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    initial = True

    dependencies = [
        ("bench", "0008_say_what_hurts_and_what_goes_wrong"),
    ]

    operations = [
        migrations.CreateModel(
            name="Plan",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                ("document", models.JSONField()),
                ("chosen_at", models.DateTimeField(auto_now=True)),
                (
                    "as_sent",
                    models.JSONField(
                        help_text="the plan in the book's words of that day, as SentPlan", null=True
                    ),
                ),
                (
                    "swing",
                    models.OneToOneField(
                        on_delete=django.db.models.deletion.CASCADE, related_name="plan", to="bench.swing"
                    ),
                ),
            ],
            options={
                "ordering": ["-chosen_at"],
            },
        ),
        migrations.CreateModel(
            name="TakenChoice",
            fields=[
                ("id", models.UUIDField(editable=False, primary_key=True, serialize=False)),
                ("at", models.DateTimeField(auto_now=True)),
                (
                    "swing",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="taken_choices",
                        to="bench.swing",
                    ),
                ),
            ],
        ),
        migrations.CreateModel(
            name="DecidedFault",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                ("fault", models.CharField(help_text="its id in the book", max_length=40)),
                ("decision", models.CharField(max_length=8)),
                ("reason", models.CharField(blank=True, max_length=300)),
                ("verdict_then", models.CharField(max_length=14)),
                ("certainty_then", models.FloatField()),
                ("decided_at", models.DateTimeField(auto_now=True)),
                (
                    "swing",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="decided_faults",
                        to="bench.swing",
                    ),
                ),
            ],
            options={
                "ordering": ["id"],
                "constraints": [
                    models.UniqueConstraint(fields=("swing", "fault"), name="fault_decided_once_a_swing"),
                    models.CheckConstraint(
                        condition=models.Q(("decision__in", ("accepted", "rejected", "added"))),
                        name="fault_decision_known",
                    ),
                    models.CheckConstraint(
                        condition=models.Q(
                            ("verdict_then__in", ("shown", "likely", "open", "not_shown", "cannot_be_seen"))
                        ),
                        name="fault_verdict_then_known",
                    ),
                    models.CheckConstraint(
                        condition=models.Q(("certainty_then__gte", 0), ("certainty_then__lte", 1)),
                        name="fault_certainty_then_a_share",
                    ),
                ],
            },
        ),
    ]

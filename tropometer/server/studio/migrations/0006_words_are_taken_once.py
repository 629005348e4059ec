from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("studio", "0005_when_a_try_was_struck"),
    ]

    operations = [
        migrations.CreateModel(
            name="TakenWords",
            fields=[
                ("id", models.UUIDField(editable=False, primary_key=True, serialize=False)),
                ("at", models.DateTimeField(auto_now_add=True)),
                (
                    "hour",
                    models.ForeignKey(on_delete=models.CASCADE, related_name="taken", to="studio.studiohour"),
                ),
            ],
        ),
    ]

"""The talking app."""

from django.apps import AppConfig


class TalkingConfig(AppConfig):
    """What a student answers: practice, questions, and what is said to and fro about them."""

    name = "tropometer.server.talking"
    label = "talking"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.talking import leaving, merging, news  # noqa: F401  # they listen to what comes and goes

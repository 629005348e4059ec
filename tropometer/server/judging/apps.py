from django.apps import AppConfig


class JudgingConfig(AppConfig):
    name = "tropometer.server.judging"
    label = "judging"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.judging import found  # noqa: F401  # it hears what is logged

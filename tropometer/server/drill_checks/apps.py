from django.apps import AppConfig


class DrillChecksConfig(AppConfig):
    name = "tropometer.server.drill_checks"
    label = "drill_checks"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.drill_checks import answering  # noqa: F401  # they listen

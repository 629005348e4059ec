from django.apps import AppConfig


class LessonsConfig(AppConfig):
    name = "tropometer.server.lessons"
    label = "lessons"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.lessons import leaving, merging  # noqa: F401  # they listen to what goes

from django.apps import AppConfig


class LessonsConfig(AppConfig):
    name = "tropometer.server.lessons"
    label = "lessons"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.lessons import leaving  # noqa: F401  # it listens to what is deleted

from django.apps import AppConfig


class ClipsConfig(AppConfig):
    name = "tropometer.server.clips"
    label = "clips"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.clips import leaving  # noqa: F401  # it listens to what is deleted

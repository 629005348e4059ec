from django.apps import AppConfig


class TeachingConfig(AppConfig):
    name = "tropometer.server.teaching"
    label = "teaching"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.teaching import leaving  # noqa: F401  # it listens to what is deleted

"""The walks app."""

from django.apps import AppConfig


class WalksConfig(AppConfig):
    """Narrated walks through a swing."""

    name = "tropometer.server.walks"
    label = "walks"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.walks import leaving  # noqa: F401  # what goes with a row that is deleted

from django.apps import AppConfig


class PeopleConfig(AppConfig):
    name = "tropometer.server.people"
    label = "people"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.people import leaving  # noqa: F401  # it listens to what is deleted

from django.apps import AppConfig


class LogbookConfig(AppConfig):
    name = "tropometer.server.logbook"
    label = "logbook"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.logbook import keeping  # noqa: F401  # it hears what changes on the bench

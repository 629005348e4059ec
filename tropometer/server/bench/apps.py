from django.apps import AppConfig


class BenchConfig(AppConfig):
    name = "tropometer.server.bench"
    label = "bench"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from tropometer.server.bench import first_look, merging, parting, tracking  # noqa: F401  # they listen

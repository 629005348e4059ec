from django.apps import AppConfig


class BenchConfig(AppConfig):
    name = "tropometer.server.bench"
    label = "bench"
    default_auto_field = "django.db.models.BigAutoField"

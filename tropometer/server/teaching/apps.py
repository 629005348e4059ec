from django.apps import AppConfig


class TeachingConfig(AppConfig):
    name = "tropometer.server.teaching"
    label = "teaching"
    default_auto_field = "django.db.models.BigAutoField"

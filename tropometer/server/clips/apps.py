from django.apps import AppConfig


class ClipsConfig(AppConfig):
    name = "tropometer.server.clips"
    label = "clips"
    default_auto_field = "django.db.models.BigAutoField"

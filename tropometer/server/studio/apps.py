from django.apps import AppConfig


class StudioConfig(AppConfig):
    name = "tropometer.server.studio"
    label = "studio"
    default_auto_field = "django.db.models.BigAutoField"

from django.apps import AppConfig


class DemoConfig(AppConfig):
    name = "tropometer.server.demo"
    label = "demo"
    default_auto_field = "django.db.models.BigAutoField"

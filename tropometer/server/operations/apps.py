from django.apps import AppConfig


class OperationsConfig(AppConfig):
    name = "tropometer.server.operations"
    label = "operations"
    default_auto_field = "django.db.models.BigAutoField"

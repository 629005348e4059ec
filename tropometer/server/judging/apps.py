from django.apps import AppConfig


class JudgingConfig(AppConfig):
    name = "tropometer.server.judging"
    label = "judging"
    default_auto_field = "django.db.models.BigAutoField"

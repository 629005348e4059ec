from django.apps import AppConfig


class LessonsConfig(AppConfig):
    name = "tropometer.server.lessons"
    label = "lessons"
    default_auto_field = "django.db.models.BigAutoField"

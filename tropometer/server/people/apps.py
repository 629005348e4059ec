from django.apps import AppConfig


class PeopleConfig(AppConfig):
    name = "tropometer.server.people"
    label = "people"
    default_auto_field = "django.db.models.BigAutoField"

from django.apps import AppConfig


class ShelfConfig(AppConfig):
    name = "tropometer.server.shelf"
    label = "shelf"
    default_auto_field = "django.db.models.BigAutoField"

from django.apps import AppConfig


class FloorConfig(AppConfig):
    name = "finetally.web.floor"
    label = "floor"

from django.apps import AppConfig


class SquadsConfig(AppConfig):
    name = "finetally.web.squads"
    label = "squads"

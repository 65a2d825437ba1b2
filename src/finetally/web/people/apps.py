from django.apps import AppConfig


class PeopleConfig(AppConfig):
    name = "finetally.web.people"
    label = "people"

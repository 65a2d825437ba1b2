from django.apps import AppConfig


class CheckInConfig(AppConfig):
    name = "finetally.web.checkin"
    label = "checkin"

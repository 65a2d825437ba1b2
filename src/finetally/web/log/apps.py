from django.apps import AppConfig


class LogConfig(AppConfig):
    name = "finetally.web.log"
    label = "log"

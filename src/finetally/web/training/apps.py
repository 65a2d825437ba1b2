from django.apps import AppConfig


class TrainingConfig(AppConfig):
    name = "finetally.web.training"
    label = "training"

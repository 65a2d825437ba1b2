"""The jobs app."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    """Jobs and who works on them."""

    name = "finetally.web.jobs"
    default_auto_field = "django.db.models.BigAutoField"

"""The plan app."""

from django.apps import AppConfig


class PlanConfig(AppConfig):
    """Entries of the plan, days, phases, changes."""

    name = "finetally.web.plan"
    default_auto_field = "django.db.models.BigAutoField"

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    name = "finetally.web.accounts"
    label = "accounts"

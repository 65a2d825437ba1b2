"""Django's command line for this project: `python -m finetally.web.manage`."""

import os
import sys

from django.core.management import execute_from_command_line

from finetally.environment import data_folder


def main() -> None:
    """Run a management command."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finetally.web.settings")
    data_folder().mkdir(parents=True, exist_ok=True)
    execute_from_command_line(sys.argv)


if __name__ == "__main__":
    main()

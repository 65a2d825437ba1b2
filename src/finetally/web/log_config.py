"""Where log lines go and how they are written: the same for Django and for gunicorn."""

from __future__ import annotations

from typing import Any


def log_config(loggers: dict[str, dict[str, Any]]) -> dict[str, Any]:
    """What `logging` takes: JSON lines on stderr, warnings and worse, and what is said otherwise of `loggers`."""
    return {
        "version": 1,
        "disable_existing_loggers": False,
        "formatters": {"lines": {"()": "finetally.web.log_lines.JsonLines"}},
        "handlers": {"stderr": {"class": "logging.StreamHandler", "formatter": "lines"}},
        "root": {"handlers": ["stderr"], "level": "WARNING"},
        "loggers": loggers,
    }

"""What goes into the log, and what does not."""

from __future__ import annotations

import logging
import re

TOKEN = re.compile(r"/feeds/[^/\s.]+")


class WithoutTokens(logging.Filter):
    """Keeps tokens of calendar feeds out of the log: whoever reads it may not read the plan."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Take tokens out of the message and its parts."""
        if isinstance(record.args, tuple):
            record.args = tuple(TOKEN.sub("/feeds/…", one) if isinstance(one, str) else one for one in record.args)
        if isinstance(record.msg, str):
            record.msg = TOKEN.sub("/feeds/…", record.msg)
        return True

"""The log: defects with their traces, for whoever mends them. One file in the user's state folder, bounded in size."""

from __future__ import annotations

import logging
from logging.handlers import RotatingFileHandler
from pathlib import Path

from tall_plank.files.userdata import UserFolders

log = logging.getLogger("tall_plank")
KEPT = "kept"
"""Name of the one handler that is kept."""


class _Plain(logging.Formatter):
    """Lines without traces."""

    def formatException(self, ei: object) -> str:
        return ""

    def format(self, record: logging.LogRecord) -> str:
        return super().format(record).strip()


def keep_log(folders: UserFolders) -> Path | None:
    """From now on what is logged goes to a file; None where it cannot be written: then it is dropped."""
    path = folders.state / "log.txt"
    for old in [h for h in log.handlers if h.name == KEPT]:
        log.removeHandler(old)
        old.close()
    try:
        folders.state.mkdir(parents=True, exist_ok=True)
        handler: logging.Handler = RotatingFileHandler(path, maxBytes=500_000, backupCount=1, encoding="utf-8")
    except OSError:
        # What is worth a line is told where the program was started.
        handler = logging.StreamHandler()
        handler.name = KEPT
        handler.setFormatter(_Plain("%(message)s"))
        log.addHandler(handler)
        return None
    handler.name = KEPT
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(message)s"))
    log.addHandler(handler)
    return path

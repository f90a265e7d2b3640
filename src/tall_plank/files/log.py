"""The log: defects with their traces, for whoever mends them. One file in the user's state folder, bounded in size."""

from __future__ import annotations

import logging
from logging.handlers import RotatingFileHandler
from pathlib import Path

from tall_plank.files.userdata import UserFolders

log = logging.getLogger("tall_plank")


def keep_log(folders: UserFolders) -> Path | None:
    """From now on what is logged goes to a file; None where it cannot be written: then it is dropped."""
    path = folders.state / "log.txt"
    try:
        folders.state.mkdir(parents=True, exist_ok=True)
        handler: logging.Handler = RotatingFileHandler(path, maxBytes=500_000, backupCount=1, encoding="utf-8")
    except OSError:
        log.addHandler(logging.NullHandler())
        return None
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(message)s"))
    log.addHandler(handler)
    return path

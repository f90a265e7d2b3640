"""Inner loops are compiled the first time they run, and kept on disk where that can be: in a cache folder of the
user's own. Where none can be written they are compiled anew in every program."""

from __future__ import annotations

import logging
import os
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar

import numba

F = TypeVar("F", bound=Callable[..., Any])
log = logging.getLogger("tall_plank")


def cache_folder() -> Path | None:
    """The folder of compiled loops; None where it cannot be written."""
    import platformdirs

    folder = Path(os.environ.get("NUMBA_CACHE_DIR") or platformdirs.user_cache_path("tall-plank") / "compiled")
    try:
        folder.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryFile(dir=folder):
            return folder
    except OSError as error:
        log.warning("compiled loops are not kept: %s", error)
        return None


_folder = cache_folder()
if _folder is not None:
    numba.config.CACHE_DIR = str(_folder)


def compiled(loop: F) -> F:
    """A loop over numbers and arrays, compiled."""
    made: F = numba.njit(cache=_folder is not None)(loop)
    return made

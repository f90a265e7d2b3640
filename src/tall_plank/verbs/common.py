"""What every verb shares: how it ends, how it reads numbers."""

from __future__ import annotations

import logging
import sys
from collections.abc import Callable
from functools import wraps
from pathlib import Path
from typing import Any, NoReturn

import click

from tall_plank.measure import PlankError
from tall_plank.measure.limits import Range

log = logging.getLogger("tall_plank")


def fail(error: PlankError) -> NoReturn:
    """Name what is wrong on standard error and end with 1."""
    click.echo(str(error), err=True)
    sys.exit(1)


def says_errors(verb: Callable[..., None]) -> Callable[..., None]:
    """Turn a PlankError into a plain message and exit code 1, and a defect into one line, a trace in the log and 3."""

    @wraps(verb)
    def wrapped(*args: Any, **kwargs: Any) -> None:
        from tall_plank.files.log import keep_log
        from tall_plank.files.userdata import default_folders

        kept = keep_log(default_folders())
        try:
            verb(*args, **kwargs)
        except PlankError as error:
            fail(error)
        except (click.ClickException, click.exceptions.Exit, BrokenPipeError):
            raise
        except OSError as error:
            fail(PlankError(f"{error.strerror or error}.", str(error.filename or ""), "Check the path and its rights."))
        except MemoryError:
            fail(PlankError("That takes more memory than there is.", "", "Make it smaller."))
        except Exception as error:
            log.exception("a verb failed")
            click.echo(f"The program has a fault ({type(error).__name__}). {_kept_where(kept)}", err=True)
            sys.exit(3)

    return wrapped


def _kept_where(kept: Path | None) -> str:
    return f"The log holds the details: {kept}" if kept is not None else "No log could be written."


class Number(click.ParamType[float]):
    """A number that makes sense: finite and in its range."""

    name = "number"

    def __init__(self, least: float, most: float) -> None:
        self.span = Range(least, most)

    def convert(self, value: Any, param: click.Parameter | None, ctx: click.Context | None) -> float:
        try:
            number = float(value)
        except ValueError:
            self.fail(f"“{str(value)[:40]}” is no number.", param, ctx)
        if not self.span.holds(number):
            self.fail(f"{str(value)[:40]} is not in the range {self.span}.", param, ctx)
        return number

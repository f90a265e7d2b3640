"""The one door through which every file comes in: what is no plain file, or too large, stays outside, and whatever goes
wrong behind it becomes a message with file, place and remedy. The trace goes to the log."""

from __future__ import annotations

import csv
import io
import itertools
import json
import logging
import math
import re
import stat
import tomllib
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from decimal import Decimal, DecimalException
from pathlib import Path
from typing import Any, NoReturn

from tall_plank.measure import PlankError

log = logging.getLogger("tall_plank")

MAX_TOML = 4_000_000  # bytes; a stock list of ten thousand rows stays well below
MOST_VALUES = 1_500_000
"""Values of a document; a job of five hundred units has a fifth of them."""

DEEPEST = 60
"""Tables and lists inside one another."""

LONGEST_NUMBER = 40
"""Characters of a number at the most; no length, price or count needs more."""


@contextmanager
def through(where: str, word: str, remedy: str) -> Iterator[None]:
    """Work on a file that came from outside.

    Parameters
    ----------
    where : name of the file
    word : what such a file is called in messages
    remedy : what to do where it is damaged

    Raises
    ------
    PlankError, whatever goes wrong; one that is raised inside goes through as it is
    """
    try:
        yield
    except PlankError:
        raise
    except OSError as error:
        why = error.strerror or str(error)
        raise PlankError(f"The {word} cannot be read ({why}).", where, "Check the path and its rights.") from None
    except UnicodeDecodeError:
        raise PlankError(f"The {word} is not UTF-8 text.", where, "Save it as UTF-8.") from None
    except MemoryError:
        raise PlankError(f"The {word} takes more memory than there is.", where, "Make it smaller.") from None
    except RecursionError:
        raise PlankError(f"The {word} has too much inside one another.", where, remedy) from None
    except Exception as error:
        log.warning("a file was refused: %s", where, exc_info=True)
        kind = type(error).__name__
        raise PlankError(f"The {word} is damaged ({kind}).", where, remedy) from None


def bytes_of(path: Path, most: int, word: str) -> bytes:
    """What a file holds. `most`: bytes.

    Raises
    ------
    PlankError where it is missing, no plain file, or too large
    """
    with through(path.name, word, ""):
        mode = path.stat()
        if not stat.S_ISREG(mode.st_mode):
            raise PlankError(f"The {word} is no plain file.", path.name, "Choose a file.")
        with path.open("rb") as file:
            data = file.read(most + 1)
        if len(data) > most:
            what = f"The {word} is too large ({mode.st_size / 1e6:,.0f} MB)."
            raise PlankError(what, path.name, f"Split it, or make it smaller than {most / 1e6:,.0f} MB.")
        return data
    raise AssertionError


def text_of(path: Path, most: int, word: str, remedy: str = "Save it as UTF-8.") -> str:
    """The text of a file, in UTF-8, without the mark that some programs put before it.

    Raises
    ------
    PlankError as `bytes_of`, and for what is no UTF-8
    """
    data = bytes_of(path, most, word)
    try:
        return data.decode("utf-8-sig").replace("\r\n", "\n")
    except UnicodeDecodeError:
        raise PlankError(f"The {word} is not UTF-8 text.", path.name, remedy) from None


def json_of(data: bytes, where: str, word: str, remedy: str) -> Any:
    """What a JSON document holds; its numbers are finite and no longer than any that make sense.

    Raises
    ------
    PlankError
    """
    if sum(data.count(mark) for mark in (b",", b"[", b"{")) > MOST_VALUES:
        raise PlankError(f"The {word} holds too many values.", where, remedy)
    try:
        return json.loads(data, parse_float=_finite, parse_int=_whole, parse_constant=_no_number)
    except RecursionError:
        raise PlankError(f"The {word} has too much inside one another.", where, remedy) from None
    except ValueError as error:
        at = re.search(r"line \d+", str(error))
        place = f"{where}, {at.group()}" if at else where
        why = str(error) if isinstance(error, _NumberError) else "no JSON"
        raise PlankError(f"The {word} is damaged: {why}.", place, remedy) from None


def read_toml(path: Path) -> dict[str, Any]:
    """Read a TOML file; decimal numbers come as Decimal so that money is exact.

    Raises
    ------
    PlankError naming the file and the line
    """
    text = text_of(path, MAX_TOML, "file")
    try:
        found = tomllib.loads(text, parse_float=_decimal)
        _check_nodes(found)
        return found
    except tomllib.TOMLDecodeError as error:
        line = re.search(r"line (\d+)", str(error))
        where = f"{path.name}, line {line.group(1) if line else len(text.splitlines())}"
        raise PlankError(f"This is not well-formed TOML ({error}).", where, "Mend the line.") from None
    except RecursionError:
        raise PlankError("The file has too much inside one another.", path.name, "Write it flatter.") from None
    except _NumberError as error:
        number = error.number
        line_no = next((n for n, line in enumerate(text.splitlines(), 1) if number[:60] in line), 0)
        where = f"{path.name}, line {line_no}" if line_no else path.name
        raise PlankError(f"{str(error)[:1].upper()}{str(error)[1:]}.", where, "Write a plain number.") from None
    except ValueError as error:  # a whole number of thousands of digits
        raise PlankError(f"A number of the file cannot be read ({error}).", path.name, "Write a plain one.") from None


MOST_LINES = 100_000
"""Rows of a list."""


def csv_rows(text: str, where: str) -> list[list[str]]:
    """The rows of a list; a comma, a semicolon or a tab parts its columns, whichever the heads have most of.

    Raises
    ------
    PlankError where it is no well-formed CSV, or has too many rows
    """
    mark = max(",;\t", key=text.split("\n", 1)[0].count)
    try:
        rows = list(
            itertools.islice(csv.reader(io.StringIO(text, newline=""), delimiter=mark, strict=True), MOST_LINES + 1)
        )
    except csv.Error as error:
        raise PlankError(f"The list is no well-formed CSV ({error}).", where, "Save it again.") from None
    if len(rows) > MOST_LINES:
        raise PlankError(f"The list has more than {MOST_LINES:,} rows.", where, "Split it.")
    return rows


MOST_ENTRIES, MOST_UNPACKED, MOST_TIMES = 2000, 512 * 1024 * 1024, 200
"""Entries of an archive, bytes that they unpack to in all, and how many times more than what is packed."""

HEADER = 30
"""Bytes before an entry's name (APPNOTE 4.3.7)."""

SMALL = 64 * 1024 * 1024
"""Bytes that an archive may unpack to however well it is packed."""


def check_archive(data: bytes, where: str, word: str) -> None:
    """Look at an archive's list before anything of it is unpacked.

    Raises
    ------
    PlankError for too many entries, names that lead out of it or come twice, entries that lie in one another, or what
    unpacks to too much
    """
    ask = "Ask where the file comes from."
    if not zipfile.is_zipfile(io.BytesIO(data)):
        raise PlankError(f"This is no {word} that can be read.", where, f"Choose another {word}, or save it again.")
    with through(where, word, ask), zipfile.ZipFile(io.BytesIO(data)) as archive:
        infos = archive.infolist()
        if len(infos) > MOST_ENTRIES:
            raise PlankError("The file holds too many entries.", where, ask)
        total = sum(i.file_size for i in infos)
        if total > MOST_UNPACKED or (total > SMALL and total > MOST_TIMES * len(data)):
            raise PlankError("The file unpacks to too much.", where, ask)
        names = [i.filename for i in infos]
        if len(set(names)) != len(names) or any(_leads_out(n) for n in names):
            raise PlankError("The file holds entries with bad names.", where, ask)
        ends = [(i.header_offset, i.header_offset + HEADER + len(i.filename.encode()) + i.compress_size) for i in infos]
        ends.sort()
        if any(end > start for (_, end), (start, _) in itertools.pairwise(ends)):
            raise PlankError("The file's entries lie in one another.", where, ask)


def _leads_out(name: str) -> bool:
    return name.startswith(("/", "\\")) or ".." in name.replace("\\", "/").split("/") or ":" in name[:3]


def _check_nodes(value: Any) -> None:
    """Raises RecursionError for too many tables and lists inside one another, _NumberError for endless numbers."""
    level = [value]
    for _ in range(DEEPEST):
        inner = [v for x in level for v in (x.values() if isinstance(x, dict) else x)]
        for number in inner:
            if isinstance(number, int) and abs(number) > MOST_WHOLE:
                raise _NumberError(str(number)[:LONGEST_NUMBER])
        level = [v for v in inner if isinstance(v, dict | list)]
        if not level:
            return
    raise RecursionError


MOST_WHOLE = 10**18


class _NumberError(ValueError):
    """A number that is none: not finite, or longer than any that makes sense."""

    def __init__(self, number: str) -> None:
        super().__init__(f"the number “{number[:30]}” makes no sense")
        self.number = number


def _finite(text: str) -> float:
    number = float(text)
    if not math.isfinite(number):
        raise _NumberError(text)
    return number


def _whole(text: str) -> int:
    if len(text) > LONGEST_NUMBER:
        raise _NumberError(text)
    return int(text)


def _no_number(text: str) -> NoReturn:
    raise _NumberError(text)


def _decimal(text: str) -> Decimal:
    try:
        number = Decimal(text)
    except DecimalException:
        raise _NumberError(text) from None
    if len(text) > LONGEST_NUMBER or not number.is_finite() or abs(number.adjusted()) > LONGEST_NUMBER:
        raise _NumberError(text)
    return number

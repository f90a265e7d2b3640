"""Numbers as lists from other programs write them: with a point or a comma for decimals, thousands parted or not. What
can be read in two ways is refused with both of them."""

from __future__ import annotations

import re
from collections.abc import Iterable
from decimal import Decimal
from typing import Literal

Mark = Literal["", ".", ","]
"""What stands before the decimals; empty: it is not known."""

_SHAPE = re.compile(r"[+-]?\d[\d.,]*|[+-]?[.,]\d+")
_PARTED = re.compile(r"\d{1,3}([.,])\d{3}(\1\d{3})*")
_SPACES = re.compile(r"(?<=\d)[\s\u00a0\u202f'’](?=\d{3}(?!\d))")
"""What parts thousands besides point and comma."""


def _bare(text: str) -> str:
    return _SPACES.sub("", text.strip())


def mark_of(texts: Iterable[str]) -> Mark:
    """The decimal mark that some numbers of one file show plainly; empty where none does, or where they contradict one
    another."""
    shown: set[str] = set()
    for text in texts:
        bare = _bare(text)
        if not _SHAPE.fullmatch(bare):
            continue
        last = max(bare.rfind("."), bare.rfind(","))
        if last < 0:
            continue
        mark, other = bare[last], "," if bare[last] == "." else "."
        whole = bare.lstrip("+-")
        if bare.count(mark) > 1:
            shown.add(other)
        elif other in bare or not _PARTED.fullmatch(whole) or whole.startswith("0"):
            shown.add(mark)
    return shown.pop() if len(shown) == 1 else ""  # type: ignore[return-value]


def read_number(text: str, mark: Mark = "") -> Decimal:
    """A number of a list.

    Parameters
    ----------
    mark : the decimal mark that its file shows

    Raises
    ------
    ValueError where it is none (“… is no number”), or where it can be read in two ways, with both
    """
    bare = _bare(text)
    if not _SHAPE.fullmatch(bare):
        raise ValueError(f"“{text.strip()[:30]}” is no number")
    points, commas = bare.count("."), bare.count(",")
    if not commas and points <= 1 and mark != ",":
        return Decimal(bare)  # as programs write it
    if points and commas:
        found: Mark = "." if bare.rfind(".") > bare.rfind(",") else ","
        if mark and found != mark:
            raise ValueError(f"“{text.strip()[:30]}” has its decimals after another mark than its list")
        return _with(bare, found, text)
    if points + commas > 1:
        return _with(bare, "." if commas else ",", text)
    if mark or not _PARTED.fullmatch(bare.lstrip("+-")) or bare.lstrip("+-").startswith("0"):
        return _with(bare, mark or ("," if commas else "."), text)
    one, other = (_with(bare, m, text) for m in (".", ","))
    raise ValueError(
        f"“{text.strip()[:30]}” can be read as {one} and as {other.normalize()}: write it without parting thousands"
    )


def _with(bare: str, mark: str, text: str) -> Decimal:
    """Read with a decimal mark; the other one parts thousands, which have to be three digits each."""
    other = "," if mark == "." else "."
    head, _, tail = bare.partition(mark)
    groups = head.lstrip("+-").split(other)
    if other in tail or mark in tail or (len(groups) > 1 and not all(len(g) == 3 for g in groups[1:])):
        raise ValueError(f"“{text.strip()[:30]}” is no number")
    if len(groups) > 1 and not 1 <= len(groups[0]) <= 3:
        raise ValueError(f"“{text.strip()[:30]}” is no number")
    return Decimal(f"{head.replace(other, '')}.{tail}" if tail else head.replace(other, "") or "0")

"""Plain lists for the saw: parts and boards, pieces and bars as CSV, and the plans as JSON documents."""

from __future__ import annotations

import json
import math
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any, TypeVar

from tall_plank.formats.door import csv_rows, text_of
from tall_plank.measure import PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.limits import LIMITS, plain_text
from tall_plank.measure.numbers import mark_of, read_number
from tall_plank.measure.outlines import Points
from tall_plank.shop.bars import BarPiece, BarPlan, BarStock
from tall_plank.shop.nesting import NestBoard, NestPart, NestPlan

T = TypeVar("T")
MAX_FILE = 30_000_000


class Fault(str):
    """A row that cannot be used: its number, what is wrong."""


def read_rows(
    path: Path, needed: Sequence[str], make: Callable[[dict[str, str]], T], either: Sequence[str] = ()
) -> tuple[tuple[T, ...], tuple[Fault, ...]]:
    """Rows of a CSV with a row of heads, columns in any order, further ones left aside. Rows that cannot be read are
    named and left out, so that the rest can be planned.

    Raises
    ------
    PlankError where the file or its heads cannot be used at all
    """
    rows = csv_rows(text_of(path, MAX_FILE, "list", "Save it as CSV in UTF-8."), path.name)
    heads = [h.strip().lower() for h in rows[0]] if rows else []
    missing = [h for h in needed if h not in heads]
    if missing:
        what = f"The list has no column “{missing[0]}”."
        raise PlankError(what, f"{path.name}, row 1", f"It needs {', '.join(needed)}.")
    if either and not any(h in heads for h in either):
        words = " or ".join(f"“{h}”" for h in either)
        raise PlankError(f"The list has no column {words}.", f"{path.name}, row 1", f"It needs one of {words}.")
    found: list[T] = []
    faults: list[Fault] = []
    # A list whose columns are parted by commas has its decimals after points.
    shown = mark_of(c for cells in rows[1:] for h, c in zip(heads, cells, strict=False) if h in NUMBERS)
    for number, cells in enumerate(rows[1:], 2):
        values = {h: c.strip() for h, c in zip(heads, cells, strict=False)}
        values[MARK] = shown
        if not any(v for h, v in values.items() if h != MARK):
            continue
        try:
            found.append(make(values))
        except ValueError as error:
            faults.append(Fault(f"{path.name}, row {number}: {error}"))
    return tuple(found), tuple(faults)


NUMBERS = ("length_mm", "width_mm", "qty", "price")
"""Columns of numbers."""

MARK = "\0mark"
"""Under which the values of a row say the decimal mark of their list."""


def _read(values: dict[str, str], key: str, text: str) -> float:
    try:
        return float(read_number(text, values.get(MARK, "")))  # type: ignore[arg-type]
    except ValueError as error:
        raise ValueError(f"{key} {error}") from None


LISTED = LIMITS["Listed"]


def _number(values: dict[str, str], key: str) -> float:
    text = values.get(key, "")
    number = _read(values, key, text)
    if not math.isfinite(number) or not LISTED[key].holds(number):
        raise ValueError(f"{key} {text[:30]} is out of range ({LISTED[key]})")
    return number


def _count(values: dict[str, str], key: str) -> int:
    text = values.get(key, "") or "1"
    number = _read(values, key, text)
    if not number.is_integer() or not LISTED[key].holds(number):
        raise ValueError(f"{key} {text[:30]} is no whole number from 0 to {LISTED[key].most:,.0f}")
    return int(number)


def _name(values: dict[str, str], key: str) -> str:
    name = values.get(key, "")
    if not name:
        raise ValueError(f"{key} is empty")
    return plain_text(name)[:200]


def read_parts(path: Path) -> tuple[tuple[NestPart, ...], tuple[Fault, ...]]:
    """``part,length_mm,width_mm,qty,material,grain``; where given, ``outline`` (``x y; x y; ...``),
    ``match`` and ``match_way``.

    Raises
    ------
    ValueError “grain … is neither none nor length”, “match_way … is neither side nor end”
    """

    def make(v: dict[str, str]) -> NestPart:
        grain = v.get("grain", "").lower() or "none"
        if grain not in ("none", "length"):
            raise ValueError(f"grain “{grain[:30]}” is neither none nor length")
        way = v.get("match_way", "").lower() or "side"
        if way not in ("side", "end"):
            raise ValueError(f"match_way “{way[:30]}” is neither side nor end")
        length, width, outline = _number(v, "length_mm"), _number(v, "width_mm"), _points(v.get("outline", ""))
        if outline:
            _inside(outline, length, width)
        return NestPart(
            _name(v, "part"),
            length,
            width,
            _count(v, "qty"),
            plain_text(v.get("material", "")),
            "length" if grain == "length" else "none",
            plain_text(v.get("match", "")),
            "end" if way == "end" else "side",
            outline,
        )

    return read_rows(path, ("part", "length_mm", "width_mm", "qty", "material"), make)


def sizes_said(path: Path) -> tuple[str, int]:
    """Whether a list of parts says that its sizes are cut or finished ones (empty: it does not), and how many of its
    rows have edging."""
    said: set[str] = set()

    def edged(values: dict[str, str]) -> bool:
        said.add(values.get("sizes", "").lower())
        return any(v for h, v in values.items() if h.startswith("edge"))

    rows, _ = read_rows(path, (), edged)
    word = said.pop() if len(said) == 1 else ""
    return (word if word in ("cut", "finished") else ""), sum(rows)


def _points(text: str) -> tuple[tuple[float, float], ...]:
    """``0 0; 800 0; 0 400`` as points, mm."""
    if not text.strip():
        return ()
    points = []
    for pair in text.replace(",", " ").split(";"):
        cells = pair.split()
        try:
            x, y = (float(c) for c in cells)
            if not (math.isfinite(x) and math.isfinite(y)):
                raise ValueError
        except ValueError:
            raise ValueError(f"outline “{pair.strip()[:30]}” is no point") from None
        points.append((x, y))
    if len(points) < 3:
        raise ValueError("outline has fewer than three points")
    return tuple(points)


def _inside(outline: Points, length: float, width: float) -> None:
    """Raises ValueError where an outline is larger than the sizes of its part, crosses itself or has no area. mm."""
    x0, y0, x1, y1 = ol.bounds(outline)
    if x1 - x0 > length + ROUNDED or y1 - y0 > width + ROUNDED:
        raise ValueError(f"outline of {x1 - x0:.1f} x {y1 - y0:.1f} is larger than {length:g} x {width:g}")
    if len(outline) > MOST_CORNERS:
        raise ValueError(f"outline has more than {MOST_CORNERS} corners")
    from shapely import Polygon

    if abs(ol.area(outline)) < 1.0 or not Polygon(outline).is_valid:
        raise ValueError("outline crosses itself or has no area")


ROUNDED = 0.5
"""mm that a listed size may be less than its outline: lists are rounded."""

MOST_CORNERS = 1000


def read_boards(path: Path) -> tuple[tuple[NestBoard, ...], tuple[Fault, ...]]:
    """``board,material,length_mm,width_mm,price,qty``; an empty quantity has no limit; ``offcut`` yes where given. The
    boards of a package, a line for each that is cut, are read too: as many of a kind as there are lines."""

    def make(v: dict[str, str]) -> NestBoard:
        if "code" in v and "material" not in v:
            size = _number(v, "length_mm"), _number(v, "width_mm")
            return NestBoard(_name(v, "code"), _name(v, "name"), *size, 0.0, 1)
        price = _number(v, "price") if v.get("price") else 0.0
        qty = _count(v, "qty") if v.get("qty") else None
        offcut = v.get("offcut", "").lower() in ("yes", "true", "1")
        size = _number(v, "length_mm"), _number(v, "width_mm")
        return NestBoard(_name(v, "board"), plain_text(v.get("material", "")), *size, price, qty, offcut)

    found, faults = read_rows(path, ("board", "length_mm", "width_mm"), make, either=("material", "code"))
    found = _together(found)
    seen: set[tuple[str, str]] = set()
    kept = []
    for board in found:
        if (board.board, board.material) in seen:
            faults = (*faults, Fault(f"{path.name}: the board “{board.board}” is there twice; the first one counts"))
            continue
        seen.add((board.board, board.material))
        kept.append(board)
    return tuple(kept), faults


def _together(boards: tuple[NestBoard, ...]) -> tuple[NestBoard, ...]:
    """Boards of a package that are alike, as one line with their number; others as they are."""
    counted: dict[tuple[str, str, float, float], int] = {}
    for b in boards:
        if b.qty == 1 and not b.price and not b.offcut:
            key = (b.board, b.material, b.length, b.width)
            counted[key] = counted.get(key, 0) + 1
    found: list[NestBoard] = []
    for b in boards:
        key = (b.board, b.material, b.length, b.width)
        count = counted.get(key, 0)
        if count > 1:
            if all((o.board, o.material, o.length, o.width) != key for o in found):
                found.append(NestBoard(b.board, b.material, b.length, b.width, 0.0, count))
        else:
            found.append(b)
    return tuple(found)


def read_pieces(path: Path) -> tuple[tuple[BarPiece, ...], tuple[Fault, ...]]:
    """``piece,length_mm,qty,profile``; lengths at the long point."""

    def make(v: dict[str, str]) -> BarPiece:
        return BarPiece(_name(v, "piece"), _number(v, "length_mm"), _count(v, "qty"), plain_text(v.get("profile", "")))

    return read_rows(path, ("piece", "length_mm", "qty"), make)


def read_bar_stock(path: Path) -> tuple[tuple[BarStock, ...], tuple[Fault, ...]]:
    """``profile,length_mm,price``."""

    def make(v: dict[str, str]) -> BarStock:
        price = _number(v, "price") if v.get("price") else 0.0
        return BarStock(plain_text(v.get("profile", "")), _number(v, "length_mm"), price)

    return read_rows(path, ("profile", "length_mm"), make)


# --- documents


def nest_document(plan: NestPlan) -> dict[str, Any]:
    """A cutting plan as the verb writes it."""
    return {
        "boards": [
            {
                "board": b.board, "material": b.material, "length_mm": b.length, "width_mm": b.width,
                "placements": [
                    {"part": p.part, "x": p.x, "y": p.y, "length_mm": p.length, "width_mm": p.width,
                     "turned": p.turned, "angle": p.angle}
                    for p in b.parts
                ],
                "offcuts": [
                    {"x": x, "y": y, "length_mm": length, "width_mm": width} for x, y, length, width in b.offcuts
                ],
                "turns": turns,
            }
            for b, turns in zip(plan.boards, plan.turns or (0,) * len(plan.boards), strict=True)
        ],
        "unplaced": [{"part": u.part, "qty": u.qty, "why": u.why} for u in plan.unplaced],
        "yield": round(plan.used, 6),
        "bound": plan.bound,
        "finished": plan.done,
    }  # fmt: skip


def bars_document(plan: BarPlan) -> dict[str, Any]:
    """Cut bars as the verb writes them."""
    return {
        "bars": [
            {
                "profile": b.profile, "length_mm": b.length, "left_mm": b.left,
                "pieces": [{"piece": name, "length_mm": mm} for name, mm in b.pieces],
            }
            for b in plan.bars
        ],
        "unplaced": [{"piece": u.piece, "qty": u.qty, "why": u.why} for u in plan.unplaced],
        "proven": plan.proven,
        "bound": round(plan.bound, 6),
    }  # fmt: skip


def write_document(document: dict[str, Any], path: Path) -> None:
    """Write a JSON document; the old file stays whole until the new one is."""
    from tall_plank.formats.writing import write_atomic

    write_atomic(path, json.dumps(document, indent=1).encode())

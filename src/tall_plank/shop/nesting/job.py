"""The question that a job asks of the saw: its parts in cut sizes, the boards of its stock with their prices."""

from __future__ import annotations

import re
from collections.abc import Iterable

import msgspec

from tall_plank.making import Cutout, MadeJob, NumberedPart
from tall_plank.making.matching import Matched, match_groups
from tall_plank.measure import PlankError
from tall_plank.measure.outlines import rounded_box
from tall_plank.shop.nesting.request import NestBoard, NestPart, NestRules, Request
from tall_plank.stock import Board, PriceBook, Stock


def board_price(board: Board, book: PriceBook) -> float:
    """What one whole board costs; 0 where the book has no price for it."""
    row = next((r for r in book.rows if r.code == board.code), None)
    if row is None:
        return 0.0
    return float(row.price) * (board.length * board.width * 1e-6 if row.per == "m2" else 1.0)


def makes(stock: Stock) -> dict[str, tuple[Board, ...]]:
    """Code of a board -> all boards of its finish and thickness: what its parts may be cut from."""
    groups: dict[tuple[str, float], list[Board]] = {}
    for board in stock.boards:
        if board.planned:
            groups.setdefault((board.finish, round(board.thickness, 3)), []).append(board)
    return {b.code: tuple(group) for group in groups.values() for b in group}


def offcut_boards(stock: Stock, pieces: Iterable[tuple[int, str, float, float]]) -> tuple[NestBoard, ...]:
    """Offcuts (number on the rack, code of their board, length, width) as boards to cut, free of charge. `pieces`:
    mm."""
    groups = makes(stock)
    return tuple(
        NestBoard(f"{code} rack {number}", groups[code][0].name, length, width, qty=1, offcut=True)
        for number, code, length, width in pieces
        if code in groups
    )


def board_and_rack(name: str) -> tuple[str, int]:
    """Code of a planned board, and its number where it is an offcut from the rack, else 0."""
    found = re.fullmatch(r"(.+) rack (\d+)", name)
    return (found[1], int(found[2])) if found else (name, 0)


def request_of(
    made: MadeJob,
    stock: Stock,
    book: PriceBook,
    rules: NestRules,
    offcuts: tuple[NestBoard, ...] = (),
    matched: Matched = "no",
) -> Request:
    """Every part that is cut from a board, by its number; boards by make, with the offcuts of those makes; fronts in
    rows where their grain is to be matched."""
    groups = makes(stock)
    parts: list[NestPart] = []
    places: list[tuple[bool, str, int]] = []
    rows = match_groups(made, matched)
    used: dict[str, tuple[Board, ...]] = {}
    for item in made.parts():
        group = groups.get(item.part.board)
        if group is not None:
            used[group[0].name] = group
            part = part_of(item, group[0].name, routed=rules.mode == "router")
            row, place, way = rows.get(item.number, ("", 0, "side"))
            parts.append(msgspec.structs.replace(part, match=row, match_way=way))
            places.append((bool(row), row, place))
    boards = [
        NestBoard(b.code, name, b.length, b.width, board_price(b, book)) for name, group in used.items() for b in group
    ]
    boards += [o for o in offcuts if o.material in used]
    # Rows stand in the order in which they are cut; other parts in the job's.
    order = sorted(range(len(parts)), key=places.__getitem__)
    return Request(tuple(parts[i] for i in order), tuple(boards), rules)


def joined(requests: Iterable[tuple[str, Request]]) -> Request:
    """Several jobs in one question: parts of one make lie on the same boards, each named by its job.

    Parameters
    ----------
    requests : name of a job and what it asks; the first one's rules hold

    Raises
    ------
    PlankError where two jobs of one name have a part of the same number, or a make has another size under one code
    """
    parts: dict[str, NestPart] = {}
    boards: dict[str, NestBoard] = {}
    rules: NestRules | None = None
    for job, request in requests:
        rules = rules or request.rules
        for p in request.parts:
            name = f"{job}/{p.part}"
            if name in parts:
                raise PlankError(f"Two jobs are called {job}.", job, "Give one of them another name or number.")
            match = f"{job}/{p.match}" if p.match else ""
            parts[name] = msgspec.structs.replace(p, part=name, match=match)
        for b in request.boards:
            there = boards.setdefault(b.board, b)
            if (there.material, there.length, there.width) != (b.material, b.length, b.width):
                raise PlankError(
                    f"{b.board} is {b.material} {b.length:g} x {b.width:g} in {job}, and not so in another job.",
                    job,
                    "Take the same board into both jobs.",
                )
    return Request(tuple(parts.values()), tuple(boards.values()), rules or NestRules())


def part_of(item: NumberedPart, material: str, *, routed: bool = False) -> NestPart:
    """A part as it is cut: for the router with its outline and openings, moved to its cut size."""
    p = item.part
    plain = NestPart(item.number, p.cut_length, p.cut_width, 1, material, p.grain)
    if not routed:
        return plain
    dx, dy = -p.cut_origin[0], -p.cut_origin[1]
    holes = tuple(
        tuple((x + dx, y + dy) for x, y in rounded_box(op.x, op.y, op.x + op.length, op.y + op.width, op.radius))
        for op in p.operations
        if isinstance(op, Cutout)
    )
    outline = tuple((x + dx, y + dy) for x, y in p.cut_outline)
    return msgspec.structs.replace(plain, outline=outline, holes=holes)

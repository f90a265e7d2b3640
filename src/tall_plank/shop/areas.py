"""Areas and weights by material and by colour: what is pressed, painted, carried (SH2)."""

from __future__ import annotations

import math

import msgspec

from tall_plank.making import Cutout, MadeJob, Part
from tall_plank.measure.outlines import area as polygon_area
from tall_plank.stock import Stock


class AreaRow(msgspec.Struct, frozen=True):
    """One material. Areas m2, lengths m, weight kg.

    Attributes
    ----------
    finish : name of its colour or veneer
    area : finished, of one face; openings left out
    faces : of both faces
    raw_m : edges without edging
    raw : area of those edges
    """

    board: str
    material: str
    finish: str
    thickness: float
    parts: int
    area: float
    faces: float
    raw_m: float
    raw: float
    weight: float


def face_area(part: Part) -> float:
    """Area of one face, mm2: its outline, without what is cut out."""
    whole = abs(polygon_area(part.outline)) if part.outline else part.length * part.width
    return whole - sum(op.length * op.width for op in part.operations if isinstance(op, Cutout))


def raw_edges(part: Part) -> float:
    """mm of edge without edging; openings' edges left out."""
    banded = sum(mm for _, _, mm in part.banded)
    if part.outline:
        corners = part.outline
        whole = sum(math.dist(a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True))
    else:
        whole = 2 * (part.length + part.width)
    return max(0.0, whole - banded)


def area_rows(made: MadeJob, stock: Stock) -> tuple[AreaRow, ...]:
    """Every material that the job has parts of, by colour, then thickness."""
    found: dict[str, list[Part]] = {}
    for item in made.parts():
        found.setdefault(item.part.board, []).append(item.part)
    rows = []
    for code, parts in found.items():
        board = stock.board_by_code(code)
        assert board is not None  # parts are cut from stock only
        finish = stock.finish(board.finish)
        one = sum(face_area(p) for p in parts) * 1e-6
        raw_m = sum(raw_edges(p) for p in parts) / 1000
        rows.append(
            AreaRow(
                code,
                board.name,
                finish.name if finish else board.finish,
                board.thickness,
                len(parts),
                one,
                2 * one,
                raw_m,
                raw_m * board.thickness / 1000,
                sum(p.weight for p in parts),
            )
        )
    return tuple(sorted(rows, key=lambda r: (r.finish, r.thickness, r.board)))

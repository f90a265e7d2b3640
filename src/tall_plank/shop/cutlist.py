"""The cut list: every part with finished and cut sizes, alike ones together."""

from __future__ import annotations

import re
from collections.abc import Iterable

import msgspec

from tall_plank.making import Bevel, Cutout, Edges, NumberedPart, Part, ShapedEdge


class CutRow(msgspec.Struct, frozen=True):
    """Parts that are the same piece of board. Sizes in mm; `numbers` are their part numbers, `weight` kg of all,
    `shapes` what is banded of their outline: name, code, mm."""

    numbers: tuple[str, ...]
    units: tuple[str, ...]
    name: str
    board: str
    material: str
    thickness: float
    length: float
    width: float
    cut_length: float
    cut_width: float
    grain: str
    edges: Edges
    weight: float = 0.0
    shapes: tuple[tuple[str, str, float], ...] = ()

    @property
    def qty(self) -> int:
        return len(self.numbers)

    @property
    def area(self) -> float:
        """Finished area of all of them, m2; an outline goes by the rectangle that it is cut from."""
        return self.qty * self.length * self.width * 1e-6


def natural(text: str) -> tuple[tuple[int, str], ...]:
    """A sort key that puts A2 before A10."""
    return tuple((int(p), "") if p.isdigit() else (-1, p) for p in re.split(r"(\d+)", text) if p)


def shape_note(part: Part) -> str:
    """What has to be done to a part besides cutting it to size, for its line of the list."""
    notes = []
    if part.outline:
        notes.append("shaped")
    if part.bend:
        notes.append(f"bent to R {abs(part.bend):.0f}")
    holes = sum(isinstance(op, Cutout) for op in part.operations)
    if holes:
        notes.append(f"{holes} cut-out" + ("s" if holes > 1 else ""))
    edges = sorted({op.profile for op in part.operations if isinstance(op, ShapedEdge)})
    notes += [f"edges {name}" for name in edges]
    notes += [bevel_words(op) for op in part.operations if isinstance(op, Bevel)]
    return f" ({', '.join(notes)})" if notes else ""


def bevel_words(op: Bevel) -> str:
    """A slanted cut as it is told to who makes it."""
    return f"{op.edge} cut at {op.angle:g}°, long at face {op.long}"


def rows_of(parts: Iterable[NumberedPart]) -> tuple[CutRow, ...]:
    """Some parts as a cut list, by material, then larger pieces first. Parts differ if their holes differ."""
    groups: dict[tuple[object, ...], list[NumberedPart]] = {}
    for item in parts:
        p = item.part
        name = re.sub(r" \d+", "", p.name) + shape_note(p)
        key: tuple[object, ...] = (
            p.board,
            name,
            p.length,
            p.width,
            p.cut_length,
            p.cut_width,
            p.edges,
            p.operations,
            p.outline,
            p.banded_shapes,
        )
        groups.setdefault(key, []).append(item)
    rows = []
    for found, items in groups.items():
        p = items[0].part
        rows.append(
            CutRow(
                numbers=tuple(sorted((i.number for i in items), key=natural)),
                units=tuple(sorted({i.unit for i in items}, key=natural)),
                name=str(found[1]),
                board=p.board,
                material=p.material,
                thickness=p.thickness,
                length=p.length,
                width=p.width,
                cut_length=p.cut_length,
                cut_width=p.cut_width,
                grain=p.grain,
                edges=p.edges,
                weight=sum(i.part.weight for i in items),
                shapes=p.banded_shapes,
            )
        )
    return tuple(sorted(rows, key=lambda r: (r.material, -r.length * r.width, natural(r.numbers[0]))))

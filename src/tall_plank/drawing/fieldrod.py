"""Rods of wall fields: the numbered pieces of a field, and where they begin and end as running figures from its left
end and from the floor (common practice)."""

from __future__ import annotations

from collections.abc import Iterable

from tall_plank.drawing.primitives import Drawing, Item, Layer, Line, Pen, Shape, Text
from tall_plank.drawing.rod import Row, rod_row
from tall_plank.drawing.sheets import SCALES
from tall_plank.drawing.things.wall_field import outline_on_wall
from tall_plank.job import Job, Kind
from tall_plank.making import MadeJob, MadeTrim
from tall_plank.measure import format_length
from tall_plank.measure import outlines as ol
from tall_plank.setout import RoomLayout
from tall_plank.setout.paneling.fields import FieldLaid

WIDE, HIGH = 165.0, 125.0
"""mm of paper that a rod and the picture of its pieces may take."""

MOST = 36
"""Pieces in a row of a rod; more go on in a row of their own."""

SIZE = 1.8

Box = tuple[float, float, float, float]


def field_rods(job: Job, room: RoomLayout, laid: FieldLaid, made: MadeJob) -> list[Drawing]:
    """The rods of a wall field: its numbered pieces, what runs along it, its heights; none where nothing is made."""
    source = Kind.WALL_FIELD.of(laid.field.id)
    trims = [t for t in made.trims if t.source == source and t.part is not None]
    if not trims:
        return []
    seen = [t for t in trims if t.part is not None and t.part.role != "batten"]
    name = f"{room.room.name}, wall field {laid.field.name}"
    line = room.wall(laid.wall_id)
    mark = f"N{line.mark}{laid.number}"
    scale = _scale(laid.width, laid.height)
    pieces = _pieces(seen, laid, scale)
    found = [Drawing(f"{name}, pieces", tuple(pieces), 0.0, laid.z0, laid.width, laid.z1, mark, scale)]
    level, upright = _rows(trims, laid)
    datum = f"{format_length(laid.x0, job.display, mark=True)} along {line.title}"
    for rows, words, letter in ((level, f"from {datum}", "R"), (upright, "from the floor", "H")):
        if not rows:
            continue
        longest = laid.width if rows is level else max(row.spans[-1][1] for row in rows)
        scale = _scale(longest, 0.0)
        items: list[Item] = []
        y = 0.0
        for row in rows:
            named = tuple((a, b, number if b - a > 4.0 * scale else "") for a, b, number in row.spans)
            end = longest if rows is level else row.spans[-1][1]
            y = rod_row(job, items, Row(row.name, named), y, scale, end, source)
        found.append(Drawing(f"{name}, rod {words}", tuple(items), 0.0, y, longest, 0.0, f"{mark}{letter}", scale))
    return found


def _scale(wide: float, high: float) -> float:
    """The largest standard scale at which something fits; mm."""
    return float(next((s for s in SCALES if wide / s <= WIDE and high / s <= HIGH), SCALES[-1]))


def _pieces(seen: list[MadeTrim], laid: FieldLaid, scale: float) -> list[Item]:
    """Every piece from the left end of the field, those nearer to the wall first, with its number where it has room."""
    items: list[Item] = []
    texts: list[Item] = []
    source = Kind.WALL_FIELD.of(laid.field.id)
    told: set[str] = set()
    for trim in sorted(seen, key=lambda t: t.part.thickness - t.part.frame.origin[1] if t.part is not None else 0.0):
        assert trim.part is not None
        points = tuple((x - laid.x0, z) for x, z in outline_on_wall(trim.part))
        items.append(Shape(points, Pen.NARROW, Layer.CARCASS, source, "floor"))
        number = _short(trim)
        x0, z0, x1, z1 = ol.bounds(points)
        upright = x1 - x0 < 9.0 * scale
        if upright and x1 - x0 < 2.4 * scale and number in told:
            continue
        told.add(number)
        angle = 90.0 if upright else 0.0
        if abs(ol.area(points)) < 0.95 * (x1 - x0) * (z1 - z0):
            # Of what leans or is cut to a shape the middle of its corners lies in it, the foot of its box does not.
            at = (sum(x for x, _ in points) / len(points), sum(z for _, z in points) / len(points))
        else:
            # What covers a board hides the number in its middle: it stands a little above its foot.
            at = ((x0 + x1) / 2, z0 + min((z1 - z0) / 2, 8.0 * scale))
        texts.append(Text(*at, number, SIZE, Layer.LABEL, source, angle=angle, rise=-0.9, backed=True))
    items += texts
    items.append(Line(0.0, laid.z0, laid.width, laid.z0, Pen.WIDE, Layer.WALL))
    return items


def _rows(trims: list[MadeTrim], laid: FieldLaid) -> tuple[list[Row], list[Row]]:
    """Running figures along: boards, then frames, panels and slats; and upright: the same, and battens."""
    along: list[Row] = []
    up: list[Row] = []
    # What rises along a stair has a height of its own at every place: it is told below at the left side of each stile.
    rakes = any(s.rake for zone in laid.zones for s in zone.stretches)
    for role, word in WORDS.items():
        mine = [t for t in trims if t.part is not None and t.part.role == role]
        boxes = [(_box(t, laid), _short(t)) for t in mine]
        if boxes and role != "wall rail":
            spans = _spans((b[0], b[2], number) for b, number in boxes)
            parts = -(-len(spans) // MOST)
            each = -(-len(spans) // parts)
            for i in range(parts):
                own = spans[i * each : (i + 1) * each]
                along.append(Row(word if i == 0 else f"{word}, going on", own))
        if boxes and role in ("wall rail", "wall panel", "wall board") and not rakes:
            up.append(Row(f"{word}, heights", _spans((b[1], b[3], "") for b, _ in boxes)))
    for edge, word in ((0, "stiles, left side, from"), (1, "stiles, left side, to")):
        marks = _left_sides(trims, laid, edge) if rakes else ()
        if marks:
            up.append(Row(word, marks))
    battens = [_box(t, laid) for t in trims if t.part is not None and t.part.role == "batten"]
    if battens:
        up.append(Row("battens, heights", _spans((b[1], b[3], "") for b in battens)))
    return along, up


WORDS = {
    "wall board": "boards", "wall stile": "stiles", "wall rail": "rails", "wall panel": "panels", "slat": "slats",
}  # fmt: skip
"""What pieces are called on a rod, by their role."""


def _left_sides(trims: list[MadeTrim], laid: FieldLaid, edge: int) -> tuple[tuple[float, float, str], ...]:
    """Heights at which the left sides of stiles begin (0) or end (1), from the floor, each with the piece's number."""
    found = []
    for t in trims:
        if t.part is not None and t.part.role == "wall stile":
            points = outline_on_wall(t.part)
            left = min(x for x, _ in points)
            heights = sorted(z for x, z in points if abs(x - left) < 0.01)
            found.append((heights[0] if edge == 0 else heights[-1], _short(t)))
    marks = sorted({round(z, 2): number for z, number in found}.items())
    ends = [0.0, *(z for z, _ in marks)]
    names = ["", *(number for _, number in marks)]
    return tuple((a, b, name) for a, b, name in zip(ends, ends[1:], names[1:], strict=False) if b - a > 0.01)


def _short(trim: MadeTrim) -> str:
    """The number of a piece in its field; alike ones share it."""
    return trim.number.partition(".")[2].partition("-")[0]


def _box(trim: MadeTrim, laid: FieldLaid) -> Box:
    assert trim.part is not None
    x0, z0, x1, z1 = ol.bounds(outline_on_wall(trim.part))
    return (x0 - laid.x0, z0, x1 - laid.x0, z1)


def _spans(rows: Iterable[tuple[float, float, str]]) -> tuple[tuple[float, float, str], ...]:
    """Each stretch once, from the left; what lies over one another keeps the first name."""
    found: dict[tuple[float, float], str] = {}
    for a, b, name in rows:
        found.setdefault((round(a, 2), round(b, 2)), name)
    return tuple((a, b, name) for (a, b), name in sorted(found.items()))

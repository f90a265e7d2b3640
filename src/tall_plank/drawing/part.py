"""A part with all that is machined into it: both faces, its edges unfolded about the first one, every place
dimensioned. Face A is drawn with x to the right and y up; face B as it shows when the part is turned over its long
edge."""

from __future__ import annotations

import math
from collections.abc import Sequence

from tall_plank.drawing.partdims import edge_dims, face_dims, patterns, worked_edges
from tall_plank.drawing.partwords import legend as words_of
from tall_plank.drawing.primitives import Arc, Drawing, Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.drawing.sheets import SCALES
from tall_plank.making.parts import EDGE_NAMES, Bevel, Bore, Cutout, Groove, Part, Rebate
from tall_plank.measure import DisplayUnit
from tall_plank.measure.frames import Vec

GAP = 7.0
"""mm of paper between a face and the edges unfolded beside it."""

LONGEST = 150.0
"""mm of paper that a part is drawn long at the most where no scale is asked for."""


def usual_scale(part: Part) -> float:
    """The largest standard scale at which a part has room on a sheet beside its legend."""
    size = max(part.length, part.width * 1.4)
    return float(next((s for s in SCALES if size / s <= LONGEST), SCALES[-1]))


def part_drawing(
    number: str,
    part: Part,
    display: DisplayUnit,
    faults: Sequence[Vec] = (),
    *,
    legend: bool = True,
    scale: float = 0.0,
    alike: Sequence[str] = (),
) -> Drawing:
    """Both faces of a part with its edges, its operations and their dimensions.

    Parameters
    ----------
    legend : whether what it is of and what is done to it is written beside it
    faults : places in the part's own frame at which it cannot be put together, mm; they are ringed
    scale : real mm per mm of paper that it is drawn for; 0: the usual one of its size
    alike : numbers of parts that are the same piece
    """
    scale = scale or usual_scale(part)
    display = display.exact
    gap = GAP * scale
    items: list[Item] = []
    faces = _used_faces(part)
    top = 0.0
    low = 0.0
    for face in faces:
        y0 = top - part.width if face == "B" else 0.0
        items += _face(part, face, y0, gap, display)
        low = min(low, y0)
        # Room for the chains below it, and the other face's name.
        top = y0 - (len(patterns(part, face)) * 8.0 + 26.0) * scale - part.thickness - gap
    items += [Arc(x, y, 2.4 * scale, 0.0, 360.0, Pen.WIDE, Layer.LABEL) for x, y, _ in faults]
    items += _edges(part, gap)
    for edge in worked_edges(part):
        items += edge_dims(part, edge, gap, display)
    beyond = gap + part.thickness
    # Clear of the chain along the unfolded end.
    x = part.length + beyond + (18.0 if "W2" in worked_edges(part) else 3.0) * scale
    words = words_of(part, display, (number, *alike) if alike else ()) if legend else ()
    for i, text in enumerate(words):
        items.append(Text(x, part.width, text, 1.8, Layer.LABEL, align="left", rise=-3.4 * i, bold=i == 0))
    return Drawing(
        f"{number} {part.name}" + (f" (× {len(alike) + 1})" if alike else ""),
        tuple(items),
        -beyond,
        low,
        part.length + beyond,
        part.width + beyond,
        number,
        scale,
    )


def _used_faces(part: Part) -> tuple[str, ...]:
    """Face A always; face B where something is machined into it."""
    on_b = any(getattr(op, "face", "") == "B" for op in part.operations)
    return ("A", "B") if on_b else ("A",)


def _face(part: Part, face: str, y0: float, gap: float, display: DisplayUnit) -> list[Item]:
    """One face at a height of the drawing, with dimension chains below and at its left."""
    length, width = part.length, part.width

    def y_of(y: float) -> float:
        return y0 + (y if face == "A" else width - y)

    outline = part.outline or rectangle(0.0, 0.0, length, width)
    items: list[Item] = [
        Shape(tuple((x, y_of(y)) for x, y in outline), Pen.MEDIUM, Layer.CARCASS, None, "floor"),
        Text(0.0, y0 + width, _face_name(part, face), 2.4, Layer.LABEL, align="left", bold=True, rise=2.4),
    ]
    items += _outline_bands(part, y_of) if part.outline else _bands(part, y_of)
    items += _side_names(part, y_of, gap)
    items += [_bevel(part, op, face, y_of) for op in part.operations if isinstance(op, Bevel)]
    for op in part.operations:
        if isinstance(op, Cutout):
            points = rectangle(op.x, op.y, op.length, op.width)
            items.append(Shape(tuple((x, y_of(y)) for x, y in points), Pen.NARROW, Layer.APPLIANCE, None, "basin"))
        elif isinstance(op, Rebate) and op.face == face:
            items.append(_rebate(part, op, y_of))
        elif isinstance(op, Groove) and op.face == face:
            items.append(_groove(op, y_of))
        elif isinstance(op, Bore) and (op.face == face or (op.through and op.face in ("A", "B"))):
            items += _hole(op, op.x, y_of(op.y))
    worked = worked_edges(part) if face == "A" else ()
    # Beyond the edges that are unfolded on these sides, and their own chains.
    below = y0 - (part.thickness + gap if "L1" in worked else 0.0)
    left = -(part.thickness + gap) if "W1" in worked else 0.0
    first = (-2 if "L1" in worked else -1, -2 if "W1" in worked else -1)
    return [*items, *face_dims(part, face, y_of, (below, left), first, display)]


def _face_name(part: Part, face: str) -> str:
    if part.role == "worktop":
        return "face A, the upper side" if face == "A" else "face B, the underside, turned over"
    if part.role == "waterfall leg":
        return f"face {face}" + ("" if face == "A" else ", turned over")
    if face == "A":
        return "face A, looks into the unit" if not part.role.startswith("front") else "face A, the back"
    return "face B, turned over"


def _bands(part: Part, y_of) -> list[Item]:  # type: ignore[no-untyped-def]
    """Banded edges: a wide line outside the edge and two ticks across its middle, so that they show in any print."""
    length, width, away = part.length, part.width, 7.0
    sides = {
        "L1": ((0.0, -away), (length, -away)), "L2": ((0.0, width + away), (length, width + away)),
        "W1": ((-away, 0.0), (-away, width)), "W2": ((length + away, 0.0), (length + away, width)),
    }  # fmt: skip
    items: list[Item] = []
    for name, code in zip(EDGE_NAMES, part.edges, strict=True):
        if not code:
            continue
        (ax, ay), (bx, by) = sides[name]
        ay, by = y_of(ay), y_of(by)
        items.append(Line(ax, ay, bx, by, Pen.WIDE, Layer.TRIM))
        mx, my = (ax + bx) / 2, (ay + by) / 2
        for shift in (-6.0, 6.0):
            if name in ("L1", "L2"):
                items.append(Line(mx + shift, my - 10.0, mx + shift, my + 10.0, Pen.MEDIUM, Layer.TRIM))
            else:
                items.append(Line(mx - 10.0, my + shift, mx + 10.0, my + shift, Pen.MEDIUM, Layer.TRIM))
    return items


def _side_names(part: Part, y_of, gap: float) -> list[Item]:  # type: ignore[no-untyped-def]
    """The names of the four sides, inside them, and which of them is the front, the top or the left one as the part
    stands in its unit."""
    length, width = part.length, part.width
    # Inside of what is cut at a slant.
    away = gap * 0.4 + (part.thickness if any(isinstance(op, Bevel) for op in part.operations) else 0.0)
    places = {
        "L1": (length / 2, away), "L2": (length / 2, width - away), "W1": (away, width / 2),
        "W2": (length - away, width / 2),
    }  # fmt: skip
    sides = sides_of(part)
    items: list[Item] = []
    for name, (x, y) in places.items():
        words = f"{name}, {sides[name]}" if name in sides else name
        angle = 90.0 if name in ("W1", "W2") else 0.0
        items.append(Text(x, y_of(y), words, 1.8, Layer.LABEL, quiet=True, angle=angle, rise=-0.9))
    return items


WAYS = {(0, -1): "left", (1, -1): "front", (2, 1): "top"}
"""Ways in the frame that a part stands in, by axis and sign, that are written on its drawing."""


def sides_of(part: Part) -> dict[str, str]:
    """Which edges of a part are the front, the top or the left one as it stands: edge -> word."""
    found = {}
    for edge in EDGE_NAMES:
        way = part.inwards(edge)  # type: ignore[arg-type]
        for (axis, sign), word in WAYS.items():
            if -way[axis] * sign > 0.9:
                found[edge] = word
    return found


def _outline_bands(part: Part, y_of) -> list[Item]:  # type: ignore[no-untyped-def]
    """Banded edges of an outline: a wide line outside each, and the names of those that are neither L nor W."""
    items: list[Item] = []
    edges = part.named_edges()
    names = [name for name, _, _ in edges]
    # A curve is one edge: its name stands at its middle.
    middles = {(names.index(name) + len(names) - 1 - names[::-1].index(name)) // 2 for name in names}
    for i, ((name, p, q), code) in enumerate(zip(edges, part.outline_edges, strict=False)):
        size = math.dist(p, q)
        if not code or size < 1.0:
            continue
        nx, ny = 7.0 * (q[1] - p[1]) / size, -7.0 * (q[0] - p[0]) / size
        items.append(Line(p[0] + nx, y_of(p[1] + ny), q[0] + nx, y_of(q[1] + ny), Pen.WIDE, Layer.TRIM))
        if name.startswith("S") and i in middles:
            x, y = (p[0] + q[0]) / 2 - 6.0 * nx, (p[1] + q[1]) / 2 - 6.0 * ny
            items.append(Text(x, y_of(y), name, 2.0, Layer.LABEL, quiet=True))
    return items


def _bevel(part: Part, op: Bevel, face: str, y_of) -> Line:  # type: ignore[no-untyped-def]
    """The inner edge of a slanted cut: seen on the face that becomes shorter, hidden on the other one."""
    cut = part.thickness * math.tan(math.radians(op.angle))
    length, width = part.length, part.width
    (ax, ay), (bx, by) = {
        "L1": ((0.0, cut), (length, cut)), "L2": ((0.0, width - cut), (length, width - cut)),
        "W1": ((cut, 0.0), (cut, width)), "W2": ((length - cut, 0.0), (length - cut, width)),
    }[op.edge]  # fmt: skip
    hidden = face == op.long
    return Line(ax, y_of(ay), bx, y_of(by), Pen.DASHED if hidden else Pen.NARROW, Layer.CARCASS)


def _rebate(part: Part, op: Rebate, y_of) -> Shape:  # type: ignore[no-untyped-def]
    length, width, w = part.length, part.width, op.width
    boxes = {
        "L1": (0.0, 0.0, length, w), "L2": (0.0, width - w, length, w), "W1": (0.0, 0.0, w, width),
        "W2": (length - w, 0.0, w, width),
    }  # fmt: skip
    points = rectangle(*boxes[op.edge])
    return Shape(tuple((x, y_of(y)) for x, y in points), Pen.NARROW, Layer.APPLIANCE, None, "niche")


def _groove(op: Groove, y_of) -> Shape:  # type: ignore[no-untyped-def]
    dx, dy = op.x2 - op.x1, op.y2 - op.y1
    size = (dx * dx + dy * dy) ** 0.5 or 1.0
    nx, ny = -dy / size * op.width / 2, dx / size * op.width / 2
    points = (
        (op.x1 + nx, op.y1 + ny), (op.x1 - nx, op.y1 - ny), (op.x2 - nx, op.y2 - ny), (op.x2 + nx, op.y2 + ny),
    )  # fmt: skip
    return Shape(tuple((x, y_of(y)) for x, y in points), Pen.NARROW, Layer.APPLIANCE, None, "niche")


def _hole(op: Bore, x: float, y: float) -> list[Item]:
    """A circle with its centre; a hole right through has a cross in it."""
    r = op.diameter / 2
    items: list[Item] = [Arc(x, y, r, 0.0, 360.0, Pen.MEDIUM, Layer.APPLIANCE)]
    reach = r if op.through else r * 0.35
    items.append(Line(x - reach, y, x + reach, y, Pen.NARROW, Layer.APPLIANCE))
    items.append(Line(x, y - reach, x, y + reach, Pen.NARROW, Layer.APPLIANCE))
    return items


def _edges(part: Part, gap: float) -> list[Item]:
    """The edges with holes or grooves, unfolded beside face A."""
    length, width, t = part.length, part.width, part.thickness
    places = {"L1": (0.0, -gap - t), "L2": (0.0, width + gap), "W1": (-gap - t, 0.0), "W2": (length + gap, 0.0)}
    items: list[Item] = []
    for name in worked_edges(part):
        ops = [op for op in part.operations if getattr(op, "face", "") == name]
        x0, y0 = places[name]
        along = name in ("L1", "L2")
        size = (length, t) if along else (t, width)
        items.append(Shape(rectangle(x0, y0, *size), Pen.NARROW, Layer.CARCASS, None, "floor"))

        def at(u: float, z: float, name: str = name, x0: float = x0, y0: float = y0) -> tuple[float, float]:
            # Unfolded: the side towards face A is A's upper surface.
            if name == "L1":
                return (u, y0 + z)
            if name == "L2":
                return (u, y0 + t - z)
            return (x0 + z, u) if name == "W1" else (x0 + t - z, u)

        for op in ops:
            if isinstance(op, Bore):
                items += _hole(op, *at(op.x, op.y))
            elif isinstance(op, Groove):
                half = op.width / 2
                (ax, ay), (bx, by) = at(op.x1, op.y1 - half), at(op.x2, op.y2 + half)
                box = rectangle(min(ax, bx), min(ay, by), abs(bx - ax), abs(by - ay))
                items.append(Shape(box, Pen.NARROW, Layer.APPLIANCE, None, "niche"))
        middle = (x0 + size[0] / 2, y0 + size[1])
        items.append(Text(*middle, name, 1.8, Layer.LABEL, quiet=True, rise=1.0))
    return items

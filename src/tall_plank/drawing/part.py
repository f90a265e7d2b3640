"""A part with all that is machined into it: both faces, its edges unfolded about the first one, every place
dimensioned. Face A is drawn with x to the right and y up; face B as it shows when the part is turned over its long
edge."""

from __future__ import annotations

import itertools
import math
from collections import Counter
from collections.abc import Sequence

from tall_plank.drawing.primitives import Arc, Dim, Drawing, Item, Layer, Line, Pen, Shape, Text, rectangle
from tall_plank.making.parts import EDGE_NAMES, Bevel, Bore, Cutout, Groove, Operation, Part, Rebate
from tall_plank.measure import DisplayUnit, format_length
from tall_plank.measure.frames import Vec

GAP = 90.0
"""mm between a face and the edges unfolded beside it."""

BETWEEN = 420.0
"""mm between the two faces."""


def part_drawing(
    number: str, part: Part, display: DisplayUnit, faults: Sequence[Vec] = (), *, legend: bool = True
) -> Drawing:
    """Both faces of a part with its edges, its operations and their dimensions.

    Parameters
    ----------
    legend : whether what it is of and what is done to it is written beside it
    faults : places in the part's own frame at which it cannot be put together, mm; they are ringed
    """
    items: list[Item] = []
    faces = _used_faces(part)
    top = 0.0
    low = 0.0
    for face in faces:
        y0 = top - part.width if face == "B" else 0.0
        items += _face(part, face, y0, display)
        low = min(low, y0)
        # A long part is drawn smaller, so that its figures take more of its own mm.
        top = y0 - max(BETWEEN, part.length * 0.28) - part.thickness
    items += [Arc(x, y, FAULT_RING, 0.0, 360.0, Pen.WIDE, Layer.LABEL) for x, y, _ in faults]
    items += _edges(part)
    items += _edge_places(part, display)
    x = part.length + GAP + part.thickness
    # Spaces keep it clear on paper, at any scale, of the dimensions along an unfolded end.
    clear = " " * (24 if any(getattr(op, "face", "") in ("W1", "W2") for op in part.operations) else 6)
    for i, text in enumerate(_legend(part, display) if legend else ()):
        words = clear + text
        items.append(Text(x, part.width, words, 2.2, Layer.LABEL, align="left", rise=-4.6 * i, quiet=i > 0))
    return Drawing(
        f"{number} {part.name}",
        tuple(items),
        -GAP - part.thickness,
        low,
        part.length + GAP + part.thickness,
        part.width + GAP + part.thickness,
        number,
    )


FAULT_RING = 28.0
"""mm; radius of the ring round a fault."""


def _used_faces(part: Part) -> tuple[str, ...]:
    """Face A always; face B where something is machined into it."""
    on_b = any(getattr(op, "face", "") == "B" for op in part.operations)
    return ("A", "B") if on_b else ("A",)


def _face(part: Part, face: str, y0: float, display: DisplayUnit) -> list[Item]:
    """One face at a height of the drawing, with dimension chains below and at its left."""
    length, width = part.length, part.width

    def y_of(y: float) -> float:
        return y0 + (y if face == "A" else width - y)

    outline = part.outline or rectangle(0.0, 0.0, length, width)
    items: list[Item] = [
        Shape(tuple((x, y_of(y)) for x, y in outline), Pen.MEDIUM, Layer.CARCASS, None, "floor"),
        Text(0.0, y0 + width, _face_name(part, face), 2.4, Layer.LABEL, align="left", bold=True, rise=5.0),
    ]
    items += _outline_bands(part, y_of) if part.outline else _bands(part, y_of)
    if part.role in ("worktop", "waterfall leg"):
        items += _side_names(part, y_of)
    items += [_bevel(part, op, face, y_of) for op in part.operations if isinstance(op, Bevel)]
    xs, ys = {0.0, length}, {0.0, width}
    if part.role == "worktop":
        xs |= {x for x, _ in part.outline}
        ys |= {y for _, y in part.outline}
    for op in part.operations:
        if isinstance(op, Cutout):
            points = rectangle(op.x, op.y, op.length, op.width)
            items.append(Shape(tuple((x, y_of(y)) for x, y in points), Pen.NARROW, Layer.APPLIANCE, None, "basin"))
            xs |= {op.x, op.x + op.length}
            ys |= {op.y, op.y + op.width}
        elif isinstance(op, Rebate) and op.face == face:
            items.append(_rebate(part, op, y_of))
        elif isinstance(op, Groove) and op.face == face:
            items.append(_groove(op, y_of))
            level = abs(op.x2 - op.x1) > abs(op.y2 - op.y1)
            ys |= {op.y1} if level else set()
            xs |= set() if level else {op.x1}
        elif isinstance(op, Bore) and (op.face == face or (op.through and op.face in ("A", "B"))):
            items += _hole(op, op.x, y_of(op.y))
            xs.add(op.x)
            ys.add(op.y)
    ahead = sorted(y_of(y) for y in ys)
    # Clear of the edges that are unfolded on this side.
    under = any(getattr(op, "face", "") == "L1" for op in part.operations) and face == "A"
    beside = any(getattr(op, "face", "") == "W1" for op in part.operations) and face == "A"
    for places, base, along in (
        (sorted(xs), y0 - (part.thickness + GAP if under else 0.0), "x"),
        (ahead, -(part.thickness + GAP) if beside else 0.0, "y"),
    ):
        chain = _chain(places, base, -1, along, display)
        items += chain if len(chain) > 1 else []
        # Figures beside an upright chain reach out further than those under a level one.
        row = (-2 if along == "x" else -3) if len(chain) > 1 else -1
        low, high = places[0], places[-1]
        items.append(Dim(low, high, base, row, along, format_length(high - low, display)))  # type: ignore[arg-type]
    return items


def _edge_places(part: Part, display: DisplayUnit) -> list[Item]:
    """Where holes and grooves lie along the unfolded edges: above the upper edge, at the right of the right end."""
    xs: set[float] = set()
    ys: set[float] = set()
    for op in part.operations:
        if isinstance(op, Bore | Groove) and op.face in EDGE_NAMES:
            along = xs if op.face in ("L1", "L2") else ys
            along |= {op.x} if isinstance(op, Bore) else {op.x1, op.x2}
    items: list[Item] = []
    if xs:
        items += _chain(sorted({0.0, *xs, part.length}), part.width + GAP + part.thickness, 1, "x", display)
    if ys:
        items += _chain(sorted({0.0, *ys, part.width}), part.length + GAP + part.thickness, 1, "y", display)
    return items


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


def _side_names(part: Part, y_of) -> list[Item]:  # type: ignore[no-untyped-def]
    """The names of the four sides, inside them: which edge is the front one is not seen from the board."""
    length, width = part.length, part.width
    # Inside of what is cut at a slant.
    away = 30.0 + (part.thickness if any(isinstance(op, Bevel) for op in part.operations) else 0.0)
    places = {
        "L1": (length / 2, away), "L2": (length / 2, width - away), "W1": (away, width / 2),
        "W2": (length - away, width / 2),
    }  # fmt: skip
    words = {"L1": "L1, front", "L2": "L2"} if part.role == "worktop" else {}
    return [Text(x, y_of(y), words.get(name, name), 2.0, Layer.LABEL, quiet=True) for name, (x, y) in places.items()]


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


def _edges(part: Part) -> list[Item]:
    """The edges with holes or grooves, unfolded beside face A, with where each lies across the thickness."""
    length, width, t = part.length, part.width, part.thickness
    places = {"L1": (0.0, -GAP - t), "L2": (0.0, width + GAP), "W1": (-GAP - t, 0.0), "W2": (length + GAP, 0.0)}
    items: list[Item] = []
    for name in EDGE_NAMES:
        ops = [op for op in part.operations if getattr(op, "face", "") == name]
        if not ops:
            continue
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
        items.append(Text(*middle, name, 2.0, Layer.LABEL, quiet=True, rise=1.2))
    return items


def _chain(places: Sequence[float], base: float, row: int, along: str, display: DisplayUnit) -> list[Item]:
    """Dimensions from place to place; three or more equal steps in a row are one dimension: 12 × 32."""
    cleaned = _parted(places)
    steps = [b - a for a, b in itertools.pairwise(cleaned)]
    items: list[Item] = []
    i = 0
    while i < len(steps):
        k = i
        while k + 1 < len(steps) and abs(steps[k + 1] - steps[i]) < 0.05:
            k += 1
        count = k - i + 1
        text = format_length(steps[i], display)
        if count >= 3:
            items.append(Dim(cleaned[i], cleaned[k + 1], base, row, along, f"{count} × {text}"))  # type: ignore[arg-type]
            i = k + 1
        else:
            items.append(Dim(cleaned[i], cleaned[i + 1], base, row, along, text))  # type: ignore[arg-type]
            i += 1
    return items


LEAST_STEP = 0.024
"""Share of the whole below which two places are shown as one: their figures would lie over one another. The legend
says where every row of holes is."""


def _parted(places: Sequence[float]) -> list[float]:
    """Places far enough from one another to be dimensioned; the first and the last always stay, and so do rows of
    three equal steps or more, which are one figure."""
    places = [p for i, p in enumerate(places) if i == 0 or p - places[i - 1] > 0.05]
    if len(places) < 3:
        return places
    in_row: set[float] = set()
    for i in range(len(places) - 3):
        a, b, c, d = places[i : i + 4]
        if abs((b - a) - (c - b)) < 0.05 and abs((c - b) - (d - c)) < 0.05:
            in_row |= {a, b, c, d}
    least = (places[-1] - places[0]) * LEAST_STEP
    kept = [places[0]]
    for i, place in enumerate(places[1:-1], 1):
        ahead = next((p for p in places[i + 1 :] if p in in_row), places[-1])
        if place in in_row or (place - kept[-1] > least and min(ahead, places[-1]) - place > least):
            kept.append(place)
    return [*kept, places[-1]]


def operation_words(op: Operation, display: DisplayUnit) -> str:
    """An operation in words, without its place."""

    def mm(value: float) -> str:
        return format_length(value, display)

    match op:
        case Bore():
            # Drills are bought and set in mm, whatever the job shows lengths in.
            unit = "" if display is DisplayUnit.MM else " mm"
            deep = "through" if op.through else f"{op.depth:g}{unit} deep"
            slant = f", slanted {op.slant:g}°" if op.slant else ""
            return f"hole ø {op.diameter:g}{unit}, {deep}{slant}: {op.use}"
        case Groove():
            return f"groove {mm(op.width)} wide, {mm(op.depth)} deep: {op.over}"
        case Rebate():
            return f"rebate {mm(op.width)} x {mm(op.depth)} along {op.edge}"
        case Cutout():
            return f"cut-out {mm(op.length)} x {mm(op.width)}"
        case Bevel():
            return f"{op.edge} cut at {op.angle:g}° from square, long at face {op.long}"
        case _:
            return f"edge {op.edge} worked: {op.profile}"


EDGES_A_LINE = 4
"""Banded edges on one line of a legend."""


def _legend(part: Part, display: DisplayUnit) -> list[str]:
    """What is machined, each kind with its number and the faces that it is on, and the part's make-up."""
    counts: Counter[tuple[str, str]] = Counter(
        (operation_words(op, display), getattr(op, "face", "")) for op in part.operations
    )
    grain = "grain along the length" if part.grain == "length" else "no grain"
    size = " x ".join(format_length(v, display) for v in (part.length, part.width, part.thickness))
    lines = [f"{part.material}, {size}, {grain}"]
    whole = {"L1": part.length, "L2": part.length, "W1": part.width, "W2": part.width}
    bands = [
        f"{name} {code}" if abs(mm - whole.get(name, 0.0)) < 0.05 else f"{name} {code} {format_length(mm, display)}"
        for name, code, mm in part.banded
    ]
    if bands:
        # As many to a line as are read at a glance.
        lines += [
            ("edged: " if i == 0 else "") + ", ".join(bands[i : i + EDGES_A_LINE])
            for i in range(0, len(bands), EDGES_A_LINE)
        ]
    if part.fixed:
        lines.append(f"fixed: {part.fixed}")
    for (words, face), n in sorted(counts.items()):
        line = f"{n} on {face}: {words}" if face else words
        rows = _rows(part, words, face, display)
        lines.append(f"{line}{rows}")
    return lines


def _rows(part: Part, words: str, face: str, display: DisplayUnit) -> str:
    """From the edge L1, where the rows of one kind of hole in a face lie; nothing for more than four."""
    bores = [op for op in part.operations if isinstance(op, Bore) and op.face == face]
    ys = sorted({round(op.y, 2) for op in bores if operation_words(op, display) == words})
    if face not in ("A", "B") or not 0 < len(ys) <= 4:
        return ""
    return " at " + ", ".join(format_length(y, display) for y in ys) + " from L1"

"""Making a kind of one's own: its parts in their places, joined where they meet, with its fronts, holes and items."""

from __future__ import annotations

from tall_plank.job import Bay, Front
from tall_plank.job.build import MOST_OF_ONE, MOST_PARTS, BuildPart, Values, with_parameters
from tall_plank.job.standard import LENGTH_KEYS
from tall_plank.making.bayset import BayBox, BaySet, Rect
from tall_plank.making.builder import Builder
from tall_plank.making.drawers import make_drawers
from tall_plank.making.fronts import make_fronts
from tall_plank.making.joints import join, tongue
from tall_plank.making.parts import Bore, Draft, PartRole
from tall_plank.measure import Frame, PlankError, told
from tall_plank.measure.frames import PartFrame, Vec, X, Y, Z

TOUCH = 0.01


def values_of(b: Builder) -> Values:
    """The names that the rules of a unit may use.

    Raises
    ------
    PlankError where a parameter is out of its range
    """
    spec = b.spec
    lengths = {key: getattr(spec.made, key) for key in LENGTH_KEYS}
    lengths |= {"width": spec.width, "height": spec.height, "depth": spec.depth}
    return with_parameters(Values(lengths, {}), spec.parameters, dict(spec.own))


def make_own(b: Builder) -> None:
    """Draft everything of a kind of one's own.

    Raises
    ------
    PlankError naming the entry whose rule does not work out
    """
    build = b.spec.build
    assert build is not None
    values = values_of(b)
    groups: dict[str, list[Draft]] = {}
    for entry in build.parts:
        groups.setdefault(entry.name, []).extend(_parts(b, entry, values))
        if len(b.drafts) > MOST_PARTS:
            raise PlankError(f"It has more than {MOST_PARTS} parts.", entry.name, "Ask for fewer.")
    met: list[tuple[Draft, Draft, str, Vec, Vec]] = []
    for joint in build.joints:
        found = [
            (to, end, *meeting)
            for end in _group(groups, joint.ends, "joint")
            for to in _group(groups, joint.to, "joint")
            for meeting in _meetings(to, end)
        ]
        if not found:
            raise PlankError(
                f"No end of a {joint.ends} meets a face of a {joint.to}.", f"joint {joint.ends}", "Mend their places."
            )
        met += found
    # Ends that are grooved and glued are longer by what enters the groove, before anything is drilled.
    for end, edge in {(id(e), edge): (e, edge) for _, e, edge, *_ in met}.values():
        _lengthen(end, edge, tongue(b))
    for to, end, _, start, stop in met:
        join(b, to, end, start, stop)
    b.fixed()
    for hole in build.holes:
        where = f"hole of {hole.part}"
        count = _count(values, hole.count, where)
        for draft in _group(groups, hole.part, "hole"):
            for i in range(count):
                v = values.counted(i, count)
                x, y = v.length(hole.x, where), v.length(hole.y, where)
                if not (0 < x < draft.length and 0 < y < draft.width):
                    raise PlankError(f"A hole at {x:.1f}, {y:.1f} lies off its part.", where, "Mend its place.")
                deep = v.length(hole.depth, where)
                through = deep <= 0
                depth = draft.thickness if through else deep
                draft.operations.append(Bore(hole.face, x, y, v.length(hole.diameter, where), depth, hole.use, through))
    _fronts(b, values, groups)
    for item in build.items:
        where = f"hardware {item.code}"
        if b.stock.fitting(item.code) is None:
            raise PlankError(f"The stock has no {item.code}.", where, "Choose another code.")
        b.item(item.code, values.number(item.count, where), item.why)


def _count(values: Values, text: str, where: str) -> int:
    count = values.number(text, where)
    if not 0 <= count <= MOST_OF_ONE:
        raise PlankError(f"{count} is not between 0 and {MOST_OF_ONE}.", where, "Change its count.")
    return count


def _group(groups: dict[str, list[Draft]], name: str, use: str) -> list[Draft]:
    if name not in groups:
        raise PlankError(f"There is no part “{name}”.", use, f"Known: {', '.join(groups)}.")
    return groups[name]


def _parts(b: Builder, entry: BuildPart, values: Values) -> list[Draft]:
    count = _count(values, entry.count, f"part {entry.name}, count")
    spec, made = b.spec, b.spec.made
    finish = {"front": spec.front, "carcass": spec.carcass, "drawer": spec.drawer}[entry.of]
    edging = made.edging_front if entry.of == "front" else made.edging_carcass
    found = []
    for i in range(count):
        v = values.counted(i, count)

        def mm(key: str, v: Values = v) -> float:
            return v.length(getattr(entry, key), f"part {entry.name}, {key}")

        thick = mm("thickness")
        frame = _frame(entry.lies, (mm("x"), -spec.depth + mm("y"), mm("z")), thick)
        role: PartRole = "front" if entry.of == "front" else "carcass"
        name = entry.name if count == 1 else f"{entry.name} {i + 1}"
        draft = b.add(name, finish, thick, mm("length"), mm("width"), frame, role)
        # What its kind does not join it is glued or screwed to.
        draft.fixed = "glued or screwed by hand, as its kind is drawn"
        found.append(draft.band(b.stock, edging, *entry.edged))
    return found


def _frame(lies: str, corner: Vec, thick: float) -> PartFrame:
    """Frame of a part whose box starts at a corner (left, front, low)."""
    x, y, z = corner
    if lies == "side":
        return Frame((x + thick, y, z), Z, Y)
    if lies == "front":
        return Frame((x, y, z), Z, X)
    if lies == "rail":
        return Frame((x, y + thick, z), X, Z)
    return Frame((x, y, z), X, Y)


def _meetings(to: Draft, end: Draft) -> list[tuple[str, Vec, Vec]]:
    """Where edges of one part meet faces of another: the edge, and both ends of the line that they share."""
    found = []
    for edge in ("W1", "W2", "L1", "L2"):
        local = [to.frame.into(p) for p in _edge_line(end, edge)]
        if not all(min(abs(p[2]), abs(p[2] - to.thickness)) < TOUCH for p in local):
            continue
        inside = _clipped(to, local)
        if inside is not None:
            found.append((edge, to.frame.at(*inside[0]), to.frame.at(*inside[1])))
    return found


def _lengthen(part: Draft, edge: str, by: float) -> None:
    """Let an edge of a part that nothing is machined into yet reach further, mm."""
    if by <= 0:
        return
    if edge in ("W1", "W2"):
        part.length += by
    else:
        part.width += by
    if edge in ("W1", "L1"):
        back = (-by, 0.0, 0.0) if edge == "W1" else (0.0, -by, 0.0)
        part.frame = Frame(part.frame.at(*back), part.frame.x, part.frame.y)


def _edge_line(part: Draft, edge: str) -> tuple[Vec, Vec]:
    """The middle line of an edge, in the unit."""
    t, long, wide = part.thickness / 2, part.length, part.width
    ends = {
        "W1": ((0.0, 0.0, t), (0.0, wide, t)), "W2": ((long, 0.0, t), (long, wide, t)),
        "L1": ((0.0, 0.0, t), (long, 0.0, t)), "L2": ((0.0, wide, t), (long, wide, t)),
    }[edge]  # fmt: skip
    return part.frame.at(*ends[0]), part.frame.at(*ends[1])


def _clipped(to: Draft, line: list[Vec]) -> tuple[Vec, Vec] | None:
    """The stretch of a line (in the part's frame, along one of its axes) that lies on its face; None for less than
    20 mm."""
    (ax, ay, az), (bx, by, _) = line
    low, high = 0.0, 1.0
    for a, d, most in ((ax, bx - ax, to.length), (ay, by - ay, to.width)):
        if abs(d) < 1e-9:
            if not -TOUCH <= a <= most + TOUCH:
                return None
            continue
        t0, t1 = sorted(((0.0 - a) / d, (most - a) / d))
        low, high = max(low, t0), min(high, t1)
    if high - low <= 0:
        return None
    start, stop = ((ax + (bx - ax) * t, ay + (by - ay) * t, az) for t in (low, high))
    if abs(stop[0] - start[0]) + abs(stop[1] - start[1]) < 20.0:
        return None
    return start, stop


def _fronts(b: Builder, values: Values, groups: dict[str, list[Draft]]) -> None:
    """Fronts and drawers in openings between named uprights."""
    build = b.spec.build
    assert build is not None
    boxes = []
    for i, front in enumerate(build.fronts):
        where = f"front {i + 1}"
        x, z = values.length(front.x, where), values.length(front.z, where)
        width, height = values.length(front.width, where), values.length(front.height, where)
        if width <= 0 or height <= 0:
            raise PlankError(f"It would be {told(width)} x {told(height)} mm.", where, "Mend its size.")
        left, right = _group(groups, front.left, where)[0], _group(groups, front.right, where)[0]
        clear = Rect(_side(left, high=True), z, _side(right, high=False), z + height)
        if clear.width <= 0:
            raise PlankError(f"{front.left} does not stand left of {front.right}.", where, "Name them the other way.")
        bay = Bay(front=Front(front.kind, front.hand))
        boxes.append(BayBox((i,), bay, clear, Rect(x, z, x + width, z + height), left.name, right.name))
    if boxes:
        b.bays = BaySet(tuple(boxes), (), ())
        make_fronts(b, tuple(boxes))
        make_drawers(b, tuple(boxes))


def _side(part: Draft, *, high: bool) -> float:
    """x of a part's right (high) or left side."""
    xs = [part.frame.at(u, v, w)[0] for u in (0, part.length) for v in (0, part.width) for w in (0, part.thickness)]
    return max(xs) if high else min(xs)

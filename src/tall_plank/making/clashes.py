"""Holes that meet other holes, grooves or edges: moved or made shallower by rule, else reported (geometry)."""

from __future__ import annotations

import math
from collections.abc import Iterator

import msgspec

from tall_plank.making.joints import WOOD_BETWEEN
from tall_plank.making.parts import ROW, Bore, Draft, Groove, Problem

LEAST_DEPTH = 6.0
"""mm; a pin or screw in less than this does not hold (common practice)."""

SHALLOWER = ("shelf pin", "shelf", "runner", "hinge plate", "stay", "butt hinge")
"""Uses whose holes may be made shallower where one from the other face meets them."""

TOGETHER = (frozenset({"cam", "cam dowel"}), frozenset({"pocket screw"}))
"""Uses of holes that meet on purpose."""

FACE_WORK = ("face", "slats")
"""What the grooves in the outer face of a front are for; handles are screwed through them."""

SKIN = 1.0
"""mm of wood that stay between a hole and the edge of its part."""

LARGEST = 35.0
"""mm; no hole is larger than a hinge cup."""


def settle(draft: Draft) -> list[Problem]:
    """Clear the clashes of a part's operations that rules can clear; what is left is returned.

    Row holes that nothing stands on give way; holes from both faces of a board are made shallower until 2 mm of wood
    stay between them.
    """
    bores = [op for op in draft.operations if isinstance(op, Bore)]
    if len(bores) < 1:
        return []
    found: list[Problem] = []
    gone: set[int] = set()
    shallow: dict[int, float] = {}
    flat = sorted((b for b in bores if b.face in ("A", "B") and not b.slant), key=lambda b: b.x)
    for one, other in _near(flat):
        if id(one) in gone or id(other) in gone:
            continue
        if one.face == other.face or one.through or other.through:
            if _row(one) or _row(other):
                gone.add(id(one if _row(one) else other))
            else:
                found.append(_told(draft, one.use, f"{other.use} hole"))
        elif one.depth + other.depth > draft.thickness - WOOD_BETWEEN:
            deep = (draft.thickness - WOOD_BETWEEN) / 2
            if deep >= LEAST_DEPTH and all(b.use in SHALLOWER or b.depth <= deep for b in (one, other)):
                for b in (one, other):
                    shallow[id(b)] = min(deep, b.depth)
            elif _row(one) or _row(other):
                gone.add(id(one if _row(one) else other))
            else:
                found.append(_told(draft, one.use, f"{other.use} hole from the other face"))
    grooves = [op for op in draft.operations if isinstance(op, Groove) and op.face in ("A", "B")]
    for bore in flat:
        for groove in grooves:
            near = bore.face == groove.face or (
                not bore.through and bore.depth + groove.depth > draft.thickness - WOOD_BETWEEN + 0.01
            )
            if bore.use == "handle" and groove.over in FACE_WORK:
                continue
            if id(bore) not in gone and near and _meets(bore, groove):
                if _row(bore):
                    gone.add(id(bore))
                else:
                    found.append(_told(draft, bore.use, f"groove of the {groove.over}"))
    found += _at_edges(draft, flat, gone)
    found += _from_ends(draft, bores, flat, grooves, gone)
    if gone or shallow:
        draft.operations = [
            msgspec.structs.replace(op, depth=shallow[id(op)]) if id(op) in shallow else op
            for op in draft.operations
            if id(op) not in gone
        ]
    return found[:1]


def _row(bore: Bore) -> bool:
    """Whether a hole is one of a row for shelves; those that carry one are marked otherwise."""
    return bore.use == ROW


def _told(draft: Draft, use: str, other: str) -> Problem:
    return Problem(f"On the {draft.name} a {use} hole runs into a {other}.", "Move one of them, or size the unit anew.")


def _near(bores: list[Bore]) -> Iterator[tuple[Bore, Bore]]:
    """Pairs of holes, sorted by x, whose circles overlap seen from the face."""
    for i, one in enumerate(bores):
        for k in range(i + 1, len(bores)):
            other = bores[k]
            dx = other.x - one.x
            reach = (one.diameter + other.diameter) / 2
            if dx >= reach:
                if dx >= (one.diameter + LARGEST) / 2:
                    break
                continue
            dy = other.y - one.y
            if dx * dx + dy * dy < reach * reach - 1e-6:
                yield one, other


def _meets(bore: Bore, groove: Groove) -> bool:
    dx, dy = groove.x2 - groove.x1, groove.y2 - groove.y1
    length = math.hypot(dx, dy) or 1.0
    t = ((bore.x - groove.x1) * dx + (bore.y - groove.y1) * dy) / length
    t = min(max(t, 0.0), length)
    away = math.hypot(bore.x - groove.x1 - dx / length * t, bore.y - groove.y1 - dy / length * t)
    return away < (bore.diameter + groove.width) / 2 - 0.01


def _at_edges(draft: Draft, flat: list[Bore], gone: set[int]) -> list[Problem]:
    """Holes that break out at an edge of a rectangular part."""
    if draft.outline or draft.bend:
        return []
    found = []
    for bore in flat:
        least = bore.diameter / 2 + SKIN
        near = min(bore.x, draft.length - bore.x, bore.y, draft.width - bore.y)
        if near < least - 0.01 and id(bore) not in gone:
            if _row(bore):
                gone.add(id(bore))
            else:
                found.append(_told(draft, bore.use, "edge"))
    return found


def _from_ends(
    draft: Draft, bores: list[Bore], flat: list[Bore], grooves: list[Groove], gone: set[int]
) -> list[Problem]:
    """Holes in edges and ends that run into holes or grooves in the faces."""
    found = []
    t = draft.thickness
    for bore in bores:
        if bore.face in ("A", "B"):
            continue
        r = bore.diameter / 2
        if bore.face in ("W1", "W2"):
            x0, x1 = (0.0, bore.depth) if bore.face == "W1" else (draft.length - bore.depth, draft.length)
            y0, y1 = bore.x - r, bore.x + r
        else:
            x0, x1 = bore.x - r, bore.x + r
            y0, y1 = (0.0, bore.depth) if bore.face == "L1" else (draft.width - bore.depth, draft.width)
        for hole in flat:
            if id(hole) in gone or _with(bore.use, hole.use):
                continue
            k = hole.diameter / 2
            if x0 - k < hole.x < x1 + k and y0 - k < hole.y < y1 + k and _deep(bore, r, hole.face, hole, t):
                if _row(hole):
                    gone.add(id(hole))
                else:
                    found.append(_told(draft, bore.use, f"{hole.use} hole"))
        for groove in grooves:
            k = groove.width / 2
            gx0, gx1 = sorted((groove.x1, groove.x2))
            gy0, gy1 = sorted((groove.y1, groove.y2))
            if gx1 - gx0 > gy1 - gy0:
                gy0, gy1 = gy0 - k, gy1 + k
            else:
                gx0, gx1 = gx0 - k, gx1 + k
            across = min(x1, gx1) - max(x0, gx0) > 0.01 and min(y1, gy1) - max(y0, gy0) > 0.01
            if across and _deep(bore, r, groove.face, groove, t):
                found.append(_told(draft, bore.use, f"groove of the {groove.over}"))
    return found


def _deep(bore: Bore, r: float, face: str, other: Bore | Groove, thickness: float) -> bool:
    """Whether what is cut into a face reaches down to a hole in an edge (its place across the thickness is y)."""
    deep = thickness if getattr(other, "through", False) else other.depth
    return bore.y + r > thickness - deep + 0.01 if face == "A" else bore.y - r < deep - 0.01


def _with(a: str, b: str) -> bool:
    return frozenset({a, b}) in TOGETHER

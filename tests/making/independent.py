"""An independent check that parts can be put together: solids of a general-purpose library, built here anew from parts
and operations, sharing no code with the proof. For tests, and for `./plank bench proof`."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import msgspec
import numpy as np
from manifold3d import CrossSection, Manifold

from tall_plank.making import Part
from tall_plank.making.parts import Asked, Bore, Cutout, Groove, Rebate

HAIR = 0.05


def block(low: Sequence[float], high: Sequence[float]) -> Any:
    return Manifold.cube(tuple(b - a for a, b in zip(low, high, strict=True))).translate(tuple(low))


def in_face(part: Part, face: str, u: tuple[float, float], v: tuple[float, float], deep: float) -> Any:
    """A block cut into a face: u and v along it, a hair out of it."""
    long, wide, thick = part.length, part.width, part.thickness
    match face:
        case "A":
            return block((u[0], v[0], thick - deep), (u[1], v[1], thick + HAIR))
        case "B":
            return block((u[0], v[0], -HAIR), (u[1], v[1], deep))
        case "L1":
            return block((u[0], -HAIR, v[0]), (u[1], deep, v[1]))
        case "L2":
            return block((u[0], wide - deep, v[0]), (u[1], wide + HAIR, v[1]))
        case "W1":
            return block((-HAIR, u[0], v[0]), (deep, u[1], v[1]))
    return block((long - deep, u[0], v[0]), (long + HAIR, u[1], v[1]))


def cut_of(part: Part, op: object) -> Any:
    match op:
        case Groove():
            along = abs(op.x2 - op.x1) > abs(op.y2 - op.y1)
            u, v = sorted((op.x1, op.x2)), sorted((op.y1, op.y2))
            half = op.width / 2
            if min(abs(op.x2 - op.x1), abs(op.y2 - op.y1)) > 1e-6:  # askew: turned in its face
                length = math.hypot(op.x2 - op.x1, op.y2 - op.y1)
                bar = Manifold.cube((length, op.width, op.depth + HAIR)).translate((0.0, -half, 0.0))
                bar = bar.rotate((0.0, 0.0, math.degrees(math.atan2(op.y2 - op.y1, op.x2 - op.x1))))
                bar = bar.translate((op.x1, op.y1, 0.0))
                if op.face in ("A", "B"):
                    return bar.translate((0.0, 0.0, part.thickness - op.depth if op.face == "A" else -HAIR))
                # (u, v, w) of an edge is (x, z, y): stood up, mirrored for the near edge.
                up = bar.rotate((90.0, 0.0, 0.0))
                return up.translate((0.0, part.width + HAIR if op.face == "L2" else op.depth, 0.0))
            pad = (u, [v[0] - half, v[1] + half]) if along else ([u[0] - half, u[1] + half], v)
            return in_face(part, op.face, tuple(pad[0]), tuple(pad[1]), op.depth)  # type: ignore[arg-type]
        case Rebate():
            x = {"W1": (-HAIR, op.width), "W2": (part.length - op.width, part.length + HAIR)}.get(
                op.edge, (-HAIR, part.length + HAIR)
            )
            y = {"L1": (-HAIR, op.width), "L2": (part.width - op.width, part.width + HAIR)}.get(
                op.edge, (-HAIR, part.width + HAIR)
            )
            return in_face(part, op.face, x, y, op.depth)
        case Cutout():
            return block((op.x, op.y, -HAIR), (op.x + op.length, op.y + op.width, part.thickness + HAIR))
    return None


def solid_of(part: Part) -> Any:
    body = (
        Manifold.extrude(CrossSection([np.array(part.outline)]), part.thickness)
        if part.outline
        else block((0.0, 0.0, 0.0), (part.length, part.width, part.thickness))
    )
    for op in part.operations:
        cut = cut_of(part, op) if not isinstance(op, Bore) else None
        if cut is not None:
            body = body - cut
    f = part.frame
    return body.transform(np.column_stack([f.x, f.y, np.cross(f.x, f.y), f.origin]))


def independent(parts: Sequence[Part]) -> set[tuple[int, int]]:
    solids = [(i, solid_of(p)) for i, p in enumerate(parts) if not p.bend]
    found = set()
    for n, (i, a) in enumerate(solids):
        for k, b in solids[n + 1 :]:
            common = a ^ b
            if common.volume() > 2.0:
                x0, y0, z0, x1, y1, z1 = common.bounding_box()
                if min(x1 - x0, y1 - y0, z1 - z0) > 0.06:
                    found.add((i, k))
    return found


TOGETHER = ({"cam", "cam dowel"}, {"pocket screw"})


def holes_meet(part: Part) -> bool:
    """Whether holes of a part run into one another or into a groove, as solids; between both faces 2 mm of wood stay."""
    cuts = [op for op in part.operations if straight(op)]
    bounds = [void(part, op, 1.0).bounding_box() for op in cuts]
    for i, one in enumerate(cuts):
        for k, other in enumerate(cuts[:i]):
            a, b = bounds[i], bounds[k]
            if any(min(a[3 + j], b[3 + j]) - max(a[j], b[j]) < 0.03 for j in range(3)) or belong(one, other):
                continue
            faces = {one.face, other.face} == {"A", "B"}
            wall = faces and not getattr(one, "through", False) and not getattr(other, "through", False)
            common = void(part, one, 1.0 if wall else 0.0) ^ void(part, other, 1.0 if wall else 0.0)
            if common.volume() > 1.0:
                return True
    return False


def straight(op: Any) -> bool:
    if isinstance(op, Bore):
        return not op.slant
    return isinstance(op, Groove) and min(abs(op.x1 - op.x2), abs(op.y1 - op.y2)) < 1e-6


def belong(one: Any, other: Any) -> bool:
    """Whether two may meet: what is cut from one side, cams and their dowels, handles through a front's grooves."""
    both = {getattr(op, "use", "") or f"groove {op.over}" for op in (one, other)}
    if isinstance(one, Groove) and isinstance(other, Groove) and one.face == other.face:
        return True
    return both in TOGETHER or ("handle" in both and bool(both & {"groove face", "groove slats"}))


def void(part: Part, op: Any, more: float) -> Any:
    """What an operation takes away, so much deeper than it is."""
    if isinstance(op, Groove):
        return cut_of(part, msgspec.structs.replace(op, depth=op.depth + more))
    deep = part.thickness if op.through else op.depth + more
    return stood(part, op.face, Manifold.cylinder(deep, op.diameter / 2, op.diameter / 2, 64), op.x, op.y)


def stood(part: Part, face: str, rod: Any, u: float, v: float) -> Any:
    """A rod along z stood into a face."""
    match face:
        case "A":
            return rod.rotate((180.0, 0.0, 0.0)).translate((u, v, part.thickness))
        case "B":
            return rod.translate((u, v, 0.0))
        case "L1":
            return rod.rotate((-90.0, 0.0, 0.0)).translate((u, 0.0, v))
        case "L2":
            return rod.rotate((90.0, 0.0, 0.0)).translate((u, part.width, v))
        case "W1":
            return rod.rotate((0.0, 90.0, 0.0)).translate((0.0, u, v))
    return rod.rotate((0.0, -90.0, 0.0)).translate((part.length, u, v))


# --- halves of joints, and what hangs


def halves(parts: Sequence[Part], use: str) -> list[tuple[int, Any, Any]]:
    """(part, place, direction into the wood) of every hole of a use, in the unit."""
    return [
        (i, np.array(p.place(op.face, op.x, op.y)), np.array(p.inwards(op.face)))
        for i, p in enumerate(parts)
        for op in p.operations
        if isinstance(op, Bore) and op.use == use and not op.slant
    ]


def unmated(parts: Sequence[Part], lent: Sequence[tuple[str, Sequence[Asked]]] = ()) -> list[str]:
    """Parts with a dowel's or a screw's hole that looks at no other."""
    found = []
    for use in ("dowel", "cam dowel", "carcass screw", "wood screw"):
        holes = halves(parts, use)
        asked = [np.array(work.at) for _, works in lent for work in works if work.use == use]
        for i, at, way in holes:
            mates = [
                k for k, other, back in holes if k != i and np.linalg.norm(at - other) < 0.06 and way @ back < -0.99
            ]
            if not mates and not any(np.linalg.norm(at - other) < 0.06 for other in asked):
                found.append(f"{parts[i].name}: {use}")
    return found


def unhung(parts: Sequence[Part], lent: Sequence[tuple[str, Sequence[Asked]]] = ()) -> list[str]:
    """Fronts with a cup that no plate is as high as, near by."""
    found = []
    plates = [at for use in ("hinge plate", "frame hinge") for _, at, _ in halves(parts, use)]
    plates += [np.array(work.at) for _, works in lent for work in works if work.use == "hinge plate"]
    for part in parts:
        if "carrier" in part.fixed:
            continue
        for op in part.operations:
            if isinstance(op, Bore) and op.use == "hinge" and op.diameter > 20.0:
                cup = np.array(part.place(op.face, op.x, op.y))
                far = 400.0 if part.bend else 110.0
                near = [p for p in plates if np.linalg.norm(p - cup) < far and abs(p[2] - cup[2]) < 40.0]
                if not near or abs(np.mean([p[2] for p in near]) - cup[2]) > 0.1:
                    found.append(part.name)
    return found


FRONTS = ("front", "front frame", "front panel", "front bar", "glass", "louver")


def barred(parts: Sequence[Part]) -> list[str]:
    """Doors that stand straight and meet a part that is no front, turned by 45 and by 90 degrees about the outer arris
    of the edge that their cups are near."""
    found = []
    pieces: dict[str, list[Part]] = {}
    for part in parts:
        if part.role in FRONTS and part.name.startswith("door ") and not part.bend and not part.fixed:
            pieces.setdefault(" ".join(part.name.split()[:2]), []).append(part)
    others = [solid_of(p) for p in parts if p.role not in FRONTS and not p.bend]
    for name, own in pieces.items():
        cups = [
            np.array(p.place(op.face, op.x, op.y))
            for p in own
            for op in p.operations
            if isinstance(op, Bore) and op.use == "hinge" and op.diameter > 20.0
        ]
        if not cups or any(
            max(abs(c) for c in p.frame.x) < 0.999 or max(abs(c) for c in p.frame.y) < 0.999 for p in own
        ):
            continue
        solids = [solid_of(p) for p in own]
        rows = np.array([s.bounding_box() for s in solids])
        low, high = rows[:, :3].min(axis=0), rows[:, 3:].max(axis=0)
        if high[1] - low[1] > high[0] - low[0]:
            continue  # on the other leg of a corner unit
        left = np.mean([c[0] for c in cups]) < (low[0] + high[0]) / 2
        about = np.array([low[0] if left else high[0], low[1], 0.0])
        for degrees in (45.0, 90.0):
            turned = [
                s.translate(-about).rotate((0.0, 0.0, -degrees if left else degrees)).translate(about) for s in solids
            ]
            if any((t ^ o).volume() > 50.0 for t in turned for o in others):
                found.append(name)
                break
    return found


def faults(parts: Sequence[Part], lent: Sequence[tuple[str, Sequence[Asked]]] = ()) -> list[str]:
    """Everything that is wrong, in words."""
    return [
        *(f"{parts[a].name} and {parts[b].name} share space" for a, b in sorted(independent(parts))),
        *(f"{p.name}: holes meet" for p in parts if holes_meet(p)),
        *unmated(parts, lent),
        *(f"{name} hangs on nothing" for name in unhung(parts, lent)),
        *(f"{name} cannot be opened" for name in barred(parts)),
    ]

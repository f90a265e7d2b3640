"""How the fronts and drawers of a unit open."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import msgspec

from tall_plank.job.bays import HINGED
from tall_plank.making.builder import FrontBox, UnitSpec
from tall_plank.making.faceplane import FacePlane
from tall_plank.making.parts import DrawerBox
from tall_plank.making.ways import Thing, Way
from tall_plank.stock import Stock

WORDS = {"flap": "flap", "drop": "drop front", "pullout": "pull-out", "drawer": "drawer"}


def ways_of(
    spec: UnitSpec, fronts: Sequence[FrontBox], drawers: Sequence[DrawerBox], boxes: Mapping[str, Thing], stock: Stock
) -> tuple[Way, ...]:
    """How the fronts and the inner drawers of a unit open. What folds on another front goes along with it.

    Parameters
    ----------
    boxes : of the drawers, by their names
    """
    plain = FacePlane(0.0, -spec.depth - spec.made.front_out)
    t = spec.made.front_thickness
    runners = {d.path: r.length for d in drawers if (r := stock.fitting(d.runner)) is not None}
    found: list[Way] = []
    for f in fronts:
        face = f.face or plain
        far = f.hand == "right" if f.kind in HINGED else f.kind == "flap"
        handle = stock.fitting(f.pull) if f.handle is not None else None
        way = Way(
            f.name, WORDS.get(f.kind, "door"), face, f.x, f.z, f.width, f.height, t, "turns", far, f.handle,
            handle.projection if handle is not None else 0.0,
        )  # fmt: skip
        if f.kind in ("flap", "drop"):
            found.append(msgspec.structs.replace(way, moves="tilts"))
        elif f.kind in ("drawer", "pullout"):
            frame = stock.fitting(spec.made.pullout)
            reach = runners.get(f.path, frame.length if f.kind == "pullout" and frame is not None else 0.0)
            found.append(msgspec.structs.replace(way, moves="slides", reach=reach))
        elif f.kind in HINGED and not _folds(spec, f, fronts):
            found.append(way)
    fronted = {f.path for f in fronts}
    for d in drawers:
        if d.path not in fronted and d.name in boxes:
            points, low, high = boxes[d.name]
            us, before = [u for u, _ in points], max(q for _, q in points)
            inner = Way(
                d.name, "inner drawer", FacePlane(plain.x, plain.y - before), min(us), low, max(us) - min(us),
                high - low, 0.0, "slides", reach=runners.get(d.path, 0.0),
            )  # fmt: skip
            found.append(inner)
    return tuple(found)


def _folds(spec: UnitSpec, front: FrontBox, fronts: Sequence[FrontBox]) -> bool:
    """Whether a leaf hangs on another one."""
    if spec.corner == "l":
        return front.face is not None and front.face.name == "leg"
    pair = [f for f in fronts if f.kind == "bifold" and f.path == front.path]
    return front in pair and front is not (pair[0] if pair else None)

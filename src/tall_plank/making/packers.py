"""Strips on an upright, as thick as a face frame stands out beyond it: what carries runners and plates of hinges."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from tall_plank.job.standard import WEB
from tall_plank.making.builder import Builder
from tall_plank.making.parts import Draft
from tall_plank.making.screws import CLEAR, CLEAR_HOLE, PILOT, WOOD_SCREW, needed_screw, sunk_words
from tall_plank.measure import Frame, PlankError
from tall_plank.measure.frames import NEG_Y, PartFrame, Vec, Y, Z
from tall_plank.stock import Board
from tall_plank.stock.models import Hole

PACKER = 60.0
"""mm; height of the strip that brings a runner out from an upright."""


def packing(
    b: Builder,
    upright: Draft,
    name: str,
    x: float,
    thick: float,
    front: float,
    length: float,
    low: float,
    *,
    left: bool,
) -> list[Draft]:
    """A strip on an upright, as thick as a face frame stands out beyond it: of one board where the stock has one as
    thick, else built up from several, else planed from solid timber. Its layers, the one that looks at the bay first.

    Parameters
    ----------
    x, front, low : its lower left corner at the front, in the unit, mm
    left : whether it stands on an upright at its left
    """
    layers = built_up(b, thick)
    at = x if left else x + thick
    found: list[Draft] = []
    for k, layer in enumerate(layers, 1):
        x0 = at if left else at - layer
        frame = Frame((x0, front, low), Y, Z) if left else Frame((x0 + layer, front + length, low), NEG_Y, Z)
        word = name if len(layers) == 1 else f"{name} layer {k}"
        strip = _strip(b, word, layer, length, frame)
        if k > 1:
            strip.fixed = "glued to the layer behind it"
        found.insert(0, strip)
        at = x0 + layer if left else x0
    face = x if left else x + thick
    _screw_on(b, found, upright, face, (front, low), thick, length, left=left)
    return found


def _screw_on(
    b: Builder,
    layers: Sequence[Draft],
    upright: Draft,
    face: float,
    corner: tuple[float, float],
    thick: float,
    length: float,
    *,
    left: bool,
) -> None:
    """Three screws through a packer into its upright. `face`: x of the upright's face; `corner`: the packer's lower
    front one (y, z); all in mm."""
    screw = needed_screw(b, thick, upright.thickness or thick, "a packer")
    if screw is None:
        return
    y0, z0 = corner
    for k, y in enumerate((y0 + PACKER_IN, y0 + length / 2, y0 + length - PACKER_IN)):
        # Those from the other side of a divider stand at other heights.
        up = PACKER / 2 + (PACKER_UP if (k % 2 == 0) is left else -PACKER_UP)
        x = face
        for layer in reversed(layers):
            own = layer is layers[-1]
            layer.bore((x, y, z0 + up), CLEAR, 0.0, WOOD_SCREW if own else CLEAR_HOLE)
            x += layer.thickness if left else -layer.thickness
        upright.bore((face, y, z0 + up), PILOT, screw.bite, WOOD_SCREW)
    b.item(screw.code, 3, f"3 screws for each packer {thick:g} thick{sunk_words(screw)}")


PACKER_IN, PACKER_UP = 14.0, 22.0
"""mm from a packer's ends to its screws, and from its middle line: their heads clear the holes of a hinge's plate,
which stand 16 from it."""


def through_packing(layers: Sequence[Draft], upright: Draft, at: Vec, hole: Hole, use: str, *, left: bool) -> None:
    """A hole from the bay into a packer, on through layers that are thinner than it is deep, into the upright. `at`:
    its place on the layer that looks at the bay, mm."""
    x, y, z = at
    deep = hole.depth
    for layer in layers:
        whole = deep > layer.thickness - WEB
        layer.bore((x, y, z), hole.diameter, 0.0 if whole else deep, use)
        if not whole:
            return
        deep -= layer.thickness
        if deep < LEAST_GOES_ON:
            return
        x += -layer.thickness if left else layer.thickness
    upright.bore((x, y, z), hole.diameter, deep, use)


LEAST_GOES_ON = 1.0
"""mm; a hole that would reach less far into what is behind a packer ends with it."""


def _strip(b: Builder, name: str, thick: float, length: float, frame: PartFrame) -> Draft:
    """One layer of a packer: of the carcass's board, or of solid timber planed to thickness. `thick`, `length`: mm."""
    finish = b.spec.carcass
    if b.stock.board(finish, thick) is not None:
        return b.add(name, finish, thick, length, PACKER, frame, "packer")
    solid = min(_solids(b, thick), key=lambda board: board.thickness)
    strip = b.add(name, solid.finish, solid.thickness, length, PACKER, frame, "packer")
    strip.thickness = thick
    return strip


def _solids(b: Builder, thick: float) -> list[Board]:
    return [board for board in b.stock.boards if board.solid and not board.blank and board.thickness >= thick - 1e-6]


MOST_LAYERS = 3
"""Boards that a packer is built up from at most."""

LEAST_LAYER = 6.0
"""mm; no thinner strip is planed."""


def built_up(b: Builder, thick: float) -> tuple[float, ...]:
    """Thicknesses whose sum is `thick` (mm): boards of the carcass's finish, as few as may be, else solid timber.

    Raises
    ------
    PlankError where the stock has neither
    """
    stocked = sorted({board.thickness for board in b.stock.boards if board.finish == b.spec.carcass}, reverse=True)
    for count in range(1, MOST_LAYERS + 1):
        for layers in itertools.combinations_with_replacement(stocked, count):
            if abs(sum(layers) - thick) < 0.05:
                return layers
    for layer in (0.0, *stocked):
        rest = thick - layer
        if rest >= LEAST_LAYER and _solids(b, rest):
            return (layer, rest) if layer else (rest,)
    raise PlankError(
        f"A packer of {thick:g} mm can be built up from no boards of the stock.",
        "face_stile",
        "Make the stiles of the face frame wider or narrower, or stock solid timber as thick.",
    )

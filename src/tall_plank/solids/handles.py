"""Handles as solids, as they really are: bar, bow, knob, cup, edge pull."""

from __future__ import annotations

from tall_plank.job import Kind, Source
from tall_plank.making import FrontBox, MadeUnit
from tall_plank.making.faceplane import FacePlane
from tall_plank.measure import Frame
from tall_plank.measure.frames import PartFrame, RoomFrame, Vec
from tall_plank.measure.outlines import bow, circle, ellipse
from tall_plank.setout import Placed
from tall_plank.solids.solids import Box, Prism, Solid
from tall_plank.stock import Fitting, Stock

BAR = 12.0
"""mm; thickness of a bar or a bow (common practice)."""

CUP_HIGH, EDGE_DEEP = 34.0, 3.0
"""mm of a cup's height and of an edge pull's thickness."""


def handle_solids(
    stock: Stock, placed: Placed, unit: MadeUnit, f: FrontBox, move: PartFrame | None = None
) -> list[Solid]:
    """The handle of a front, on whatever plane it stands in.

    Parameters
    ----------
    move : how the front has moved, where it stands open
    """
    assert f.handle is not None
    handle = stock.fitting(f.pull)
    plane = f.face or FacePlane(0.0, -unit.spec.depth - unit.spec.made.front_out)
    surface = unit.spec.made.front_thickness
    if unit.spec.shape == "bow":
        surface += 0.12 * unit.spec.width
    x1, z1, x2, z2 = f.handle
    lying = abs(x2 - x1) >= abs(z2 - z1)
    side, away = (plane.ux, plane.uy, 0.0), (plane.uy, -plane.ux, 0.0)
    # Along the handle, out of the front; across it follows.
    along: Vec = side if lying else (0.0, 0.0, 1.0)
    own = Frame(plane.point(x1, surface, z1), along, away)
    frame = placed.frame.then(move.then(own) if move is not None else own)
    length = max(abs(x2 - x1), abs(z2 - z1), BAR)
    # A cup is open below, so its half ellipse stands upward, whichever way the frame looks.
    up = 1.0 if frame.z[2] >= 0 else -1.0
    color = handle.finish if handle and handle.finish else "#2A2A2A"
    return _solids(handle, frame, length, up, color, Kind.CELL.of(placed.cell), f"{placed.number} handle")


def _solids(
    handle: Fitting | None, frame: RoomFrame, length: float, up: float, color: str, source: Source, name: str
) -> list[Solid]:
    """A handle in its own frame: x along it, y out from the front, z across, its middle line at z = 0."""
    out = handle.projection if handle is not None and handle.projection else 30.0
    shape = handle.shape if handle is not None else "bar"

    def box(x: float, y: float, z: float, size: Vec, word: str = name) -> Box:
        return Box(Frame(frame.at(x, y, z), frame.x, frame.y), size, color, source, word)

    if shape == "knob":
        return [
            _disc(frame, length / 2, 0.0, out * 0.55, 6.0, color, source, name),
            _disc(frame, length / 2, out * 0.55, out, length / 2, color, source, name),
        ]
    if shape == "bow":
        at = Frame(frame.at(0.0, 0.0, -BAR / 2), frame.x, frame.y)
        return [Prism(at, bow(length, out), BAR, color, source, name)]
    if shape == "cup":
        low = -CUP_HIGH / 2 if up > 0 else CUP_HIGH / 2
        turned = tuple((x, up * y) for x, y in ellipse(length / 2, CUP_HIGH))
        points = ((0.0, 0.0), (length, 0.0), *((length / 2 + x, y) for x, y in turned))
        flat = tuple((x, low + y) for x, y in points)
        # In the plane of the front: x along, y across; thick outwards.
        at = Frame(frame.at(0.0, out, 0.0), frame.x, frame.z)
        return [Prism(at, flat, out, color, source, name)]
    if shape == "edge":
        return [box(0.0, 0.0, -BAR / 2, (length, 2.0, BAR)), box(0.0, 0.0, -EDGE_DEEP / 2, (length, out, EDGE_DEEP))]
    centers = handle.centers if handle is not None and handle.centers else length * 0.88
    first = (length - centers) / 2
    posts = [box(x - 4.0, 0.0, -4.0, (8.0, out - BAR, 8.0), "post") for x in (first, first + centers)]
    return [box(0.0, out - BAR, -BAR / 2, (length, BAR, BAR)), *posts]


def _disc(
    frame: RoomFrame, x: float, low: float, high: float, radius: float, color: str, source: Source, name: str
) -> Prism:
    """A round piece about an axis that stands out of the front at x, from low to high, mm."""
    at = Frame(frame.at(0.0, high, 0.0), frame.x, frame.z)
    return Prism(at, circle(x, 0.0, radius, 14), high - low, color, source, name)

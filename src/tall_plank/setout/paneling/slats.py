"""Slats set out: a repeating pattern over a width, gaps fitted so that whole slats end both sides, clipped to any
outline."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import msgspec

from tall_plank.measure import PlankError, told
from tall_plank.measure import paths as pa
from tall_plank.measure.paths import Path
from tall_plank.measure.regions import Region, box_path, within
from tall_plank.measure.units import TOLERANCE

Steps = Sequence[tuple[float, float]]
"""Widths of the slats that repeat, each with the gap after it, mm."""

MOST_SLATS = 2000


class Strips(msgspec.Struct, frozen=True):
    """Slats across a width.

    Attributes
    ----------
    spans : from where to where each one reaches, mm from the left
    fitted : what typed gaps were multiplied by
    """

    spans: tuple[tuple[float, float], ...]
    fitted: float = 1.0


def fitted_strips(width: float, steps: Steps, least: float | None = None, most: float | None = None) -> Strips:
    """Whole slats from end to end: all gaps are made wider or narrower alike, as little as can be.

    Parameters
    ----------
    width : mm
    least, most : between which every gap has to stay, mm; None: half and twice the typed ones

    Raises
    ------
    PlankError naming the gaps that would fit where they are out of range
    """
    _check(width, steps)
    options: list[tuple[float, int, float]] = []
    best: tuple[float, float] | None = None
    for count in itertools.count(2):
        widths, gaps = _first(steps, count)
        solid, free = math.fsum(widths), math.fsum(gaps[:-1])
        if solid > width + TOLERANCE or count > MOST_SLATS:
            break
        if free <= 0.0:
            if abs(width - solid) < TOLERANCE:
                return Strips(_placed(0.0, widths, gaps))
            continue
        factor = (width - solid) / free
        low = [factor * g for g in gaps[:-1] if g > 0]
        inside = min(low) >= (least if least is not None else 0.5 * min(g for g in gaps[:-1] if g > 0)) - 1e-9
        inside = inside and max(low) <= (most if most is not None else 2.0 * max(gaps[:-1])) + 1e-9
        off = abs(math.log(max(factor, 1e-9)))
        if inside:
            options.append((off, count, factor))
        elif best is None or off < best[0]:
            best = (off, max(low))
        if factor < 0.2:
            break
    if not options:
        if width <= steps[0][0] + TOLERANCE:
            return Strips(((0.0, width),))
        why = f"gaps of {told(best[1])} mm would" if best is not None else "no gap does"
        raise PlankError(
            f"No number of whole slats fits {told(width)} mm with these gaps: {why}.",
            "gap",
            "Give gaps a wider range, or start from the left.",
        )
    _, count, factor = min(options)
    widths, gaps = _first(steps, count)
    return Strips(_placed(0.0, widths, [g * factor for g in gaps]), factor)


def centered_strips(width: float, steps: Steps) -> Strips:
    """Slats with their typed gaps about the middle, a first slat on it; those at the ends are cut. `width`: mm."""
    _check(width, steps)
    if len(steps) == 1:
        w, g = steps[0]
        reach = math.ceil((width / 2) / (w + g)) + 1
        return Strips(_cut([((k * (w + g)) + width / 2 - w / 2, w) for k in range(-reach, reach + 1)], width))
    whole = math.fsum(w + g for w, g in steps)
    reach = math.ceil(width / 2 / whole) + 1
    start = width / 2 - steps[0][0] / 2 - reach * whole
    widths, gaps = _first(steps, 2 * reach * len(steps) + len(steps))
    return Strips(_cut([(a, b - a) for a, b in _placed(start, widths, gaps)], width))


def strips_from_left(width: float, steps: Steps) -> Strips:
    """Slats with their typed gaps from the left end; the last one is cut. `width`: mm."""
    _check(width, steps)
    count = math.ceil(width / math.fsum(w + g for w, g in steps) + 1) * len(steps)
    widths, gaps = _first(steps, count)
    return Strips(_cut([(a, b - a) for a, b in _placed(0.0, widths, gaps)], width))


def _check(width: float, steps: Steps) -> None:
    if not steps:
        raise PlankError("A pattern needs a slat.", "pattern", "Give a width and a gap.")
    pitch = math.fsum(w + g for w, g in steps) / len(steps)
    if min(w for w, _ in steps) <= 0 or pitch <= 0:
        raise PlankError("A slat needs a width.", "pattern", "Give a width above 0.")
    if width / pitch > MOST_SLATS:
        raise PlankError(f"That would be more than {MOST_SLATS:,} slats.", "pattern", "Make them wider.")


def _first(steps: Steps, count: int) -> tuple[list[float], list[float]]:
    rows = [steps[i % len(steps)] for i in range(count)]
    return [w for w, _ in rows], [g for _, g in rows]


def _placed(start: float, widths: Sequence[float], gaps: Sequence[float]) -> tuple[tuple[float, float], ...]:
    found, at = [], start
    for w, g in zip(widths, gaps, strict=True):
        found.append((at, at + w))
        at += w + g
    return tuple(found)


def _cut(rows: Sequence[tuple[float, float]], width: float) -> tuple[tuple[float, float], ...]:
    spans = [(max(0.0, a), min(width, a + w)) for a, w in rows]
    return tuple((a, b) for a, b in spans if b - a > TOLERANCE)


# --- on an outline


class Slat(msgspec.Struct, frozen=True, cache_hash=True):
    """A slat where it lies.

    Attributes
    ----------
    strip : its number from the left; pieces of one strip share it
    shape : what is left of it
    whole : whether nothing is cut off its sides or square ends
    """

    strip: int
    shape: Region
    whole: bool


def clipped_slats(
    regions: Sequence[Region], strips: Sequence[tuple[float, float]], x0: float, angle: float, least: float
) -> tuple[list[Slat], int]:
    """Slats on some regions, and how many pieces were left out for being narrower or shorter than `least`.

    Parameters
    ----------
    strips : from where to where, mm from `x0`
    x0 : left end of the pattern, mm; turned about the middle of the regions where slats lean
    angle : degrees by which they lean to the right
    least : mm
    """
    boxes = [r.bounds for r in regions]
    if not boxes:
        return [], 0
    about = (
        (min(b[0] for b in boxes) + max(b[2] for b in boxes)) / 2,
        (min(b[1] for b in boxes) + max(b[3] for b in boxes)) / 2,
    )
    turned = [_turned(r, angle, about) for r in regions] if angle else list(regions)
    low = min(r.bounds[1] for r in turned) - 1.0
    high = max(r.bounds[3] for r in turned) + 1.0
    shapes = [box_path(x0 + a, low, x0 + b, high) for a, b in strips]
    found: list[Slat] = []
    dropped = 0
    for region in turned:
        for i, pieces in enumerate(within(region, shapes)):
            for piece in pieces:
                a, b, c, d = piece.bounds
                if c - a < least - TOLERANCE or d - b < least - TOLERANCE or piece.area < least * least:
                    dropped += 1
                    continue
                whole = piece.is_box and abs(c - a - (strips[i][1] - strips[i][0])) < TOLERANCE
                found.append(Slat(i, _turned(piece, -angle, about) if angle else piece, whole))
    found.sort(key=lambda s: (s.strip, s.shape.bounds[1]))
    return found, dropped


def _turned(region: Region, degrees: float, about: tuple[float, float]) -> Region:
    def turn(path: Path) -> Path:
        return pa.rotated(path, degrees, about)

    return Region(turn(region.outer), tuple(turn(h) for h in region.holes))


def turned_bounds(regions: Sequence[Region], angle: float) -> tuple[float, float]:
    """Left and right end of some regions, seen along slats that lean, mm."""
    boxes = [r.bounds for r in regions]
    about = (
        (min(b[0] for b in boxes) + max(b[2] for b in boxes)) / 2,
        (min(b[1] for b in boxes) + max(b[3] for b in boxes)) / 2,
    )
    turned = [_turned(r, angle, about).bounds for r in regions] if angle else boxes
    return min(b[0] for b in turned), max(b[2] for b in turned)

"""Edits of treatments: how walls are covered. A treatment is shared by every field that has it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import get_args

import msgspec

from tall_plank.edits.bays import read_sizes
from tall_plank.edits.change import Change
from tall_plank.edits.rooms import read_in
from tall_plank.job import Job
from tall_plank.job.treatment import (
    Arched,
    Bands,
    Bare,
    Boards,
    Halves,
    Modules,
    Panels,
    PanelStyle,
    PanelTakers,
    Parted,
    Raked,
    Slats,
    SlatStart,
    SlatStep,
    Treatment,
    Zone,
    ZoneBand,
    ZonePath,
    children_of,
    with_zone,
    zone_at,
    zones_of,
)
from tall_plank.measure import Length, PlankError
from tall_plank.measure.limits import in_sense, limits_of
from tall_plank.measure.numbers import read_number

COVERS: dict[str, Zone] = {
    "panels": Panels(),
    "slats": Slats(),
    "boards": Boards(),
    "modules": Modules(),
    "bare": Bare(),
}
"""Covers as they start, by their word."""

DEEPEST_ZONE = 6
MOST_STEPS = 20

LENGTHS = {
    Panels: ("target", "stile", "end_stile", "top_rail", "mid_rail", "bottom_rail", "board", "frame", "step"),
    Slats: ("least_gap", "most_gap", "least", "depth", "board"),
    Boards: ("gap", "thickness", "groove", "groove_pitch", "groove_depth"),
    Modules: ("width", "height", "ring", "gap", "least", "board", "ring_thickness", "center_thickness"),
    Arched: ("width", "height", "left", "bottom", "rise", "border"),
    Parted: ("rise",),
    Raked: ("start", "height"),
}
"""Lengths of each kind of zone."""

WORDS: dict[tuple[type, str], tuple[str, ...]] = {
    (Panels, "style"): get_args(PanelStyle),
    (Panels, "rest"): get_args(PanelTakers),
    (Slats, "start"): get_args(SlatStart),
    (Modules, "start"): ("centered", "corner"),
    (Modules, "edges"): ("cut", "bare"),
    (Arched, "kind"): ("round", "segmental", "elliptical", "pointed"),
    (Bands, "way"): ("up", "along"),
}
"""What may be chosen, in each kind of zone."""

FINISHES = ("finish", "panel_finish", "board_finish", "center_finish")


def with_treatment(job: Job, treatment: Treatment) -> Job:
    """The job with one treatment replaced."""
    return msgspec.structs.replace(
        job, treatments=tuple(treatment if t.id == treatment.id else t for t in job.treatments)
    )


def _put(job: Job, treatment: Treatment, path: ZonePath, zone: Zone, name: str) -> Change:
    if any(len(p) > DEEPEST_ZONE for p, _ in zones_of(with_zone(treatment.zone, path, zone))):
        raise PlankError("That would be too many zones inside one another.", "zone", "Split another one.")
    new = msgspec.structs.replace(treatment, zone=with_zone(treatment.zone, path, zone))
    return Change(with_treatment(job, new), name)


def _found(job: Job, treatment_id: str, path: ZonePath) -> tuple[Treatment, Zone]:
    treatment = job.treatment(treatment_id)
    zone = zone_at(treatment.zone, path)
    if zone is None:
        raise PlankError("That zone is no longer there.", treatment.name, "Choose another one.")
    return treatment, zone


def rename_treatment(job: Job, treatment_id: str, name: str) -> Change:
    """Name a treatment.

    Raises
    ------
    PlankError “A treatment needs a name.”
    """
    if not name.strip():
        raise PlankError("A treatment needs a name.", "treatment", "Type one.")
    new = msgspec.structs.replace(job.treatment(treatment_id), name=name.strip()[:60])
    return Change(with_treatment(job, new), "Rename the treatment")


def set_hold(job: Job, treatment_id: str, key: str, text: str) -> Change:
    """Set how a treatment is held (`hold`; empty: as the standard says) or how far its boards stand off (`fixing`).

    Raises
    ------
    PlankError “A wall is not covered like that.”
    """
    treatment = job.treatment(treatment_id)
    if key == "fixing":
        new = msgspec.structs.replace(treatment, fixing=read_in(job, text, Treatment, key) if text.strip() else None)
    elif key == "hold" and text in ("", "battens", "split", "glue", "screws"):
        new = msgspec.structs.replace(treatment, hold=text)
    else:
        raise PlankError(f"“{text[:20]}” is no way to hold it.", key[:20], "Choose battens, split, glue or screws.")
    return Change(with_treatment(job, new), "Set how the wall is covered")


def cover_zone(job: Job, treatment_id: str, path: ZonePath, kind: str) -> Change:
    """Cover a zone with panels, slats, boards or modules, or leave it bare; it is then one zone again.

    Raises
    ------
    PlankError “… covers no wall.”
    """
    treatment, _ = _found(job, treatment_id, path)
    if kind not in COVERS:
        raise PlankError(f"“{kind[:20]}” covers no wall.", "zone", f"Choose {', '.join(COVERS)}.")
    return _put(job, treatment, path, COVERS[kind], f"Cover it with {kind}" if kind != "bare" else "Leave it bare")


def split_zone(job: Job, treatment_id: str, path: ZonePath, how: str, text: str = "") -> Change:
    """Split a zone: `up` or `along` into bands by sizes such as `900 share` (from below, from the left); `arch` with an
    arched zone inside; `line` with a level line through its middle; `rake` with a band that rises along a stair;
    `halves` with a right half that mirrors the left one. What was there goes on in every part, or in the arch's
    surround and the raking band.

    Raises
    ------
    PlankError “… does not split a zone.”
    """
    treatment, zone = _found(job, treatment_id, path)
    if how in ("up", "along"):
        new: Zone = Bands(_bands(job, text or "2", zone), how)  # type: ignore[arg-type]
    elif how == "arch":
        new = Arched(inner=Bare(), outer=zone)
    elif how == "line":
        new = Parted(left=zone, right=zone)
    elif how == "rake":
        new = Raked(inner=zone)
    elif how == "halves":
        new = Halves(zone)
    else:
        raise PlankError(
            f"“{how[:20]}” does not split a zone.", "zone", "Choose up, along, arch, line, rake or halves."
        )
    return _put(job, treatment, path, new, "Split the zone")


MOST_SIZE = 50_000.0


def _bands(job: Job, text: str, zone: Zone) -> tuple[ZoneBand, ...]:
    """Sizes of a split, as bays are typed: `3` equal ones, `1:2` proportions, `900 share`."""
    return tuple(ZoneBand(zone, size, share) for size, share in read_sizes(job, text, MOST_SIZE))


def _number(text: str, key: str, kind: type, empty: str = "0") -> float:
    """A typed number that makes sense in a field of a kind of zone.

    Raises
    ------
    PlankError naming what is taken
    """
    span = limits_of(kind, key)
    try:
        value = float(read_number(text.strip() or empty))
    except ValueError as error:
        raise PlankError(f"{error}.", key, f"Give {span}.") from None
    in_sense(key, value, span, "zone")
    return value


def join_zone(job: Job, treatment_id: str, path: ZonePath) -> Change:
    """Make a split zone one again, covered as its first part is.

    Raises
    ------
    PlankError “It is one zone.”
    """
    treatment, zone = _found(job, treatment_id, path)
    children = children_of(zone)
    if not children:
        raise PlankError("It is one zone.", "zone", "Choose the one around it.")
    first = zone.outer if isinstance(zone, Arched) else children[0]
    return _put(job, treatment, path, first, "Join the zone")


def set_band(job: Job, treatment_id: str, path: ZonePath, index: int, text: str) -> Change:
    """Set the size of a band: a length; empty or `share`: a share of what is left.

    Raises
    ------
    PlankError where there is no such band
    """
    treatment, zone = _found(job, treatment_id, path)
    if not isinstance(zone, Bands) or not 0 <= index < len(zone.bands):
        raise PlankError("That band is no longer there.", "band", "Choose another one.")
    old = zone.bands[index]
    size = None if text.strip().lower() in ("", "share", "rest") else read_in(job, text, ZoneBand, "size")
    band = ZoneBand(old.zone, size, old.share)
    bands = (*zone.bands[:index], band, *zone.bands[index + 1 :])
    return _put(job, treatment, path, msgspec.structs.replace(zone, bands=bands), "Set the band")


def move_band(job: Job, treatment_id: str, path: ZonePath, index: int, low: float, high: float) -> Change:
    """Move the boundary after a band by hand: the sizes of the bands on both sides of it, mm. One that has a size of
    its own keeps one; where neither has, the first gets it.

    Raises
    ------
    PlankError where there is no such band
    """
    _, zone = _found(job, treatment_id, path)
    if not isinstance(zone, Bands) or not 0 <= index < len(zone.bands) - 1:
        raise PlankError("That band is no longer there.", "band", "Choose another one.")
    first, second = zone.bands[index], zone.bands[index + 1]
    change = Change(job, "Move the band")
    if first.size is not None or second.size is None:
        change = set_band(change.job, treatment_id, path, index, f"{low:g}mm")
    if second.size is not None:
        change = set_band(change.job, treatment_id, path, index + 1, f"{high:g}mm")
    return change


def move_line(job: Job, treatment_id: str, path: ZonePath, first: bool, x: float, y: float) -> Change:
    """Move one end of a line that parts a zone: the first or the second, to shares of the zone's width and height.

    Raises
    ------
    PlankError where there is no such line
    """
    treatment, zone = _found(job, treatment_id, path)
    if not isinstance(zone, Parted):
        raise PlankError("That line is no longer there.", "line", "Choose another one.")
    for key, value in (("x1", x), ("y1", y)):
        in_sense(key, value, limits_of(Parted, key), "zone")
    new = msgspec.structs.replace(zone, x1=x, y1=y) if first else msgspec.structs.replace(zone, x2=x, y2=y)
    return _put(job, treatment, path, new, "Move the line")


def set_zone(job: Job, treatment_id: str, path: ZonePath, key: str, text: str) -> Change:
    """Set a decision of a zone: a length (empty: the standard's where it may be), a choice, a finish, a pattern.

    Raises
    ------
    PlankError “This zone has no ….”
    """
    treatment, zone = _found(job, treatment_id, path)
    kind = type(zone)
    new: Zone
    if key in LENGTHS.get(kind, ()):
        new = msgspec.structs.replace(zone, **{key: _length(job, zone, key, text)})
    elif (kind, key) in WORDS:
        if text not in WORDS[kind, key]:
            raise PlankError(f"“{text[:20]}” is no choice.", key, f"Known: {', '.join(WORDS[kind, key])}.")
        new = msgspec.structs.replace(zone, **{key: text})
    elif key in FINISHES and key in kind.__struct_fields__:
        if text and job.stock.finish(text) is None:
            raise PlankError(f"The stock has no finish “{text[:20]}”.", key, "Choose one from the list.")
        new = msgspec.structs.replace(zone, **{key: text})
    elif (key == "molding" and isinstance(zone, Panels)) or (key in ("foot", "cap") and isinstance(zone, Raked)):
        if text and job.stock.profile(text) is None:
            raise PlankError(f"The stock has no profile “{text[:20]}”.", key, "Choose one from the list.")
        new = msgspec.structs.replace(zone, **{key: text})
    elif key in ("rows", "count") and key in kind.__struct_fields__:
        new = msgspec.structs.replace(zone, **{key: round(_number(text, key, kind, "1" if key == "rows" else "0"))})
    elif key == "pattern" and isinstance(zone, Slats):
        new = msgspec.structs.replace(zone, pattern=_pattern(job, text))
    elif key == "angle" and isinstance(zone, Slats | Raked):
        new = msgspec.structs.replace(zone, angle=_number(text.strip().removesuffix("°"), key, kind))
    elif key in ("x1", "y1", "x2", "y2") and isinstance(zone, Parted):
        new = msgspec.structs.replace(zone, **{key: _share(text, key)})
    else:
        raise PlankError(f"This zone has no {key[:30]}.", "zone", "Choose a decision of its sheet.")
    return _put(job, treatment, path, new, f"Set the {key.replace('_', ' ')}")


def _length(job: Job, zone: Zone, key: str, text: str) -> Length | None:
    default = next(f for f in msgspec.structs.fields(type(zone)) if f.name == key).default
    if not text.strip():
        if default is None:
            return None
        return default if isinstance(default, Length) else Length("0mm", 0.0)
    return read_in(job, text, type(zone), key)


def _share(text: str, key: str) -> float:
    """A place along a side as typed: `0.5` or `50 %`."""
    bare = text.strip()
    if not bare.endswith("%"):
        return _number(bare, key, Parted)
    try:
        value = float(read_number(bare.removesuffix("%"))) / 100
    except ValueError as error:
        raise PlankError(f"{error}.", key, "Give 0 to 100 %.") from None
    in_sense(key, value, limits_of(Parted, key), "zone")
    return value


def _pattern(job: Job, text: str) -> tuple[SlatStep, ...]:
    """Slats that repeat: `30 gap 15`, several one after another with commas, `10 gap 10, 15 gap 10`; in a job with
    decimal commas with semicolons; empty: the standard's."""
    if not text.strip():
        return (SlatStep(),)
    found = []
    parts = [part.strip() for part in text.split(";" if ";" in text else ",") if part.strip()]
    if not 1 <= len(parts) <= MOST_STEPS:
        raise PlankError(f"There can be 1 to {MOST_STEPS} slats in a pattern.", "pattern", "Type fewer.")
    for part in parts:
        width, word, gap = part.partition("gap")
        if not word:
            raise PlankError(f"“{part[:30]}” has no gap.", "pattern", "Type a slat and its gap, such as 30 gap 15.")
        found.append(
            SlatStep(read_in(job, width.strip(), SlatStep, "width"), read_in(job, gap.strip(), SlatStep, "gap"))
        )
    return tuple(found)


def pattern_text(steps: Sequence[tuple[float, float]], show: Callable[[float], str]) -> str:
    """A pattern as it is typed. `steps`: widths and gaps, mm."""
    return "; ".join(f"{show(w)} gap {show(g)}" for w, g in steps)

"""Edits of worktops: overhangs, upstands, joints, waterfall legs, cut-outs, own outlines; of runs and islands."""

from __future__ import annotations

from typing import get_args

import msgspec

from tall_plank.edits.change import Change, new_ids, with_run
from tall_plank.edits.rooms import read, read_in
from tall_plank.edits.things.island import find_island, with_island
from tall_plank.job import Job, Kind, Source, Top, TopCut, TopEdge, TopPoint
from tall_plank.job.top import EdgeName
from tall_plank.measure import Length, PlankError
from tall_plank.measure import outlines as ol
from tall_plank.measure.lengths import exact_text
from tall_plank.measure.limits import check_reach
from tall_plank.setout import set_out
from tall_plank.setout.tops import arc_points

EDGE_PROFILES = {
    "": "square", "eased": "eased 3 mm", "rounded": "half round", "bevel": "bevelled 10 mm", "ogee": "double curve",
}  # fmt: skip
"""Shapes that an edge of a worktop can be worked to."""

JOINTS = ("butt", "mitre", "masons mitre")


def top_of(job: Job, source: Source) -> Top:
    """The decisions on the worktop of a run or an island."""
    if source.kind is Kind.ISLAND:
        return find_island(job, source.id)[1].top
    return job.find_run(source.id)[1].top


def _with_top(job: Job, source: Source, top: Top, name: str) -> Change:
    if source.kind is Kind.ISLAND:
        room, island = find_island(job, source.id)
        return Change(with_island(job, room, msgspec.structs.replace(island, top=top)), name)
    _, run = job.find_run(source.id)
    return Change(with_run(job, msgspec.structs.replace(run, top=top)), name)


def set_top(job: Job, source: Source, key: str, text: str) -> Change:
    """Set a decision on a worktop.

    Keys: `left_out`, `waterfall_left`, `waterfall_right` (yes or no), `thickness`, `splashback` (empty: inherited or
    none), `joint`, `joints` (lengths parted by semicolons), `outline` (see `set_outline`), `overhang_front` and the
    other edges (empty: inherited), `upstand_back` (yes or no) and `profile_front` (a shape) and the other edges.

    Raises
    ------
    PlankError for an unknown decision or a value that does not fit
    """
    top = top_of(job, source)
    head, _, edge = key.rpartition("_")
    if key in ("left_out", "waterfall_left", "waterfall_right"):
        new = msgspec.structs.replace(top, **{key: text == "yes"})
    elif key in ("thickness", "splashback"):
        value = read_in(job, text, Top, key) if text.strip() else None
        new = msgspec.structs.replace(top, **{key: value})
    elif key == "joint":
        if text not in JOINTS:
            raise PlankError(f"“{text}” is no joint.", "joint", f"Choose {', '.join(JOINTS)}.")
        new = msgspec.structs.replace(top, joint=text)
    elif key == "joints":
        places = tuple(read_in(job, t, Top, "joints") for t in text.split(";") if t.strip())
        new = msgspec.structs.replace(top, joints=places)
    elif key == "outline":
        return set_outline(job, source, text)
    elif head in ("overhang", "upstand", "profile") and edge in get_args(EdgeName):
        old = top.edge(edge)  # type: ignore[arg-type]
        if head == "overhang":
            value = read_in(job, text, TopEdge, "overhang") if text.strip() else None
            changed = msgspec.structs.replace(old, overhang=value)
        elif head == "profile":
            if text not in EDGE_PROFILES:
                raise PlankError(f"“{text}” is no edge.", "profile", f"Known: {', '.join(EDGE_PROFILES.values())}.")
            changed = msgspec.structs.replace(old, profile=text)
        else:
            changed = msgspec.structs.replace(old, upstand=True if text == "yes" else None)
        rest = tuple(e for e in top.edges if e.edge != edge)
        kept = rest if changed == TopEdge(edge) else (*rest, changed)  # type: ignore[arg-type]
        new = msgspec.structs.replace(top, edges=tuple(sorted(kept, key=lambda e: e.edge)))
    else:
        raise PlankError(f"A worktop has no {key}.", "worktop", "Choose a known decision.")
    return _with_top(job, source, new, f"Set the worktop's {key.replace('_', ' ')}")


def set_outline(job: Job, source: Source, text: str) -> Change:
    """Give a worktop corners of its own: `x out; x out; ...`, from the line's left end and out from it; a third
    figure bows the side that starts there (the tangent of a quarter of its arc). An empty text follows the units again.

    Raises
    ------
    PlankError where it crosses itself or cannot be read
    """
    top = top_of(job, source)
    if not text.strip():
        return _with_top(job, source, msgspec.structs.replace(top, outline=()), "Let the worktop follow its units")
    points: list[TopPoint] = []
    for i, piece in enumerate((p for p in text.split(";") if p.strip()), 1):
        words = piece.split()
        if len(words) not in (2, 3):
            raise PlankError("A corner is two lengths, x and out.", f"corner {i}", "Write x out; x out; x out.")
        try:
            bulge = float(words[2].replace(",", ".")) if len(words) == 3 else 0.0
        except ValueError:
            raise PlankError(
                f"“{words[2]}” is no number.", f"corner {i}", "Type 0.4142 for a quarter circle."
            ) from None
        if not -2.0 <= bulge <= 2.0:
            raise PlankError("The side would be bowed too far.", f"corner {i}", "Type a figure between -2 and 2.")
        points.append(TopPoint(read(job, words[0]), read(job, words[1]), bulge))
    if len(points) < 3:
        raise PlankError("An outline needs three corners or more.", "outline", "Write x out; x out; x out.")
    _check_outline(points)
    return _with_top(job, source, msgspec.structs.replace(top, outline=tuple(points)), "Shape the worktop")


def outline_text(job: Job, source: Source) -> str:
    """A worktop's own corners as the text that makes them again; empty where it follows its units."""

    def word(length: Length) -> str:
        return exact_text(length, job.display, spaces=False)

    return "; ".join(
        f"{word(p.x)} {word(p.out)}" + (f" {p.bulge:g}" if p.bulge else "") for p in top_of(job, source).outline
    )


def follow_corners(job: Job, source: Source) -> Change:
    """Take the worktop's present corners as its own, to be changed one by one.

    Raises
    ------
    PlankError “There is no worktop here.”
    """
    tops = [t for room in set_out(job).rooms for t in room.worktops if t.source == source]
    if not tops:
        raise PlankError("There is no worktop here.", "worktop", "Add base units first.")
    points = tuple(TopPoint(Length.of(round(x, 3)), Length.of(round(out, 3))) for x, out in tops[0].points)
    top = msgspec.structs.replace(top_of(job, source), outline=points)
    return _with_top(job, source, top, "Keep the worktop's corners")


def move_corner(job: Job, source: Source, index: int, x: float, out: float) -> Change:
    """Drag a corner of a worktop's own outline to a place, mm.

    Raises
    ------
    PlankError where the outline would cross itself
    """
    check_reach(x, out)
    top = top_of(job, source)
    points = list(top.outline)
    _check_index(points, index)
    points[index] = msgspec.structs.replace(points[index], x=Length.of(round(x, 3)), out=Length.of(round(out, 3)))
    _check_outline(points)
    return _with_top(job, source, msgspec.structs.replace(top, outline=tuple(points)), "Move the worktop's corner")


def add_corner(job: Job, source: Source, side: int) -> Change:
    """Put a corner into the middle of a side of a worktop's own outline, to be dragged from there."""
    top = top_of(job, source)
    points = list(top.outline)
    _check_index(points, side)
    a, b = points[side], points[(side + 1) % len(points)]
    middle = TopPoint(Length.of(round((a.x.mm + b.x.mm) / 2, 3)), Length.of(round((a.out.mm + b.out.mm) / 2, 3)))
    points[side] = msgspec.structs.replace(a, bulge=0.0)
    points.insert(side + 1, middle)
    return _with_top(job, source, msgspec.structs.replace(top, outline=tuple(points)), "Add a corner to the worktop")


def _check_index(points: list[TopPoint], index: int) -> None:
    if not 0 <= index < len(points):
        raise PlankError("The worktop has no such corner.", "outline", "Keep its corners first, then choose one.")


def _check_outline(points: list[TopPoint]) -> None:
    flat = []
    for i, p in enumerate(points):
        q = points[(i + 1) % len(points)]
        a, b = (p.x.mm, p.out.mm), (q.x.mm, q.out.mm)
        flat += [a, *arc_points(a, b, p.bulge)]
    if ol.crossing(flat) is not None or abs(ol.area(flat)) < 1000.0:
        raise PlankError("The outline crosses itself or has no area.", "outline", "Put its corners in order.")


def add_cut(job: Job, source: Source, text: str) -> Change:
    """Cut a hole by hand: `x back width depth`, its middle from the top's left end and rear edge.

    Raises
    ------
    PlankError where the four lengths cannot be read
    """
    words = text.replace(",", " ").replace(";", " ").split()
    if len(words) != 4:
        raise PlankError("A cut-out is four lengths.", "cut-out", "Write x, back, width and depth: 900 300 35 35.")
    x, back, width, depth = (read(job, w, least=1.0) for w in words)
    job, (new_id,) = new_ids(job, "k")
    top = top_of(job, source)
    new = msgspec.structs.replace(top, cuts=(*top.cuts, TopCut(new_id, x, back, width, depth)))
    return _with_top(job, source, new, "Cut the worktop")


def delete_cut(job: Job, source: Source, cut_id: str) -> Change:
    """Take a cut-out made by hand away."""
    top = top_of(job, source)
    cuts = tuple(c for c in top.cuts if c.id != cut_id)
    return _with_top(job, source, msgspec.structs.replace(top, cuts=cuts), "Close the cut-out")

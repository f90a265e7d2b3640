"""Worktops as boards: what is cut out of them lies where it was set out, seen from the front edge."""

from __future__ import annotations

import contextlib
import math
from typing import Any

import msgspec
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from manifold3d import CrossSection, FillRule, JoinType, Manifold, OpType

from conftest import with_run
from tall_plank.edits import outline, rooms, runs, tops, units
from tall_plank.edits.things.island import add_island, set_island
from tall_plank.job import Job, Kind, Level
from tall_plank.job.start import new_job
from tall_plank.making import Part
from tall_plank.making.parts import Bevel, Cutout
from tall_plank.making.solids import placed
from tall_plank.measure import PlankError
from tall_plank.shop.cutlist import shape_note
from tall_plank.workings import Workings


def top_of(job: Job) -> Part:
    return next(i.part for i in Workings(job).made.parts() if i.part.role == "worktop")


def test_a_sink_is_cut_out_at_the_front_and_not_at_the_wall() -> None:
    """60 mm of board stay before it; a sink of 540 x 440 rests with 20 mm of rim all round (common practice)."""
    job = with_run(new_job(), "A", Level.BASE, "drawers 600, sink 900, door rest")
    part = top_of(job)
    (cut,) = [op for op in part.operations if isinstance(op, Cutout)]
    assert (cut.length, cut.width) == (500.0, 400.0)
    assert cut.y == pytest.approx(60.0)
    assert part.width - cut.y - cut.width > 100.0
    assert cut.x + cut.length / 2 == pytest.approx(600.0 + 450.0)
    # L1, from which y runs, is the front edge: it is the one that is banded along the room.
    assert part.edges.l1 and not part.edges.l2


def test_a_cut_out_by_hand_is_measured_from_the_wall() -> None:
    job = with_run(new_job(), "A", Level.BASE, "door 600, pair rest")
    source = Kind.RUN.of(job.rooms[0].runs[0].id)
    job = tops.add_cut(job, source, "1000 200 400 300").job
    part = top_of(job)
    (cut,) = [op for op in part.operations if isinstance(op, Cutout)]
    assert (cut.x, cut.length, cut.width) == (800.0, 400.0, 300.0)
    assert cut.y + cut.width / 2 == pytest.approx(part.width - 200.0)


@pytest.mark.parametrize("first", range(300, 901, 50))
@pytest.mark.parametrize("thing", ["dishwasher 600", "sink 900", "hob 900"])
def test_a_joint_in_length_stays_clear_of_what_stands_below_and_in_it(first: int, thing: str) -> None:
    """100 to 300 mm from a cut-out and from a dishwasher, whose steam finds the joint (common practice); it was 5 mm."""
    job = outline.type_outline(new_job(), "r1", "9000mm, 3000mm, rest, rest").job
    job = with_run(
        job, "A", Level.BASE, f"pair 1200, pair 900, drawers {first}, {thing}, pair 1000, pair 1200, pair 900"
    )
    pieces = list(Workings(job).layout.rooms[0].worktops)
    joints = [t.x + t.length for t in pieces[:-1]]
    assert joints
    (placed,) = [p for p in Workings(job).layout.rooms[0].placed if p.template == thing.split()[0]]
    told = any("no place for a joint" in note for t in pieces for note in t.dropped)
    for at in joints:
        if thing.startswith("dishwasher"):
            clear = max(placed.x - at, at - placed.right)
        else:
            (cut,) = [(t.x + c.x, t.x + c.x + c.width) for t in pieces for c in t.cutouts]
            clear = max(cut[0] - at, at - cut[1])
        assert clear >= 150.0 - 1e-6 or told, (at, placed.x, placed.right)


@pytest.mark.parametrize(
    ("text", "code"),
    [("hob 900", "AP-HOB80"), ("hob 786", "AP-HOB80"), ("hob 785", "AP-HOB60"), ("hob 600", "AP-HOB60")],
)
def test_a_hob_goes_between_the_gables_of_its_unit(text: str, code: str) -> None:
    """A hob of 800 in a unit of 600 was cut 750 wide into a top of 610."""
    job = with_run(new_job(), "A", Level.BASE, text)
    w = Workings(job)
    (top,) = w.layout.rooms[0].worktops
    (cut,) = top.cutouts
    (placed,) = w.layout.rooms[0].placed
    assert cut.appliance == code
    assert top.x + cut.x >= placed.x + 18.0 - 1e-6 and top.x + cut.x + cut.width <= placed.right - 18.0 + 1e-6
    made = w.made.of(placed.cell)
    assert made is not None and made.parts and [a.code for a in made.appliances] == [code]


@pytest.mark.parametrize(("kind", "width", "need"), [("hob", "500", "560"), ("sink", "500", "500")])
def test_what_does_not_go_between_the_gables_is_refused_and_not_cut(kind: str, width: str, need: str) -> None:
    job = with_run(new_job(), "A", Level.BASE, f"{kind} 900, drawers 600")
    cell = job.cells()[0].id
    kinds = tuple(msgspec.structs.replace(t, least=300.0) if t.code == kind else t for t in job.templates)
    job = msgspec.structs.replace(job, templates=kinds)  # a job of before, whose kinds may be as narrow
    job = runs.set_width(job, (cell,), width).job
    w = Workings(job)
    made = w.made.of(cell)
    assert made is not None and not made.parts
    assert any(f"is let in {need} mm wide; between the gables are" in s.what for s in w.snags if s.where.cell == cell)
    assert not [c for t in w.layout.rooms[0].worktops for c in t.cutouts]


@pytest.mark.parametrize(("text", "least"), [("hob 550", "600"), ("sink 500", "540")])
def test_a_width_in_which_nothing_can_be_let_in_is_refused_where_it_is_typed(text: str, least: str) -> None:
    with pytest.raises(PlankError, match=r"too small|too narrow|least"):
        with_run(new_job(), "A", Level.BASE, text)
    assert with_run(new_job(), "A", Level.BASE, f"{text.split()[0]} {least}")


@given(
    st.sampled_from(["sink", "hob", "vanity"]),
    st.sampled_from([s.code for s in new_job().standards]),
    st.floats(300.0, 1300.0).map(lambda mm: round(mm, 1)),
    st.sampled_from(["none", "frame"]),
    st.sampled_from(["full", "half", "inset"]),
    st.sampled_from(["", "drawers 450, ", "filler 60, "]),
)
def test_what_is_let_in_lies_between_gables_at_any_width_or_nothing_is_cut(
    kind: str, standard: str, width: float, frame: str, overlay: str, before: str
) -> None:
    job = msgspec.structs.replace(new_job(), standard=standard)
    kinds = tuple(msgspec.structs.replace(t, least=250.0, most=1400.0) if t.code == kind else t for t in job.templates)
    job = msgspec.structs.replace(job, templates=kinds)
    job = with_run(job, "A", Level.BASE, f"{before}{kind} {width}mm")
    cell = job.cells()[-1].id
    for key, value in (("face_frame", frame), ("overlay", overlay)):
        with contextlib.suppress(PlankError):
            job = units.set_own(job, (cell,), key, value).job
    w = Workings(job)
    made, placed = w.made.of(cell), w.layout.find(cell)
    assert made is not None and placed is not None
    thick = made.spec.made.carcass_thickness
    cuts = [(t.x + c.x, t.x + c.x + c.width) for t in w.layout.rooms[0].worktops for c in t.cutouts if c.cell == cell]
    said = any("between the gables are" in p.what for p in made.problems)
    assert len(cuts) == (0 if said else 1)
    for x0, x1 in cuts:
        assert x0 >= placed.x + thick - 1e-6 and x1 <= placed.right - thick + 1e-6
    if said:
        assert not made.parts


# --- edges of tops that are no rectangle, joints in length, legs


def boards_of(job: Job, *roles: str) -> list[tuple[Part, Any]]:
    """Parts that belong to no unit, with the frame of their line."""
    return [(i.part, i.parent) for i in Workings(job).made.parts() if not i.cell and i.part.role in roles]


def edged(part: Part) -> float:
    return sum(mm for _, _, mm in part.banded)


def on_floor(part: Part, parent: Any) -> list[tuple[float, float]]:
    corners = part.outline or ((0.0, 0.0), (part.length, 0.0), (part.length, part.width), (0.0, part.width))
    return [parent.at(*part.frame.at(x, y, 0.0))[:2] for x, y in corners]


def free_by_union(job: Job) -> float:
    """mm of edge of all worktops of the room together that lie at no wall: their outlines united, which the joints
    vanish from, by a general-purpose library."""
    whole = CrossSection()
    for part, parent in boards_of(job, "worktop"):
        shape = CrossSection([np.array(on_floor(part, parent))], FillRule.NonZero)
        whole = whole + shape.offset(0.02, JoinType.Miter, 4.0)
    whole = whole.offset(-0.02, JoinType.Miter, 4.0)
    points = Workings(job).layout.rooms[0].points
    total = 0.0
    for ring in whole.to_polygons():
        for p, q in zip(ring, [*ring[1:], ring[0]], strict=True):
            middle = (p + q) / 2
            if all(away(middle, a, b) > 1.0 for a, b in zip(points, [*points[1:], points[0]], strict=True)):
                total += math.dist(p, q)
    return total


def away(p: Any, a: Any, b: Any) -> float:
    """mm from a point to a stretch of wall."""
    d = (b[0] - a[0], b[1] - a[1])
    t = max(0.0, min(1.0, ((p[0] - a[0]) * d[0] + (p[1] - a[1]) * d[1]) / (d[0] ** 2 + d[1] ** 2)))
    return math.dist(p, (a[0] + d[0] * t, a[1] + d[1] * t))


NORTHS = (
    "drawers 600, pair 900, pair rest, corner 900",
    "drawers 600, pair 900, pair rest, slant corner 900",
    "drawers 600, pair rest, blind 1100",
    "slant left 300, drawers 600, pair rest, slant corner 1000",
)


@pytest.mark.parametrize("north", NORTHS)
@pytest.mark.parametrize("joint", ["butt", "mitre", "masons mitre"])
@pytest.mark.parametrize("east", ["drawers 600, pair 800", "drawers 600, slant right 300"])
def test_every_free_edge_of_a_worktop_is_banded_in_its_true_length(north: str, joint: str, east: str) -> None:
    """A mitred corner listed 7.60 m of edging for 6.40; a slanted end 1210 mm for 916 and 416."""
    job = with_run(with_run(new_job(), "A", Level.BASE, north), "B", Level.BASE, east)
    job = tops.set_top(job, Kind.RUN.of(job.rooms[0].runs[0].id), "joint", joint).job
    pieces = boards_of(job, "worktop")
    assert len(pieces) >= 2
    assert sum(edged(part) for part, _ in pieces) == pytest.approx(free_by_union(job), abs=0.5)
    for part, _ in pieces:
        if part.outline:  # its size is that of the rectangle about its outline
            xs, ys = zip(*part.outline, strict=True)
            assert (min(xs), min(ys)) == pytest.approx((0.0, 0.0), abs=1e-6)
            assert (max(xs), max(ys)) == pytest.approx((part.length, part.width))


@pytest.mark.parametrize("corner", ["slant corner 900", "corner 900"])
def test_a_top_jointed_in_length_is_as_deep_as_each_piece(corner: str) -> None:
    """It kept the whole depth: 2100 x 916.2 for an outline of 2100 x 599, and went to the wide blank."""
    job = outline.type_outline(new_job(), "r1", "9000mm, 3000mm, rest, rest").job
    job = with_run(job, "A", Level.BASE, f"pair 1200, pair 1200, hob 900, pair 1200, pair 1200, pair rest, {corner}")
    pieces = boards_of(job, "worktop")
    assert len(pieces) >= 3
    run = [part for part, _ in pieces if part.length > 700.0]
    assert len(run) >= 2 and sorted(p.width for p in run)[0] == pytest.approx(599.0)
    (hob,) = [(part, op) for part, _ in pieces for op in part.operations if isinstance(op, Cutout)]
    assert hob[1].y == pytest.approx(60.0) and hob[0].width == pytest.approx(599.0)
    assert sum(edged(part) for part, _ in pieces) == pytest.approx(free_by_union(job), abs=0.5)
    assert all(part.board == "SL40" for part, _ in pieces if part.width < 650.0)


def with_length(job: Job) -> Job:
    return rooms.set_room_length(rooms.set_room_length(job, "r1", "width", "6000").job, "r1", "depth", "5000").job


def wedge_solid(part: Part, parent: Any) -> Any:
    """The board with its slanted ends, as a polygon seen from its edge, pushed along it; built here anew."""
    cuts = {op.edge: op for op in part.operations if isinstance(op, Bevel)}
    t = part.thickness

    def short(edge: str, low: bool) -> float:
        op = cuts.get(edge)
        return t * math.tan(math.radians(op.angle)) if op is not None and (op.long == "A") == low else 0.0

    section = [
        (short("W1", True), 0.0), (part.length - short("W2", True), 0.0),
        (part.length - short("W2", False), t), (short("W1", False), t),
    ]  # fmt: skip
    body = Manifold.extrude(CrossSection([np.array(section)]), part.width)  # (x, z, y)
    body = body.transform(np.array([[1.0, 0, 0, 0], [0, 0, 1, 0], [0, 1, 0, 0]]))
    if body.volume() < 0:
        raise AssertionError("inside out")
    f = part.frame
    z = np.cross(f.x, f.y)
    body = body.transform(np.column_stack([f.x, f.y, z, f.origin]))
    g = parent
    return body.transform(np.column_stack([g.x, g.y, np.cross(g.x, g.y), g.origin]))


@pytest.mark.parametrize("where", ["run right", "island left", "island right", "island both"])
def test_a_worktop_and_its_leg_meet_in_a_mitre(where: str) -> None:
    """Cut square at their long points they overlapped 40 x 40, and the mitred end was listed as banded."""
    if where == "run right":
        job = with_run(new_job(), "A", Level.BASE, "drawers 600, pair 900")
        job = tops.set_top(job, Kind.RUN.of(job.rooms[0].runs[0].id), "waterfall_right", "yes").job
        count = 1
    else:
        change = add_island(with_length(new_job()), "r1")
        job = set_island(change.job, change.made[0], "length", "2000").job
        for side in ("left", "right"):
            if side in where or "both" in where:
                job = set_island(job, change.made[0], side, "waterfall").job
        job = with_run(job, "K1", Level.BASE, "drawers rest, pair share")
        count = 2 if "both" in where else 1
    (top,) = boards_of(job, "worktop")
    stands = boards_of(job, "waterfall leg")
    assert len(stands) == count
    solids = [wedge_solid(*row) for row in (top, *stands)]
    square = 0.0
    for row in (top, *stands):
        square += row[0].length * row[0].width * row[0].thickness
    t, w = top[0].thickness, top[0].width
    # Together they fill the corner once: what square boards would share is left out, and nothing is missing.
    assert sum(s.volume() for s in solids) == pytest.approx(square - count * t * t * w, rel=1e-6)
    assert Manifold.batch_boolean(solids, OpType.Add).volume() == pytest.approx(square - count * t * t * w, rel=1e-5)
    for s in solids[1:]:
        assert (solids[0] ^ s).volume() < 50.0
    # The program's own solids are those.
    for (part, parent), s in zip((top, *stands), solids, strict=True):
        assert placed(part).volume() == pytest.approx(s.volume(), rel=1e-4)
        assert parent is not None
    # A mitred end is not banded; the rear edge of a leg at a wall neither.
    bevelled = {op.edge for op in top[0].operations if isinstance(op, Bevel)}
    assert bevelled and not bevelled & {name for name, _, _ in top[0].banded}
    for part, _ in stands:
        assert {name for name, _, _ in part.banded} == ({"L2"} if where == "run right" else {"L1", "L2"})
        assert "cut at 45°, long at face" in shape_note(part)

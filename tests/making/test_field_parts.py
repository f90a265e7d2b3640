"""Wall fields made: every style goes together, boards cover their zones, nothing is larger than its board."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tall_plank.edits.rooms import set_room_length
from tall_plank.edits.standards import use_standard
from tall_plank.edits.things.opening import add_opening
from tall_plank.edits.things.service import add_service
from tall_plank.edits.things.wall_field import STARTS, add_field, repeat_on, set_field
from tall_plank.edits.treatments import cover_zone, set_hold, set_zone, split_zone
from tall_plank.edits.units import set_scheme_finish
from tall_plank.job import Job, Role
from tall_plank.job.start import new_job
from tall_plank.making.between import _Stand, clashes
from tall_plank.making.made import MadeTrim
from tall_plank.making.paneling.battens import batten_levels
from tall_plank.making.paneling.splitting import joints_in
from tall_plank.making.parts import Bevel, Cutout, Groove, Part
from tall_plank.making.proof import faults_of
from tall_plank.measure.outlines import area
from tall_plank.workings import Workings

STYLES = ("planted", "framed", "raised", "molded")


def covered(start: str, width: str = "3600mm", **more: str) -> Job:
    job = set_room_length(new_job("Fields"), "r1", "width", width).job
    job = add_field(job, "r1", "A", start).job
    for key, text in more.items():
        job = set_zone(job, treatment(job), (), key, text).job
    return job


def treatment(job: Job) -> str:
    return job.rooms[0].fields[0].treatment


def pieces(job: Job, *names: str) -> list[Part]:
    made = Workings(job).made
    return [t.part for t in made.trims if t.part is not None and (not names or t.part.name in names)]


def problems(job: Job) -> list[str]:
    return [p.what for f in Workings(job).made.fields for p in f.problems]


def within_themselves(w: Workings) -> list[str]:
    """Pieces of wall fields that share space with others of their own field, as solids."""
    stands = [_Stand(i, False, t.number, t.parent, (t.part,)) for i, t in enumerate(w.made.trims) if t.part is not None]
    return [f"{c.one.number} in {c.other.number}" for c in clashes(stands)]


def face(part: Part) -> float:
    whole = area(part.outline) if part.outline else part.length * part.width
    return whole - sum(op.length * op.width for op in part.operations if isinstance(op, Cutout))


@pytest.mark.parametrize("style", STYLES)
@pytest.mark.parametrize("rows", ["1", "2", "3"])
def test_every_style_goes_together(style: str, rows: str) -> None:
    """The proof of what can be put together, asked of all parts of the field at once: tongues meet grooves, nothing
    takes the same space."""
    job = covered("equal panels", style=style, rows=rows)
    parts = pieces(job)
    assert parts and not [p for p in problems(job) if "joined" not in p and "butt" not in p]
    told = [p.what for p in faults_of(parts)]
    # Whole boards, frames and battens are glued and screwed to what is behind: nothing is drilled for that.
    assert not [what for what in told if "same space" in what or "groove" in what or "tongue" in what], told


def test_a_framed_panel_is_its_sight_size_and_two_groove_depths_less_clearance() -> None:
    """Common practice; rails include their tongues."""
    job = covered("equal panels", "2400mm", style="framed")
    made = Workings(job).layout.rooms[0].fields[0].made
    grid = Workings(job).layout.rooms[0].fields[0].zones[0].stretches[0].grid
    assert grid is not None
    deep, play = made.frame_groove_depth, made.frame_panel_clearance
    panel = pieces(job, "panel")[0]
    assert panel.width == pytest.approx(grid.panels[0] + 2 * (deep - play))
    assert panel.length == pytest.approx(grid.height + 2 * (deep - play))
    rail = pieces(job, "rail")[0]
    assert rail.length == pytest.approx(2400 - grid.stiles[0] - grid.stiles[-1] + 2 * deep)
    inner = min(pieces(job, "stile"), key=lambda p: p.length)
    assert inner.length == pytest.approx(grid.height + 2 * deep)
    assert sum(isinstance(op, Groove) for op in inner.operations) == 2


@given(
    st.sampled_from(list(STARTS)),
    st.integers(900, 7000),
    st.sampled_from(("", "door", "window")),
    st.sampled_from(("up", "along", "arch", "line", "")),
    st.sampled_from(("battens", "split", "glue", "screws")),
    st.sampled_from(("quay-dowelled", "staithe-ply", "chandler-frame")),
)
def test_whatever_is_chosen_nothing_shares_space_and_all_fits_its_board(
    start: str, width: int, opening: str, split: str, hold: str, standard: str
) -> None:
    job = set_room_length(new_job("Fields"), "r1", "width", f"{width}mm").job
    if opening and width > 2500:
        job = add_opening(job, "r1", "A", opening, 500.0).job
    job = add_service(job, "r1", "A", "power", 400.0).job
    job = add_field(job, "r1", "A", start).job
    tid = treatment(job)
    job = set_hold(job, tid, "hold", hold).job
    if split:
        path = (1,) if start in ("dado", "arch in slats") else ()
        job = split_zone(job, tid, path, split).job
        if split != "arch":
            job = cover_zone(job, tid, (*path, 0), "slats").job
    job = use_standard(job, standard).job
    w = Workings(job)
    assert not [t.problem for t in w.made.trims if t.problem is not None], "nothing gives way to anything"
    assert not within_themselves(w)
    for part in (t.part for t in w.made.trims if t.part is not None):
        board = job.stock.board_by_code(part.board)
        assert board is not None
        long, wide = board.length, board.width
        fits = part.cut_length <= long + 0.01 and part.cut_width <= wide + 0.01
        turned = board.grain == "none" and part.cut_length <= wide + 0.01 and part.cut_width <= long + 0.01
        assert fits or turned, (part.name, part.cut_length, part.cut_width)
        assert face(part) > 0


def test_boards_cover_their_zones_and_no_more() -> None:
    """The areas of boards sum to that of the zone, arch and opening taken out."""
    job = set_room_length(new_job("Fields"), "r1", "width", "5200mm").job
    job = add_opening(job, "r1", "A", "window", 3800.0).job
    job = add_field(job, "r1", "A", "arch in slats").job
    tid = treatment(job)
    job = cover_zone(job, tid, (1,), "boards").job
    job = set_zone(set_zone(job, tid, (1,), "gap", "0mm").job, tid, (0,), "gap", "0mm").job
    field = Workings(job).layout.rooms[0].fields[0]
    boards = pieces(job, "board")
    wanted = math.fsum(z.area for z in field.zones)
    # Parts hold chords within 0.1 mm of the arc: 1,414 mm of it twice.
    assert math.fsum(face(p) for p in boards) == pytest.approx(wanted, abs=2 * 1414 * 0.1)
    assert wanted == pytest.approx(5200 * 2500 - 1000 * 1100, abs=1e-3)


def test_a_joint_is_hidden_where_it_can_be() -> None:
    cuts, hidden = joints_in(5000.0, 2050.0, [800.0, 1600.0, 2400.0, 3200.0, 4000.0])
    assert hidden and all(c in (800.0, 1600.0, 2400.0, 3200.0, 4000.0) for c in cuts)
    marks = [0.0, *cuts, 5000.0]
    assert max(b - a for a, b in zip(marks, marks[1:], strict=False)) <= 2050.0
    assert joints_in(2050.0, 2050.0) == ((), True)
    assert joints_in(4200.0, 2050.0) == ((1400.0, 2800.0), False), "else equal pieces"


@given(st.integers(100, 20_000), st.integers(400, 3000), st.lists(st.integers(1, 20_000), max_size=30))
def test_pieces_fit_their_board_and_make_the_length(length: int, most: int, hidden: list[int]) -> None:
    cuts, told = joints_in(float(length), float(most), [float(h) for h in hidden])
    marks = [0.0, *cuts, float(length)]
    sizes = [b - a for a, b in zip(marks, marks[1:], strict=False)]
    assert math.fsum(sizes) == pytest.approx(length) and max(sizes) <= most + 1e-6
    assert not cuts or min(sizes) >= min(300.0, length / len(sizes)) - 1e-6
    assert not told or all(c in hidden for c in cuts)


def test_what_is_scribed_is_cut_larger_and_stays_its_size() -> None:
    job = covered("flat boards", "1500mm")
    plain = pieces(job, "board")[0]
    job = set_field(job, job.rooms[0].fields[0].id, "right_meets", "scribe").job
    job = set_field(job, job.rooms[0].fields[0].id, "bottom_meets", "scribe").job
    scribe = Workings(job).layout.rooms[0].fields[0].made.scribe
    part = pieces(job, "board")[0]
    assert (part.length, part.width) == (plain.length, plain.width)
    assert part.cut_width == pytest.approx(plain.cut_width + scribe)
    assert part.cut_length == pytest.approx(plain.cut_length + scribe)
    # L1 is the right edge, W1 the foot.
    assert part.cut_origin == pytest.approx((plain.cut_origin[0] - scribe, plain.cut_origin[1] - scribe))


def test_an_outlet_in_a_panel_is_cut_out_and_one_on_a_stile_is_told() -> None:
    job = covered("equal panels", "3000mm")
    grid = Workings(job).layout.rooms[0].fields[0].zones[0].stretches[0].grid
    assert grid is not None
    inside = add_service(job, "r1", "A", "power", grid.left_edges[1] + grid.panels[1] / 2).job
    cuts = [op for p in pieces(inside) for op in p.operations if isinstance(op, Cutout)]
    assert len(cuts) == 1 and cuts[0].length == pytest.approx(70 + 2 * 3)
    assert not [what for what in problems(inside) if "power point" in what]
    on_it = add_service(job, "r1", "A", "power", grid.left_edges[1] - 40.0).job
    assert any("stands on a stile" in what for what in problems(on_it))


@pytest.mark.parametrize(("low", "high", "pitch"), [(0.0, 900.0, 600.0), (100.0, 2500.0, 600.0), (0.0, 120.0, 600.0)])
def test_battens_reach_both_ends_and_keep_the_pitch(low: float, high: float, pitch: float) -> None:
    levels = batten_levels(low, high, 45.0, pitch)
    assert levels[0] == low and levels[-1] == pytest.approx(high - 45.0)
    assert all(b - a <= pitch + 1e-9 for a, b in zip(levels, levels[1:], strict=False))


def test_split_battens_come_in_pairs_that_hook() -> None:
    job = covered("flat boards")
    job = set_hold(job, treatment(job), "hold", "split").job
    walls, boards = pieces(job, "wall batten"), pieces(job, "board batten")
    assert walls and len(walls) == len(boards)
    assert all(isinstance(p.operations[0], Bevel) and p.operations[0].angle == 45.0 for p in (*walls, *boards))


def test_glued_boards_stand_on_the_wall() -> None:
    job = covered("flat boards")
    job = set_hold(job, treatment(job), "hold", "glue").job
    assert not pieces(job, "batten") and pieces(job, "board")[0].frame.origin[1] == pytest.approx(0.0)


def test_solid_panels_want_room_to_move_and_no_glue() -> None:
    """0.37 % a percent of moisture across the grain (from memory, after the Wood Handbook), 4 % of moisture: 600 mm
    move by 8.9 mm."""
    job = set_scheme_finish(covered("equal panels", style="framed", target="600mm"), Role.FRONT, "strand-ash").job
    grid = Workings(job).layout.rooms[0].fields[0].zones[0].stretches[0].grid
    assert grid is not None
    moves = grid.panels[0] * 0.0037 * 4
    assert any(f"move by {moves:.1f}".rstrip("0").rstrip(".") in what for what in problems(job)), problems(job)
    glued = set_zone(job, treatment(job), (), "style", "raised").job
    assert any("crack" in what for what in problems(glued))


def test_panel_moldings_are_mitred_round_every_panel() -> None:
    code = next(p.code for p in new_job("x").stock.profiles)
    job = covered("equal panels", style="molded", molding=code)
    w = Workings(job)
    grid = w.layout.rooms[0].fields[0].zones[0].stretches[0].grid
    assert grid is not None
    lengths = [m.length for m in w.made.lengths]
    assert len(lengths) == 4 * grid.count and {(m.left, m.right) for m in w.made.lengths} == {(45.0, 45.0)}
    assert math.fsum(lengths) == pytest.approx(2 * math.fsum(grid.panels) + 2 * grid.count * grid.height)


def test_a_room_without_a_unit_is_made_drawn_and_priced() -> None:
    from tall_plank.costing.cost import job_costs

    job = covered("dado")
    job = repeat_on(job, job.rooms[0].fields[0].id, ("B", "C", "D")).job
    w = Workings(job)
    numbers = [t.number for t in w.made.trims]
    assert len(set(numbers)) == len(numbers) and {n.split(".")[0] for n in numbers} == {"AN1", "BN1", "CN1", "DN1"}
    assert job_costs(job, w.made).lines
    assert not [s for s in w.snags if s.weight == "wrong"]


def test_the_fields_of_alike_walls_are_alike() -> None:
    job = covered("equal panels", "2400mm")
    job = repeat_on(job, job.rooms[0].fields[0].id, ("B", "C", "D")).job

    def sizes(wall: str) -> list[tuple[str, float, float]]:
        trims: list[MadeTrim] = [t for t in Workings(job).made.trims if t.number.startswith(wall)]
        return [(t.part.name, round(t.part.length, 3), round(t.part.width, 3)) for t in trims if t.part is not None]

    assert sizes("A") == sizes("C") and sizes("B") == sizes("D")


@given(st.integers(2600, 12_000), st.integers(0, 1), st.sampled_from(("0", "25")))
def test_slats_of_any_height_fit_their_boards(height: int, solid: int, angle: str) -> None:
    """Two nearly whole lengths left an odd slat with a piece longer than its board."""
    job = set_room_length(new_job("High"), "r1", "height", f"{height}mm").job
    job = set_room_length(job, "r1", "width", "1200mm").job
    job = add_field(job, "r1", "A", "slats").job
    job = set_zone(job, treatment(job), (), "angle", angle).job
    if solid:
        job = set_zone(job, treatment(job), (), "finish", "keel-oak").job
        job = set_zone(job, treatment(job), (), "board_finish", "sea-sage").job
    slats = pieces(job, "slat")
    assert slats
    for part in slats:
        board = job.stock.board_by_code(part.board)
        assert board is not None and part.length <= board.usable_length + 0.01


@pytest.mark.parametrize(("style", "cuts"), [("planted", 1), ("molded", 1), ("framed", 1), ("raised", 2)])
def test_an_outlet_goes_through_all_that_lies_behind_it(style: str, cuts: int) -> None:
    job = covered("equal panels", "2400mm", style=style)
    grid = Workings(job).layout.rooms[0].fields[0].zones[0].stretches[0].grid
    assert grid is not None
    job = add_service(job, "r1", "A", "power", grid.left_edges[0] + grid.panels[0] / 2).job
    assert sum(isinstance(op, Cutout) for p in pieces(job) for op in p.operations) == cuts, problems(job)

"""Every kind of unit under every shop standard: it goes together, its joints meet, its holes keep clear."""

from __future__ import annotations

import math
from collections import Counter

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import cell_of, made_alone, with_run
from tall_plank.edits import runs, runtext, standards, units
from tall_plank.job import Body, Job
from tall_plank.job.shipped import DATA, shipped_standards
from tall_plank.job.standard import CHOICES, PART_OF, PARTS, load_standard
from tall_plank.job.start import new_job, shipped_templates
from tall_plank.job.template import Template
from tall_plank.making import MadeUnit
from tall_plank.making.parts import Bore, Groove, Part, Rebate
from tall_plank.making.solids import machined, placed
from tall_plank.measure import PlankError
from tall_plank.measure.frames import Vec
from tall_plank.workings import Workings

STANDARDS = [s.code for s in shipped_standards()]
KINDS = [t for t in shipped_templates() if t.body is Body.CARCASS]


def job_under(standard: str) -> Job:
    return msgspec.structs.replace(new_job(), standard=standard)


def made_of(job: Job, template: Template, width: float | None = None) -> MadeUnit:
    change = runs.add_run(job, "r1", "A", template.level)
    job = runtext.type_run(change.job, change.made[0], f"{template.words[0]} {width or template.width:g}").job
    return made_alone(job, job.cells()[-1].id)


def overlaps(parts: tuple[Part, ...]) -> list[tuple[str, str, float]]:
    """Pairs of parts that share more than 1 mm3 of space once everything is machined."""
    solids = [(p.name, placed(p)) for p in parts if not p.bend]
    boxes = [s.bounding_box() for _, s in solids]
    found = []
    for i, (one, a) in enumerate(solids):
        for k in range(i + 1, len(solids)):
            other, b = solids[k]
            if all(min(boxes[i][3 + j], boxes[k][3 + j]) - max(boxes[i][j], boxes[k][j]) > 0.02 for j in range(3)):
                shared = (a ^ b).volume()
                if shared > 1.0:
                    found.append((one, other, shared))
    return found


@pytest.mark.parametrize("standard", STANDARDS)
@pytest.mark.parametrize("template", KINDS, ids=lambda t: t.code)
def test_no_two_parts_of_a_unit_take_the_same_space(standard: str, template: Template) -> None:
    made = made_of(job_under(standard), template)
    if not made.parts:
        # What a standard cannot make is said, with what to do; nothing half-made is left.
        assert made.problems and all(p.remedy for p in made.problems)
        assert standard == "chandler-frame"
        return
    assert overlaps(made.parts) == []
    # So the volumes of the machined parts add up to that of the whole unit.
    from manifold3d import Manifold, OpType

    solids = [placed(p) for p in made.parts if not p.bend]
    whole = Manifold.batch_boolean(solids, OpType.Add)
    assert sum(s.volume() for s in solids) == pytest.approx(whole.volume(), rel=1e-5)


def places(part: Part, use: str) -> list[Vec]:
    """Where holes of a use start, in the unit's frame."""
    found = []
    for op in part.operations:
        if isinstance(op, Bore) and op.use == use and not op.slant:
            at = {
                "A": (op.x, op.y, part.thickness), "B": (op.x, op.y, 0.0), "L1": (op.x, 0.0, op.y),
                "L2": (op.x, part.width, op.y), "W1": (0.0, op.x, op.y), "W2": (part.length, op.x, op.y),
            }[op.face]  # fmt: skip
            found.append(part.frame.at(*at))
    return found


@pytest.mark.parametrize("standard", STANDARDS)
@pytest.mark.parametrize("template", KINDS, ids=lambda t: t.code)
def test_both_halves_of_every_joint_meet_within_a_hundredth(standard: str, template: Template) -> None:
    made = made_of(job_under(standard), template)
    for use in ("dowel", "cam dowel", "carcass screw"):
        every = [(i, p) for i, part in enumerate(made.parts) for p in places(part, use)]
        # What hangs between the panels of an island has its other halves there.
        every += [
            (-1, place) for _, asked in made.lent for place, name in ((a.at, a.use) for a in asked) if name == use
        ]
        for i, p in every:
            partners = [k for k, q in every if k != i and math.dist(p, q) < 0.01]
            assert len(partners) == 1, (use, i, p)


@pytest.mark.parametrize("joint", CHOICES["joint"])
def test_every_way_of_joining_makes_a_unit_that_goes_together(joint: str) -> None:
    job = with_run(new_job(), "A", shipped_templates()[0].level, "drawers 800, pair 900")
    cells = tuple(c.id for c in job.cells())
    job = units.set_own(job, cells, "joint", joint).job
    for _, made in Workings(job).made.units:
        assert made.problems == ()
        assert overlaps(made.parts) == []
        bottom = next(p for p in made.parts if p.name == "bottom")
        gable = next(p for p in made.parts if p.name == "left gable")
        grooves = [op for op in gable.operations if isinstance(op, Groove)]
        uses = Counter(op.use for op in (*bottom.operations, *gable.operations) if isinstance(op, Bore))
        match joint:
            case "groove":
                assert bottom.length == pytest.approx(made.spec.width - 36 + 2 * 5)  # 6 deep less 1 of play, each end
                assert any(g.over == "bottom" and g.depth == 6 for g in grooves)
            case "biscuit" | "tenon":
                word = "biscuit" if joint == "biscuit" else "loose tenon"
                assert sum(g.over == word for g in grooves) >= 3
                assert any(isinstance(op, Groove) and op.over == word and op.face == "W1" for op in bottom.operations)
            case "cam":
                assert uses["cam"] == 4 and uses["cam dowel"] == 4 + 2 + 4  # bottom's ends, and rails' in the gable
            case "pocket":
                assert any(isinstance(op, Bore) and op.slant == 15 for op in bottom.operations)
            case "screw":
                assert uses["carcass screw"] and all(
                    op.through for op in gable.operations if isinstance(op, Bore) and op.use == "carcass screw"
                )


def test_cams_sit_on_the_hidden_side_or_where_the_joiner_wants_them() -> None:
    job = with_run(job_under("slip-cam"), "A", shipped_templates()[0].level, "pair 900")
    cell = cell_of(job, "A1")

    def cams(job: Job) -> set[str]:
        made = Workings(job).made.of(cell)
        assert made is not None
        bottom = next(p for p in made.parts if p.name == "bottom")
        return {op.face for op in bottom.operations if isinstance(op, Bore) and op.use == "cam"}

    assert cams(job) == {"B"}
    assert cams(units.set_own(job, (cell,), "cam_face", "in").job) == {"A"}


def test_one_more_dowel_by_hand() -> None:
    job = with_run(new_job(), "A", shipped_templates()[0].level, "pair 900")
    cell = cell_of(job, "A1")

    def dowels(job: Job) -> int:
        made = Workings(job).made.of(cell)
        assert made is not None
        bottom = next(p for p in made.parts if p.name == "bottom")
        return sum(isinstance(op, Bore) and op.face == "W1" for op in bottom.operations)

    assert dowels(job) == 4
    assert dowels(units.set_own(job, (cell,), "joint_count", "5").job) == 5


def test_a_top_over_and_a_bottom_under_the_gables_take_their_room_from_them() -> None:
    job = with_run(new_job(), "A", next(t for t in shipped_templates() if t.code == "hung-pair").level, "pair 900")
    cell = cell_of(job, "A1")
    for key, code in (("top_fit", "over"), ("bottom_fit", "under")):
        job = units.set_own(job, (cell,), key, code).job
    made = Workings(job).made.of(cell)
    assert made is not None
    sizes = {p.name: (p.length, p.width) for p in made.parts}
    assert sizes["left gable"] == (720 - 36, 330)
    assert sizes["top"] == sizes["bottom"] == (900, 330)
    assert overlaps(made.parts) == []


@pytest.mark.parametrize("fit", CHOICES["back_fit"])
def test_backs_by_hand(fit: str) -> None:
    """A unit 900 x 720 x 330 of 18 mm with a 9 mm back: sizes worked out by hand."""
    job = with_run(new_job(), "A", next(t for t in shipped_templates() if t.code == "hung-pair").level, "pair 900")
    cell = cell_of(job, "A1")
    made = Workings(units.set_own(job, (cell,), "back_fit", fit).job).made.of(cell)
    assert made is not None
    parts = {p.name: p for p in made.parts}
    back = parts["back"]
    size = {"groove": (698, 878), "on": (718, 898), "rebate": (718, 880)}[fit]
    assert (back.length, back.width) == pytest.approx(size)
    depth = {"groove": (330, 330), "on": (321, 321), "rebate": (330, 321)}[fit]
    assert (parts["left gable"].width, parts["bottom"].width) == pytest.approx(depth)
    assert any(isinstance(op, Rebate) for op in parts["left gable"].operations) is (fit == "rebate")
    assert overlaps(made.parts) == []


def test_fronts_set_into_a_face_frame_by_hand() -> None:
    """Common practice: opening = width less two stiles; door = opening less a gap all round."""
    job = with_run(job_under("chandler-frame"), "A", shipped_templates()[0].level, "door 500")
    made = Workings(job).made.of(cell_of(job, "A1"))
    assert made is not None
    parts = {p.name: p for p in made.parts}
    assert (parts["face left stile"].length, parts["face left stile"].width) == (730, 36)
    assert parts["face bottom rail"].length == 500 - 72
    (front,) = made.fronts
    assert (front.width, front.height) == (500 - 72 - 4, 730 - 72 - 4)
    # Butt hinges: as many holes in the door's edge as in the stile's, at the same heights, 2 mm apart.
    door = sorted(p for part in made.parts if part.role.startswith("front") for p in places(part, "butt hinge"))
    stile = sorted(places(parts["face left stile"], "butt hinge"))
    assert len(door) == len(stile) == 6
    for a, b in zip(door, stile, strict=True):
        assert math.dist(a, b) == pytest.approx(2.0)


def test_a_drawer_passes_through_its_face_frame_and_its_runners_stand_on_packers() -> None:
    job = with_run(job_under("chandler-frame"), "A", shipped_templates()[0].level, "drawers 600")
    made = Workings(job).made.of(cell_of(job, "A1"))
    assert made is not None
    side = next(p for p in made.parts if p.name == "drawer 1 left side")
    # Opening 600 - 72 = 528; runner 12.7 each side.
    assert side.frame.origin[0] == pytest.approx(36 + 12.7)
    packers = [p for p in made.parts if p.role == "packer"]
    assert len(packers) == 6
    assert {p.thickness for p in packers} == {18}
    assert all(any(isinstance(op, Bore) and op.use == "runner" for op in p.operations) for p in packers)


def test_frameless_fronts_set_in_stand_flush_and_push_everything_back() -> None:
    job = with_run(new_job(), "A", shipped_templates()[0].level, "door 500, drawers 600")
    cells = tuple(c.id for c in job.cells())
    job = units.set_own(job, cells, "overlay", "inset").job
    door, drawers = (Workings(job).made.of(c) for c in cells)
    assert door is not None and drawers is not None
    (front,) = door.fronts
    assert (front.width, front.height) == (500 - 36 - 4, 730 - 36 - 4)
    shelf = next(p for p in door.parts if p.role == "shelf")
    assert shelf.frame.origin[1] == pytest.approx(-560 + 19 + 20)
    plates = [p for part in door.parts for p in places(part, "hinge plate")]
    # The hinge line lies 37 mm and the door's thickness behind the edge (common practice).
    assert {round(p[1] + 560, 3) for p in plates} == {37 + 19}
    box = next(p for p in drawers.parts if p.name == "drawer 1 left side")
    assert box.frame.origin[1] == pytest.approx(-560 + 19)
    for made in (door, drawers):
        assert overlaps(made.parts) == []


@given(
    st.sampled_from([t for t in KINDS if t.code in ("pair", "drawers", "tall-pair", "bookcase", "wardrobe", "open")]),
    st.sampled_from(STANDARDS),
    st.sampled_from(list(CHOICES["joint"])),
    st.sampled_from(list(CHOICES["overlay"])),
    st.integers(400, 1150),
)
def test_any_unit_of_any_width_and_joint_goes_together(
    template: Template, standard: str, joint: str, overlay: str, width: int
) -> None:
    job = job_under(standard)
    for key, value in (("joint", joint), ("overlay", overlay)):
        job = standards.set_in_force(job, key, value).job
    width = int(min(max(width, template.least), template.most))
    made = made_of(job, template, width)
    assert made.parts or made.problems
    assert overlaps(made.parts) == []
    for part in made.parts:
        # Holes from both faces keep 2 mm of wood between them.
        flat = [op for op in part.operations if isinstance(op, Bore) and op.face in ("A", "B") and not op.slant]
        for i, a in enumerate(flat):
            for b in flat[i + 1 :]:
                if a.face != b.face and math.hypot(a.x - b.x, a.y - b.y) < (a.diameter + b.diameter) / 2:
                    assert a.through or b.through or a.depth + b.depth <= part.thickness - 2 + 1e-6


# --- inheritance


def test_every_value_of_a_standard_is_in_one_part() -> None:
    keys = [key for part in PARTS.values() for key in part]
    assert len(keys) == len(set(keys)) == len(PART_OF)
    first = shipped_standards()[0]
    assert set(keys) == {i.key for i in (*first.lengths, *first.choices)}


def test_another_standard_or_one_part_of_it_remakes_chosen_units_and_can_be_given_back() -> None:
    job = with_run(new_job(), "A", shipped_templates()[0].level, "door 500, door 500, door 500")
    a, b, c = (cell.id for cell in job.cells())
    job = units.set_own(job, (a,), "standard", "staithe-ply").job
    job = units.set_own(job, (b,), "standard.joints", "slip-cam").job

    def uses(cell: str) -> set[str]:
        made = Workings(job).made.of(cell)
        assert made is not None
        return {op.use for p in made.parts for op in p.operations if isinstance(op, Bore)}

    made = Workings(job).made.of(a)
    assert made is not None and not any(p.edges.l1 for p in made.parts)
    assert "cam" in uses(b) and "cam" not in uses(c)
    assert made.spec.made.joint == "groove"
    # The rest of the second unit still follows the job's standard.
    plain = Workings(job).made.of(c)
    other = Workings(job).made.of(b)
    assert plain is not None and other is not None
    assert other.spec.made.back_inset == plain.spec.made.back_inset
    job = units.inherit_again(job, (b,), "standard.joints").job
    assert "cam" not in uses(b)
    with pytest.raises(PlankError, match="not offered"):
        units.set_own(job, (c,), "standard", "nowhere")


def test_impossible_values_are_named_at_their_key() -> None:
    for keys, word in (
        ({"back_groove_depth": "17"}, "leaves less than 2 mm"),
        ({"back_fit": "rebate", "back_rebate": "17"}, "leaves less than 2 mm"),
        ({"back_fit": "rebate", "top_fit": "over"}, "between the gables"),
        ({"joint": "groove", "dado_depth": "17"}, "leaves less than 2 mm"),
        ({"face_frame": "frame", "overlay": "inset", "face_stile": "400"}, "of opening"),
    ):
        job = with_run(new_job(), "A", next(t for t in shipped_templates() if t.code == "hung-pair").level, "pair 600")
        cell = cell_of(job, "A1")
        for key, text in keys.items():
            job = units.set_own(job, (cell,), key, text).job
        made = Workings(job).made.of(cell)
        assert made is not None and made.parts == () and made.items == ()
        assert word in made.problems[0].what and made.problems[0].remedy


def test_a_standard_with_a_wrong_choice_is_refused_with_its_place(tmp_path) -> None:  # type: ignore[no-untyped-def]
    text = (DATA / "standards" / "quay-dowelled.toml").read_text(encoding="utf-8")
    path = tmp_path / "x.toml"
    for old, new, word in (
        ('joint = "dowel"', 'joint = "nails"', "nails"),
        ('joint = "dowel"', "", "joint"),
        ('rail_width = "100"', 'rail_width = "wide"', "rail_width"),
        ("[choices]", 'extra = "5"\n[choices]', "extra"),
    ):
        path.write_text(text.replace(old, new, 1), encoding="utf-8")
        with pytest.raises(PlankError) as caught:
            load_standard(path)
        assert word in str(caught.value)


def test_holes_of_a_machined_part_take_as_much_wood_as_their_cylinders() -> None:
    """Volume of a regular prism with 16 sides: n/2 r2 sin(2 pi / n) h (geometry)."""
    made = made_of(new_job(), next(t for t in KINDS if t.code == "pair"))
    bottom = next(p for p in made.parts if p.name == "bottom")
    bores = [op for op in bottom.operations if isinstance(op, Bore)]
    groove = next(op for op in bottom.operations if isinstance(op, Groove))
    taken = sum(8 * (op.diameter / 2) ** 2 * math.sin(math.pi / 8) * op.depth for op in bores)
    taken += abs(groove.x2 - groove.x1) * groove.width * groove.depth
    board = bottom.length * bottom.width * bottom.thickness
    assert machined(bottom).volume() == pytest.approx(board - taken, rel=1e-6)

"""Fronts in their bays, with hinges, handles and what they need in the gables. Their styles: styles.py."""

from __future__ import annotations

import math
from dataclasses import replace

from tall_plank.job.bays import HINGED, INSIDE, FrontKind
from tall_plank.job.choices import Side
from tall_plank.job.inherit import handle_of
from tall_plank.making.bayset import BayBox, Rect
from tall_plank.making.builder import Builder, FrontBox
from tall_plank.making.faceplane import FacePlane
from tall_plank.making.handles import make_handle
from tall_plank.making.hinges import hinge_count, make_hinges
from tall_plank.making.parts import Draft
from tall_plank.making.proof.taken import Taken
from tall_plank.making.shell import BOW, clear_depth
from tall_plank.making.styles import FRAMED, Field, make_style, style_for
from tall_plank.measure import told
from tall_plank.stock import Fitting


def make_fronts(b: Builder, boxes: tuple[BayBox, ...], face: FacePlane | None = None) -> None:
    """Draft the fronts of all bays that have one, on the unit's front or on another face."""
    plane = face or b.face
    for box in boxes:
        front = box.bay.front
        if front is None or front.kind in INSIDE:
            if box.bay.appliance and front is None:
                _machine(b, box)
            continue
        if front.kind == "pocket":
            box = replace(box, zone=_slid_in(b, box))
        zone = box.zone
        if not _bends(b, front.kind, zone.width):
            return
        if front.kind == "pair":
            leaf = (zone.width - b.spec.made.gap_between) / 2
            make_front(b, box, "door", "left", zone.x0, leaf, plane)
            make_front(b, box, "door", "right", zone.x1 - leaf, leaf, plane)
        elif front.kind == "bifold":
            _bifold(b, box, front.hand, plane)
        else:
            # Next to the corner there is no gable to hang on.
            hand: Side = front.hand if b.spec.corner != "blind" else "right" if b.spec.corner_side == "left" else "left"
            make_front(b, box, front.kind, hand, zone.x0, zone.width, plane)


CURVED = ("bow", "hollow", "rounded")


def _bends(b: Builder, kind: str, width: float) -> bool:
    """Whether a front can follow its unit's curve: it is bent in one piece to a flat arc, from side to side. `width`:
    mm, of its place."""
    shape = b.spec.shape
    if shape == "rounded":
        b.problem("A rounded front turns right round to its gables: no front hangs there.", "Leave its bay open.")
    elif shape in CURVED and (kind in ("pair", "bifold") or width < 0.75 * b.spec.width):
        b.problem(
            "A curved front is bent in one piece, as wide as its unit.",
            "Close it with one door, or with drawers one above another.",
        )
    else:
        return True
    return False


def _bifold(b: Builder, box: BayBox, hand: Side, plane: FacePlane) -> None:
    """Two leaves of the same width: one on the gable, one hinged to it that runs in a track at its far end."""
    zone, made = box.zone, b.spec.made
    leaf = (zone.width - made.gap_between) / 2
    left = hand == "left"
    near, far = (zone.x0, zone.x1 - leaf) if left else (zone.x1 - leaf, zone.x0)
    first = make_front(b, box, "bifold", hand, near, leaf, plane, handle=False)
    make_front(b, box, "bifold", hand, far, leaf, plane, hinges=False)
    weight = 2 * sum(p.area * p.thickness * p.board.density * 1e-9 for p in first)
    count = hinge_count(zone.height, weight / 2, made) or 5
    b.item(made.fold_hinge, count, f"{count} fold hinges: leaves {zone.height:g} mm high, {weight / 2:.1f} kg")
    b.role_item("bifold set", 1, f"track and guide of a bifold door {zone.width:g} mm wide")


def _slid_in(b: Builder, box: BayBox) -> Rect:
    """What a pocket door covers: it slides into its bay, so it is no larger than what it passes through."""
    through, gap = box.through, b.spec.made.gap_inset
    return Rect(through.x0 + gap, through.z0 + gap, through.x1 - gap, through.z1 - gap)


def _pocket(b: Builder, box: BayBox, hand: Side, width: float, z: float, height: float) -> None:
    """A pocket door turns open and slides back beside its gable: the depth has to take it, and a set carries it. `z`:
    mm, of its lower edge."""
    depth = clear_depth(b)
    if depth < width - POCKET_OUT:
        b.problem(
            f"A pocket door {width:g} mm wide needs {width - POCKET_OUT:g} mm of clear depth; "
            f"here are {told(depth)} mm.",
            "Make the unit deeper, or close it with a pair.",
        )
        return
    b.role_item("pocket set", 1, f"pocket set: door {height:g} x {width:g} mm")
    room = POCKET_ROOM + b.spec.made.front_thickness
    x0, x1 = (box.through.x0, box.through.x0 + room) if hand == "left" else (box.through.x1 - room, box.through.x1)
    y0 = -b.spec.depth + b.recess
    b.taken.append(Taken("the pocket door slid in", (x0, y0, z), (x1, y0 + width - POCKET_OUT, z + height)))


POCKET_OUT = 60.0
"""mm of a pocket door that stay out before the carcass (common practice: enough for its handle)."""


POCKET_ROOM = 5.0
"""mm that a pocket door needs beside its thickness to slide in (common practice)."""


def _machine(b: Builder, box: BayBox) -> None:
    """The face of an appliance that stands open in its bay, for drawings and the model."""
    c = box.clear
    b.fronts.append(FrontBox("machine", c.x0, c.z0, c.width, c.height, "", "machine", 0.0, None, box.path, None))


FIXED = {
    "flap": "hung on the hinges that its stays bring",
    "drop": "hung on the hinges that its stays bring",
    "pullout": "screwed to the pull-out's frame",
    "pocket": "hung on the carrier of its pocket set",
    "appliance": "hung on the appliance's door",
    "fixed": "screwed on by hand from inside",
}
"""Kinds of fronts that nothing is drilled for -> how they are fixed (common practice)."""


def make_front(
    b: Builder,
    box: BayBox,
    kind: FrontKind,
    hand: Side,
    x: float,
    width: float,
    plane: FacePlane,
    *,
    hinges: bool = True,
    handle: bool = True,
) -> list[Draft]:
    """Draft one front from x along its face, with its hinges and handle. `x`, `width`: mm."""
    made, zone = b.spec.made, box.zone
    z, height = zone.z0, zone.height
    own = box.bay.front
    style = (own.style if own is not None else "") or made.front_style
    bent = b.spec.shape in CURVED
    style = style_for(b, style, kind, width, height, bent=bent)
    number = len(b.fronts) + 1
    words = {"pullout": "pull-out front", "flap": "flap", "drop": "drop front"}
    name = f"{'door' if kind in HINGED else words.get(kind, kind + ' front')} {number}"
    pieces = make_style(Field(b, name, x, z, width, height, plane), style)
    if bent:
        _bend(b, pieces[0], width)
    weight = sum(p.area * p.thickness * p.board.density * 1e-9 for p in pieces)
    if kind in HINGED and hinges:
        make_hinges(b, box, pieces, hand, x, z, width, height, weight, plane, carried=kind == "pocket")
    fixed = FIXED.get(kind, "") if hinges else "hinged by hand to the leaf beside it"
    if fixed:
        pieces[0].fixed = fixed
    match kind:
        case "pocket":
            _pocket(b, box, hand, width, z, height)
        case "flap" | "drop":
            _stays(b, box, kind, height, weight)
        case "pullout":
            _pullout(b, box)
    pull = handle_of(made, kind, own.handle if own is not None else "")
    grip = None
    if handle:
        from_edge, from_end = (own.from_edge, own.from_end) if own is not None else (None, None)
        edge = from_edge.mm if from_edge is not None else made.handle_from_edge
        end = from_end.mm if from_end is not None else made.handle_from_end
        moved = from_end is not None
        grip = make_handle(b, pieces, kind, hand, x, z, width, height, plane, pull, edge, end, moved=moved)
    b.fronts.append(
        FrontBox(
            kind=kind,
            x=x,
            z=z,
            width=width,
            height=height,
            hand=hand if kind in HINGED else "",
            style=style,
            frame=made.frame_stile if style in FRAMED else 0.0,
            handle=grip,
            path=box.path,
            face=None if plane == FacePlane(0.0, -b.spec.depth - made.front_out) else plane,
            name=name,
            pull=pull if grip is not None else "",
        )
    )
    return pieces


def _bend(b: Builder, piece: Draft, chord: float) -> None:
    """A front bent to the plan of its unit: its developed width is the length of the arc over its chord.

    R = (c2/4 + h2) / 2h, length = R x 2 atan2(c/2, R - h) (geometry of a circle's segment).
    """
    rise = BOW * chord
    radius = (chord**2 / 4 + rise**2) / (2 * rise)
    arc = radius * 2 * math.atan2(chord / 2, radius - rise)
    piece.bend = radius if b.spec.shape != "hollow" else -radius
    if b.spec.made.front_grain == "vertical":
        piece.width = arc
    else:
        piece.length = arc


def _pullout(b: Builder, box: BayBox) -> None:
    """The frame of a pull-out, which takes its whole bay."""
    if box.bay.shelves or box.bay.children or box.bay.fittings:
        b.problem("A pull-out's frame takes all the room of its bay.", "Take out what stands in it, or choose a door.")
    thing, depth = b.stock.fitting(b.spec.made.pullout), clear_depth(b) - b.recess
    if thing is None:
        b.problem("The stock has no such pull-out.", "Choose another one in the shop standard.")
        return
    need = max(thing.reach, thing.length)
    if depth < need:
        b.problem(
            f"{thing.name} is {need:g} mm deep; here are {told(depth)} mm of clear depth.",
            f"Make the unit {told(need - depth)} mm deeper, or stock a shorter one.",
        )
        return
    b.item(thing.code, 1, "frame of the pull-out")


STAY_WIDE, STAY_BEYOND = 15.0, 15.0
"""mm that a stay is thick, and that it reaches beyond its holes (common practice)."""


def _stays(b: Builder, box: BayBox, kind: str, height: float, weight: float) -> None:
    """Stays that carry a flap or hold a drop front, one at each side; they bring their own hinges."""
    made = b.spec.made
    stay = b.stock.fitting(made.stay)
    if stay is not None and weight > 2 * stay.capacity:
        # The weakest stay that carries it.
        stronger = [s for s in b.stock.fittings_of("stay") if weight <= 2 * s.capacity]
        strongest = max(b.stock.fittings_of("stay"), key=lambda s: s.capacity)
        stay = min(stronger, key=lambda s: s.capacity, default=strongest)
    if stay is None:
        b.problem("The stock has no such stay.", "Choose another one in the shop standard.")
        return
    if weight > 2 * stay.capacity:
        b.problem(
            f"The {kind} front weighs {weight:.1f} kg; a pair of stays carries {2 * stay.capacity:g} kg.",
            "Divide it or choose a stronger stay.",
        )
        return
    if not b.held(box, f"The {kind} front"):
        return
    for upright, x in ((box.left, box.clear.x0), (box.right, box.clear.x1)):
        draft = b.part(upright)
        front = draft.frame.origin[1]
        if stay.holes:
            _take_for_stay(b, box, kind, stay, x, front + b.recess)
        for hole in stay.holes:
            z = box.clear.z1 - hole.dy if kind == "flap" else box.clear.z0 + hole.dy
            draft.bore((x, front + b.recess + hole.dx, z), hole.diameter, hole.depth, "stay")
    b.item(stay.code, 2, f"2 stays of {stay.capacity:g} kg: {kind} {height:g} mm high, {weight:.1f} kg")


def _take_for_stay(b: Builder, box: BayBox, kind: str, stay: Fitting, x: float, front: float) -> None:
    """The room of a stay on an upright: about its holes. `x`, `front`: of the upright's face and front edge, mm."""
    far = max(hole.dx for hole in stay.holes) + STAY_BEYOND
    high = max(hole.dy for hole in stay.holes) + STAY_BEYOND
    z0, z1 = (box.clear.z1 - high, box.clear.z1) if kind == "flap" else (box.clear.z0, box.clear.z0 + high)
    x0, x1 = (x, x + STAY_WIDE) if x == box.clear.x0 else (x - STAY_WIDE, x)
    b.taken.append(Taken(f"a stay of the {kind} front", (x0, front, z0), (x1, front + far, z1)))

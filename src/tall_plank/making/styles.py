"""Styles of fronts: each yields real parts. Slab, grooved, slatted; frames with a flat, raised or arched panel, with
glass and bars, or with louvers.

A front stands on a plane: x along it, z up, `out` before it. All its pieces lie within the front's thickness; the
outer face is face B.
"""

from __future__ import annotations

import math
from collections.abc import Callable

from tall_plank.making.builder import Builder
from tall_plank.making.faceplane import FacePlane
from tall_plank.making.parts import Draft, Groove, PartRole, Rebate
from tall_plank.measure import Frame
from tall_plank.measure.arches import bulge_of_rise
from tall_plank.measure.paths import arc_chords

LEAST_SIGHT = 40.0
"""mm of panel seen; a framed front with less is made as a slab (common practice for shallow drawer fronts)."""

LOUVRE_ANGLE = 60.0
"""Degrees by which louvers lean from level; their lower edge is in front."""

FRAMED = ("framed", "raised", "arched", "glazed", "louvred")
"""Styles with stiles and rails."""


class Field:
    """The rectangle that a front takes, on its plane, and its name."""

    def __init__(
        self, b: Builder, name: str, x: float, z: float, width: float, height: float, plane: FacePlane
    ) -> None:
        self.b, self.name, self.plane = b, name, plane
        self.x, self.z, self.width, self.height = x, z, width, height
        self.t = b.spec.made.front_thickness

    def piece(
        self,
        word: str,
        x: float,
        z: float,
        width: float,
        height: float,
        *,
        upright: bool,
        thick: float = 0.0,
        out: float | None = None,
        role: PartRole = "front frame",
        finish: str = "",
    ) -> Draft:
        """A board from (x, z), its outer face `out` before the plane (the front's own face by itself). `x`, `z`,
        `width`, `height`, `thick`, `out`: mm."""
        thick = thick or self.t
        level = self.t if out is None else out
        frame = self.plane.frame(x, level, z if upright else z + height, upright=upright)
        size = (height, width) if upright else (width, height)
        name = f"{self.name} {word}" if word else self.name
        return self.b.add(name, finish or self.b.spec.front, thick, *size, frame, role)

    def bar(self, word: str, x: float, z: float, width: float, height: float, thick: float, *, upright: bool) -> Draft:
        """A bar before glass. Lengths in mm."""
        piece = self.piece(word, x, z, width, height, upright=upright, thick=thick, role="front bar")
        piece.fixed = "glued between the frame's pieces"
        return piece


ON_DOORS = ("arched", "glazed", "louvred")
"""Styles of doors and flaps; drawers beside them have a flat panel (common practice)."""


def style_for(b: Builder, style: str, kind: str, width: float, height: float, *, bent: bool) -> str:
    """The style a front is made in: one that is too small for its frame, or bent, is a slab. `width`, `height`:
    mm."""
    made = b.spec.made
    if style in ON_DOORS and kind in ("drawer", "pullout", "appliance"):
        style = "framed"
    sight = min(width - 2 * made.frame_stile, height - 2 * made.frame_rail)
    if style == "arched":
        sight = min(sight, height - 2 * made.frame_rail - made.arch_rise)
    if style in FRAMED and (sight < LEAST_SIGHT or bent):
        return "slab"
    return "slab" if bent else style


def make_style(field: Field, style: str) -> list[Draft]:
    """The pieces of a front in a style; the first ones are those that hinges and handles go into."""
    makers: dict[str, Callable[[Field], list[Draft]]] = {
        "slab": _slab, "framed": _flat, "raised": _raised, "arched": _arched, "glazed": _glazed, "louvred": _louvred,
        "grooved": _grooved, "slatted": _slatted,
    }  # fmt: skip
    pieces = makers[style](field)
    if style in FRAMED:
        _edge_frame(field, pieces)
    return pieces


OUTER = {
    "left stile": ("L1", "W1", "W2"), "right stile": ("L2", "W1", "W2"), "top rail": ("L1",), "bottom rail": ("L2",),
}  # fmt: skip
"""Edges of a frame's pieces that are seen from outside it."""


def _edge_frame(f: Field, pieces: list[Draft]) -> None:
    """Stiles and rails of a board that is neither solid nor finished afterwards are banded at their outer edges; what
    stays raw inside the frame is told."""
    frame = [p for p in pieces if p.role == "front frame"]
    bare = next((p.board for p in frame if not p.board.solid and not p.board.coated), None)
    if bare is None:
        return
    for piece in frame:
        piece.band(f.b.stock, f.b.spec.made.edging_front, *OUTER[piece.name.removeprefix(f"{f.name} ")])
    f.b.problem(
        f"Framed fronts of {bare.name} show raw edges inside their frames, where they are grooved.",
        "Take solid timber, a board that is lacquered afterwards, or slab fronts.",
        "mind",
    )


def _slab(f: Field) -> list[Draft]:
    made = f.b.spec.made
    slab = f.piece("", f.x, f.z, f.width, f.height, upright=made.front_grain == "vertical", role="front")
    return [slab.band(f.b.stock, made.edging_front, "L1", "L2", "W1", "W2")]


def _furrowed(f: Field, pitch: float, wide: float, deep: float, over: str) -> list[Draft]:
    """A slab with upright grooves in its outer face, spread evenly about its middle."""
    (slab,) = _slab(f)
    count = max(1, int((f.width - wide) / pitch))
    start = (f.width - (count - 1) * pitch) / 2
    upright = f.b.spec.made.front_grain == "vertical"
    for i in range(count):
        at = start + i * pitch
        places = (0.0, at, f.height, at) if upright else (at, 0.0, at, f.height)
        slab.operations.append(Groove("B", *places, wide, deep, over))
    return [slab]


def _grooved(f: Field) -> list[Draft]:
    made = f.b.spec.made
    return _furrowed(f, made.groove_pitch, made.groove_wide, made.groove_cut, "face")


def _slatted(f: Field) -> list[Draft]:
    made = f.b.spec.made
    return _furrowed(f, made.slat_width + made.slat_gap, made.slat_gap, made.slat_cut, "slats")


# --- frames


def _flat(f: Field) -> list[Draft]:
    made = f.b.spec.made
    return [*_grooved_frame(f, 0.0), _panel(f, made.panel_thickness)]


def _grooved_frame(f: Field, arch: float) -> list[Draft]:
    """Two stiles with grooves, two rails with tongues: rail = width - 2 stiles + 2 groove depths (common practice).

    An arched top rail is higher by its rise and takes the panel in a rebate behind its lip.
    """
    made, b, t = f.b.spec.made, f.b, f.t
    stile, rail, deep = made.frame_stile, made.frame_rail, made.frame_groove_depth
    wide = made.panel_thickness + made.groove_width_play
    shoulder = (t - wide) / 2
    if shoulder <= 1.0:
        b.problem(
            f"A {made.panel_thickness:g} mm panel leaves no cheeks in a {t:g} mm frame.",
            "Choose a thinner panel or thicker front.",
        )
    pieces = []
    for word, x0, inner in (("left stile", f.x, "L2"), ("right stile", f.x + f.width - stile, "L1")):
        piece = f.piece(word, x0, f.z, stile, f.height, upright=True)
        piece.operations.append(Groove(inner, 0.0, t / 2, f.height, t / 2, wide, deep, "panel"))  # type: ignore[arg-type]
        pieces.append(piece)
    length = f.width - 2 * stile + 2 * deep
    for word, high, z0 in (("top rail", rail + arch, f.z + f.height - rail - arch), ("bottom rail", rail, f.z)):
        piece = f.piece(word, f.x + stile - deep, z0, length, high, upright=False)
        inner = "L2" if word == "top rail" else "L1"
        if arch and word == "top rail":
            piece.outline = _arch(length, high, deep, arch)
            piece.operations.append(Rebate("A", "L2", arch + deep, t - shoulder))
        else:
            piece.operations.append(Groove(inner, 0.0, t / 2, length, t / 2, wide, deep, "panel"))  # type: ignore[arg-type]
        for end in ("W1", "W2"):
            for face in ("A", "B"):
                piece.operations.append(Rebate(face, end, deep, shoulder))
        pieces.append(piece)
    return pieces


def _arch(length: float, high: float, tongue: float, rise: float) -> tuple[tuple[float, float], ...]:
    """Outline of a top rail with an arch in its lower edge, between its tongues: a circle's segment."""
    right, left = (length - tongue, high), (tongue, high)
    # It runs from right to left and draws in.
    curve = arc_chords(right, left, -bulge_of_rise(length - 2 * tongue, rise))
    return ((0.0, 0.0), (length, 0.0), (length, high), right, *curve, left, (0.0, high))


def _panel(f: Field, thick: float, *, arch: float = 0.0) -> Draft:
    """The panel: sight size + 2 groove depths - 2 clearances for movement (common practice)."""
    made = f.b.spec.made
    reach = made.frame_groove_depth - made.frame_panel_clearance
    stile, rail = made.frame_stile, made.frame_rail
    width, height = f.width - 2 * stile + 2 * reach, f.height - 2 * rail + 2 * reach
    upright = made.front_grain == "vertical"
    return f.piece(
        "panel",
        f.x + stile - reach,
        f.z + rail - reach,
        width,
        height,
        upright=upright,
        thick=thick,
        out=f.t - (f.t - thick) / 2,
        role="front panel",
    )


def _raised(f: Field) -> list[Draft]:
    """A panel as thick as the frame, cut down to the groove's width at its edges: its field stands flush."""
    made = f.b.spec.made
    pieces = _grooved_frame(f, 0.0)
    panel = _panel(f, f.t)
    tongue = (f.t - made.panel_thickness) / 2
    reach = made.frame_groove_depth - made.frame_panel_clearance
    for edge in ("L1", "L2", "W1", "W2"):
        panel.operations.append(Rebate("B", edge, made.field_width + reach, tongue))
        panel.operations.append(Rebate("A", edge, reach + 1.0, tongue))
    return [*pieces, panel]


def _arched(f: Field) -> list[Draft]:
    made = f.b.spec.made
    return [*_grooved_frame(f, made.arch_rise), _panel(f, made.panel_thickness)]


def _open_frame(f: Field) -> list[Draft]:
    """Stiles and rails that butt against one another, two dowels at each joint."""
    b, made, t = f.b, f.b.spec.made, f.t
    stile, rail = made.frame_stile, made.frame_rail
    stiles = [
        f.piece("left stile", f.x, f.z, stile, f.height, upright=True),
        f.piece("right stile", f.x + f.width - stile, f.z, stile, f.height, upright=True),
    ]
    length = f.width - 2 * stile
    rails = [
        f.piece("top rail", f.x + stile, f.z + f.height - rail, length, rail, upright=False),
        f.piece("bottom rail", f.x + stile, f.z, length, rail, upright=False),
    ]
    for piece, z0 in zip(rails, (f.z + f.height - rail, f.z), strict=True):
        for post, x in zip(stiles, (f.x + stile, f.x + f.width - stile), strict=True):
            for share in (0.25, 0.75):
                at = f.plane.point(x, t / 2, z0 + rail * share)
                post.bore(at, made.dowel_diameter, made.dowel_face_depth, "dowel")
                piece.bore(at, made.dowel_diameter, b.dowel_end(made.dowel_face_depth), "dowel")
    b.item(made.dowel, 8, "2 dowels at each joint of a front's frame")
    return [*stiles, *rails]


def _glazed(f: Field) -> list[Draft]:
    """Glass from behind in a stopped rebate; bars before the glass, as thick as the rebate's lip, each crossing cut."""
    b, made, t = f.b, f.b.spec.made, f.t
    stile, rail, rebate, lip = made.frame_stile, made.frame_rail, made.glass_rebate, made.panel_thickness
    pieces = _open_frame(f)
    low, high = rail - rebate, f.height - rail + rebate
    for piece, y in ((pieces[0], stile - rebate / 2), (pieces[1], rebate / 2)):
        piece.operations.append(Groove("A", low, y, high, y, rebate, t - lip, "glass"))
    for piece, y in ((pieces[2], rail - rebate / 2), (pieces[3], rebate / 2)):
        piece.operations.append(Groove("A", 0.0, y, piece.length, y, rebate, t - lip, "glass"))
    sight_w, sight_h = f.width - 2 * stile, f.height - 2 * rail
    columns, rows = (int(n) for n in made.bars.split("x"))
    wide = made.bar_width
    # A small door has fewer bars.
    while columns > 1 and (sight_w - (columns - 1) * wide) / columns < LEAST_PANE:
        columns -= 1
    while rows > 1 and (sight_h - (rows - 1) * wide) / rows < LEAST_PANE:
        rows -= 1
    pane_w, pane_h = (sight_w - (columns - 1) * wide) / columns, (sight_h - (rows - 1) * wide) / rows
    x0, z0 = f.x + stile, f.z + rail
    for i in range(1, columns):
        x = x0 + i * (pane_w + wide) - wide
        pieces.append(f.bar(f"upright bar {i}", x, z0, wide, sight_h, lip, upright=True))
    for k in range(1, rows):
        z = z0 + k * (pane_h + wide) - wide
        for i in range(columns):
            name = f"cross bar {(k - 1) * columns + i + 1}"
            x = x0 + i * (pane_w + wide)
            pieces.append(f.bar(name, x, z, pane_w, wide, lip, upright=False))
    reach = rebate - GLASS_PLAY
    pane = f.piece(
        "glass",
        x0 - reach,
        z0 - reach,
        sight_w + 2 * reach,
        sight_h + 2 * reach,
        upright=True,
        thick=made.glass_thickness,
        out=t - lip,
        role="glass",
        finish=made.glass,
    )
    pane.fixed = "held by its beads"
    pieces.append(pane)
    b.role_item(
        "glazing bead",
        1,
        f"glazing bead cut to {2 * (sight_w + sight_h) / 1000:.2f} m: once round the glass",
        2 * (sight_w + sight_h),
    )
    return pieces


LEAST_PANE = 70.0
"""mm of glass between bars."""

GLASS_PLAY = 2.0
"""mm that a pane is short of its rebate, each side (common practice)."""


def _louvred(f: Field) -> list[Draft]:
    """Louvers in slanted grooves of the stiles, one above another at their pitch, spread over the sight."""
    made, t = f.b.spec.made, f.t
    stile, rail, thick, wide = made.frame_stile, made.frame_rail, made.panel_thickness, made.louvre_width
    pieces = _open_frame(f)
    a = math.radians(LOUVRE_ANGLE)
    c, s = math.cos(a), math.sin(a)
    if wide * c + thick * s > t + 0.01:
        f.b.problem(
            f"Louvers {wide:g} mm wide stand out of a front {t:g} mm thick.", "Make them narrower or the front thicker."
        )
        return pieces
    # Seen from the side: z up, o outwards. A louver rises inwards; its lower edge is in front.
    tall = wide * s + thick * c
    sight = f.height - 2 * rail
    pitch = made.louvre_pitch
    count = int((sight - tall) / pitch) + 1
    into = LOUVRE_TENON
    first = f.z + rail + (sight - (count - 1) * pitch) / 2
    x0, length = f.x + stile - into, f.width - 2 * stile + 2 * into
    for i in range(count):
        z = first + i * pitch
        # Frame: x along, y up the slope inwards, z = x cross y: out of the sloping face, inwards and down.
        centre_o = t / 2
        along = (f.plane.ux, f.plane.uy, 0.0)
        up = (-f.plane.uy * c, f.plane.ux * c, s)
        normal = (along[1] * up[2], -along[0] * up[2], along[0] * up[1] - along[1] * up[0])
        middle = f.plane.point(x0, centre_o, z)
        ox, oy, oz = (middle[k] - up[k] * wide / 2 - normal[k] * thick / 2 for k in range(3))
        frame = Frame((ox, oy, oz), along, up)
        pieces.append(f.b.add(f"{f.name} louver {i + 1}", f.b.spec.front, thick, length, wide, frame, "louver"))
        for piece, inner in ((pieces[0], "L2"), (pieces[1], "L1")):
            # On the stile's edge: u along its length (up), v across its thickness from the outer face.
            u = z - f.z
            half = wide / 2
            start, end = (u - half * s, t / 2 - half * c), (u + half * s, t / 2 + half * c)
            piece.operations.append(Groove(inner, *start, *end, thick + 0.2, into + 0.5, "louver"))  # type: ignore[arg-type]
    return pieces


LOUVRE_TENON = 6.0
"""mm that a louver enters each stile (common practice)."""

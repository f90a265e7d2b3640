"""A shop standard: a named set of construction rules, each value inheritable one by one."""

from __future__ import annotations

from pathlib import Path
from typing import Literal, get_origin

import msgspec

from tall_plank.formats.door import read_toml
from tall_plank.formats.envelope import brought_up
from tall_plank.formats.table import STANDARD
from tall_plank.job.choices import (
    BackFit,
    BottomFit,
    CamFace,
    FaceFrame,
    FrontGrain,
    FrontStyle,
    GableFoot,
    Joint,
    LegShape,
    Overlay,
    TopFit,
    WallHold,
)
from tall_plank.measure import Length, PlankError, parse_length
from tall_plank.measure.remembered import remembered
from tall_plank.stock.library import Stock, convert, plain


class HingeRule(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Number of hinges for doors up to a height (mm) and a weight (kg)."""

    height: float
    weight: float
    count: int


class LegRule(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Number of legs for units up to a width (mm)."""

    width: float
    count: int


class Construction(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """Every construction value that applies to one unit. Lengths in mm; choices are codes."""

    # boards
    carcass_thickness: float
    back_thickness: float
    shelf_thickness: float
    drawer_thickness: float
    drawer_bottom_thickness: float
    front_thickness: float
    panel_thickness: float
    # carcass
    rail_width: float
    back_inset: float
    back_groove_depth: float
    groove_width_play: float
    groove_bottom_play: float
    shelf_setback: float
    shelf_play: float
    shelf_back_clearance: float
    back_rebate: float
    # face frame
    face_thickness: float
    face_stile: float
    face_rail: float
    # gaps of the fronts
    gap_inset: float
    gap_side: float
    gap_top: float
    gap_bottom: float
    gap_between: float
    # framed fronts
    frame_stile: float
    frame_rail: float
    frame_groove_depth: float
    frame_panel_clearance: float
    field_width: float
    arch_rise: float
    glass_thickness: float
    glass_rebate: float
    bar_width: float
    louvre_width: float
    louvre_pitch: float
    groove_pitch: float
    groove_wide: float
    groove_cut: float
    slat_width: float
    slat_gap: float
    slat_cut: float
    # sliding doors
    slide_overlap: float
    slide_above: float
    slide_below: float
    slide_line: float
    slide_standoff: float
    slide_frame: float
    slide_into: float
    # edging
    edging_carcass: float
    edging_front: float
    edging_shelf: float
    edging_worktop: float
    premilling: float
    edging_ignored_below: float
    # joints and holes
    dowel_diameter: float
    dowel_from_edge: float
    dowel_spacing: float
    dowel_face_depth: float
    dowel_end_depth: float
    dado_depth: float
    cam_diameter: float
    cam_depth: float
    cam_from_edge: float
    cam_bore: float
    cam_bolt: float
    cam_bolt_depth: float
    screw_clear: float
    screw_pilot: float
    screw_depth: float
    biscuit_length: float
    biscuit_thickness: float
    biscuit_depth: float
    tenon_length: float
    tenon_thickness: float
    tenon_depth: float
    pocket_diameter: float
    pocket_from_edge: float
    row_inset: float
    row_pitch: float
    row_margin: float
    pin_diameter: float
    pin_depth: float
    hinge_from_end: float
    cup_from_edge: float
    # drawers
    drawer_clear_above: float
    drawer_clear_below: float
    drawer_groove_depth: float
    drawer_groove_up: float
    # handles
    handle_from_edge: float
    handle_from_end: float
    # trims
    worktop_front: float
    worktop_side: float
    worktop_back: float
    upstand_height: float
    upstand_thickness: float
    splash_thickness: float
    waterfall_filler: float
    plinth_setback: float
    plinth_thickness: float
    leg_left: float
    leg_right: float
    leg_front: float
    leg_back: float
    leg_size: float
    corner_play: float
    scribe: float
    # paneled walls
    wall_stile: float
    wall_rail: float
    wall_step: float
    wall_board: float
    wall_frame: float
    wall_slat: float
    wall_slat_gap: float
    wall_slat_depth: float
    wall_gap: float
    wall_clear: float
    batten_width: float
    batten_thickness: float
    batten_pitch: float
    # choices
    joint: Joint
    joint_count: str
    cam_face: CamFace
    top_fit: TopFit
    bottom_fit: BottomFit
    gable_foot: GableFoot
    back_fit: BackFit
    overlay: Overlay
    face_frame: FaceFrame
    cam: str
    cam_dowel: str
    screw: str
    biscuit: str
    tenon: str
    pocket_screw: str
    front_style: FrontStyle
    front_grain: FrontGrain
    glass: str
    bars: str
    slide_profile: str
    slide_top: str
    slide_bottom: str
    slide_roller: str
    handle: str
    handle_drawer: str
    hinges: str
    legs: str
    leg_shape: LegShape
    wall_hold: WallHold
    edging_front_in: str
    edging_carcass_in: str
    edging_drawer_in: str
    wall_fixing: str
    hinge: str
    plate: str
    shelf_pin: str
    dowel: str
    leg: str
    hanger: str
    stay: str
    runner: str
    pullout: str
    fold_hinge: str
    joint_bolt: str
    # rules
    hinge_rules: tuple[HingeRule, ...] = ()
    leg_rules: tuple[LegRule, ...] = ()

    @property
    def reach(self) -> float:
        """How far fronts (or the face frame) stand out before the carcass, mm."""
        if self.face_frame == "frame":
            return self.face_thickness + (0.0 if self.overlay == "inset" else self.front_thickness)
        return 0.0 if self.overlay == "inset" else self.front_thickness

    @property
    def front_out(self) -> float:
        """How far the backs of fronts stand before the carcass's front edge, mm; negative where they are set in."""
        if self.overlay != "inset":
            return self.face_thickness if self.face_frame == "frame" else 0.0
        return self.reach - self.front_thickness


LENGTH_KEYS = tuple(f.name for f in msgspec.structs.fields(Construction) if f.type is float)
CHOICE_KEYS = tuple(
    f.name for f in msgspec.structs.fields(Construction) if f.type is str or get_origin(f.type) is Literal
)


CHOICES: dict[str, dict[str, str]] = {
    "joint": {
        "dowel": "dowels", "cam": "cam and dowel", "screw": "carcass screws", "groove": "groove and glue",
        "biscuit": "biscuits", "tenon": "loose tenons", "pocket": "pocket screws",
    },
    "hinges": {"auto": "by height and weight", "2": "2", "3": "3", "4": "4", "5": "5", "6": "6"},
    "legs": {"auto": "by the width", "4": "4", "5": "5", "6": "6", "8": "8"},
    "leg_shape": {"square": "square", "round": "round"},
    "wall_hold": {"battens": "on battens", "split": "on split battens", "glue": "glued", "screws": "screwed"},
    "feet": {"plinth": "a plinth", "legs": "legs that are seen", "none": "the floor"},
    "joint_count": {"auto": "by the depth", "2": "2", "3": "3", "4": "4", "5": "5", "6": "6"},
    "cam_face": {"out": "hidden side", "in": "side of the bay"},
    "top_fit": {"between": "between the gables", "over": "over the gables"},
    "bottom_fit": {"between": "between the gables", "under": "under the gables"},
    "gable_foot": {"legs": "on legs", "floor": "down to the floor"},
    "back_fit": {"groove": "in a groove", "on": "on the back", "rebate": "in a rebate"},
    "overlay": {"full": "over the gables", "half": "over half of them", "inset": "set in"},
    "face_frame": {"none": "none", "frame": "face frame"},
    "front_style": {
        "slab": "Slab", "framed": "Framed flat panel", "raised": "Framed raised panel", "arched": "Framed arched panel",
        "glazed": "Glazed with bars", "louvred": "Louvered", "grooved": "Grooved", "slatted": "Slatted",
    },
    "bars": {
        "1x1": "no bars", "1x2": "1 x 2 panes", "1x3": "1 x 3 panes", "1x4": "1 x 4 panes", "2x2": "2 x 2 panes",
        "2x3": "2 x 3 panes", "2x4": "2 x 4 panes", "2x5": "2 x 5 panes", "3x4": "3 x 4 panes",
    },
    "front_grain": {"vertical": "vertical", "horizontal": "horizontal"},
}  # fmt: skip
"""Choices that are no codes of the stock, with their words."""


def is_choice(key: str, value: object) -> bool:
    """Whether a value may stand under a key: one of its words, or anything where it has no words of its own."""
    return key not in CHOICES or value in CHOICES[key]


PARTS: dict[str, tuple[str, ...]] = {
    "boards": (
        "carcass_thickness", "back_thickness", "shelf_thickness", "drawer_thickness", "drawer_bottom_thickness",
        "front_thickness", "panel_thickness",
    ),
    "carcass": (
        "rail_width", "back_inset", "back_groove_depth", "groove_width_play", "groove_bottom_play", "shelf_setback",
        "shelf_play", "shelf_back_clearance", "back_rebate", "top_fit", "bottom_fit", "back_fit", "gable_foot",
    ),
    "face frame": ("face_thickness", "face_stile", "face_rail", "face_frame"),
    "fronts": (
        "gap_inset", "gap_side", "gap_top", "gap_bottom", "gap_between", "frame_stile", "frame_rail",
        "frame_groove_depth", "frame_panel_clearance", "field_width", "arch_rise", "glass_thickness", "glass_rebate",
        "bar_width", "louvre_width", "louvre_pitch", "groove_pitch", "groove_wide", "groove_cut", "slat_width",
        "slat_gap", "slat_cut", "glass", "bars", "overlay", "front_style", "front_grain",
    ),
    "sliding doors": (
        "slide_overlap", "slide_above", "slide_below", "slide_line", "slide_standoff", "slide_frame", "slide_into",
        "slide_profile", "slide_top", "slide_bottom", "slide_roller",
    ),
    "edging": (
        "edging_carcass", "edging_front", "edging_shelf", "edging_worktop", "premilling", "edging_ignored_below",
        "edging_front_in", "edging_carcass_in", "edging_drawer_in",
    ),
    "joints": (
        "dowel_diameter", "dowel_from_edge", "dowel_spacing", "dowel_face_depth", "dowel_end_depth", "dado_depth",
        "cam_diameter", "cam_depth", "cam_from_edge", "cam_bore", "cam_bolt", "cam_bolt_depth", "screw_clear",
        "screw_pilot", "screw_depth", "biscuit_length", "biscuit_thickness", "biscuit_depth", "tenon_length",
        "tenon_thickness", "tenon_depth", "pocket_diameter", "pocket_from_edge", "joint", "joint_count", "cam_face",
        "dowel", "cam", "cam_dowel", "screw", "biscuit", "tenon", "pocket_screw",
    ),
    "hole rows": (
        "row_inset", "row_pitch", "row_margin", "pin_diameter", "pin_depth", "hinge_from_end", "cup_from_edge",
    ),
    "drawers": ("drawer_clear_above", "drawer_clear_below", "drawer_groove_depth", "drawer_groove_up"),
    "hardware": (
        "handle_from_edge", "handle_from_end", "handle", "handle_drawer", "hinge", "hinges", "plate",
        "shelf_pin", "leg", "legs", "hanger", "wall_fixing", "stay", "runner", "pullout", "fold_hinge", "joint_bolt",
    ),
    "trims": (
        "worktop_front", "worktop_side", "worktop_back", "upstand_height", "upstand_thickness", "splash_thickness",
        "waterfall_filler", "plinth_setback", "plinth_thickness", "leg_left", "leg_right", "leg_front", "leg_back",
        "leg_size", "leg_shape", "corner_play", "scribe",
    ),
    "paneled walls": (
        "wall_stile", "wall_rail", "wall_step", "wall_board", "wall_frame", "wall_slat", "wall_slat_gap",
        "wall_slat_depth", "wall_gap", "wall_clear", "batten_width", "batten_thickness", "batten_pitch", "wall_hold",
    ),
}  # fmt: skip
"""The parts of a standard that can be applied by themselves, and the values in each; every value is in one of them.
The rules of hinges and legs go with the hardware."""

PART_OF = {key: part for part, keys in PARTS.items() for key in keys}


Wrong = tuple[str, str, str]
"""A value that cannot stand with the others: its key, what is wrong, and the nearest that works."""


class Checks:
    """Gathers values that cannot stand together."""

    def __init__(self) -> None:
        self.found: list[Wrong] = []

    def most(self, key: str, value: float, limit: float, what: str) -> None:
        """A value that may be so large at most, mm."""
        if value > limit + 1e-6:
            remedy = f"{limit:g} mm is the most that works." if limit > 0 else "No value works here."
            self.found.append((key, what, remedy))

    def least(self, key: str, value: float, limit: float, what: str) -> None:
        """A value that has to be so large at least, mm."""
        if value < limit - 1e-6:
            self.found.append((key, what, f"{limit:g} mm is the least that works."))

    def never(self, key: str, wrong: bool, what: str, remedy: str) -> None:
        """A choice that does not go with the others."""
        if wrong:
            self.found.append((key, what, remedy))


@remembered(256)
def impossible(made: Construction) -> tuple[Wrong, ...]:
    """Values that cannot stand together, with the nearest that works. The order is that of the parts."""
    t, d, f = made.carcass_thickness, made.drawer_thickness, made.front_thickness
    c = Checks()

    def deep(key: str, thick: float) -> None:
        """What is cut into a board leaves wood behind it."""
        value = getattr(made, key)
        what = f"{value:g} mm deep leaves less than {WEB:g} mm of a board {thick:g} mm thick."
        c.most(key, value, thick - WEB, what)

    for key in ("carcass_thickness", "back_thickness", "shelf_thickness", "drawer_thickness", "front_thickness",
                "drawer_bottom_thickness", "panel_thickness", "row_pitch", "dowel_spacing", "rail_width"):  # fmt: skip
        c.least(key, getattr(made, key), 1.0, f"The {key.replace('_', ' ')} has to be 1 mm at least.")
    if made.back_fit == "groove":
        deep("back_groove_depth", t)
        c.least(
            "back_groove_depth",
            made.back_groove_depth,
            made.groove_bottom_play + 1.0,
            "The groove is no deeper than its play: nothing holds the back.",
        )
    if made.back_fit == "rebate":
        deep("back_rebate", t)
        c.never(
            "back_fit",
            made.top_fit == "over" or made.bottom_fit == "under",
            "A back in a rebate needs top and bottom between the gables.",
            "Change one of the two.",
        )
    deep("drawer_groove_depth", d)
    if made.joint == "groove":
        deep("dado_depth", t)
    if made.joint in ("dowel", "cam", "tenon"):
        deep("dowel_face_depth", t)
        splits = f"A dowel of {made.dowel_diameter:g} mm splits a board {t:g} mm thick."
        c.most("dowel_diameter", made.dowel_diameter, t - 2 * WEB, splits)
    if made.joint == "cam":
        deep("cam_depth", t)
    if made.joint == "tenon":
        splits = f"A tenon of {made.tenon_thickness:g} mm splits a board {t:g} mm thick."
        c.most("tenon_thickness", made.tenon_thickness, t - 2 * WEB, splits)
    if made.joint == "biscuit":
        deep("biscuit_depth", t)
    deep("pin_depth", t)
    if made.front_style != "slab":
        what = f"A panel of {made.panel_thickness:g} mm is too thick for a frame of {f:g} mm."
        c.most("panel_thickness", made.panel_thickness, f - WEB, what)
    c.most(
        "frame_groove_depth",
        made.frame_groove_depth,
        min(made.frame_stile, made.frame_rail) - 10.0,
        "The groove leaves less than 10 mm of its stile or rail.",
    )
    c.most(
        "frame_panel_clearance",
        made.frame_panel_clearance,
        made.frame_groove_depth - 1.0,
        "With this clearance the panel falls out of its groove.",
    )
    c.least("row_margin", made.row_margin, 0.0, "It is below nothing.")
    return tuple(c.found)


@remembered(256)
def unfitting(made: Construction, stock: Stock) -> tuple[Wrong, ...]:
    """Values that do not go with the hardware that they name, with the nearest that works."""
    c = Checks()
    t, f = made.carcass_thickness, made.front_thickness
    hinge = stock.fitting(made.hinge)
    cup = max((h for h in hinge.holes), key=lambda h: h.diameter, default=None) if hinge is not None else None
    if hinge is not None and cup is not None and not hinge.is_butt:
        what = f"The cup of {hinge.name} is {cup.depth:g} mm deep: it comes through a front {f:g} mm thick."
        c.least("front_thickness", f, cup.depth + WEB, what)
        what = f"The cup of {hinge.name}, {cup.diameter:g} mm wide, breaks out at the front's edge."
        c.least("cup_from_edge", made.cup_from_edge, cup.diameter / 2 + 3.0, what)
        if made.front_style in GROOVED:
            need = made.cup_from_edge + cup.diameter / 2 + 1.0 + made.frame_groove_depth
            what = f"The cup of {hinge.name} reaches into the panel's groove in a stile of {made.frame_stile:g}."
            c.least("frame_stile", made.frame_stile, need, what)
    dowel = stock.fitting(made.dowel)
    if dowel is not None and dowel.length and made.joint in ("dowel", "cam"):
        both = made.dowel_face_depth + made.dowel_end_depth
        what = f"Holes {both:g} mm deep together let {dowel.name} lie loose."
        c.most("dowel_end_depth", made.dowel_end_depth, dowel.length + DOWEL_LOOSE - made.dowel_face_depth, what)
    screw = stock.fitting(made.screw)
    if screw is not None and screw.length and made.joint == "screw":
        what = f"{screw.name} bites {screw.length - t:g} mm behind a board {t:g} mm thick; {SCREW_BITE:g} is the least."
        c.most("carcass_thickness", t, screw.length - SCREW_BITE, what)
    return tuple(c.found)


GROOVED = ("framed", "raised", "arched")
"""Styles whose stiles have a groove for a panel."""

DOWEL_LOOSE, SCREW_BITE = 8.0, 15.0
"""mm that both holes of a dowel are deeper than it is long at most, and that a carcass screw bites at least (common
practice)."""

WEB = 2.0
"""mm of wood that stay behind a groove or a blind hole (common practice)."""


def construction_from(standard: Standard) -> Construction:
    """The values of a standard as they apply to a unit that has none of its own."""
    plain_values = {key: v.mm if isinstance(v, Length) else v for key, v in standard.values().items()}
    rules = {"hinge_rules": standard.hinge_rules, "leg_rules": standard.leg_rules}
    return msgspec.convert({**plain_values, **rules}, Construction)


class LengthValue(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A construction length of a standard."""

    key: str
    length: Length


class ChoiceValue(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A construction choice of a standard."""

    key: str
    choice: str


class Standard(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A shop standard as it is kept in the library and copied into jobs."""

    code: str
    name: str
    lengths: tuple[LengthValue, ...]
    choices: tuple[ChoiceValue, ...]
    hinge_rules: tuple[HingeRule, ...]
    leg_rules: tuple[LegRule, ...]

    def values(self) -> dict[str, Length | str]:
        """Every value by key."""
        found: dict[str, Length | str] = {item.key: item.length for item in self.lengths}
        found.update({item.key: item.choice for item in self.choices})
        return found

    def with_length(self, key: str, length: Length) -> Standard:
        """This standard with one length changed."""
        lengths = tuple(LengthValue(key, length) if item.key == key else item for item in self.lengths)
        return msgspec.structs.replace(self, lengths=lengths)

    def with_choice(self, key: str, choice: str) -> Standard:
        """This standard with one choice changed."""
        choices = tuple(ChoiceValue(key, choice) if item.key == key else item for item in self.choices)
        return msgspec.structs.replace(self, choices=choices)


def check_standard(standard: Standard) -> None:
    """Raises PlankError where a standard lacks a value, has an unknown one, or a choice that there is not."""
    keys = [item.key for item in standard.lengths], [item.key for item in standard.choices]
    for wanted, given in ((LENGTH_KEYS, keys[0]), (CHOICE_KEYS, keys[1])):
        wrong = sorted(set(wanted) ^ set(given)) or [key for key in given if given.count(key) > 1]
        if wrong:
            raise PlankError(f"The value “{wrong[0]}” is missing, unknown or there twice.", standard.name, "Mend it.")
    for item in standard.choices:
        known = CHOICES.get(item.key)
        if known is not None and item.choice not in known:
            what = f"“{item.choice}” is no choice of {item.key.replace('_', ' ')}."
            raise PlankError(what, standard.name, f"Known: {', '.join(known)}.")


def load_standard(path: Path) -> Standard:
    """Read a shop standard from TOML: ``[lengths]``, ``[choices]``, ``hinge_rules``, ``leg_rules``.

    Raises
    ------
    PlankError naming the file and the key: missing, unknown or unreadable values
    """
    data = brought_up(plain(read_toml(path)), STANDARD, path.name)
    unknown = set(data) - {"code", "name", "lengths", "choices", "hinge_rules", "leg_rules"}
    if unknown:
        raise PlankError(f"“{sorted(unknown)[0]}” is not part of a shop standard.", path.name, "Take it out.")
    for key in ("code", "name"):
        if not isinstance(data.get(key, path.stem), str):
            raise PlankError(f"{key} is “{data[key]}”, not a text.", path.name, f'Write it as {key} = "{data[key]}".')
    lengths, choices = data.get("lengths", {}), data.get("choices", {})
    for wanted, given, table in ((LENGTH_KEYS, lengths, "lengths"), (CHOICE_KEYS, choices, "choices")):
        if not isinstance(given, dict):
            raise PlankError(f"{table} is “{given}”, no table.", path.name, f"Begin the table with a line [{table}].")
        missing = [key for key in wanted if key not in given]
        extra = [key for key in given if key not in wanted]
        if missing or extra:
            what = f"“{missing[0]}” is missing." if missing else f"“{extra[0]}” is not known."
            raise PlankError(what, f"{path.name}, [{table}]", "Compare with the shipped standard.")
    typed = []
    for key, text in lengths.items():
        try:
            typed.append(LengthValue(key, parse_length(str(text), least=0)))
        except PlankError as error:
            raise PlankError(error.what, f"{path.name}, [lengths] {key}", error.remedy) from None
    found = Standard(
        code=data.get("code", path.stem),
        name=data.get("name", path.stem),
        lengths=tuple(typed),
        choices=tuple(ChoiceValue(key, str(choice)) for key, choice in choices.items()),
        hinge_rules=convert(data.get("hinge_rules", []), tuple[HingeRule, ...], f"{path.name}, hinge_rules"),
        leg_rules=convert(data.get("leg_rules", []), tuple[LegRule, ...], f"{path.name}, leg_rules"),
    )
    check_standard(found)
    wrong = impossible(construction_from(found))
    if wrong:
        raise PlankError(wrong[0][1], f"{path.name}, {wrong[0][0]}", wrong[0][2])
    return found

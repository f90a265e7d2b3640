"""A shop standard: a named set of construction rules, each value inheritable one by one."""

from __future__ import annotations

from pathlib import Path

import msgspec

from tall_plank.measure import Length, PlankError, parse_length
from tall_plank.stock.library import convert, plain, read_toml


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
    # gaps of the fronts
    gap_side: float
    gap_top: float
    gap_bottom: float
    gap_between: float
    # framed fronts
    frame_stile: float
    frame_rail: float
    frame_groove_depth: float
    frame_panel_clearance: float
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
    leg_inset: float
    corner_play: float
    scribe: float
    # choices
    front_style: str
    front_grain: str
    handle: str
    hinge: str
    plate: str
    shelf_pin: str
    dowel: str
    leg: str
    hanger: str
    stay: str
    pullout: str
    fold_hinge: str
    joint_bolt: str
    # rules
    hinge_rules: tuple[HingeRule, ...] = ()
    leg_rules: tuple[LegRule, ...] = ()


LENGTH_KEYS = tuple(f.name for f in msgspec.structs.fields(Construction) if f.type is float)
CHOICE_KEYS = tuple(f.name for f in msgspec.structs.fields(Construction) if f.type is str)


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


def load_standard(path: Path) -> Standard:
    """Read a shop standard from TOML: ``[lengths]``, ``[choices]``, ``hinge_rules``, ``leg_rules``.

    Raises
    ------
    PlankError naming the file and the key: missing, unknown or unreadable values
    """
    data = plain(read_toml(path))
    unknown = set(data) - {"code", "name", "lengths", "choices", "hinge_rules", "leg_rules"}
    if unknown:
        raise PlankError(f"“{sorted(unknown)[0]}” is not part of a shop standard.", path.name, "Take it out.")
    lengths, choices = data.get("lengths", {}), data.get("choices", {})
    for wanted, given, table in ((LENGTH_KEYS, lengths, "lengths"), (CHOICE_KEYS, choices, "choices")):
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
    return Standard(
        code=str(data.get("code", path.stem)),
        name=str(data.get("name", path.stem)),
        lengths=tuple(typed),
        choices=tuple(ChoiceValue(key, str(choice)) for key, choice in choices.items()),
        hinge_rules=convert(data.get("hinge_rules", []), tuple[HingeRule, ...], f"{path.name}, hinge_rules"),
        leg_rules=convert(data.get("leg_rules", []), tuple[LegRule, ...], f"{path.name}, leg_rules"),
    )

"""Own or inherited: what value a unit has for a key, and where it comes from."""

from __future__ import annotations

from dataclasses import dataclass

import msgspec

from tall_plank.job.basis import Basis, NamedValue
from tall_plank.job.build import Values, with_parameters
from tall_plank.job.scheme import Role, Scheme
from tall_plank.job.standard import LENGTH_KEYS, PART_OF, PARTS, Construction, Standard
from tall_plank.job.template import Template
from tall_plank.job.unit import Own, Unit
from tall_plank.measure import Length, PlankError
from tall_plank.measure.lengths import evaluate_text
from tall_plank.measure.remembered import remembered

SIZE_KEYS = ("height", "depth", "corner_leg")
FINISH_KEYS = tuple(f"finish_{role.value}" for role in Role)
OWN_LENGTH_KEYS = (*SIZE_KEYS, *LENGTH_KEYS)
STANDARD_KEYS = ("standard", *(f"standard.{part}" for part in PARTS))
"""Own choices of another shop standard: for the whole unit, or for one part of its construction."""


@dataclass(frozen=True)
class Sourced:
    """A value, whether it is the unit's own, and else who gave it."""

    value: Length | str
    own: bool
    source: str

    @property
    def mm(self) -> float:
        assert isinstance(self.value, Length)
        return self.value.mm


def sourced(job: Basis, unit: Unit, key: str) -> Sourced:
    """The value of a key for a unit.

    Raises
    ------
    PlankError where nobody gives the value
    """
    own = unit.own_value(key)
    inherited = inherited_value(job, unit, key)
    return inherited if own is None else Sourced(own, True, "own")


def inherited_value(job: Basis, unit: Unit, key: str) -> Sourced:
    """What the unit would have for a key without an own value.

    Raises
    ------
    PlankError “There is no decision called ….”, “The scheme has no finish for ….”
    """
    if key in SIZE_KEYS:
        template = job.template(unit.template)
        text = template.leg if key == "corner_leg" else getattr(template, key)
        return Sourced(
            Length(text, _evaluated(text, job.values)),
            False,
            f"named value {text}" if key != "corner_leg" else "its kind",
        )
    if key in FINISH_KEYS:
        finish = job.active_scheme().finish(Role(key.removeprefix("finish_")))
        if finish is None:
            raise PlankError(f"The scheme has no finish for {key}.", job.scheme, "Choose one in the Finish stage.")
        return Sourced(finish, False, f"scheme {job.active_scheme().name}")
    if key.startswith("parameter."):
        return _parameter(job, unit, key.removeprefix("parameter."))
    if key in STANDARD_KEYS:
        whole = standard_code(unit) if key != "standard" else ""
        return Sourced(whole or job.standard, False, "the unit's standard" if whole else "the job")
    standard = standard_of(job, unit, key)
    value = standard.values().get(key)
    if value is None:
        raise PlankError(f"There is no decision called “{key}”.", "unit", "Choose a known one.")
    return Sourced(value, False, f"standard {standard.name}")


def _parameter(job: Basis, unit: Unit, name: str) -> Sourced:
    """What a parameter of the unit's kind has without an own value."""
    template = job.template(unit.template)
    found = template.parameter(name)
    if found is None:
        raise PlankError(f"There is no decision called “{name}”.", "unit", "Choose a known one.")
    if found.kind == "number":
        return Sourced(found.value, False, "its kind")
    made = construction_of(job, unit)
    values = Values({key: getattr(made, key) for key in LENGTH_KEYS}, {})
    values.lengths |= {key: size_of(job, unit, key) for key in ("height", "depth")}
    values.lengths["width"] = template.width
    known = with_parameters(values, template.parameters, {})
    return Sourced(Length(found.value, known.lengths[name]), False, "its kind")


def standard_code(unit: Unit, part: str = "") -> str:
    """Code of the shop standard that a unit, or one part of its construction, has of its own; empty: the job's."""
    for key in (f"standard.{part}", "standard") if part else ("standard",):
        own = unit.own_value(key)
        if isinstance(own, str):
            return own
    return ""


def standard_of(job: Basis, unit: Unit, key: str) -> Standard:
    """The shop standard that gives a unit a value: that of the value's part, else the unit's, else the job's."""
    code = standard_code(unit, PART_OF.get(key, ""))
    return job.standard_by(code) if code else job.active_standard()


@remembered(256)
def _evaluated(text: str, values: tuple[NamedValue, ...]) -> float:
    return evaluate_text(text, {v.name: v.length.mm for v in values})


def construction_of(job: Basis, unit: Unit) -> Construction:
    """All construction values of a unit, its own ones before the standard's."""
    return _construction(job.active_standard(), job.standards, unit.own)


@remembered(4096)
def _construction(active: Standard, standards: tuple[Standard, ...], own: tuple[Own, ...]) -> Construction:
    by_code = {s.code: s for s in standards}
    chosen = {item.key: by_code.get(str(item.value), active) for item in own if item.key.startswith("standard")}
    whole = chosen.get("standard", active)
    values: dict[str, object] = dict(whole.values())
    hardware = whole
    for part, keys in PARTS.items():
        given = chosen.get(f"standard.{part}")
        if given is not None:
            found = given.values()
            values.update({key: found[key] for key in keys})
            hardware = given if part == "hardware" else hardware
    for item in own:
        if item.key in values:
            values[item.key] = item.value
    plain = {key: v.mm if isinstance(v, Length) else v for key, v in values.items()}
    return msgspec.convert(
        {**plain, "hinge_rules": hardware.hinge_rules, "leg_rules": hardware.leg_rules}, Construction
    )


HANDLED_BY_DRAWER = ("drawer", "pullout")
"""Kinds of fronts that take the handle of drawers."""

WITHOUT_HANDLE = ("fixed", "inner")
"""Kinds of fronts that never carry one."""


def handle_of(made: Construction, kind: str, own: str) -> str:
    """Code of the handle that a front carries; "none" where it carries none.

    Parameters
    ----------
    kind : of the front
    own : the front's own handle; empty: that of its unit
    """
    if kind in WITHOUT_HANDLE:
        return "none"
    if own:
        return own
    if kind in HANDLED_BY_DRAWER and made.handle_drawer != "same":
        return made.handle_drawer
    return made.handle


def size_of(job: Basis, unit: Unit, key: str) -> float:
    """Height or depth of a unit's carcass in mm."""
    return _size(unit, job.template(unit.template), job.values, key)


@remembered(8192)
def _size(unit: Unit, template: Template, values: tuple[NamedValue, ...], key: str) -> float:
    own = unit.own_value(key)
    if isinstance(own, Length):
        return own.mm
    return _evaluated(template.leg if key == "corner_leg" else getattr(template, key), values)


def finish_of(job: Basis, unit: Unit, role: Role) -> str:
    """Code of the finish of a role on a unit.

    Raises
    ------
    PlankError where neither the unit nor the scheme has one
    """
    return _finish(unit, job.active_scheme(), role)


@remembered(8192)
def _finish(unit: Unit, scheme: Scheme, role: Role) -> str:
    own = unit.own_value(f"finish_{role.value}")
    found = own if isinstance(own, str) else scheme.finish(role)
    if found is None:
        raise PlankError(f"The scheme has no finish for {role.value}.", scheme.code, "Choose one in the Finish stage.")
    return found

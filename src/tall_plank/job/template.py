"""Unit templates: a kind of unit is data. Read from TOML, copied into the job that uses them."""

from __future__ import annotations

import re
from enum import StrEnum
from pathlib import Path
from typing import Any

import msgspec

from tall_plank.formats.door import read_toml
from tall_plank.job.bays import Bay, Fitted, Front, Split
from tall_plank.job.build import (
    Build,
    BuildFront,
    BuildHole,
    BuildItem,
    BuildJoint,
    BuildPart,
    Parameter,
    Values,
    with_parameters,
)
from tall_plank.job.choices import CarcassTop, Corner, Shape
from tall_plank.job.run import Level
from tall_plank.job.shipped import shipped_standard
from tall_plank.job.standard import CHOICES, LENGTH_KEYS, construction_from, is_choice
from tall_plank.job.unit import Own
from tall_plank.measure import Length, LengthError, PlankError, parse_length
from tall_plank.stock.library import convert, plain


class Body(StrEnum):
    """What a unit is made of."""

    CARCASS = "carcass"
    APPLIANCE = "appliance"
    FILLER = "filler"
    PANEL = "panel"
    GAP = "gap"
    PARTS = "parts"
    """Its own parts, listed in its file."""


class Template(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A kind of unit.

    Attributes
    ----------
    words : what may be typed for it in a run's text; the first is shown
    group : heading on the picking shelf
    width : starting width, mm
    height, depth : text of the inherited size, in terms of job values
    least, most : range of sensible widths, mm
    top : rails, full or none
    sink : the top is left open for a sink; the front rail stands on edge
    trims : whether the worktop runs over it
    plinth : whether the plinth runs under it; None: where the worktop runs over it
    appliance : code of the appliance that stands in it
    corner : what it does in a corner: nothing, run into it blind, fill it with two legs, or with a slanted front
    leg : length of its other leg along the next wall, in terms of job values
    shape : plan of its front: straight, slanted away at its left or right end, bowed out, hollowed, or rounded
    gables, bottom, back : whether it has them; without gables it hangs between the panels of an island
    cover : thickness of a board over its top, mm
    vent : clear space for air behind what stands in it, mm
    fittings : codes of what always goes into it
    free : it hangs where it is put, not in a run
    own : own values that new units of this kind start with
    parameters, build : of a kind made of its own parts
    """

    code: str
    name: str
    group: str
    level: Level
    body: Body
    words: tuple[str, ...]
    width: float
    height: str
    depth: str
    bay: Bay
    least: float = 100.0
    most: float = 1200.0
    top: CarcassTop = "rails"
    sink: bool = False
    trims: bool = True
    plinth: bool | None = None
    appliance: str = ""
    corner: Corner = ""
    leg: str = "900mm"
    shape: Shape = "straight"
    gables: bool = True
    bottom: bool = True
    back: bool = True
    cover: float = 0.0
    vent: float = 0.0
    fittings: tuple[str, ...] = ()
    free: bool = False
    own: tuple[Own, ...] = ()
    parameters: tuple[Parameter, ...] = ()
    build: Build | None = None

    def parameter(self, name: str) -> Parameter | None:
        return next((p for p in self.parameters if p.name == name), None)

    @property
    def has_plinth(self) -> bool:
        return self.trims if self.plinth is None else self.plinth

    @property
    def stands(self) -> bool:
        """Whether it stands on the floor."""
        return self.level is not Level.HUNG


_BAY_KEYS = {
    "split", "between", "children", "size", "weight", "front", "shelves", "hand", "appliance", "fittings", "style",
    "handle",
}  # fmt: skip


def bay_of(data: Any, where: str) -> Bay:
    """A bay tree from plain values; sizes are typed lengths.

    Raises
    ------
    PlankError naming the place
    """
    if not isinstance(data, dict):
        raise PlankError("A bay is to be a table.", where, "Write { front = …, shelves = … }.")
    unknown = set(data) - _BAY_KEYS
    if unknown:
        raise PlankError(
            f"“{sorted(unknown)[0]}” is not part of a bay.", where, f"Known: {', '.join(sorted(_BAY_KEYS))}."
        )
    size: Length | None = None
    if "size" in data:
        try:
            size = parse_length(str(data["size"]), least=1)
        except LengthError as error:
            raise PlankError(error.what, f"{where}, size", error.remedy) from None
    children = tuple(bay_of(child, f"{where}, bay {i}") for i, child in enumerate(data.get("children", []), 1))
    split = convert(data.get("split", "none"), Split, where)
    if (split is Split.NONE) != (not children):
        raise PlankError("A bay is split and has bays inside, or neither.", where, "Give split and children together.")
    front = None
    if "front" in data:
        given = {key: data[key] for key in ("hand", "style", "handle") if key in data}
        front = convert({"kind": data["front"], **given}, Front, where)
    shelves = data.get("shelves", 0)
    if not isinstance(shelves, int) or not 0 <= shelves <= 20:
        raise PlankError("The number of shelves is not between 0 and 20.", where, "Mend it.")
    return Bay(
        split=split,
        between=data.get("between", "nothing"),
        children=children,
        size=size,
        weight=float(data.get("weight", 1)),
        front=front,
        shelves=shelves,
        appliance=str(data.get("appliance", "")),
        fittings=tuple(_fitted_of(item, where) for item in data.get("fittings", ())),
    )


def _fitted_of(data: Any, where: str) -> Fitted:
    """A fitting of a bay: its code, or a table with code, start and at."""
    if isinstance(data, str):
        return Fitted(data)
    if not isinstance(data, dict) or "code" not in data:
        raise PlankError("A fitting is a code or a table with one.", where, 'Write { code = "…", start = "high" }.')
    found = dict(data)
    if "at" in found:
        try:
            found["at"] = msgspec.to_builtins(parse_length(str(found["at"]), least=0))
        except LengthError as error:
            raise PlankError(error.what, f"{where}, at", error.remedy) from None
    return convert(found, Fitted, where)


def _own_of(key: str, value: Any, name: str) -> Own:
    """A starting own value: a length where the text is one, else a choice."""
    if key in CHOICES:
        if not is_choice(key, str(value)):
            known = f"Known: {', '.join(CHOICES[key])}."
            raise PlankError(f"“{value}” is no choice of {key.replace('_', ' ')}.", f"{name}, own {key}", known)
        return Own(key, str(value))
    try:
        return Own(key, parse_length(str(value), least=0))
    except LengthError as error:
        if str(value)[:1].isdigit():
            raise PlankError(error.what, f"{name}, own {key}", error.remedy) from None
        return Own(key, str(value))


BUILD_TABLES = {"part": "parts", "joint": "joints", "front": "fronts", "hole": "holes", "item": "items"}
"""Tables of a file that make up its build, by their names."""


def load_template(path: Path) -> Template:
    """Read one template.

    Raises
    ------
    PlankError naming the file, the line where it is known, and the value
    """
    raw = dict(read_toml(path))
    try:
        return _template_of(plain(raw), path)
    except PlankError as error:
        line = _line_of(path, error.where)
        where = error.where.replace(path.name, f"{path.name}, line {line}", 1) if line else error.where
        raise PlankError(error.what, where, error.remedy) from None


def _template_of(data: dict[str, Any], path: Path) -> Template:
    bay = bay_of(data.pop("bay", {}), f"{path.name}, bay")
    data.setdefault("code", path.stem)
    numbers = {}
    for key in ("width", "least", "most", "cover", "vent"):
        if key in data:
            if not isinstance(data[key], int | float) or isinstance(data[key], bool):
                raise PlankError(
                    f"“{data[key]}” is no number.", f"{path.name}, {key}", "Write it without quotes, in mm."
                )
            numbers[key] = float(data[key])
    own = data.pop("own", {})
    if not isinstance(own, dict):
        raise PlankError("Own values are a table of names and values.", f"{path.name}, own", "Write own = { … }.")
    data["own"] = [msgspec.to_builtins(_own_of(key, value, path.name)) for key, value in sorted(own.items())]
    data["parameters"] = [_parameter(i, row, path.name) for i, row in enumerate(data.pop("parameter", []), 1)]
    tables = {table: data.pop(table) for table in BUILD_TABLES if table in data}
    if tables:
        data["body"] = "parts"
        build: dict[str, Any] = {}
        for table, name in BUILD_TABLES.items():
            rows = tables.get(table, [])
            if not isinstance(rows, list):
                raise PlankError("This is no list of tables.", f"{path.name}, {table} 1", f"Write [[{table}]].")
            build[name] = [_row(table, i, row, path.name) for i, row in enumerate(rows, 1)]
        data["build"] = build
    found = convert({**data, **numbers, "bay": msgspec.to_builtins(bay)}, Template, path.name)
    _check_build(found, path.name)
    return found


def _parameter(i: int, row: Any, name: str) -> Any:
    where = f"{name}, parameter {i}"
    found = convert(_row("parameter", i, row, name), Parameter, where)
    if not _NAME.fullmatch(found.name) or found.name in (*LENGTH_KEYS, "width", "height", "depth", "i", "n"):
        raise PlankError(f"“{found.name}” cannot be a name.", where, "Use small letters and _; no name that there is.")
    return msgspec.to_builtins(found)


_NAME = re.compile(r"[a-z][a-z0-9_]{0,39}")

_ROWS: dict[str, Any] = {
    "part": BuildPart,
    "joint": BuildJoint,
    "front": BuildFront,
    "hole": BuildHole,
    "item": BuildItem,
}


def _row(table: str, i: int, row: Any, name: str) -> Any:
    """A row of a build, its rules as texts; errors name it."""
    where = f"{name}, {table} {i}"
    if not isinstance(row, dict):
        raise PlankError("This is no table.", where, f"Write [[{table}]].")
    keep = ("least", "most", "edged")
    texts = {k: v if k in keep or isinstance(v, list | dict) else _plain_text(v) for k, v in row.items()}
    texts = {k: float(v) if k in ("least", "most") and isinstance(v, int) else v for k, v in texts.items()}
    if table in _ROWS:
        convert(texts, _ROWS[table], where)
    return texts


def _plain_text(value: Any) -> str:
    return f"{value:g}" if isinstance(value, float) else str(value)


def _check_build(template: Template, name: str) -> None:
    """Try every rule once at the kind's starting size, so that a wrong one is told when the file is read."""
    if template.build is None:
        return
    made = construction_from(shipped_standard())
    lengths = {key: getattr(made, key) for key in LENGTH_KEYS}
    lengths |= {"width": template.width, "height": 720.0, "depth": 560.0}
    values = with_parameters_at(Values(lengths, {}), template, name)
    parts = {p.name for p in template.build.parts}
    for table, rows in BUILD_TABLES.items():
        for i, row in enumerate(getattr(template.build, rows), 1):
            where = f"{name}, {table} {i}"
            for key in _RULES[table]:
                kind = "number" if key == "count" else "length"
                _try(values.counted(0, 1), getattr(row, key), kind, f"{where} {key}")
            for key in ("ends", "to", "left", "right", "part"):
                named = getattr(row, key, None)
                if named is not None and named not in parts:
                    raise PlankError(f"There is no part “{named}”.", f"{where} {key}", f"Known: {', '.join(parts)}.")
    if not parts:
        raise PlankError("A kind of its own parts has none.", f"{name}, body", "Write [[part]] at least once.")


_RULES = {
    "part": ("length", "width", "thickness", "x", "y", "z", "count"), "joint": (),
    "front": ("x", "z", "width", "height"), "hole": ("x", "y", "diameter", "depth", "count"), "item": ("count",),
}  # fmt: skip


def _try(values: Values, text: str, kind: str, where: str) -> None:
    if kind == "number":
        values.number(text, where)
    else:
        values.length(text, where)


def with_parameters_at(values: Values, template: Template, name: str) -> Values:
    """Values with the starting ones of a template's parameters; errors name the parameter's place in the file.

    Raises
    ------
    PlankError where a text cannot be evaluated, at its place
    """
    found = values
    for i, p in enumerate(template.parameters, 1):
        try:
            found = with_parameters(found, (p,), {})
        except PlankError as error:
            raise PlankError(error.what, f"{name}, parameter {i} value", error.remedy) from None
    return found


def _line_of(path: Path, where: str) -> int:
    """The line of a file that an error's place (`x.toml, part 3 length`, `x.toml .width`) speaks of; 0: not known."""
    match = re.search(r", (\w+) (\d+)(?: \.?(\w+))?", where)
    try:
        lines = path.read_text(encoding="utf-8").splitlines()
    except (OSError, UnicodeDecodeError):
        return 0
    if match is None:
        key = re.search(r"[ .](\w+)\W*$", where)
        wanted = key.group(1) if key else ""
        return next((n for n, line in enumerate(lines, 1) if re.match(rf"\s*{wanted}\s*=", line)), 0) if wanted else 0
    table, place, wanted = match.group(1), int(match.group(2)), match.group(3) or ""
    seen = start = 0
    for n, line in enumerate(lines, 1):
        head = re.match(r"\s*\[\[(\w+)\]\]", line)
        if head is not None:
            if start:
                return start
            seen += head.group(1) == table
            start = n if head.group(1) == table and seen == place else 0
        elif start and wanted and re.match(rf"\s*{wanted}\s*=", line):
            return n
    return start


def load_templates(folder: Path) -> tuple[Template, ...]:
    """Every template of a folder, in the order of the files' names.

    Raises
    ------
    PlankError where a file is wrong or two templates answer to one word
    """
    templates = tuple(load_template(path) for path in sorted(folder.glob("*.toml")))
    owners: dict[str, str] = {}
    for template in templates:
        for word in template.words:
            other = owners.setdefault(f"{template.level} {word}", template.code)
            if other != template.code:
                raise PlankError(f"Both {other} and {template.code} answer to “{word}”.", "templates", "Rename one.")
    return templates

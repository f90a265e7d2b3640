"""Unit templates: a kind of unit is data. Read from TOML, copied into the job that uses them."""

from __future__ import annotations

from enum import StrEnum
from pathlib import Path
from typing import Any, Literal

import msgspec

from tall_plank.job.bays import Bay, Fitted, Front, Split
from tall_plank.job.run import Level
from tall_plank.job.unit import Own
from tall_plank.measure import Length, LengthError, PlankError, parse_length
from tall_plank.stock.library import convert, read_toml


class Body(StrEnum):
    """What a unit is made of."""

    CARCASS = "carcass"
    APPLIANCE = "appliance"
    FILLER = "filler"
    PANEL = "panel"
    GAP = "gap"


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
    own : own values that new units of this kind start with
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
    top: str = "rails"
    sink: bool = False
    trims: bool = True
    plinth: bool | None = None
    appliance: str = ""
    corner: Literal["", "blind", "l", "diagonal"] = ""
    leg: str = "900mm"
    shape: Literal["straight", "angled left", "angled right", "bow", "hollow", "rounded"] = "straight"
    gables: bool = True
    bottom: bool = True
    back: bool = True
    cover: float = 0.0
    vent: float = 0.0
    fittings: tuple[str, ...] = ()
    own: tuple[Own, ...] = ()

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
    try:
        return Own(key, parse_length(str(value), least=0))
    except LengthError as error:
        if str(value)[:1].isdigit():
            raise PlankError(error.what, f"{name}, own {key}", error.remedy) from None
        return Own(key, str(value))


def load_template(path: Path) -> Template:
    """Read one template.

    Raises
    ------
    PlankError naming the file and the value
    """
    data = dict(read_toml(path))
    bay = bay_of(data.pop("bay", {}), f"{path.name}, bay")
    data.setdefault("code", path.stem)
    numbers = {k: float(v) for k, v in data.items() if k in ("width", "least", "most", "cover", "vent")}
    own = data.pop("own", {})
    if not isinstance(own, dict):
        raise PlankError("Own values are a table of names and values.", f"{path.name}, own", "Write own = { … }.")
    data["own"] = [msgspec.to_builtins(_own_of(key, value, path.name)) for key, value in sorted(own.items())]
    return convert({**data, **numbers, "bay": msgspec.to_builtins(bay)}, Template, path.name)


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

"""Reading stock from open text files (TOML), the shipped ones or a shop's own folder."""

from __future__ import annotations

import re
from decimal import Decimal
from pathlib import Path
from typing import Any, TypeVar

import msgspec

from tall_plank.formats.door import read_toml
from tall_plank.measure import PlankError
from tall_plank.measure.limits import check_sound
from tall_plank.measure.paths import area, crossing
from tall_plank.measure.remembered import KeptBy, lasting, of_same
from tall_plank.stock.models import Appliance, Board, Edging, Finish, Fitting, FittingRole, PriceBook, Profile

T = TypeVar("T")
DATA = Path(__file__).parent / "data"


class Stock(msgspec.Struct, frozen=True, cache_hash=True):
    """All that can be bought, as a library or as the copy that a job carries."""

    boards: tuple[Board, ...] = ()
    edgings: tuple[Edging, ...] = ()
    fittings: tuple[Fitting, ...] = ()
    finishes: tuple[Finish, ...] = ()
    appliances: tuple[Appliance, ...] = ()
    prices: tuple[PriceBook, ...] = ()
    profiles: tuple[Profile, ...] = ()

    def board(self, finish: str, thickness: float) -> Board | None:
        """The board of a finish in a thickness (mm), or None where none is stocked."""
        return _by_make(self.boards).get((finish, round(thickness, 3)))

    def edging(self, finish: str, thickness: float, least_width: float = 0.0) -> Edging | None:
        """The edging that matches a finish in a thickness, the narrowest that is wide enough; or None. All in mm."""
        return next((e for e in self.edgings_of(finish, thickness) if e.width >= least_width - 1e-6), None)

    def edgings_of(self, finish: str, thickness: float) -> tuple[Edging, ...]:
        """The edgings of a finish in a thickness (mm), the narrowest first."""
        return _by_width(self.edgings).get((finish, round(thickness, 3)), ())

    def board_by_code(self, code: str) -> Board | None:
        return _by_code(self.boards).get(code)

    def edging_by_code(self, code: str) -> Edging | None:
        return _by_code(self.edgings).get(code)

    def finish(self, code: str) -> Finish | None:
        return _by_code(self.finishes).get(code)

    def filling(self, role: FittingRole) -> Fitting | None:
        """The fitting that fills a role; the first one where several do."""
        return next((f for f in self.fittings if f.role == role), None)

    def fitting(self, code: str) -> Fitting | None:
        return _by_code(self.fittings).get(code)

    def appliance(self, code: str) -> Appliance | None:
        return _by_code(self.appliances).get(code)

    def profile(self, code: str) -> Profile | None:
        return _by_code(self.profiles).get(code)

    def pictures(self) -> set[str]:
        """Names of the images that its things are shown by."""
        return {f.picture for f in self.fittings} | {a.picture for a in self.appliances}

    def fittings_of(self, kind: str) -> tuple[Fitting, ...]:
        return tuple(f for f in self.fittings if f.kind == kind)


_codes: KeptBy[int, tuple[object, dict[str, Any]]] = KeptBy("stock.library.codes", 1024)
_makes: KeptBy[int, tuple[object, dict[tuple[str, float], Any]]] = KeptBy("stock.library.makes", 256)
_widths: KeptBy[int, tuple[object, dict[tuple[str, float], tuple[Any, ...]]]] = KeptBy("stock.library.widths", 256)
"""By the identity of the rows: hashing a long list takes longer than a look."""


def _by_code(rows: tuple[Any, ...]) -> dict[str, Any]:
    kept = _codes.get(id(rows))
    if kept is not None and kept[0] is rows:
        return kept[1]
    return of_same(_codes, rows, lambda: {row.code: row for row in rows})


def _by_make(rows: tuple[Any, ...]) -> dict[tuple[str, float], Any]:
    # Of several sizes the first one listed stands for the make.
    return of_same(_makes, rows, lambda: {(row.finish, round(row.thickness, 3)): row for row in reversed(rows)})


def _by_width(rows: tuple[Any, ...]) -> dict[tuple[str, float], tuple[Any, ...]]:
    def sorted_out() -> dict[tuple[str, float], tuple[Any, ...]]:
        found: dict[tuple[str, float], tuple[Any, ...]] = {}
        for row in sorted(rows, key=lambda e: e.width):
            key = (row.finish, round(row.thickness, 3))
            found[key] = (*found.get(key, ()), row)
        return found

    return of_same(_widths, rows, sorted_out)


def convert(value: Any, kind: type[T], where: str) -> T:
    """Turn plain values into a stock struct whose values make sense; errors name the place in the file.

    Raises
    ------
    PlankError “….”
    """
    try:
        found = msgspec.convert(value, kind, strict=True, dec_hook=_decode)
    except msgspec.ValidationError as error:
        text = str(error)
        place = re.search(r" - at `\$(.*)`$", text)
        what = text[: place.start()] if place else text
        spot = f"{where}{' ' + place.group(1) if place else ''}"
        raise PlankError(f"{what}.", spot, "See docs/stock-files.md for what the row takes.") from None
    for row in found if isinstance(found, tuple) else (found,):
        if isinstance(row, msgspec.Struct):
            check_sound(row, where)
    return found


def _decode(kind: type, value: Any) -> Any:
    return kind(value)


def plain(value: Any) -> Any:
    """Decimal lengths as floats, money (keys that hold money or minutes) left as Decimal."""
    money = {
        "price",
        "pack",
        "least_qty",
        "minutes",
        "labor_rate",
        "delivery",
        "board_waste_percent",
        "edging_waste_percent",
    }
    if isinstance(value, dict):
        return {
            k: (Decimal(v) if isinstance(v, int) and not isinstance(v, bool) else v) if k in money else plain(v)
            for k, v in value.items()
        }
    if isinstance(value, list):
        return [plain(v) for v in value]
    return float(value) if isinstance(value, Decimal) else value


_TABLES: dict[str, tuple[str, Any]] = {
    "board": ("boards", Board),
    "edging": ("edgings", Edging),
    "fitting": ("fittings", Fitting),
    "finish": ("finishes", Finish),
    "appliance": ("appliances", Appliance),
    "profile": ("profiles", Profile),
}


def load_stock(folder: Path) -> Stock:
    """Read every ``*.toml`` of a stock folder and ``prices/*.toml`` below it.

    Raises
    ------
    PlankError naming file and row: unknown tables, missing or wrong values, a code used twice,
    a size that is not positive, a board without its finish
    """
    found: dict[str, list[Any]] = {name: [] for name, _ in _TABLES.values()}
    for path in sorted(folder.glob("*.toml")):
        data = plain(read_toml(path))
        for table, rows in data.items():
            if table not in _TABLES:
                known = ", ".join(sorted(_TABLES))
                raise PlankError(f"There is no table “{table}”.", path.name, f"Known tables: {known}.")
            if not isinstance(rows, list):
                raise PlankError(f"“{table}” is to be a list.", path.name, f"Write [[{table}]] above each row.")
            name, kind = _TABLES[table]
            for number, row in enumerate(rows, 1):
                code = row.get("code", "?") if isinstance(row, dict) else "?"
                found[name].append(convert(row, kind, f"{path.name}, {table} {number} ({code})"))
    prices = []
    for path in sorted((folder / "prices").glob("*.toml")):
        prices.append(convert(plain(read_toml(path)), PriceBook, path.name))
    stock = Stock(**{k: tuple(v) for k, v in found.items()}, prices=tuple(prices))
    check_stock(stock)
    for profile in stock.profiles:
        check_profile(profile)
    return stock


def check_stock(stock: Stock) -> None:
    """Raises PlankError for codes used twice, sizes that are not positive, and finishes that are missing."""
    for name in ("boards", "edgings", "fittings", "finishes", "appliances", "prices", "profiles"):
        seen: set[str] = set()
        for row in getattr(stock, name):
            if row.code in seen:
                raise PlankError(f"The code “{row.code}” is used twice.", f"stock, {name}", "Give each its own code.")
            seen.add(row.code)
    finishes = {f.code for f in stock.finishes}
    for board in stock.boards:
        if board.finish not in finishes:
            raise PlankError(
                f"There is no finish “{board.finish}”.", f"board {board.code}", "Add the finish or mend the name."
            )
    for finish in stock.finishes:
        if not re.fullmatch(r"#[0-9A-Fa-f]{6}", finish.color):
            raise PlankError(f"“{finish.color}” is no color.", f"finish {finish.code}", "Write it as #RRGGBB.")
    for profile in stock.profiles:
        _check_points(profile)
    check_sound(stock, "stock")


def _check_points(profile: Profile) -> None:
    where = f"profile {profile.code}"
    if len(profile.points) < 3 or any(len(p) not in (2, 3) for p in profile.points):
        raise PlankError("A section needs three points or more, of two or three numbers.", where, "Give it points.")
    if profile.height <= 0 or profile.depth <= 0:
        raise PlankError("The section or its bar has no size.", where, "Give it real points.")


def check_profile(profile: Profile) -> None:
    """Raises PlankError for what a new profile may not have: a section that crosses itself, has no area, or an arc
    beyond half a circle. What a job has already is not asked again."""
    where = f"profile {profile.code}"
    check_sound(profile, where)
    _check_points(profile)
    if any(abs(bulge) > 1.0 + 1e-9 for _, _, bulge in profile.path):
        raise PlankError("An arc of the section is more than half a circle.", where, "Part it in two.")
    if crossing(profile.path) is not None:
        raise PlankError("The section crosses itself.", where, "Give its points in order round it.")
    if abs(area(profile.path)) < 1.0:
        raise PlankError("The section has no area.", where, "Give it real points.")


@lasting
def shipped_stock() -> Stock:
    """The stock that ships with the program; names and prices are invented."""
    return load_stock(DATA)

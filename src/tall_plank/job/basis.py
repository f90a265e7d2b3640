"""What things are made from, apart from the room that they stand in: units, standards, finishes, stock, named values.

Setting-out and making take this and never the whole job: what they have worked out then stays as long as nothing of it
changes, and reading anything else is a type error.
"""

from __future__ import annotations

from typing import Any, TypeVar

import msgspec

from tall_plank.job.run import Cell
from tall_plank.job.scheme import Scheme
from tall_plank.job.standard import Standard
from tall_plank.job.template import Template
from tall_plank.job.unit import Unit
from tall_plank.measure import Length, PlankError
from tall_plank.measure.remembered import KeptBy, of_same
from tall_plank.stock import Stock

T = TypeVar("T")


class NamedValue(msgspec.Struct, frozen=True, cache_hash=True, forbid_unknown_fields=True):
    """A named job value that may stand in any length (M5)."""

    name: str
    length: Length
    note: str = ""


class Basis(msgspec.Struct, frozen=True, cache_hash=True, kw_only=True, forbid_unknown_fields=True):
    """
    Attributes
    ----------
    values : named job values
    standards, templates, stock : copies of what the job uses, so that it says the same on another machine
    standard, scheme : codes of the ones in force
    """

    values: tuple[NamedValue, ...] = ()
    units: tuple[Unit, ...] = ()
    schemes: tuple[Scheme, ...] = ()
    scheme: str = ""
    standards: tuple[Standard, ...] = ()
    standard: str = ""
    templates: tuple[Template, ...] = ()
    stock: Stock = Stock()

    def unit(self, unit_id: str) -> Unit:
        return row_of(self.units, unit_id, "unit")

    def template(self, code: str) -> Template:
        return row_of(self.templates, code, "template")

    def has_template(self, code: str) -> bool:
        """Whether the job has a kind of unit."""
        return code in _index_of(self.templates)

    def template_of(self, cell: Cell) -> Template:
        return self.template(self.unit(cell.unit).template)

    def named_values(self) -> dict[str, float]:
        """Name -> mm."""
        return {v.name: v.length.mm for v in self.values}

    def value(self, name: str) -> float:
        """A named value in mm."""
        return row_of(self.values, name, "named value").length.mm

    def active_standard(self) -> Standard:
        return row_of(self.standards, self.standard, "shop standard")

    def standard_by(self, code: str) -> Standard:
        return row_of(self.standards, code, "shop standard")

    def active_scheme(self) -> Scheme:
        return row_of(self.schemes, self.scheme, "scheme")


_indexes: KeptBy[int, tuple[object, dict[str, Any]]] = KeptBy("job.basis.index", 1024)


def _index_of(rows: tuple[Any, ...]) -> dict[str, Any]:
    return of_same(_indexes, rows, lambda: {_key(row): row for row in rows})


def _key(row: Any) -> str:
    for name in ("id", "code", "name"):
        if hasattr(row, name):
            return str(getattr(row, name))
    raise TypeError(type(row))


def row_of(rows: tuple[T, ...], key: str, kind: str) -> T:
    """The row with a key. Raises PlankError where there is none."""
    # Asked thousands of times a second while something is dragged: the usual case is written out.
    kept = _indexes.get(id(rows))
    if kept is not None and kept[0] is rows:
        found = kept[1].get(key)
    else:
        found = _index_of(rows).get(key)
    if found is None:
        raise PlankError(f"The job has no {kind} “{key}”.", "job", f"Choose another {kind}.")
    return found  # type: ignore[no-any-return]


def basis_of(basis: Basis, units: tuple[Unit, ...] = ()) -> Basis:
    """The basis of a job with some of its units only."""
    return Basis(
        values=basis.values,
        units=units,
        schemes=basis.schemes,
        scheme=basis.scheme,
        standards=basis.standards,
        standard=basis.standard,
        templates=basis.templates,
        stock=basis.stock,
    )

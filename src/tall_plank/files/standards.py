"""A shop standard as a TOML file of its own, to be edited, kept and given to others."""

from __future__ import annotations

from pathlib import Path

from tall_plank.formats.table import STANDARD
from tall_plank.formats.writing import write_atomic
from tall_plank.job import Standard
from tall_plank.job.standard import PARTS, load_standard
from tall_plank.measure import Length

__all__ = ["read_standard", "standard_toml", "write_standard"]


def standard_toml(standard: Standard) -> str:
    """The text of a standard, its values in the order of its parts.

    `load_standard` reads it back to the same value.
    """
    values = standard.values()
    lines = [f"# {standard.name}: a shop standard. Lengths in mm."]
    lines += [f'kind = "{STANDARD.kind}"', f"format = {STANDARD.number}", f'code = "{standard.code}"']
    lines.append(f'name = "{_escaped(standard.name)}"')
    for table, kind in (("lengths", Length), ("choices", str)):
        lines += ["", f"[{table}]"]
        for part, keys in PARTS.items():
            rows = [key for key in keys if isinstance(values[key], kind)]
            if rows:
                lines.append(f"# {part}")
            for key in rows:
                value = values[key]
                text = value.text if isinstance(value, Length) else value
                lines.append(f'{key} = "{_escaped(text)}"')
    for rule in standard.hinge_rules:
        lines += ["", "[[hinge_rules]]", f"height = {rule.height:g}", f"weight = {rule.weight:g}"]
        lines.append(f"count = {rule.count}")
    for leg in standard.leg_rules:
        lines += ["", "[[leg_rules]]", f"width = {leg.width:g}", f"count = {leg.count}"]
    return "\n".join(lines) + "\n"


def _escaped(text: str) -> str:
    return text.replace("\\", "\\\\").replace('"', '\\"')


def write_standard(standard: Standard, path: Path) -> None:
    """Write a standard.

    Raises
    ------
    PlankError where the file cannot be written
    """
    write_atomic(path, standard_toml(standard).encode())


def read_standard(path: Path) -> Standard:
    """Read a standard.

    Raises
    ------
    PlankError naming the file and the value
    """
    return load_standard(path)

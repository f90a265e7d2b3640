"""The section of a molding out of a drawing, DXF or SVG."""

from __future__ import annotations

from pathlib import Path

from tall_plank.files.closed_outlines import Found
from tall_plank.files.dxf_read import read_outlines
from tall_plank.files.svg_read import JOIN, read_svg_outlines
from tall_plank.measure import PlankError


def read_section(path: Path) -> Found:
    """The largest closed outline of a drawing.

    Raises
    ------
    PlankError for another kind of file, one that cannot be read, or one without a closed outline
    """
    ending = path.suffix.lower()
    if ending == ".dxf":
        return read_outlines(path, JOIN)[0]
    if ending == ".svg":
        return read_svg_outlines(path)[0]
    raise PlankError("A section is read from DXF or SVG.", path.name, "Save the drawing as one of them.")

"""Drawings as DXF (R2010), in mm at full size, a layer for each kind of thing."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from tall_plank.drawing.dimensions import expand
from tall_plank.drawing.primitives import PEN_MM, TONES, Arc, Dim, Drawing, Layer, Line, Pen, Shape, Text
from tall_plank.formats.writing import put

COLORS = {
    Layer.WALL: 8, Layer.OPENING: 4, Layer.CARCASS: 7, Layer.FRONT: 3, Layer.HANDLE: 1, Layer.TRIM: 6,
    Layer.APPLIANCE: 5, Layer.HUNG: 2, Layer.MAKING: 30, Layer.LABEL: 7, Layer.DIMENSION: 9,
}  # fmt: skip
"""Color of each layer by its number (1 red to 7 black or white, as every reader shows them)."""

LINEWEIGHTS = {pen: round(width * 100) for pen, width in PEN_MM.items()}


def new_document(setup: Sequence[str] = ()) -> Any:
    """An empty drawing (R2010, mm). It says no time of writing and has no random ids: the same drawing is the same
    file."""
    import ezdxf
    from ezdxf import units

    ezdxf.options.write_fixed_meta_data_for_testing = True
    document = ezdxf.new("R2010", setup=list(setup))
    document.units = units.MM
    document.header["$MEASUREMENT"] = 1
    return document


def text_of(document: Any) -> str:
    """The text of a drawing, its classes in the order of their names: else they come as a set is walked through."""
    classes = document.classes
    classes.add_required_classes(document.dxfversion)
    classes.classes = dict(sorted(classes.classes.items()))
    out = io.StringIO()
    document.write(out)
    return out.getvalue()


def write_dxf(drawing: Drawing, path: Path, scale: float = 20.0) -> None:
    """Write a drawing; `scale` (real mm per mm of paper) sets the height of texts and rows of dimensions."""
    from ezdxf.enums import TextEntityAlignment

    document = new_document(setup=["linetypes"])
    document.styles.add("PLANK", font="SourceSans3-Regular.ttf")
    for layer in Layer:
        document.layers.add(layer.value.upper(), color=COLORS[layer])
        document.layers.add(f"{layer.value.upper()}-FILL", color=COLORS[layer])
    space = document.modelspace()

    def attributes(pen: Pen, layer: Layer) -> dict[str, object]:
        found: dict[str, object] = {"layer": layer.value.upper(), "lineweight": LINEWEIGHTS[pen]}
        kind = {Pen.DASHED: "DASHED", Pen.CHAIN: "DASHDOT"}.get(pen)
        if kind:
            found |= {"linetype": kind, "ltscale": scale / 10}
        return found

    dims = [i for i in drawing.items if isinstance(i, Dim)]
    for item in (*drawing.items, *expand(dims, scale)):
        match item:
            case Line():
                space.add_line((item.x1, item.y1), (item.x2, item.y2), attributes(item.pen, item.layer))
            case Shape():
                tone = TONES.get(item.fill, item.fill)
                if tone.startswith("#"):
                    fill = space.add_hatch(dxfattribs={"layer": f"{item.layer.value.upper()}-FILL"})
                    fill.rgb = tuple(int(tone[i : i + 2], 16) for i in (1, 3, 5))
                    fill.paths.add_polyline_path(item.points, is_closed=True)
                if item.pen is not Pen.NONE:
                    space.add_lwpolyline(item.points, close=True, dxfattribs=attributes(item.pen, item.layer))
            case Arc():
                at, looks = (item.x, item.y), attributes(item.pen, item.layer)
                if item.sweep == 360.0:
                    space.add_circle(at, item.radius, looks)
                else:
                    space.add_arc(at, item.radius, item.start, item.end, dxfattribs=looks)
            case Text():
                align = {
                    "left": TextEntityAlignment.LEFT,
                    "right": TextEntityAlignment.RIGHT,
                    "middle": TextEntityAlignment.CENTER,
                }[item.align]
                text = space.add_text(
                    item.text,
                    height=item.size * scale,
                    rotation=item.angle,
                    dxfattribs={"layer": item.layer.value.upper(), "style": "PLANK"},
                )
                angle, rise = math.radians(item.angle), item.rise * scale
                place = (item.x - rise * math.sin(angle), item.y + rise * math.cos(angle))
                text.set_placement(place, align=align)
            case Dim():
                pass
    put(path, text_of(document))

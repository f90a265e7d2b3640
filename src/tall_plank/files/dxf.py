"""Drawings as DXF (R2010), in mm at full size, a layer for each kind of thing."""

from __future__ import annotations

import math
from pathlib import Path

from tall_plank.drawing.dimensions import expand
from tall_plank.drawing.primitives import PEN_MM, Arc, Dim, Drawing, Layer, Line, Pen, Shape, Text

LINEWEIGHTS = {pen: round(width * 100) for pen, width in PEN_MM.items()}


def write_dxf(drawing: Drawing, path: Path, scale: float = 20.0) -> None:
    """Write a drawing; `scale` (real mm per mm of paper) sets the height of texts and rows of dimensions."""
    import ezdxf
    from ezdxf import units
    from ezdxf.enums import TextEntityAlignment

    document = ezdxf.new("R2010", setup=["linetypes"])
    document.units = units.MM
    document.header["$MEASUREMENT"] = 1
    document.styles.add("PLANK", font="SourceSans3-Regular.ttf")
    for layer in Layer:
        document.layers.add(layer.value.upper())
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
                if item.pen is not Pen.NONE:
                    space.add_lwpolyline(item.points, close=True, dxfattribs=attributes(item.pen, item.layer))
            case Arc():
                at, looks = (item.x, item.y), attributes(item.pen, item.layer)
                if item.sweep == 360.0:
                    space.add_circle(at, item.radius, looks)
                else:
                    space.add_arc(at, item.radius, item.start, item.end, looks)
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
    document.saveas(path)

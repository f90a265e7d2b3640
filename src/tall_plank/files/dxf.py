"""Sheets as DXF (R2010): views in mm at full size in model space, the sheet with frame and title block in paper space,
a layer for each kind of thing and each width of line, dimensions as dimensions."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from tall_plank.assets import cap_of, text_width
from tall_plank.drawing.placing import OVERSHOOT, Figure
from tall_plank.drawing.primitives import DASHES, PEN_MM, TONES, Arc, Layer, Line, Pen, Shape, Text
from tall_plank.drawing.sheets import POINT, Sheet, View, frame_of, images_of
from tall_plank.formats.writing import put

COLORS = {
    Layer.WALL: 8, Layer.OPENING: 4, Layer.CARCASS: 7, Layer.FRONT: 3, Layer.HANDLE: 1, Layer.TRIM: 6,
    Layer.APPLIANCE: 5, Layer.HUNG: 2, Layer.MAKING: 30, Layer.CUT: 7, Layer.LABEL: 7, Layer.DIMENSION: 9,
}  # fmt: skip
"""Color of each layer by its number (1 red to 7 black or white, as every reader shows them)."""

LINEWEIGHTS = {pen: round(width * 100) for pen, width in PEN_MM.items()}

LINETYPES = {pen: f"PLANK-{pen.value.upper()}" for pen in DASHES}
"""Broken lines, whose strokes and gaps are mm of paper."""

BETWEEN = 30.0
"""mm of paper between views in model space."""


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


def layer_name(layer: Layer, pen: Pen | None = None, *, fill: bool = False) -> str:
    """The layer of a kind of thing drawn with a pen, of its fills, or of its words."""
    if fill:
        return f"{layer.value.upper()}-FILL"
    return f"{layer.value.upper()}-{pen.value.upper()}" if pen is not None else layer.value.upper()


def write_dxf(sheet: Sheet, path: Path) -> None:
    """Write a sheet. In model space its views stand side by side at full size, the first where it lies in the room; in
    paper space each is seen through a window at its scale."""
    document = new_document()
    document.styles.add("PLANK", font="SourceSans3-Regular.ttf")
    # Strokes of broken lines are as long on paper, at whatever scale they are seen.
    document.header["$PSLTSCALE"] = 0
    for pen, name in LINETYPES.items():
        pattern = [part if i % 2 == 0 else -part for i, part in enumerate(DASHES[pen])]
        document.linetypes.add(name, [sum(DASHES[pen]), *pattern])
    model = document.modelspace()
    moved: list[tuple[View, float]] = []
    shift = 0.0
    for view in sheet.views:
        seen = view.shown
        if moved:
            shift += -seen.x0
        moved.append((view, shift))
        _View(document, model, view, shift).write()
        shift += seen.x1 + BETWEEN * view.scale
    _paper(document, sheet, moved)
    put(path, text_of(document))


class _View:
    """A view written into model space."""

    def __init__(self, document: Any, space: Any, view: View, shift: float) -> None:
        self.document, self.space, self.view, self.shift = document, space, view, shift
        self.scale = view.scale

    def write(self) -> None:
        seen = self.view.shown
        for item in seen.drawn:
            self._drawn(item)
        for figure in seen.figures:
            self._figure(figure)
        for word in seen.words:
            if isinstance(word, Text):
                self._text(word)
            else:
                self._drawn(word)

    def _at(self, x: float, y: float) -> tuple[float, float]:
        return x + self.shift, y

    def _layer(self, layer: Layer, pen: Pen | None = None, *, fill: bool = False) -> str:
        name = layer_name(layer, pen, fill=fill)
        if name not in self.document.layers:
            made = self.document.layers.add(name, color=COLORS[layer])
            if pen is not None:
                made.dxf.lineweight = LINEWEIGHTS[pen]
        return name

    def _looks(self, pen: Pen, layer: Layer) -> dict[str, object]:
        found: dict[str, object] = {"layer": self._layer(layer, pen), "lineweight": LINEWEIGHTS[pen]}
        if pen in LINETYPES:
            found |= {"linetype": LINETYPES[pen], "ltscale": self.scale}
        return found

    def _drawn(self, item: Line | Shape | Arc | Text) -> None:
        match item:
            case Line():
                ends = (self._at(item.x1, item.y1), self._at(item.x2, item.y2))
                self.space.add_line(*ends, self._looks(item.pen, item.layer))
            case Shape():
                points = [self._at(*p) for p in item.points]
                tone = TONES.get(item.fill, item.fill)
                if tone.startswith("#"):
                    fill = self.space.add_hatch(dxfattribs={"layer": self._layer(item.layer, fill=True)})
                    fill.rgb = tuple(int(tone[i : i + 2], 16) for i in (1, 3, 5))
                    fill.paths.add_polyline_path(points, is_closed=True)
                if item.pen is not Pen.NONE:
                    self.space.add_lwpolyline(points, close=True, dxfattribs=self._looks(item.pen, item.layer))
            case Arc():
                at, looks = self._at(item.x, item.y), self._looks(item.pen, item.layer)
                if item.sweep == 360.0:
                    self.space.add_circle(at, item.radius, looks)
                else:
                    self.space.add_arc(at, item.radius, item.start, item.end, dxfattribs=looks)
            case Text():
                self._text(item)

    def _text(self, item: Text) -> None:
        text = _add_text(self.space, item.text, item.size * self.scale, item.angle, self._layer(item.layer), item.align)
        angle, rise = math.radians(item.angle), item.rise * self.scale
        x, y = self._at(item.x, item.y)
        text((x - rise * math.sin(angle), y + rise * math.cos(angle)))

    def _figure(self, figure: Figure) -> None:
        """A dimension; one of several with one figure is only its lines."""
        if figure.name is not None:
            self._text(figure.name)
        if figure.text is None:
            for rule in figure.rules:
                self._drawn(rule)
            return
        dim, text = figure.dim, figure.text
        level = dim.along == "x"

        def point(u: float, v: float) -> tuple[float, float]:
            return self._at(u, v) if level else self._at(v, u)

        style = self.space.add_linear_dim(
            base=point((dim.a + dim.b) / 2, figure.at),
            p1=point(dim.a, dim.base),
            p2=point(dim.b, dim.base),
            angle=0.0 if level else 90.0,
            text=text.text,
            dimstyle=self._style(),
            override={"dimtxt": text.size * self.scale},
            location=self._middle(text),
            text_rotation=text.angle,
            dxfattribs={"layer": self._layer(Layer.DIMENSION)},
        )
        style.render()
        if figure.leader is not None:
            self._drawn(figure.leader)

    def _middle(self, text: Text) -> tuple[float, float]:
        """The middle of a figure."""
        angle = math.radians(text.angle)
        up = (text.rise + text.size / 2) * self.scale
        half = text_width(text.text, text.size) / 2 * self.scale
        along = {"left": half, "middle": 0.0, "right": -half}[text.align]
        x, y = self._at(text.x, text.y)
        return (
            x + along * math.cos(angle) - up * math.sin(angle),
            y + along * math.sin(angle) + up * math.cos(angle),
        )

    def _style(self) -> str:
        """The dimension style of the view's scale."""
        name = f"PLANK-{self.scale:g}"
        if name not in self.document.dimstyles:
            style = self.document.dimstyles.add(name)
            mm = self.scale
            style.dxf.dimtxsty = "PLANK"
            style.dxf.dimtsz = 1.2 * mm  # ticks
            style.dxf.dimexo, style.dxf.dimexe = 1.0 * mm, OVERSHOOT * mm
            style.dxf.dimgap, style.dxf.dimtad = 0.9 * mm, 1
            style.dxf.dimtih = style.dxf.dimtoh = 0
            style.dxf.dimtmove = 2
            style.dxf.dimlwd = style.dxf.dimlwe = LINEWEIGHTS[Pen.NARROW]
            style.dxf.dimscale = 1.0
        return name


def _add_text(space: Any, words: str, height: float, angle: float, layer: str, align: str) -> Any:
    """A text; what comes back puts it at a place."""
    from ezdxf.enums import TextEntityAlignment

    how = {
        "left": TextEntityAlignment.LEFT,
        "right": TextEntityAlignment.RIGHT,
        "middle": TextEntityAlignment.CENTER,
    }[align]
    text = space.add_text(words, height=height, rotation=angle, dxfattribs={"layer": layer, "style": "PLANK"})
    return lambda place: text.set_placement(place, align=how)


def _paper(document: Any, sheet: Sheet, moved: Sequence[tuple[View, float]]) -> None:
    """The sheet in paper space: its frame, its block, and a window on every view."""
    wide, high = sheet.size
    layout = document.layout("Layout1")
    layout.page_setup(size=(wide, high), margins=(0, 0, 0, 0), units="mm", scale=(1, 1))
    for name in ("FRAME", "WINDOW"):
        document.layers.add(name, color=7)
    document.layers.get("WINDOW").dxf.plot = 0
    boxes, texts = frame_of(sheet)
    for x, y, w, h, line in boxes:
        looks = {"layer": "FRAME", "lineweight": round(line * 100)}
        if h < 1e-6:
            layout.add_line((x, y), (x + w, y), looks)
        else:
            layout.add_lwpolyline([(x, y), (x + w, y), (x + w, y + h), (x, y + h)], close=True, dxfattribs=looks)
    for t in texts:
        _add_text(layout, t.text, cap_of(t.points * POINT), 0.0, "FRAME", "left")((t.x, t.y))
    # A drawing of lines carries no images: their place and what they are is told.
    for x, y, w, h, _ in images_of(sheet):
        looks = {"layer": "FRAME", "lineweight": 18}
        layout.add_lwpolyline([(x, y), (x + w, y), (x + w, y + h), (x, y + h)], close=True, dxfattribs=looks)
        _add_text(layout, "picture", 1.8, 0.0, "FRAME", "left")((x + 1.0, y + 1.0))
    for view, shift in moved:
        seen = view.shown
        x0, y0 = view.at(seen.x0, seen.y0)
        x1, y1 = view.at(seen.x1, seen.y1)
        window = layout.add_viewport(
            center=((x0 + x1) / 2, (y0 + y1) / 2),
            size=(x1 - x0 + 2.0, y1 - y0 + 2.0),
            view_center_point=((seen.x0 + seen.x1) / 2 + shift, (seen.y0 + seen.y1) / 2),
            view_height=(y1 - y0 + 2.0) * view.scale,
        )
        window.dxf.layer = "WINDOW"

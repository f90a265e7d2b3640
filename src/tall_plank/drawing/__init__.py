"""Drawings as primitives in mm, recorded once and replayed to screen, PDF, DXF and SVG."""

from tall_plank.drawing.primitives import Arc, Dim, Drawing, Layer, Line, Pen, Shape, Text

__all__ = ["Arc", "Dim", "Drawing", "Layer", "Line", "Pen", "Shape", "Text"]

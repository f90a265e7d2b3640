"""Files: the .plank file, DXF, SVG, glTF, and the user's folders."""

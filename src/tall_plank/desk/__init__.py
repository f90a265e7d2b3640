"""The window. Nothing below imports it, and nothing but this package imports Qt."""

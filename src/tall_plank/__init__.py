"""Tall Plank: lays out kitchens, wardrobes and paneled walls and says what to cut for them."""

__version__ = "0.2.0"

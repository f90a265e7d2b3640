"""Edits of what is placed in a room: a file for each kind of thing; `table.py` lists them."""

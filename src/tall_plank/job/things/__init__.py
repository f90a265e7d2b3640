"""One file for each kind of thing that is placed in a room: what was decided about it. `table.py` lists them."""

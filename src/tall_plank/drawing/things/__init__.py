"""How what is placed in a room is drawn: a file for each kind of thing; `table.py` lists them."""

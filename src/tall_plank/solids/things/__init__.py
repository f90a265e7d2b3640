"""What is placed in a room, as solids: a file for each kind of thing; `table.py` lists them."""

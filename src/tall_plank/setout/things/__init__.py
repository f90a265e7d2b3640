"""Where what is placed in a room sits: a file for each kind of thing; `table.py` lists them."""

"""How what is placed in a room is shown, dragged and decided on: a file for each kind, listed in `table.py`."""

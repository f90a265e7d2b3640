"""Headless verbs with modules of their own, and what all verbs share; the others stand in `cli.py`."""

"""Formats of every kind of file: their numbers, and one step for each from a number to the next."""

"""Whole pages: stock, standards, one unit, cutting plans, rack, machine, bars."""

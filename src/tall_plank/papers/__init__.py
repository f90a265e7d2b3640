"""Schedules, price and offer: content first as tables, then written as CSV, XLSX and PDF; drawings on sheets."""

from tall_plank.papers.tables import Column, Table

__all__ = ["Column", "Table"]

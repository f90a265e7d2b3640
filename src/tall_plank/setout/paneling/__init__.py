"""Paneling of walls: how stretches are divided and covered."""

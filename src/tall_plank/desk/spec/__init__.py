"""The spec sheet: what is decided of the selected thing, line by line."""

"""What rounding may do to lengths on a bar."""

NEAR = 1e-6
"""mm that a filling may be longer than its bar."""

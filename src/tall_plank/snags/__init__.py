"""What is wrong or forgotten: one rule a file, each with its source."""

from tall_plank.snags.check import Checked, all_snags

__all__ = ["Checked", "all_snags"]

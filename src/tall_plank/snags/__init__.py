"""What is wrong or forgotten: one rule a file, each with its source. `all_snags` in check.py runs them all."""

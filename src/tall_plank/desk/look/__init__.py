"""How the window looks and speaks: colors, type, texts, questions for files."""

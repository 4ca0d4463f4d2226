"""A computed job told in figures and words: ledger, stops, one line, differences, what an edit breaks."""

"""Lengths as people type and read them: text to mm, mm to text, sentences in another unit, and the rows of a ledger."""

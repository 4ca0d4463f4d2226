"""What every room stands on: errors and findings, words, limits, and work that is put off, reported or remembered. Knows no other room."""

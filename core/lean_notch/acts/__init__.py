"""Acts as edits: a computed job and what is wanted of it in, the edits that do it out. Nothing is changed here."""

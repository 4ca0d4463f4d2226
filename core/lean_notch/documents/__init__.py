"""Plain JSON documents to checked values and back: a field is declared once, on its class."""

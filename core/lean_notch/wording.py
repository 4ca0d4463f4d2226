"""How words are put together, whatever they tell of."""


def capital(text: str) -> str:
    """As it begins a sentence; what follows stays as it is, unlike with `str.capitalize`.

    >>> capital("front of the T"), capital("")
    ('Front of the T', '')
    """
    return text[:1].upper() + text[1:]

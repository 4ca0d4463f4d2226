"""How words are put together, whatever they tell of."""

import unicodedata


def capital(text: str) -> str:
    """As it begins a sentence; what follows stays as it is, unlike with `str.capitalize`.

    >>> capital("front of the T"), capital("")
    ('Front of the T', '')
    """
    return text[:1].upper() + text[1:]


def counted(number: int, what: str) -> str:
    """
    >>> counted(1, "pair"), counted(0, "pair")
    ('1 pair', '0 pairs')
    """
    return f"{number} {what}{'' if number == 1 else 's'}"


_PLAIN = str.maketrans({
    "ä": "ae", "ö": "oe", "ü": "ue", "Ä": "Ae", "Ö": "Oe", "Ü": "Ue", "ß": "ss", "ø": "o", "Ø": "O", "æ": "ae", "Æ": "Ae", "œ": "oe",
    "Œ": "Oe", "ł": "l", "Ł": "L", "đ": "d", "Đ": "D", "ð": "d", "þ": "th", "Þ": "Th", "ı": "i",
})  # fmt: skip


def in_base_letters(text: str) -> str:
    """As it is written where there are no accents: base letters, and "-" for what has none.

    >>> in_base_letters("Rückwand Größe 2"), in_base_letters("Étagère"), in_base_letters("Moor 沼")
    ('Rueckwand Groesse 2', 'Etagere', 'Moor -')
    """
    apart = unicodedata.normalize("NFKD", unicodedata.normalize("NFC", text).translate(_PLAIN))
    return "".join(c if c.isascii() else "-" for c in apart if not unicodedata.combining(c))

"""Track lists: in, a list as typed, `52 1fr 1fr 40`; out, its tracks, and each as a length of a design.

As in the W3C's CSS Grid Layout, level 1, 7.2: sizes one after the other, `fr` shares of what the others leave, `repeat(3, 1fr)`;
a sum of shares under 1 leaves the rest empty. A size is arithmetic as anywhere; with blanks in it, it stands in brackets. A list
in brackets, as it comes about where one is typed in place of a single track, stands for its tracks.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..ground.errors import BadDocument, NotchError, OutOfRange
from ..ground.limits import MOST_TRACKS
from ..lengths.length import Length
from ..lengths.said import say_mm
from ..lengths.units import Unit

_SHARE = re.compile(r"(\d+(?:\.\d*)?|\.\d+)fr", re.IGNORECASE)
_REPEAT = re.compile(r"repeat\(\s*(\d{1,3})\s*,(.*)\)", re.IGNORECASE | re.DOTALL)


@dataclass(frozen=True)
class Track:
    """One track as typed: a share of what is left, else a size."""

    text: str
    share: float | None = None


@dataclass(frozen=True)
class Tracks:
    all: tuple[Track, ...]

    @property
    def shares(self) -> float:
        return sum(track.share or 0.0 for track in self.all)

    @property
    def flexible(self) -> bool:
        return any(track.share is not None for track in self.all)

    @property
    def closed(self) -> bool:
        """Whether a wall closes the last track: its shares leave something empty behind it."""
        return self.flexible and self.shares < 1 - 1e-9

    @property
    def walls(self) -> int:
        return len(self.all) - 1 + self.closed


def read_tracks(text: str, field: str) -> Tracks:
    """The tracks that `text` lists. Raises NotchError at `field`.

    >>> [(track.text, track.share) for track in read_tracks("(2*25 + 2) 1fr repeat(2, .5fr 40)", "columns").all]
    [('2*25 + 2', None), ('1fr', 1.0), ('.5fr', 0.5), ('40', None), ('.5fr', 0.5), ('40', None)]
    >>> [track.text for track in read_tracks("52 (60 1fr (2 3/8)) 40", "columns").all]
    ['52', '60', '1fr', '2 3/8', '40']
    """
    tracks = tuple(_tracks(text, field))
    if not tracks:
        raise BadDocument(
            "There is no track.", fix="Type sizes with blanks between them, for example 52 1fr 1fr 40.", field=field
        )
    if len(tracks) > MOST_TRACKS:
        raise OutOfRange(
            f"{len(tracks)} tracks are more than can be made.", fix=f"Use at most {MOST_TRACKS}.", field=field
        )
    for number, track in enumerate(tracks, 1):
        _check(track, number, field)
    return Tracks(tracks)


def _tracks(text: str, field: str) -> Iterator[Track]:
    for word in _words(text, field):
        again = _REPEAT.fullmatch(word)
        if again:
            count = int(again[1])
            if not 1 <= count <= MOST_TRACKS:
                raise OutOfRange(
                    f"Tracks are repeated {count} times.", fix=f"Repeat them 1 to {MOST_TRACKS} times.", field=field
                )
            some = tuple(_tracks(again[2], field))
            for _ in range(count):
                yield from some
            continue
        share = _SHARE.fullmatch(word)
        plain = word[1:-1].strip() if word.startswith("(") and _closing(word) == len(word) - 1 else word
        if plain != word and _is_list(_words(plain, field), plain):
            yield from _tracks(plain, field)
            continue
        yield Track(word if share else plain, float(share[1]) if share else None)


def _is_list(words: Sequence[str], text: str) -> bool:
    """Whether what stands in brackets is several tracks: neither one size nor arithmetic with blanks in it."""
    if len(words) < 2 or any(word[0] in _SIGNS or word[-1] in _SIGNS for word in words):
        return False
    try:
        Length(text).mm({})
    except NotchError:
        return True
    return False


_SIGNS = "+-*/×÷−·"


def _words(text: str, field: str) -> list[str]:
    """Split at blanks that stand in no bracket."""
    words, depth = [""], 0
    for sign in text:
        depth += (sign == "(") - (sign == ")")
        if depth < 0:
            break
        if sign.isspace() and depth == 0:
            words.append("")
        else:
            words[-1] += sign
    if depth:
        raise BadDocument(
            "A bracket is not closed, or never opened.",
            fix="Put a bracket before and after each size that has blanks in it.",
            field=field,
        )
    return [word for word in words if word]


def _closing(word: str) -> int:
    depth = 0
    for place, sign in enumerate(word):
        depth += (sign == "(") - (sign == ")")
        if depth == 0:
            return place
    return -1


def _check(track: Track, number: int, field: str) -> None:
    """What can be told before the board is known."""
    if track.share is not None:
        if track.share <= 0:
            raise OutOfRange(
                f"Track {number} has a share of nothing.", fix="Give it more than 0fr, or leave it out.", field=field
            )
        return
    try:
        mm = Length(track.text).mm({})
    except NotchError as error:
        if any(letter.isalpha() for letter in track.text) and "fr" not in track.text:
            return  # it may follow the board
        raise BadDocument(
            f"Track {number} is “{track.text}”: {error.why}",
            fix="Type a size, arithmetic in brackets, or a share such as 1fr.",
            field=field,
        ) from None
    if mm <= 0:
        raise OutOfRange(
            f"Track {number} is {say_mm(mm)} wide.", fix="Give it more than 0 mm, or leave it out.", field=field
        )


def track_lengths(
    tracks: Tracks, inside: str, wall: str, name: str, unit: Unit
) -> tuple[tuple[str, str, Length, bool], ...]:
    """Names, titles and lengths of all tracks, and whether they are typed; `inside` is what they and their walls share."""
    fixed = [f"{name}_{i}" for i, track in enumerate(tracks.all, 1) if track.share is None]
    found = []
    for i, track in enumerate(tracks.all, 1):
        title = f"{'column' if name == 'col' else 'row'} {i}"
        if track.share is None:
            found.append((f"{name}_{i}", title, Length(track.text, unit), True))
        else:
            left = " - ".join([inside, *fixed, f"{tracks.walls}*{wall}"])
            found.append((f"{name}_{i}", title, Length(f"({left})*{track.share!r}/{max(1.0, tracks.shares)!r}"), False))
    return tuple(found)


def taken_by(tracks: Sequence[str], walls: int, wall: str) -> str:
    """How much tracks and their walls take together, as a length."""
    return " + ".join([*tracks, f"{walls}*{wall}"])

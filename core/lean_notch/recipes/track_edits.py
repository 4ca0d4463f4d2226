"""A column or a row more or less: in, the answers of a divided case; out, the same with one track more or less. Pieces of wall that
were taken out are called after walls and tracks by number: they go on being the same ones."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from typing import Literal

from ..ground.errors import OutOfRange
from ..ground.limits import MOST_TRACKS
from .tracks import Track, read_tracks

Side = Literal["columns", "rows"]

_LETTER: Mapping[Side, str] = {"columns": "c", "rows": "r"}
_PIECE = re.compile(r"([cr])(\d+)([cr])(\d+)")


def track_added(answers: Mapping[str, str], side: Side) -> dict[str, str]:
    """With one more at the end, like the last one: as large, or the same share. Raises NotchError at `side`.

    >>> track_added({"columns": "52 1fr", "rows": "1fr", "without": "c1r1"}, "columns")["columns"]
    '52 1fr 1fr'
    """
    tracks = read_tracks(answers[side], side).all
    if len(tracks) >= MOST_TRACKS:
        raise OutOfRange(f"There are {len(tracks)} {side} already.", fix=f"Use at most {MOST_TRACKS}.", field=side)
    return {**answers, side: _listed([*tracks, tracks[-1]])}


def track_removed(answers: Mapping[str, str], side: Side, entry: int) -> dict[str, str]:
    """Without track number `entry`, from 0, and the wall behind it; of the last one, the wall in front. Raises NotchError at `side`.

    >>> track_removed({"columns": "52 1fr 40", "rows": "1fr 30", "without": "c2r1 r1c3 c1r2"}, "columns", 0)
    {'columns': '1fr 40', 'rows': '1fr 30', 'without': 'c1r1 r1c2'}
    """
    tracks = read_tracks(answers[side], side)
    if len(tracks.all) < 2:
        raise OutOfRange(
            f"There is one of the {side} only.", fix="Leave it: without any there is no room inside.", field=side
        )
    if not 0 <= entry < len(tracks.all):
        raise OutOfRange(f"There is no number {entry + 1} among the {side}.", fix="Choose another one.", field=side)
    place = entry + 1
    wall = min(place, tracks.walls)
    kept = [one for i, one in enumerate(tracks.all) if i != entry]
    without = " ".join(_kept(answers.get("without", ""), _LETTER[side], wall, place))
    return {**answers, side: _listed(kept), "without": without}


def _kept(without: str, letter: str, wall: int, place: int) -> Iterator[str]:
    """The pieces that are still there, by their new numbers: walls of that letter, and places beside walls of the other."""
    for name in without.replace(",", " ").split():
        found = _PIECE.fullmatch(name)
        if not found:
            yield name  # it is refused where it is read
            continue
        kind, number, beside, other = found[1], int(found[2]), found[3], int(found[4])
        gone, here = (wall, number) if kind == letter else (place, other)
        if here == gone:
            continue
        here -= here > gone
        yield f"{kind}{here}{beside}{other}" if kind == letter else f"{kind}{number}{beside}{here}"


def _listed(tracks: Sequence[Track]) -> str:
    return " ".join(f"({one.text})" if re.search(r"\s", one.text) else one.text for one in tracks)

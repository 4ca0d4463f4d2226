"""Letters that are cut through, by areas and pieces, with shapely."""

from __future__ import annotations

import random

import shapely
from lean_notch.geometry import Region
from lean_notch.lettering import bridged, lettered
from lean_notch.lettering.bridges import LEAST_SHARE
from solids import flat

LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789&@%?!.,:;ÄÖÜäöüßÅåØøÉéÈèÊêÇçÑñŮůŁłŠš"
BOARDS = (1.5, 3.0, 6.0, 12.0)
HEIGHTS = (5.0, 8.0, 12.0, 20.0, 35.0, 60.0)


def check_text(text: str, font: str, height: float, width: float) -> None:
    """Each letter is whole but for its bridges, or named."""
    drawn = lettered(text, font, height)
    held = bridged(drawn.letters, width)
    lost = {one.letter for one in held.lost}
    cut = [flat(region) for region in held.cut]
    for letter in drawn.letters:
        if letter.character in lost or not letter.regions:
            continue
        asked = shapely.union_all([flat(region) for region in letter.regions])
        own = [one for one in cut if one.representative_point().within(asked)]
        left = shapely.union_all(own)
        said = (text, font, height, width, letter.character)
        assert left.difference(asked.buffer(0.01)).is_empty, said
        assert left.area >= (LEAST_SHARE - 0.01) * asked.area, said
        for region in letter.regions:
            own = [one for one in cut if one.representative_point().within(flat(region))]
            if not region.holes:
                assert flat(region).difference(shapely.union_all(own).buffer(0.005)).area < 1e-3, said
            else:
                assert held_apart(shapely.union_all(own), region, width) == 0, said


def held_apart(cut: shapely.Geometry, region: Region, width: float) -> int:
    """How many insides hang on nothing nearly as wide as a bridge: what stays is eroded by nearly half of that, and each piece of
    an inside still has to reach what was never one: the board around, or within the letter's own curl, as in @, which hangs on what
    the letter itself leaves."""
    left, low, right, high = flat(region).bounds
    sheet = shapely.box(left - 3 * width, low - 3 * width, right + 3 * width, high + 3 * width)
    without = sheet.difference(shapely.Polygon(flat(region).exterior))
    eroded = sheet.difference(cut).buffer(-0.47 * width)
    insides = shapely.union_all([shapely.Polygon(ring) for ring in flat(region).interiors])
    apart = [one for one in getattr(eroded, "geoms", [eroded]) if one.area > 0.01 * width**2]
    return sum(one.intersects(insides) and not one.intersects(without) for one in apart)


def check_word(seed: int) -> None:
    chance = random.Random(f"letters/{seed}")
    word = "".join(chance.choice(LETTERS) for _ in range(chance.randint(2, 6)))
    check_text(word, chance.choice(["sans", "slab", "stencil"]), chance.uniform(5, 60), chance.choice(BOARDS))

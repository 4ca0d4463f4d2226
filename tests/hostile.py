"""Small files that unfold to much, and large ones: what a check has to end with, within its time and memory."""

from __future__ import annotations

import math


def nested_uses(levels: int, each: int = 10, step: float = 0.0) -> bytes:
    """`each` ** `levels` squares of 10 mm, on one another or `step` mm apart."""
    groups = ['<g id="l0"><path d="M0 0H10V10H0Z"/></g>']
    for level in range(1, levels + 1):
        copies = "".join(f'<use href="#l{level - 1}" x="{step * k * each ** (level - 1)}"/>' for k in range(each))
        groups.append(f'<g id="l{level}">{copies}</g>')
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">'
        f"<defs>{''.join(groups[:-1])}</defs>{groups[-1]}</svg>"
    ).encode()


def circles_of_uses() -> bytes:
    """A `use` within what it copies."""
    return (
        b'<svg xmlns="http://www.w3.org/2000/svg" width="10mm" height="10mm" viewBox="0 0 10 10">'
        b'<g id="a"><path d="M0 0H5V5Z"/><use href="#b"/></g><g id="b"><use href="#a"/></g></svg>'
    )


def crossing_lines(count: int) -> bytes:
    """Lines through one middle, each with all others: `count` ** 2 / 2 crossings a few micrometres apart."""
    lines = "".join(
        f"M{50 - 50 * math.cos(a):.4f} {50 - 50 * math.sin(a):.4f}L{50 + 50 * math.cos(a):.4f} {50 + 50 * math.sin(a) + 1e-3 * k:.4f}"
        for k in range(count)
        for a in [math.pi * k / count]
    )
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">'
        f'<path d="{lines}"/></svg>'
    ).encode()


def combs(count: int) -> bytes:
    """Two closed combs, one lying over the other: `count` ** 2 crossings."""

    def comb(turned: bool) -> str:
        points = []
        for k in range(count):
            a, b = 100 * k / count, 100 * (k + 0.5) / count
            points += [(a, 0.0), (a, 100.0), (b, 100.0), (b, 0.0)]
        return "M" + "L".join(f"{y:.4f} {x:.4f}" if turned else f"{x:.4f} {y:.4f}" for x, y in points) + "Z"

    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">'
        f'<path d="{comb(False)}"/><path d="{comb(True)}"/></svg>'
    ).encode()


def wild_cubics(count: int) -> bytes:
    """Curves all over a square, each with all others."""
    import random

    some = random.Random(5)

    def at() -> str:
        return f"{some.uniform(0, 100):.3f} {some.uniform(0, 100):.3f}"

    curves = "".join(f"M{at()}C{at()} {at()} {at()}" for _ in range(count))
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">'
        f'<path d="{curves}"/></svg>'
    ).encode()


def _dxf(blocks: str, entities: str) -> bytes:
    return (
        "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n"
        f"0\nSECTION\n2\nBLOCKS\n{blocks}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n{entities}0\nENDSEC\n0\nEOF\n"
    ).encode()


def nested_blocks(levels: int, each: int = 10) -> bytes:
    """`each` ** `levels` lines by blocks of inserts."""
    line = "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n10\n21\n10\n"
    blocks = f"0\nBLOCK\n8\n0\n2\nB0\n70\n0\n10\n0\n20\n0\n{line}0\nENDBLK\n8\n0\n"
    for level in range(1, levels):
        inserts = f"0\nINSERT\n8\n0\n2\nB{level - 1}\n10\n0\n20\n0\n" * each
        blocks += f"0\nBLOCK\n8\n0\n2\nB{level}\n70\n0\n10\n0\n20\n0\n{inserts}0\nENDBLK\n8\n0\n"
    return _dxf(blocks, f"0\nINSERT\n8\n0\n2\nB{levels - 1}\n10\n0\n20\n0\n" * each)


def insert_array(rows: int, columns: int) -> bytes:
    line = "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n1\n21\n1\n"
    block = f"0\nBLOCK\n8\n0\n2\nB\n70\n0\n10\n0\n20\n0\n{line}0\nENDBLK\n8\n0\n"
    return _dxf(block, f"0\nINSERT\n8\n0\n2\nB\n10\n0\n20\n0\n70\n{columns}\n71\n{rows}\n44\n2\n45\n2\n")


def many_lines(count: int) -> bytes:
    """Lines that lie apart."""
    return _dxf("", "".join(
        f"0\nLINE\n8\n0\n10\n{3 * (k % 400)}\n20\n{3 * (k // 400)}\n11\n{3 * (k % 400) + 2}\n21\n{3 * (k // 400) + 1}\n"
        for k in range(count)
    ))  # fmt: skip


def shattered_circles(count: int, chords: int) -> bytes:
    """Circles of many short lines, beside each other."""
    paths = ""
    for k in range(count):
        x, y = 12 * (k % 100), 12 * (k // 100)
        ring = "L".join(
            f"{x + 5 * math.cos(2 * math.pi * c / chords):.3f} {y + 5 * math.sin(2 * math.pi * c / chords):.3f}"
            for c in range(chords)
        )
        paths += f'<path d="M{ring}Z"/>'
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="1200mm" height="1200mm" viewBox="0 0 1200 1200">{paths}</svg>'
    ).encode()


FILES = {
    "1,000 squares in one place": lambda: nested_uses(3),
    "10,000 squares in one place": lambda: nested_uses(4),
    "10^9 squares in one place": lambda: nested_uses(9),
    "10,000 squares in a row, each over the next": lambda: nested_uses(4, step=0.5),
    "a use within itself": circles_of_uses,
    "2,000 lines through one middle": lambda: crossing_lines(2000),
    "two combs of 2,000 teeth": lambda: combs(2000),
    "20,000 wild cubics": lambda: wild_cubics(20_000),
    "200,000 wild cubics": lambda: wild_cubics(200_000),
    "1,000 lines of blocks": lambda: nested_blocks(3),
    "10^9 lines of blocks": lambda: nested_blocks(9),
    "an array of 30,000 x 30,000": lambda: insert_array(30_000, 30_000),
    "100,000 lines": lambda: many_lines(100_000),
    "2,000 circles of 200 chords": lambda: shattered_circles(2000, 200),
}

"""Right files spoiled in one place: each with the box where the fault is, and what is to be found there."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import Any

from faults import SIDES, Box2, right_job
from lean_notch.cutting import Profile
from lean_notch.hand_over.files import write_files
from lean_notch.job import Result, compute


@dataclass(frozen=True)
class SpoiledFile:
    """`files` are a sheet's bytes each; `where` is the place on its sheet, None where the whole sheet is meant."""

    name: str
    result: Result
    files: dict[int, bytes]
    format: str
    sheet: int
    where: tuple[Box2, ...] | None


Element = tuple[str, str, str]
"""Id of its group, its own id, and the line that draws it."""


def elements(svg: str) -> list[Element]:
    found, group = [], ""
    for line in svg.split("\n"):
        group = m[1] if (m := re.match(r'<g id="([^"]*)"', line)) else group
        if m := re.match(r'<(?:path|circle) id="([^"]*)"', line):
            found.append((group, m[1], line))
    return found


def box_on_sheet(result: Result, sheet: int, path_id: str) -> Box2:
    return next(path.shape.box for path in result.plan.sheets[sheet - 1].paths if path.id == path_id)


SvgFault = Callable[[str, Element], str]


def attribute(value: str) -> SvgFault:
    """The element with one more attribute."""
    return lambda svg, one: svg.replace(one[2], re.sub(r"^<(path|circle) ", rf"<\1 {value} ", one[2]), 1)


def about_middle(box: Box2, height: float, what: str) -> str:
    x, y = (box[0] + box[2]) / 2, height - (box[1] + box[3]) / 2
    return f'transform="translate({x} {y}) {what} translate({-x} {-y})"'


def to_group(group: str) -> SvgFault:
    def spoil(svg: str, one: Element) -> str:
        return svg.replace(one[2] + "\n", "", 1).replace("</svg>", f'<g id="{group}">\n{one[2]}\n</g>\n</svg>')

    return spoil


def spoiled_files() -> Iterator[SpoiledFile]:
    """Faults of one path each, over the outlines, a hole and the marks of right jobs; then of whole sheets."""
    number = 0
    for part in (*SIDES, "hole", "label", "name", "well"):
        for fault in (
            "moved a little",
            "moved",
            "turned",
            "scaled",
            "doubled",
            "dropped",
            "wrong layer",
            "unknown layer",
        ):
            number += 1
            if (fault, part) == ("turned", "hole"):  # round: it is the same
                continue
            job = right_job(2000 + number)
            yield _spoil_path(fault, part, compute(job))
    yield from _whole_sheets()


def _spoil_path(fault: str, part: str, result: Result) -> SpoiledFile:
    wanted = {"hole": "base-1-drain", "label": "front-1-label", "name": "front-1-name", "well": "base-1-well"}.get(
        part, f"{part}-1"
    )
    for file in write_files(result, "svg"):
        svg = file.data.decode()
        found = [
            one for one in elements(svg) if one[1] == wanted or (one[1].startswith(f"{wanted}-") and part not in SIDES)
        ]
        if part == "hole":
            found = [one for one in elements(svg) if one[1].startswith("base-1-hole")]
        if found:
            break
    one, height = found[0], result.layout.sheet(file.sheet).area.height
    box = box_on_sheet(result, file.sheet, one[1])
    spoil: dict[str, SvgFault] = {
        "moved a little": attribute('transform="translate(0.3 0)"'),
        "moved": attribute('transform="translate(0 3)"'),
        "turned": attribute(about_middle(box, height, "rotate(2)")),
        "scaled": attribute(about_middle(box, height, "scale(1.02)")),
        "doubled": lambda svg, one: svg.replace(one[2], f"{one[2]}\n{one[2].replace(' id=', ' data-was=')}", 1),
        "dropped": lambda svg, one: svg.replace(one[2] + "\n", "", 1),
        "wrong layer": to_group("score" if one[0] == "cut" else "cut" if one[0] != "score" else "fold"),
        "unknown layer": to_group("notes"),
    }
    data = spoil[fault](svg, one)
    assert data != svg, (fault, part)
    files = {f.sheet: f.data for f in write_files(result, "svg")} | {file.sheet: data.encode()}
    wide = 4.0 if "moved" in fault else 1.0
    where = (box[0] - wide, box[1] - wide, box[2] + wide, box[3] + wide)
    return SpoiledFile(f"{fault}: {part}", result, files, "svg", file.sheet, (where,))


def _whole_sheets() -> Iterator[SpoiledFile]:
    def whole(name: str, seed: int, change: Callable[[str], str], kind: str = "svg", where: Any = None) -> SpoiledFile:
        result = compute(right_job(seed))
        files = {one.sheet: one.data for one in write_files(result, kind)}  # type: ignore[arg-type]
        changed = {sheet: new for sheet, data in files.items() if (new := change(data.decode()).encode()) != data}
        assert changed, name
        sheet, data = next(iter(changed.items()))
        return SpoiledFile(name, result, {**files, sheet: data}, kind, sheet, where)

    yield whole(
        "unit: inches for mm",
        3001,
        lambda svg: re.sub(r'width="([\d.]+)mm" height="([\d.]+)mm"', r'width="\1in" height="\2in"', svg),
    )
    yield whole("unit: none", 3002, lambda svg: re.sub(r' width="[\d.]+mm" height="[\d.]+mm" viewBox="[^"]*"', "", svg))
    yield whole(
        "unit: 72 to the inch",
        3003,
        lambda svg: re.sub(
            r'width="([\d.]+)mm" height="([\d.]+)mm"',
            lambda m: f'width="{float(m[1]) * 96 / 72}mm" height="{float(m[2]) * 96 / 72}mm"',
            svg,
        ),
    )
    yield whole(
        "mirrored",
        3004,
        lambda svg: (
            re.sub(r'viewBox="0 0 ([\d.]+) ', lambda m: f'viewBox="0 0 {m[1]} ', svg)
            .replace("<g ", '<g transform="scale(-1 1) translate(-700 0)" ')
            .replace("-700", "-" + re.search(r'viewBox="0 0 ([\d.]+)', svg)[1])
        ),
    )  # type: ignore[index]
    yield whole("depth changed", 3005, lambda svg: re.sub(r'id="pocket-[\d.]+mm"', 'id="pocket-0.5mm"', svg))
    yield whole("no depth", 3006, lambda svg: re.sub(r'id="pocket-[\d.]+mm"', 'id="pocket"', svg))
    yield whole(
        "text left over a part", 3007, lambda svg: svg.replace("</svg>", '<text x="40" y="40">VIALS</text></svg>')
    )
    yield whole(
        "an image", 3008, lambda svg: svg.replace("</svg>", '<image href="data:," width="9" height="9"/></svg>')
    )
    for number, layer in enumerate(("CUT", "SCORE", "ENGRAVE")):
        yield whole(f"layer off: {layer}", 3010 + number, layer_off(layer), "dxf")
        yield whole(f"layer frozen: {layer}", 3020 + number, layer_off(layer, frozen=True), "dxf-r12")
    for seed in (3033, 3037, 3041):  # those with small sheets
        result = compute(right_job(seed))
        files = {one.sheet: one.data for one in write_files(result, "svg")}
        if len(files) > 1:
            last = max(files)
            rest = {sheet: data for sheet, data in files.items() if sheet != last}
            yield SpoiledFile(f"sheet missing: {last} of {seed}", result, rest, "svg", last, None)
            swapped = {**files, 1: files[2], 2: files[1]}
            yield SpoiledFile(f"sheets swapped: {seed}", result, swapped, "svg", 1, None)
    for seed, board in ((3050, 3051), (3053, 3054)):
        one, other = right_job(seed), right_job(board)
        main = other.basis.of("main")
        floor = replace(main, stock=replace(main.stock, name=f"{main.stock.name}, floor"))  # on sheets of its own
        moved = replace(one, basis=other.basis.with_board("floor", floor) if seed % 3 == 2 else other.basis)
        files = {f.sheet: f.data for f in write_files(compute(one), "svg")}
        yield SpoiledFile(f"board swapped: {seed}", compute(moved), files, "svg", 1, None)
    for seed in (3060, 3061):
        yield _lead_into_a_part(seed)


def _lead_into_a_part(seed: int) -> SpoiledFile:
    """The lead of an outline begins in the middle of its part."""
    result = compute(right_job(seed), Profile(lead_in_mm=2.0))
    files = {f.sheet: f.data for f in write_files(result, "svg")}
    svg = files[1].decode()
    line = next(one for one in elements(svg) if one[1].endswith("-1") and "Z" not in one[2] and "path" in one[2])
    far = re.sub(r'd="M[^LA]*L', f'd="M{middle_of(result, line[1])}L', line[2], count=1)
    spoiled = {**files, 1: svg.replace(line[2], far).encode()}
    return SpoiledFile(f"lead into a part: {seed}", result, spoiled, "svg", 1, (box_on_sheet(result, 1, line[1]),))


def layer_off(layer: str, *, frozen: bool = False) -> Callable[[str], str]:
    """The layer's entry in the table with a negative colour, or flag 1. DXF Reference, LAYER."""

    def change(dxf: str) -> str:
        pairs = dxf.split("\n")
        for at in range(0, len(pairs) - 24, 2):
            entry = [one.strip() for one in pairs[at : at + 24]]
            name = next((entry[i + 1] for i in range(2, 24, 2) if entry[i] == "2"), "")
            if entry[:2] == ["0", "LAYER"] and name == layer:
                k = next(i for i in range(2, 24, 2) if entry[i] == ("70" if frozen else "62"))
                pairs[at + k + 1] = "1" if frozen else f"-{entry[k + 1]}"
                return "\n".join(pairs)
        return dxf

    return change


def middle_of(result: Result, path_id: str) -> str:
    """The middle of a path, as SVG has it."""
    left, low, right, high = box_on_sheet(result, 1, path_id)
    return f"{(left + right) / 2} {result.layout.sheet(1).area.height - (low + high) / 2}"

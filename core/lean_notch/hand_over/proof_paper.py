"""A proof on one page: in, a computed job, its proof, and where both come from; a paper out."""

from __future__ import annotations

from dataclasses import replace

from ..formats.paper import Block, Heading, Label, Large, Lines, Paper, Stroke, Table
from ..geometry import Circle
from ..job import Result
from ..lengths.in_another_unit import Reader
from ..proof import NOT_LOOKED_AT, Proof
from .job_sheet import Written, said_by
from .sheet_drawing import sheet_drawing

MOST_FINDINGS = 12
MOST_ROWS = 24

_WORDS = {"ok": "as wanted", "look": "to look at", "bad": "not as wanted", "none": "nothing to test"}


def proof_paper(
    result: Result, proof: Proof, written: Written = Written(), reader: Reader = Reader()  # noqa: B008 - never changed
) -> Paper:  # fmt: skip
    """The verdict, what was tested and how, what was found and where, each part's figures, and what was not looked at."""
    titles = {part.id: part for part in result.build.parts}
    blocks: list[Block] = [Large(f"{proof.sentence}.", written.proof)]
    blocks += [
        Heading("What was tested"),
        Table(("test", "result", "how", ""), [(t.title, t.found, t.how, _WORDS[t.state]) for t in proof.tested]),
    ]
    if proof.findings:
        blocks += [
            Heading("To look at"),
            Table(("what", "what to do"), [(one.why, one.fix) for one in proof.findings[:MOST_FINDINGS]]),
        ]
        if len(proof.findings) > MOST_FINDINGS:
            blocks.append(Lines((f"And {len(proof.findings) - MOST_FINDINGS} more.",)))
    for sheet in result.plan.sheets:
        drawing = sheet_drawing(result, sheet.number, reader)
        off = [one.place for one in proof.findings if one.sheet == sheet.number and one.place]
        radius = max(drawing.width, drawing.height) / 60
        rings = tuple(Circle(x, y, radius) for x, y in off[:MOST_ROWS])
        names = [
            Label(str(i + 1), placed.motion.point(_middle(titles[placed.part].region.box)))
            for i, placed in enumerate(result.layout.placed)
            if placed.sheet == sheet.number
        ]
        of = f" {sheet.number} of {len(result.plan.sheets)}" if len(result.plan.sheets) > 1 else ""
        strokes = (*drawing.strokes, *([Stroke("off", rings)] if rings else []))
        blocks += [Heading(f"Sheet{of}"), replace(drawing, strokes=strokes, labels=tuple(names), share=0.27)]
    blocks += [Heading("Part by part"), _parts(result, proof, reader)]
    if len(proof.parts) > MOST_ROWS:
        blocks.append(Lines((f"And {len(proof.parts) - MOST_ROWS} more pieces.",)))
    blocks.append(Lines((f"Not looked at: {'; '.join(NOT_LOOKED_AT)}.",)))
    return Paper(
        result.job.design.name, "proof of what will come off the machine", tuple(said_by(reader, one) for one in blocks),
        reader.says(written.foot),
    )  # fmt: skip


def _middle(box: tuple[float, float, float, float]) -> tuple[float, float]:
    return ((box[0] + box[2]) / 2, (box[1] + box[3]) / 2)


def _parts(result: Result, proof: Proof, reader: Reader) -> Table:
    """Numbered as on the drawing."""
    titles = {part.id: part.title for part in result.build.parts}
    found = {(one.part, one.copy): one for one in proof.parts}
    rows = []
    for i, placed in enumerate(result.layout.placed[:MOST_ROWS]):
        one = found.get((placed.part, placed.copy))
        values = (one.edge, one.corner, one.inside_corner) if one else (None, None, None)
        said = [reader.length(value, 3) if value is not None else "missing" for value in values]
        rows.append(
            (str(i + 1), f"{titles[placed.part]} {placed.copy}", *said, "good" if one and one.ok else "not as wanted")
        )
    return Table(
        ("no.", "part", "edges off", "outer corners", "left in inner corners", ""), rows, frozenset({0, 2, 3, 4})
    )

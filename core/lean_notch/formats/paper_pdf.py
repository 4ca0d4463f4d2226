"""A paper as PDF, its drawings to scale: in, a Paper and a size of page; out, bytes. The same paper gives the same bytes."""

from __future__ import annotations

import io
from collections.abc import Iterator
from functools import cache, partial
from html import escape
from pathlib import Path
from typing import Any

from reportlab.lib.colors import HexColor
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import registerFont, registerFontFamily, stringWidth
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Paragraph, SimpleDocTemplate
from reportlab.platypus import Table as Rows

from ..geometry import Ring, flatten
from .paper import (
    MARGIN_MM,
    MOST_BOXES,
    PAPERS,
    Block,
    Checks,
    Drawing,
    Heading,
    Large,
    Lines,
    PageSize,
    Paper,
    Table,
    names_on,
    say_scale,
    scale_for,
)

FONTS = Path(__file__).parent / "fonts"
REGULAR, BOLD = "PlexCondensed", "PlexCondensed-SemiBold"
CHORD_MM = 0.05
PADDING = 6.0
"""Of a page's frame, in points."""
INK, THIRD, PALE, RED = "#1d2327", "#777777", "#f0ebe0", "#9e3b2c"
_WIDTHS = {"part": 0.25, "mark": 0.15, "keep-out": 0.25, "off": 0.6}


def write_pdf_paper(paper: Paper, size: PageSize = PAPERS["A4"]) -> bytes:

    _register()
    out = io.BytesIO()
    margin = MARGIN_MM * mm
    document = SimpleDocTemplate(
        out, pagesize=(size.width * mm, size.height * mm), leftMargin=margin, rightMargin=margin, topMargin=margin,
        bottomMargin=margin + 5 * mm, title=paper.title, author="Lean Notch", invariant=1,
    )  # fmt: skip
    story = [flowable for block in (*_head(paper), *paper.blocks) for flowable in _block(block, size)]
    foot = partial(_foot, paper.foot, size)
    document.build(story, onFirstPage=foot, onLaterPages=foot)
    return out.getvalue()


@cache
def _register() -> None:

    registerFont(TTFont(REGULAR, str(FONTS / "ibm-plex-sans-condensed-regular.ttf")))
    registerFont(TTFont(BOLD, str(FONTS / "ibm-plex-sans-condensed-semibold.ttf")))
    registerFontFamily(REGULAR, normal=REGULAR, bold=BOLD, italic=REGULAR, boldItalic=BOLD)


def _head(paper: Paper) -> tuple[Block, ...]:
    return (Large(paper.title, paper.about),)


def _style(size: float, *, bold: bool = False, before: float = 0.0, right: bool = False) -> Any:
    return ParagraphStyle(
        f"{size}-{bold}-{before}-{right}", fontName=BOLD if bold else REGULAR, fontSize=size, leading=1.28 * size,
        spaceBefore=before, textColor=HexColor(INK), alignment=2 if right else 0, splitLongWords=1,
    )  # fmt: skip


def _text(text: str, style: Any) -> Flowable:

    return Paragraph(escape(text), style)


def _block(block: Block, size: PageSize) -> Iterator[Flowable]:
    match block:
        case Heading():
            yield _text(block.text, _style(12, bold=True, before=9))
        case Large():
            yield _text(block.text, _style(18, bold=True, before=3))
            if block.about:
                yield _text(block.about, _style(10))
        case Lines():
            for text in block.texts:
                yield _text(text, _style(10, before=1))
        case Checks():
            for text in block.texts:
                yield _table(Table(("", ""), [(1, text)], ticks=0), size, headed=False)
        case Table():
            yield _table(block, size)
        case Drawing():
            yield _Drawn(block, size)
            if listed := names_on(block, size)[1]:
                yield _text(listed, _style(9, before=1))


def _table(table: Table, size: PageSize, *, headed: bool = True) -> Flowable:

    widths = _widths(table, (size.width - 2 * MARGIN_MM) * mm - 2 * PADDING)
    head = [[_text(text, _style(9, right=i in table.numbers)) for i, text in enumerate(table.head)]] if headed else []
    rows = [
        [
            _Boxes(int(value)) if i == table.ticks else _text(str(value), _style(9.5, right=i in table.numbers))
            for i, value in enumerate(row)
        ]
        for row in table.rows
    ]
    lines: list[Any] = [("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0), ("RIGHTPADDING", (0, 0), (-1, -1), 8),
             ("TOPPADDING", (0, 0), (-1, -1), 1.5), ("BOTTOMPADDING", (0, 0), (-1, -1), 2)]  # fmt: skip
    if headed:
        lines.append(("LINEABOVE", (0, 1), (-1, -1), 0.4, "#c9c3b4"))
    return Rows(head + rows, colWidths=widths, repeatRows=int(headed), style=lines, hAlign="LEFT", spaceBefore=2)


def _widths(table: Table, room: float) -> list[float]:
    """Of the columns, in points: as wide as their longest entry, those of many words giving way; the last takes the rest."""
    columns = range(len(table.head))
    wanted = [max(stringWidth(str(row[i]), REGULAR, 9.5) for row in (table.head, *table.rows)) + 10 for i in columns]
    if table.ticks >= 0:
        most = max((int(row[table.ticks]) for row in table.rows), default=1)
        wanted[table.ticks] = max(wanted[table.ticks], 12.0 * min(most, MOST_BOXES) + 14)
    over = sum(wanted) - room
    if over <= 0:
        return [*wanted[:-1], wanted[-1] - over]
    # What is wider than its share is cut down to it; what is narrow stays.
    share = room / len(wanted)
    spare = sum(max(one - share, 0.0) for one in wanted)
    return [one - max(one - share, 0.0) / spare * over for one in wanted]


def _foot(text: str, size: PageSize, canvas: Canvas, document: Any) -> None:

    canvas.saveState()
    canvas.setFont(REGULAR, 8.5)
    canvas.setFillColor(INK)
    canvas.drawString(MARGIN_MM * mm + PADDING, MARGIN_MM * mm - 2, text)
    canvas.drawRightString((size.width - MARGIN_MM) * mm - PADDING, MARGIN_MM * mm - 2, f"page {document.page}")
    canvas.restoreState()


class _Boxes(Flowable):
    """Boxes to tick."""

    def __init__(self, count: int) -> None:
        super().__init__()
        self.count = count

    def wrap(self, width: float, height: float) -> tuple[float, float]:  # noqa: ARG002
        return width, 11.0

    def draw(self) -> None:
        canvas = self.canv
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(0.9)
        for i in range(1 if self.count > MOST_BOXES else self.count):
            canvas.rect(12 * i, 1, 8.5, 8.5)
        if self.count > MOST_BOXES:
            canvas.setFont(REGULAR, 9.5)
            canvas.drawString(13, 2, f"all {self.count}")


class _Drawn(Flowable):
    """A drawing at its scale, its bar below it."""

    BELOW_MM = 10.0

    def __init__(self, drawing: Drawing, size: PageSize) -> None:
        super().__init__()
        self.drawing, self.size = drawing, size
        self.scale = scale_for(drawing, size)

    def wrap(self, width: float, height: float) -> tuple[float, float]:  # noqa: ARG002

        return self.drawing.width / self.scale * mm, (self.drawing.height / self.scale + self.BELOW_MM + 3) * mm

    def draw(self) -> None:

        canvas, drawing, scale = self.canv, self.drawing, self.scale
        canvas.saveState()
        canvas.translate(0, self.BELOW_MM * mm)
        k = mm / scale
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(0.35 * mm)
        canvas.rect(0, 0, drawing.width * k, drawing.height * k)
        for stroke in drawing.strokes:
            canvas.setLineWidth(_WIDTHS[stroke.kind] * mm)
            canvas.setStrokeColor({"mark": THIRD, "off": RED}.get(stroke.kind, INK))
            canvas.setFillColor(PALE)
            canvas.setDash([3, 2] if stroke.kind == "keep-out" else [])
            canvas.drawPath(_path(canvas, stroke.rings, k), stroke=1, fill=int(stroke.kind == "part"), fillMode=0)
        canvas.setDash([])
        canvas.setFillColor(INK)
        for label in names_on(drawing, self.size)[0]:
            canvas.setFont(REGULAR, 8)
            canvas.drawCentredString(label.at[0] * k, label.at[1] * k - 2.6, label.text)
        if drawing.axes:
            self._axes(canvas, k, 8 * mm)
        canvas.setLineWidth(0.35 * mm)
        bar, low = drawing.bar_mm * k, -6 * mm
        canvas.lines([(0, low + 5, 0, low), (0, low, bar, low), (bar, low, bar, low + 5)])
        canvas.setFont(REGULAR, 8.5)
        canvas.drawString(bar + 6, low, f"{drawing.bar}, scale {say_scale(scale)}")
        canvas.restoreState()

    def _axes(self, canvas: Canvas, k: float, arm: float) -> None:
        axes = self.drawing.axes
        assert axes
        x, y = axes.at[0] * k, axes.at[1] * k
        canvas.setLineWidth(1.4)
        canvas.lines([(x, y, x + arm * axes.x, y), (x, y, x, y + arm * axes.y)])
        canvas.setFont(BOLD, 8)
        canvas.drawCentredString(x + 1.2 * arm * axes.x, y - 2.6, "x")
        canvas.drawCentredString(x, y + 1.2 * arm * axes.y - 2.6, "y")
        canvas.drawCentredString(x - 5 * axes.x, y - 6 * axes.y - 2.6, "0")


def _path(canvas: Canvas, rings: tuple[Ring, ...], k: float) -> Any:
    path = canvas.beginPath()
    for ring in rings:
        first, *others = flatten(ring.segments, CHORD_MM)
        path.moveTo(first[0] * k, first[1] * k)
        for x, y in others:
            path.lineTo(x * k, y * k)
        path.close()
    return path

"""A paper as a page of HTML, printed as it stands: in, a Paper; out, a text that fetches nothing. The same paper gives the same text."""

from __future__ import annotations

from html import escape

from .paper import (
    MARGIN_MM,
    MOST_BOXES,
    PAPERS,
    TEXT_MM,
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
from .svg_path import number, path_data

_STYLE = (
    "@page{size:%s;margin:%smm}body{font:15px/1.4 sans-serif;margin:24px auto;max-width:%smm;color:#1d2327}"
    "h1{font-size:24px;margin:0}h2{font-size:17px;margin:20px 0 6px}header,footer{display:flex;justify-content:space-between;"
    "gap:20px;align-items:baseline;border-bottom:2px solid #1d2327;padding-bottom:4px}footer{border:0;border-top:1px solid #1d2327;"
    "margin-top:20px;padding-top:4px;font-size:13px}table{border-collapse:collapse;width:100%%}td,th{text-align:left;"
    "padding:3px 10px 3px 0;border-top:1px solid #c9c3b4;vertical-align:top}td.n,th.n{text-align:right;"
    "font-variant-numeric:tabular-nums}p{margin:4px 0}.large{font-size:27px;font-weight:600;margin:12px 0 0}"
    ".box{display:inline-block;width:12px;height:12px;border:1.5px solid #1d2327;margin-right:6px;vertical-align:-1px}"
    "svg{display:block;overflow:visible;max-width:100%%}h2,tr,figure,p{break-inside:avoid}figure{margin:10px 0}"
    "svg path{fill:none;stroke:#1d2327;stroke-width:.25mm;vector-effect:non-scaling-stroke}.part{fill:#f0ebe0}"
    "svg path.mark{stroke:#777;stroke-width:.15mm}svg path.keep-out{stroke-dasharray:3 2}svg path.off{stroke:#9e3b2c;"
    "stroke-width:.6mm}svg text{font-family:sans-serif;text-anchor:middle;paint-order:stroke;stroke:#fff;stroke-width:.15em}"
)


def write_html(paper: Paper, size: PageSize = PAPERS["A4"]) -> str:
    wide = size.width - 2 * MARGIN_MM
    style = _STYLE % (f"{number(size.width)}mm {number(size.height)}mm", number(MARGIN_MM), number(wide))
    body = "\n".join(_block(block, size) for block in paper.blocks)
    return (
        f'<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>{escape(paper.title)}</title><style>{style}</style>\n'
        f"<header><h1>{escape(paper.title)}</h1><span>{escape(paper.about)}</span></header>\n{body}\n"
        f"<footer>{escape(paper.foot)}</footer></html>\n"
    )


def _block(block: Block, size: PageSize) -> str:
    match block:
        case Heading():
            return f"<h2>{escape(block.text)}</h2>"
        case Large():
            about = f"<p>{escape(block.about)}</p>" if block.about else ""
            return f'<p class="large">{escape(block.text)}</p>{about}'
        case Lines():
            return "\n".join(f"<p>{escape(text)}</p>" for text in block.texts)
        case Checks():
            return "\n".join(f'<p><span class="box"></span>{escape(text)}</p>' for text in block.texts)
        case Table():
            return _table(block)
        case Drawing():
            return _drawing(block, size)


def _table(table: Table) -> str:
    head = "".join(_cell("th", text, i in table.numbers) for i, text in enumerate(table.head))
    rows = [
        "<tr>"
        + "".join(
            _boxes(int(value)) if i == table.ticks else _cell("td", str(value), i in table.numbers)
            for i, value in enumerate(row)
        )
        + "</tr>"
        for row in table.rows
    ]
    return f"<table><tr>{head}</tr>{''.join(rows)}</table>"


def _cell(tag: str, text: str, right: bool) -> str:
    return f"<{tag}{' class=n' if right else ''}>{escape(text)}</{tag}>"


def _boxes(count: int) -> str:
    box = '<span class="box"></span>'
    return f"<td>{box * count}</td>" if count <= MOST_BOXES else f"<td>{box}all {count}</td>"


def _drawing(drawing: Drawing, size: PageSize) -> str:
    scale = scale_for(drawing, size)
    top = drawing.height
    lines = [f'<path class="sheet" d="M0 0H{number(drawing.width)}V{number(top)}H0Z"/>']
    for stroke in drawing.strokes:
        data = "".join(path_data(ring, lambda p: (p[0], top - p[1]), flipped=True, digits=2) for ring in stroke.rings)
        lines.append(f'<path class="{stroke.kind}" fill-rule="evenodd" d="{data}"/>')
    text_mm = TEXT_MM * scale
    labels, listed = names_on(drawing, size)
    lines += [
        f'<text x="{number(label.at[0], 2)}" y="{number(top - label.at[1], 2)}" font-size="{number(text_mm, 2)}">{escape(label.text)}</text>'
        for label in labels
    ]
    if drawing.axes:
        (x, y), arm = drawing.axes.at, 8.0 * scale
        y = top - y
        lines.append(
            f'<path class="axes" d="M{number(x + arm * drawing.axes.x)} {number(y)}H{number(x)}V{number(y - arm * drawing.axes.y)}"/>'
        )
        lines.append(
            _word("x", x + 1.15 * arm * drawing.axes.x, y, text_mm)
            + _word("y", x, y - 1.15 * arm * drawing.axes.y, text_mm)
        )
        lines.append(_word("0", x - 0.3 * arm * drawing.axes.x, y + 0.3 * arm * drawing.axes.y, text_mm))
    below = drawing.height + 6 * scale
    lines.append(
        f'<path class="bar" d="M0 {number(below - 2 * scale)}V{number(below)}H{number(drawing.bar_mm)}V{number(below - 2 * scale)}"/>'
    )
    lines.append(_word(f"{drawing.bar}, scale {say_scale(scale)}", drawing.bar_mm + 22 * scale, below, text_mm))
    width, height = drawing.width / scale, (below + 3 * scale) / scale
    return (
        f'<figure><svg width="{number(width)}mm" height="{number(height)}mm" data-scale="{number(scale)}" '
        f'viewBox="0 0 {number(drawing.width)} {number(below + 3 * scale)}">{"".join(lines)}</svg>{f"<figcaption>{escape(listed)}</figcaption>" if listed else ""}</figure>'
    )


def _word(text: str, x: float, y: float, size: float) -> str:
    return (
        f'<text x="{number(x, 2)}" y="{number(y + 0.3 * size, 2)}" font-size="{number(size, 2)}">{escape(text)}</text>'
    )

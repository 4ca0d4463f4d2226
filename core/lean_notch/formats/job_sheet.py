"""The job sheet: one page of HTML to print and lay beside the machine. In, a computed job's rows; out, a text.

Everything is in the file itself; nothing is fetched.
"""

from __future__ import annotations

from collections.abc import Sequence
from html import escape
from typing import NamedTuple

from ..cutting import SheetPlan
from .svg_path import number, path_data

_STYLE = (
    "body{font:15px/1.45 sans-serif;margin:24px;max-width:820px;color:#1d2327}h1{font-size:24px;margin:0}"
    "h2{font-size:17px;margin:22px 0 6px}table{border-collapse:collapse;width:100%}td,th{text-align:left;"
    "padding:3px 10px 3px 0;border-top:1px solid #c9c3b4;vertical-align:top}td.n,th.n{text-align:right;"
    "font-variant-numeric:tabular-nums}svg{width:100%;max-height:320px;border:1px solid #c9c3b4}"
    "p{margin:4px 0}.box{display:inline-block;width:12px;height:12px;border:1.5px solid #1d2327;margin-right:8px}"
)


class Table(NamedTuple):
    """`rows` under `head`; columns named in `numbers` are set to the right."""

    title: str
    head: tuple[str, ...]
    rows: Sequence[tuple[str, ...]]
    numbers: frozenset[int] = frozenset()


def write_job_sheet(
    title: str, about: Sequence[str], tables: Sequence[Table], sheets: Sequence[SheetPlan], notes: Sequence[str]
) -> str:
    """The same rows give the same text."""
    lines = [
        f'<!doctype html><html lang="en"><meta charset="utf-8"><title>{escape(title)}</title><style>{_STYLE}</style>',
        f"<h1>{escape(title)}</h1>",
        *(f"<p>{escape(line)}</p>" for line in about),
    ]
    for table in tables:
        lines.append(f"<h2>{escape(table.title)}</h2><table><tr>")
        lines += [_cell("th", head, i in table.numbers) for i, head in enumerate(table.head)]
        lines.append("</tr>")
        for row in table.rows:
            lines.append(
                "<tr>" + "".join(_cell("td", value, i in table.numbers) for i, value in enumerate(row)) + "</tr>"
            )
        lines.append("</table>")
    if notes:
        lines.append("<h2>Checklist</h2>")
        lines += [f'<p><span class="box"></span>{escape(note)}</p>' for note in notes]
    for sheet in sheets:
        lines.append(f"<h2>Sheet {sheet.number}</h2>{_drawing(sheet)}")
    return "\n".join(lines) + "</html>\n"


def _cell(tag: str, value: str, right: bool) -> str:
    return f"<{tag}{' class=n' if right else ''}>{escape(value)}</{tag}>"


def _drawing(sheet: SheetPlan) -> str:
    data = "".join(
        path_data(path.shape, lambda p: (p[0], sheet.height - p[1]), flipped=True, digits=2) for path in sheet.paths
    )
    stroke = number(max(sheet.width, sheet.height) / 700, 2)
    return (
        f'<svg viewBox="0 0 {number(sheet.width)} {number(sheet.height)}"><path d="{data}" fill="none" stroke="#1d2327" '
        f'stroke-width="{stroke}"/></svg>'
    )

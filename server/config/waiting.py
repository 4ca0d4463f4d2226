"""The page that a browser shows in place of one that is still worked out: it asks again by itself, and needs no script."""

from __future__ import annotations

from django.utils.html import format_html

_PAGE = (
    '<!doctype html><html lang="en"><head><meta charset="utf-8"><meta http-equiv="refresh" content="1"><title>{title}</title></head>'
    "<body><p>{title}: {stage}, {share} %. It is shown here when it is done.</p></body></html>"
)


def waiting_page(title: str, stage: str, progress: float) -> str:
    """
    >>> "A &amp; B: starting, 40 %" in waiting_page("A & B", "", 0.4)
    True
    """
    return str(format_html(_PAGE, title=title, stage=stage or "starting", share=round(100 * progress)))

"""Whether the beam has room to cut between the parts on a sheet, and inside them."""

from __future__ import annotations

from collections.abc import Mapping

from ..build import Build
from ..errors import KerfTooWide, OutOfRange
from ..nesting import LayoutSettings
from ..units import say_mm
from .paths import Kerfs


def check_room(build: Build, settings: Mapping[str, LayoutSettings], kerfs: Kerfs) -> None:
    """Raises KerfTooWide or OutOfRange, as `plan_cut` does."""
    board = {part.id: part.board for part in build.parts}
    narrow = max(kerfs.values(), default=0.0)
    for mate in build.mates:
        for contact in mate.contacts if mate.narrowest <= narrow else ():
            sides = {board[contact.outer.part]} | ({board[contact.inner.part]} if contact.inner else set())
            widest = max(sides, key=lambda one: kerfs[one])
            kerf, narrowest = kerfs[widest], contact.narrowest if contact.inner else contact.outer_width
            if kerf >= narrowest:
                raise KerfTooWide(
                    f"A kerf of {say_mm(kerf)} does not fit between the {mate.inner}s of “{mate.title}”, "
                    f"{say_mm(narrowest)} wide.",
                    fix=f"Use {mate.inner}s wider than {say_mm(kerf)}, or a finer beam or tool.",
                    field=f"basis/{widest}/kerf",
                )
    for name in dict.fromkeys(board.values()):
        _check_spacing(settings[name], kerfs[name], f"layout/{name}")


def _check_spacing(settings: LayoutSettings, kerf: float, path: str) -> None:
    if settings.spacing <= kerf:
        raise OutOfRange(
            f"A spacing of {say_mm(settings.spacing)} leaves nothing between cuts {say_mm(kerf)} wide.",
            fix=f"Use a spacing of more than {say_mm(kerf)}.",
            field=f"{path}/spacing",
        )
    if settings.margin < kerf / 2:
        raise OutOfRange(
            f"With a margin of {say_mm(settings.margin)} the beam leaves the sheet.",
            fix=f"Use a margin of at least {say_mm(kerf / 2)}.",
            field=f"{path}/margin",
        )

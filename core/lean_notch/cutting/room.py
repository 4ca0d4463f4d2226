"""Whether the beam or tool has room to cut between the parts on a sheet, and inside them: in, what is laid out and how; out, findings,
each with what mends it. Nothing is refused: a machine may be changed at any time."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from ..ground.findings import Finding, Mend, Severity
from ..lengths.said import say_mm
from ..making import Build
from ..nesting import LayoutSettings
from .paths import Kerfs

_HAIR_MM = 1e-6


def room_to_cut(
    build: Build, settings: Mapping[str, tuple[LayoutSettings, LayoutSettings]], kerfs: Kerfs
) -> Iterator[Finding]:
    """Joints that are narrower than the kerf, and sheets whose parts lie nearer to each other, or to the edge, than is usual:
    `settings` are those of the sheets, and the usual ones, by board."""
    yield from _joints(build, kerfs)
    for name, (chosen, usual) in settings.items():
        yield from _spacing(chosen, usual, kerfs[name], f"layout/{name}")
        yield from _margin(chosen, usual, kerfs[name], f"layout/{name}")


def _joints(build: Build, kerfs: Kerfs) -> Iterator[Finding]:
    board = {part.id: part.board for part in build.parts}
    narrow = max(kerfs.values(), default=0.0)
    for mate in build.mates:
        for contact in mate.contacts if mate.narrowest <= narrow else ():
            sides = {board[contact.outer.part]} | ({board[contact.inner.part]} if contact.inner else set())
            widest = max(sides, key=lambda one: kerfs[one])
            kerf, narrowest = kerfs[widest], contact.narrowest if contact.inner else contact.outer_width
            if kerf >= narrowest:
                yield Finding(
                    "kerf-too-wide", "stop",
                    f"A kerf of {say_mm(kerf)} does not fit between the {mate.inner}s of “{mate.title}”, {say_mm(narrowest)} wide.",
                    f"Use {mate.inner}s wider than {say_mm(kerf)}, or a finer beam or tool.",
                    joint=mate.id, amount=kerf - narrowest, field=f"basis/{widest}/kerf",
                )  # fmt: skip
                break


def _spacing(settings: LayoutSettings, usual: LayoutSettings, kerf: float, path: str) -> Iterator[Finding]:
    if settings.spacing >= usual.spacing - _HAIR_MM:
        return
    web = settings.spacing - 2 * kerf
    severity: Severity = "look"
    if settings.spacing <= kerf:
        left = f"leaves nothing between cuts {say_mm(kerf)} wide: one cuts into the part of the other"
        severity = "stop"
    elif web <= _HAIR_MM:
        left = f"lets cuts {say_mm(kerf)} wide run into each other: what is left between them comes loose"
    else:
        left = f"leaves a web of {say_mm(web)} between two cuts: nothing may hold it"
    yield Finding(
        "spacing-narrow", severity, f"A spacing of {say_mm(settings.spacing)} {left}.", f"The usual spacing is {say_mm(usual.spacing)}.",
        amount=usual.spacing - settings.spacing, field=f"{path}/spacing",
        mend=Mend(f"Use the usual {say_mm(usual.spacing)}", f"{path}/spacing", ""),
    )  # fmt: skip


def _margin(settings: LayoutSettings, usual: LayoutSettings, kerf: float, path: str) -> Iterator[Finding]:
    if settings.margin < kerf / 2 - _HAIR_MM:
        yield Finding(
            "margin-narrow", "stop", f"With a margin of {say_mm(settings.margin)} a cut {say_mm(kerf)} wide leaves the sheet.",
            f"The usual margin is {say_mm(usual.margin)}.", amount=kerf / 2 - settings.margin, field=f"{path}/margin",
            mend=Mend(f"Use the usual {say_mm(usual.margin)}", f"{path}/margin", ""),
        )  # fmt: skip

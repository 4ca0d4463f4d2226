"""What a workshop says newer than a job's own copy of it: in, the documents of both, or the notebook's entries; out, what differs, and
sentences. Nothing is computed of the job."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from ..lengths.said import say_mm
from .basis import BoardBasis
from .notebook import Entry, offers, sure_of
from .readings import Readings
from .stock import KINDS, Limits, limits_from_json

Document = Mapping[str, Any]
SAME_KERF_MM = 1e-6


def news_of_stock(mine: Document, rack: Document) -> tuple[str, ...]:
    """What the rack's document says of a board otherwise than a job's copy of it; empty if nothing. Off-cuts and notes are
    the rack's own."""
    my, its = (_limits(one, rack["kind"]) for one in (mine, rack))
    no_rules = dict.fromkeys(("laser", "router"))
    said = {
        "thickness": list(mine["readings"]) != list(rack["readings"]),
        "sheets": _sizes(mine) != _sizes(rack),
        **_differing(mine, rack, ("name", "kind", "direction", "price")),
        "what it is made of": (mine.get("made_of") or "") != (rack.get("made_of") or ""),
        "limits": replace(my, **no_rules) != replace(its, **no_rules),
        "where it may be cut": (my.laser, my.router) != (its.laser, its.router),
        "what it is sold as": mine["nominal"] != rack["nominal"],
    }
    return tuple(name for name, differs in said.items() if differs)


def news_of_machine(mine: Document, workshop: Document) -> tuple[str, ...]:
    """What the workshop's document says of a machine otherwise than a job's copy of it; empty if nothing. Kerf and tool
    are a job's own."""
    said = {
        "bed": any(_differing(mine, workshop, ("bed_width", "bed_height")).values()),
        "what to keep clear of": any(_differing(mine, workshop, ("keep_outs",)).values()),
        "axes": any(_differing(mine, workshop, ("origin", "x_axis", "y_axis")).values()),
        **_differing(mine, workshop, ("name", "kind", "speeds", "tools")),
    }
    return tuple(name for name, differs in said.items() if differs)


def _limits(board: Document, kind: str) -> Limits:
    """All of a board's; a job's copy and the rack's may say the same by what is usual for its kind."""
    return limits_from_json(board.get("limits", {})).of(KINDS[kind])


def _differing(a: Document, b: Document, names: Sequence[str]) -> dict[str, bool]:
    return {name: _plain(a.get(name)) != _plain(b.get(name)) for name in names}


def _plain(value: object) -> object:
    """A document's value as JSON would have it: a tuple is a list there."""
    return list(map(_plain, value)) if isinstance(value, list | tuple) else value


def _sizes(stock: Document) -> set[tuple[float, float, int | None]]:
    others = ((one["width"], one["height"], one.get("count")) for one in stock.get("other_sheets", ()))
    return {(stock["sheet_width"], stock["sheet_height"], stock.get("sheets")), *others}


def newer_entries(basis: BoardBasis, entries: Sequence[Entry]) -> tuple[Entry, ...]:
    """What the notebook would set unasked for this board on this machine, and the job does not use: a kerf that was found later than
    its own, or instead of one that was taken back; fits that are not its own."""
    kerf, comb = sure_of(offers(entries, basis.machine, basis.stock))
    found, said = basis.machine.found, list[Entry]()
    late = found is None or (kerf is not None and kerf.date > found.date) or taken_back(basis, entries) is not None
    if kerf and kerf.kerf is not None and abs(kerf.kerf - basis.kerf) > SAME_KERF_MM and late:
        said.append(kerf)
    if comb and comb.fits != basis.fits and comb not in said:
        said.append(comb)
    return tuple(said)


def taken_back(basis: BoardBasis, entries: Sequence[Entry]) -> Entry | None:
    """The entry that the kerf rests on, where it was marked invalid since."""
    found = basis.machine.found
    return next(
        (
            one
            for one in entries
            if found and not one.valid and one.date == found.date and one.kerf is not None
            and abs(one.kerf - basis.kerf) <= SAME_KERF_MM
        ),
        None,
    )  # fmt: skip


def thicknesses(mine: Document, rack: Document) -> tuple[float, float]:
    """What a board measured when the job took it, and what it measures now, in mm."""
    return Readings(tuple(mine["readings"])).mean, Readings(tuple(rack["readings"])).mean


def say_stock(mine: Document, rack: Document, what: Sequence[str]) -> str:
    """That a board differs, in one sentence without its end."""
    if "thickness" not in what:
        return f"{rack['name']} differs on the rack: {', '.join(what)}"
    was, now = thicknesses(mine, rack)
    if not mine.get("measured"):
        return (
            f"{rack['name']} measures {say_mm(now, 3)} on the rack; this job has readings of its own, {say_mm(was, 3)}"
        )
    return f"{rack['name']} measures {say_mm(now, 3)} now, was {say_mm(was, 3)}"


def say_machine(workshop: Document, what: Sequence[str]) -> str:
    return f"{workshop['name']} was changed: {', '.join(what)}"


def say_entry(basis: BoardBasis, entry: Entry) -> str:
    if entry.kerf is None:
        return f"The notebook has other fits for {basis.stock.name} on {basis.machine.name}"
    return (
        f"The kerf of {basis.machine.name} in {basis.stock.name} is {say_mm(entry.kerf)} now, was {say_mm(basis.kerf)}"
    )


def say_taken_back(basis: BoardBasis) -> str:
    return f"The kerf of {basis.machine.name} in {basis.stock.name}, {say_mm(basis.kerf)}, was marked invalid in the notebook"

"""The named lengths of a job, with who follows them: in, a computed job; out, a row for each, measured ones of the boards last."""

from __future__ import annotations

from dataclasses import dataclass

from ..design import Users, users
from ..job import Result
from ..lengths.figures import Source
from ..lengths.units import Unit

NOBODY = Users((), ())


@dataclass(frozen=True)
class NamedLength:
    """`value` is in mm; `text` in `unit` is what was typed at `field`, both "" for what was measured. `direct` and `by_way` are
    the paths of what follows it: by name, or by way of other names only."""

    name: str
    title: str
    value: float
    source: Source
    text: str = ""
    unit: Unit = "mm"
    field: str = ""
    direct: tuple[str, ...] = ()
    by_way: tuple[str, ...] = ()


def named_lengths(result: Result) -> tuple[NamedLength, ...]:
    design, names = result.job.design, result.build.names
    follow = users(design)
    rows = []
    for one in design.dimensions:
        users_of = follow.get(one.name, NOBODY)
        rows.append(
            NamedLength(
                one.name, one.title, names[one.name], "chosen" if one.chosen else "computed", one.length.text,
                one.length.unit, design.input_of(one.name) if one.chosen else f"dimensions/{one.name}/length",
                users_of.direct, users_of.by_way,
            )
        )  # fmt: skip
    first = result.job.basis.names(design.boards[0].id)
    for name, value in first.items():
        users_of = follow.get(name, NOBODY)
        if users_of.direct or name == "thickness":
            source: Source = "measured" if name.endswith("thickness") else "chosen"
            rows.append(
                NamedLength(
                    name, name.replace(".", ", "), value, source, direct=users_of.direct, by_way=users_of.by_way
                )
            )
    return tuple(rows)

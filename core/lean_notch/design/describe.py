"""What there is to fill in of a step, a shape or a pattern: the document's own types in, plain descriptions out.

A new kind of shape needs no form: its fields, with their titles and limits, are the form.
"""

from __future__ import annotations

from dataclasses import MISSING, dataclass
from typing import Any, Literal, get_args

from ..documents import codec
from ..documents.rules import AmountRule, Whole
from ..joints import KINDS
from ..lengths.length import Amount, Length
from ..steps import Of, Pattern, Shape, Step
from .document import Pose

FieldKind = Literal["length", "number", "count", "words", "choice", "flag", "of"]
"""`of` is what a place is measured from."""


@dataclass(frozen=True)
class FieldInfo:
    """One field by its name in the document; `choices` are those of a choice, `help` is shown beside it or in it, `default` is what
    it is where the document says nothing, "" for nothing."""

    name: str
    title: str
    kind: FieldKind
    optional: bool
    help: str = ""
    choices: tuple[str, ...] = ()
    default: str = ""


def field_infos() -> dict[str, tuple[FieldInfo, ...]]:
    """Fields by what they are of: "step/shape", "shape/disc", "pattern/grid", "joint/finger", "pose/against" and so on.

    >>> [info.title for info in field_infos()["shape/rectangle"]]
    ['Width', 'Height', 'Corner radius']
    """
    unions: tuple[tuple[str, Any], ...] = (("step", Step), ("shape", Shape), ("pattern", Pattern), ("pose", Pose))
    kinds = [(what, cls) for what, union in unions for cls in get_args(union)] + [("joint", cls) for cls in KINDS]
    return {f"{what}/{cls.kind}": _infos(cls) for what, cls in kinds}


def _infos(cls: type) -> tuple[FieldInfo, ...]:
    infos = (_info(field) for field in codec.fields_of(cls) if field.title and field.name not in ("title", "on"))
    return tuple(info for info in infos if info)


def _info(field: codec.Field) -> FieldInfo | None:
    kind = _kind(field)
    title = field.title
    if kind is None or title is None:
        return None
    optional = field.optional or field.default is not MISSING
    return FieldInfo(field.name, title.text, kind, optional, title.help, field.choices, _default(field.default))


def _default(value: Any) -> str:
    if isinstance(value, Length | Amount):
        return value.text
    return (
        f"{value:g}"
        if isinstance(value, int | float) and not isinstance(value, bool)
        else value
        if isinstance(value, str)
        else ""
    )


def _kind(field: codec.Field) -> FieldKind | None:
    """How a field is asked for; None for what is no single field: a shape, a list of nodes."""
    if field.choices:
        return "choice"
    if field.whole_hint is Of:
        return "of"
    if field.hint is Length:
        return "length"
    if field.hint is Amount:
        return "count" if isinstance(field.rule, AmountRule) and field.rule.whole else "number"
    if field.hint is bool:
        return "flag"
    if isinstance(field.rule, Whole):
        return "count"
    if field.hint is float:
        return "number"
    return "words" if field.hint is str else None

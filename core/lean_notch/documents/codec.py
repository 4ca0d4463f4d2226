"""Documents from values and back, by the values' own types: a field is declared once, with its limits and its title.

In: a frozen dataclass (or a union, a tuple, a Literal of such) and a plain JSON document; out: the value, or an error at
the path of the entry that is wrong. `parts/front/steps/hole-1/x` is the field x of the step called hole-1 of the part
called front: entries of a list go by their `KEY` field if they have one, else by their number.

A field that has its default is not written. A class that is one of several kinds names itself in `kind`.
"""

from __future__ import annotations

import dataclasses
import types
from collections.abc import Callable, Mapping, Sequence
from dataclasses import MISSING, dataclass
from typing import Annotated, Any, Literal, TypeVar, Union, cast, get_args, get_origin, get_type_hints

from ..ground.errors import BadDocument
from ..ground.limits import MOST_ENTRIES
from ..ground.remembered import by_value, remembered
from ..lengths.length import Amount, Length
from ..lengths.units import Unit
from .plain import choice, flag, length, length_out, mapping, sequence
from .plain import in_unit as typed_in
from .rules import Many, Mm, OneOf, Rule, Title

T = TypeVar("T")
Reader = Callable[[object, str], Any]


def read(hint: Any, document: object, path: str = "") -> Any:
    """The value of type `hint` that `document` describes. Raises NotchError at the path of what is wrong."""
    return _reader(hint)(document, path)


def write(value: Any, *, units: bool = False) -> Any:
    """The document that `read` takes for `value`. With `units` every length names its own, so that it may be sent back as
    it is whatever bare numbers count in then. Entries that go by a name are written once: what is given is not to be changed."""
    if getattr(type(value), "KEY", None):
        return _written(value, units)
    return _write(value, units=units)


@remembered(8192)
def _written(value: Any, units: bool) -> Any:
    return _write(value, units=units)


def _write(value: Any, *, units: bool) -> Any:
    if isinstance(value, Length):
        return {"text": value.text, "unit": value.unit} if units else length_out(value)
    if isinstance(value, Amount):
        literal = value.literal
        return value.text if literal is None else int(literal) if literal.is_integer() else literal
    if isinstance(value, tuple):
        return [write(one, units=units) for one in value]
    if dataclasses.is_dataclass(value):
        cls: type = type(value)
        document: dict[str, Any] = {"kind": _kind(cls)} if _kind(cls) else {}
        for field in _fields(cls):
            one = getattr(value, field.name)
            if field.default is MISSING or one != field.default:
                document[field.name] = write(one, units=units)
        return document
    return value


def in_unit(hint: Any, document: Any, unit: Unit) -> Any:
    """`document` of type `hint` with the lengths in it that name no unit said to be typed in `unit`."""
    if unit == "mm":
        return document
    field = _field("", hint, MISSING)
    if field.hint is Length:
        return typed_in(document, unit)
    if isinstance(field.rule, Mm):
        return typed_in(document, unit)
    if get_origin(field.hint) is tuple and isinstance(document, list):
        inner = get_args(field.hint)
        kinds = inner if len(inner) == len(document) and Ellipsis not in inner else (inner[0],) * len(document)
        return [in_unit(kind, one, unit) for kind, one in zip(kinds, document, strict=True)]
    if not isinstance(document, Mapping):
        return document
    classes = _members(field.hint) or (field.hint,)
    cls = next(
        (c for c in classes if dataclasses.is_dataclass(c) and document.get("kind", None) in (None, _kind(c))), None
    )
    if cls is None:
        return document
    hints = {one.name: one.whole_hint for one in _fields(cast(type, cls))}
    return {name: in_unit(hints[name], one, unit) if name in hints else one for name, one in document.items()}


def _kind(cls: Any) -> str | None:
    return cast("str | None", getattr(cls, "kind", None))


def key_of(value: object) -> str | None:
    """What an entry of a list is called in paths, or None for one that goes by its number."""
    name = getattr(type(value), "KEY", None)
    return cast(str, getattr(value, name)) if name else None


def join(path: str, step: str | int) -> str:
    return f"{path}/{step}" if path else str(step)


@dataclass(frozen=True)
class Field:
    """One field of a class: `hint` is its bare type, with None taken off; `optional` says that it may be None."""

    name: str
    hint: Any
    whole_hint: Any
    rule: Rule | None
    many: Many | None
    title: Title | None
    optional: bool
    default: Any

    @property
    def choices(self) -> tuple[str, ...]:
        if isinstance(self.rule, OneOf):
            return tuple(self.rule.words())
        return cast("tuple[str, ...]", get_args(self.hint)) if get_origin(self.hint) is Literal else ()


def fields_of(cls: type) -> tuple[Field, ...]:
    """The fields of a dataclass with all that is declared of them."""
    return _fields(cls)


@by_value(256)
def _fields(cls: type) -> tuple[Field, ...]:
    hints = get_type_hints(cls, include_extras=True)
    found = []
    for field in dataclasses.fields(cls):
        if not field.init:
            continue
        default = field.default_factory() if field.default_factory is not MISSING else field.default
        found.append(_field(field.name, hints[field.name], default))
    return tuple(found)


def _field(name: str, hint: Any, default: Any) -> Field:
    bare, notes = _bare(hint)
    members = _members(bare)
    optional = type(None) in members
    if optional:
        rest = [one for one in members if one is not type(None)]
        inner = rest[0] if len(rest) == 1 else Union[tuple(rest)]  # noqa: UP007 - made while running
        bare, more = _bare(inner)
        notes = (*more, *notes)

    def note(kind: type[T]) -> T | None:
        return next((one for one in notes if isinstance(one, kind)), None)

    rule = next((one for one in notes if hasattr(one, "read")), None)
    return Field(name, bare, hint, rule, note(Many), note(Title), optional, default)


def _bare(hint: Any) -> tuple[Any, tuple[Any, ...]]:
    if get_origin(hint) is Annotated:
        inner, *notes = get_args(hint)
        return inner, tuple(notes)
    return hint, ()


def _members(hint: Any) -> tuple[Any, ...]:
    return get_args(hint) if get_origin(hint) in (Union, types.UnionType) else ()


@by_value(512)
def _reader(hint: Any) -> Reader:
    field = _field("", hint, MISSING)
    inner = _plain_reader(field)
    if not field.optional:
        return inner
    return lambda value, path: None if value is None or value == "" else inner(value, path)


def _plain_reader(field: Field) -> Reader:
    hint, origin = field.hint, get_origin(field.hint)
    if field.rule:
        return field.rule.read
    if hint is Length:
        return length
    if hint is bool:
        return flag
    if origin is Literal:
        allowed = get_args(hint)
        return lambda value, path: choice(value, allowed, path)
    if origin is tuple:
        return _tuple_reader(get_args(hint), field.many or Many(MOST_ENTRIES))
    members = _members(hint)
    if members:
        return _kind_reader(members)
    if dataclasses.is_dataclass(hint):
        return _class_reader(cast(type, hint))
    raise TypeError(f"the codec knows no {hint}")


def _tuple_reader(inner: tuple[Any, ...], many: Many) -> Reader:
    if len(inner) != 2 or inner[1] is not Ellipsis:
        readers = [_reader(one) for one in inner]

        def read_fixed(value: object, path: str) -> tuple[Any, ...]:
            given = sequence(value, path, len(readers))
            if len(given) != len(readers):
                raise BadDocument(f"“{path}” has {len(given)} entries.", fix=f"Give {len(readers)}.", field=path)
            return tuple(r(one, join(path, i)) for i, (r, one) in enumerate(zip(readers, given, strict=True)))

        return read_fixed
    one, key = _reader(inner[0]), getattr(some_class(inner[0]), "KEY", "")

    def read_list(value: object, path: str) -> tuple[Any, ...]:
        given = sequence(value, path, many.most)
        if len(given) < many.least:
            raise BadDocument(f"“{path}” has {len(given)} entries.", fix=f"Give at least {many.least}.", field=path)
        found, taken = [], set[str]()
        for i, entry in enumerate(given):
            step: str | int = i
            if key:
                name = entry.get(key) if isinstance(entry, Mapping) else None
                step = name if isinstance(name, str) and name else i
                if step in taken:
                    raise BadDocument(
                        f"“{join(path, step)}” is there twice.",
                        fix="Give each a name of its own.",
                        field=join(path, step),
                    )
                taken.add(str(step))
            found.append(one(entry, join(path, step)))
        return tuple(found)

    return read_list


def some_class(hint: Any) -> Any:
    """The class of a list's entries, or one of them where there are several kinds."""
    bare, _ = _bare(hint)
    members = _members(bare)
    return members[0] if members else bare


def _kind_reader(classes: Sequence[Any]) -> Reader:
    by_kind = {cls.kind: _class_reader(cls) for cls in classes}

    def read_kind(value: object, path: str) -> Any:
        document = mapping(value, path)
        kind = document.get("kind")
        if not isinstance(kind, str) or kind not in by_kind:
            raise BadDocument(
                f"“{path}” has the kind “{kind}”." if kind else f"“{path}” does not say its kind.",
                fix=f"Use one of: {', '.join(by_kind)}.", field=join(path, "kind"),
            )  # fmt: skip
        return by_kind[kind](document, path)

    return read_kind


@by_value(256)
def _class_reader(cls: type) -> Reader:
    fields = _fields(cls)
    readers = [(field.name, _reader(field.whole_hint), field.default) for field in fields]
    known = {field.name for field in fields} | {"kind"}

    def read_class(value: object, path: str) -> Any:
        document = mapping(value, path)
        values = {}
        for name, reader, default in readers:
            if name in document:
                values[name] = reader(document[name], join(path, name))
            elif default is MISSING:
                raise BadDocument(f"“{join(path, name)}” is missing.", fix=f"Add “{name}”.", field=join(path, name))
        if len(document) > len(values):
            for name in document:
                if name not in known:
                    raise BadDocument(
                        f"“{join(path, name)}” is not known.",
                        fix=f"Use: {', '.join(sorted(known))}.",
                        field=join(path, name),
                    )
        try:
            return cls(**values)
        except BadDocument as error:
            error.field = join(path, error.field) if error.field else path
            raise

    return read_class

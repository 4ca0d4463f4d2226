"""What a child worked out of a job, as bytes that the server reads: values of the core's own classes and nothing else."""

from __future__ import annotations

import builtins
import io
import pickle
from dataclasses import fields, is_dataclass
from importlib import import_module
from typing import Any

from lean_notch.ground.elsewhere import Found
from lean_notch.ground.errors import NotchError

_PLAIN = ("frozenset", "set", "complex")


def written(found: Found) -> bytes:
    into = io.BytesIO()
    _Writer(into, protocol=5).dump(found)
    return into.getvalue()


def read(data: bytes) -> Found:
    """Raises UnpicklingError for what names anything but the core's values."""
    found: Found = _Reader(io.BytesIO(data)).load()
    return found


class _Writer(pickle.Pickler):
    """Values by their fields: what they remember besides is worked out again where it is asked for."""

    def reducer_override(self, value: Any) -> Any:
        if is_dataclass(value) and not isinstance(value, type):
            return _value, (type(value), {one.name: getattr(value, one.name) for one in fields(value) if one.init})
        if isinstance(value, NotchError):
            told = {"fix": value.fix, "field": value.field, "mend": value.mend}
            return _error, (type(value), value.why, told)
        return NotImplemented


class _Reader(pickle.Unpickler):
    def find_class(self, module: str, name: str) -> Any:
        if module == __name__ and name in ("_value", "_error"):
            return globals()[name]
        if module == "builtins" and name in _PLAIN:
            return getattr(builtins, name)
        found = getattr(import_module(module), name, None) if module.split(".")[0] == "lean_notch" else None
        if isinstance(found, type) and (is_dataclass(found) or issubclass(found, NotchError | tuple)):
            return found
        raise pickle.UnpicklingError(f"{module}.{name} is no value of the core's")


def _value(kind: type, given: dict[str, Any]) -> Any:
    return kind(**given)


def _error(kind: type[NotchError], why: str, told: dict[str, str]) -> NotchError:
    return kind(why, **told)

"""What goes wrong, said so that somebody can mend it: a stable code, the reason with its numbers, the fix."""

from __future__ import annotations

from typing import Self


class NotchError(Exception):
    """Base of every error the core raises on purpose.

    `code` is stable and may be matched by programs; `why` gives the reason with the numbers; `fix` says
    what to do; `field` names the input it belongs to ("width", "readings[2]"), or "" for none; `mend` is what was
    likely meant there, as it would be typed, or "".
    Lengths inside `why` and `fix` are always written "<number> mm", so that an edge can show another unit.
    """

    code = "error"

    def __init__(self, why: str, *, fix: str, field: str = "", mend: str = "") -> None:
        super().__init__(why)
        self.why = why
        self.fix = fix
        self.field = field
        self.mend = mend

    def at(self, field: str) -> Self:
        """This error, said to belong to `field`, unless a field is named already."""
        self.field = self.field or field
        return self

    def as_json(self) -> dict[str, str]:
        return {"code": self.code, "why": self.why, "fix": self.fix, "field": self.field, "mend": self.mend}


class NotALength(NotchError):
    code = "not-a-length"


class CircularLengths(NotchError):
    code = "circular-lengths"


class OutOfRange(NotchError):
    code = "out-of-range"


class ReadingsDisagree(NotchError):
    code = "readings-disagree"


class BadDocument(NotchError):
    code = "bad-document"


class FingerTooWide(NotchError):
    code = "finger-too-wide"


class FingerTooNarrow(NotchError):
    code = "finger-too-narrow"


class ThicknessTooLarge(NotchError):
    code = "thickness-too-large"


class ClearanceTooLarge(NotchError):
    code = "clearance-too-large"


class PanelsDoNotMeet(NotchError):
    code = "panels-do-not-meet"


class KerfTooWide(NotchError):
    code = "kerf-too-wide"


class PartTooLarge(NotchError):
    code = "part-too-large"


class SheetsRunOut(NotchError):
    code = "sheets-run-out"


class RadiusTooLarge(NotchError):
    code = "radius-too-large"


class MissingCharacter(NotchError):
    code = "missing-character"


class BadGeometry(NotchError):
    code = "bad-geometry"


class UnreadableFile(NotchError):
    code = "unreadable-file"


class MissingInput(NotchError):
    code = "missing-input"


class TooMuchWork(NotchError):
    code = "too-much-work"


class CircularParts(NotchError):
    code = "circular-parts"


class CircularPoses(NotchError):
    code = "circular-poses"

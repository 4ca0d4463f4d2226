"""What every kind of step says of itself; each is one file, see docs/adding.md."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, ClassVar

from ..documents.as_typed import Typed
from ..geometry import Region
from .begun import Begun
from .brought import Outlines
from .words import Say, Words

if TYPE_CHECKING:
    from .being_made import Making


@dataclass(frozen=True)
class Given:
    """What a step is given besides its own numbers: the part that it is of, how thick that is in mm, what kept files hold, and the
    outlines of another part of the design by its id. The last two raise NotchError."""

    part: str
    title: str
    thickness: float
    outlines: Outlines
    other: Callable[[str], tuple[Region, ...]]


class StepKind(Typed):
    """A dataclass of fields as typed. `take` changes the part that the steps before it made, `said` puts it as a sentence."""

    KEY: ClassVar[str] = "id"
    begins: ClassVar[tuple[Begun, ...]]
    """What a new one may be wanted for."""

    if TYPE_CHECKING:
        id: str
        title: str
        on: bool

    @abstractmethod
    def take(self, making: Making, at: Mapping[str, float], given: Given) -> None:
        """`at` are its numbers by path, lengths in mm. Raises NotchError at a path of its own."""

    @abstractmethod
    def said(self, say: Say) -> Iterator[Words]:
        """Without a capital."""

    @property
    @abstractmethod
    def redraws(self) -> bool:
        """Whether it leaves another outline than a plain blank less what is cut out: then no joint is drawn into the blank's."""

    def follows(self) -> Iterator[str]:
        """What it names of earlier steps, each as "edge:blank.right"."""
        yield from ()

    def renamed(self, name: Callable[[str], str]) -> StepKind:
        """The same where earlier steps are called otherwise: `name` gives the new one for what it names."""
        return self

    def __init_subclass__(cls, **settings: Any) -> None:
        """A step that lacks something fails where it is defined. Raises TypeError."""
        super().__init_subclass__(**settings)
        lacking = [
            name for name in ("take", "said", "redraws") if getattr(getattr(cls, name), "__isabstractmethod__", False)
        ]
        lacking += [name for name in ("id", "title", "on", "kind") if name not in cls.__annotations__]
        lacking += [] if getattr(cls, "begins", ()) else ["begins"]
        if lacking:
            raise TypeError(f"The step {cls.__name__} lacks {', '.join(lacking)}.")

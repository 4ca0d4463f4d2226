"""Design + basis in; flat parts at finished size, where they stand, and their mates out. The kerf is not in it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from ..basis import Basis
from ..design import Design, copies_called, dangling
from ..ground.findings import Finding
from ..ground.remembered import Remembered
from ..joints import Mate
from ..lengths.said import say_mm
from ..steps.brought import Outlines, no_files
from .basis_findings import basis_findings
from .before_joints import names_of, stood
from .finished import Order, make_all
from .fit import fit_findings, joint_fits
from .flat import FlatPart
from .mates import make_mates
from .overlap import overlapping
from .relief import Bone, bone_of, borne
from .stand import Standing
from .wanted import changes_of, differing


@dataclass(frozen=True)
class Build:
    """What a design is on this basis. `names` are all its lengths in mm, by name, as the first board's parts see them."""

    parts: tuple[FlatPart, ...]
    standings: tuple[Standing, ...]
    mates: tuple[Mate, ...]
    names: dict[str, float]
    findings: tuple[Finding, ...] = ()

    def part(self, part_id: str) -> FlatPart:
        return self._by_id[part_id]

    @cached_property
    def _by_id(self) -> dict[str, FlatPart]:
        return {part.id: part for part in self.parts}

    @cached_property
    def standing(self) -> dict[str, Standing]:
        """By placement."""
        return {one.placement: one for one in self.standings}

    @cached_property
    def called(self) -> dict[str, str]:
        """What people call a placement: its part, and which copy of it where there are several."""
        stand = [one for one in self.standings if one.part in self._by_id]
        return copies_called((one.placement, one.part, self._by_id[one.part].title) for one in stand)

    @property
    def failed(self) -> frozenset[str]:
        """The paths of the steps that parts got stuck at."""
        return frozenset(f"parts/{p.id}/steps/{p.failed.step}" for p in self.parts if p.failed)

    @property
    def lost(self) -> dict[str, Finding]:
        """Joints that cannot be made, by id, and why."""
        made = {mate.id for mate in self.mates}
        return {one.joint: one for one in self.findings if one.joint and one.joint not in made}


def build(design: Design, basis: Basis, outlines: Outlines = no_files) -> Build:
    """Flat parts and mates of `design` on `basis`. Raises NotchError at the path of what to mend.

    A step that fails, a joint whose members are gone and placements that want a part different are findings, and the
    rest is made as far as it goes.
    """
    site, shop, unplaced = stood(design, basis, outlines)
    standings, outlined = site.standings, site.parts
    mates, lost = make_mates(site)
    findings = [*basis_findings(basis, {board.id: board.title for board in design.boards})]
    findings += _DANGLING(
        names_of(design), lambda: [_dangling(*one) for one in dangling(design) if not one[0].startswith("joints/")]
    )
    findings += _other_boards(design, site.names)
    findings += [Finding(e.code, "stop", e.why, e.fix, field=e.field) for e in unplaced]
    findings += lost
    changes = changes_of(mates)
    orders = []
    for part in design.parts:
        if part.id not in outlined:
            continue
        own = [one.id for one in design.placements_of(part.id)]
        findings += differing(part, own, changes, standings)
        orders.append(Order(part, outlined[part.id], changes.get(own[0], ()) if own else (), basis.of(part.board)))
    made = make_all(orders, shop)
    findings += [finding for one in made for finding in one.findings]
    parts = tuple(one.part for one in made)
    mates = _relieved(mates, parts, design, basis)
    findings += [finding for mate in mates for finding in mate.findings]
    findings += overlapping(mates)
    findings += fit_findings(joint_fits(parts, mates, basis))
    return Build(parts, tuple(standings.values()), mates, dict(site.names[design.boards[0].id]), tuple(findings))


def _relieved(
    mates: tuple[Mate, ...], parts: Sequence[FlatPart], design: Design, basis: Basis
) -> tuple[Mate, ...]:  # fmt: skip
    """With what a tool's reliefs leave of joints to bear on."""
    by_id = {part.id: part for part in parts}

    def bone(part: FlatPart) -> Bone | None:
        return bone_of(design.relief, basis.of(part.board))

    return tuple(
        borne(
            mate,
            by_id,
            bone,
            max((basis.of(by_id[one.part].board).kerf for one in mate.members if one.part in by_id), default=0.0) / 2,
        )
        for mate in mates
    )


_DANGLING: Remembered[list[Finding]] = Remembered(64)


def _other_boards(design: Design, by_board: Mapping[str, Mapping[str, float]]) -> list[Finding]:
    """Standing parts of another thickness than the recipe worked its lengths out for: what it calls inside is not."""
    main = design.boards[0]
    if design.origin is None:
        return []
    titles = {board.id: board.title for board in design.boards}
    standing = {one.part for one in design.placements}
    usual = by_board[main.id]["thickness"]
    return [
        Finding(
            "other-board", "look",
            f"{part.title} is cut from {titles[part.board]}, {say_mm(thickness)} thick; the recipe's lengths are worked out "
            f"for {main.title}, {say_mm(usual)}.",
            "Check the space that is left inside, or change the lengths that hold the thickness.", part.id,
        )
        for part in design.parts
        if part.id in standing and part.board in titles
        and abs((thickness := by_board[part.board]["thickness"]) - usual) > _OTHER_MM
    ]  # fmt: skip


_OTHER_MM = 0.01  # finer than a caliper shows


def _dangling(path: str, name: str, what: str) -> Finding:
    return Finding(
        "dangling", "stop", f"“{path}” names the {what} “{name}”, which is not in this design.",
        f"Choose a {what} that there is, or remove what names it.", field=path,
    )  # fmt: skip

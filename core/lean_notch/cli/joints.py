"""The commands that tell of joints and of the parts put together: joints and assemble."""

from __future__ import annotations

import argparse
import json
import sys
from pathlib import Path
from typing import TYPE_CHECKING, Any

from ..ground.wording import counted
from .files import job, outlines, put_bytes, say

if TYPE_CHECKING:
    from ..formats.stl_write import Slab
    from ..making import Build

STL_CHORD_MM = 0.002
"""Arcs become chords this near to them."""


def add_joining(commands: Any) -> list[argparse.ArgumentParser]:
    """Adds these commands to the parser, and gives them."""
    joints = commands.add_parser(
        "joints",
        help="the joints of a design",
        description="Every joint: its kind, its numbers, its contacts with their gaps, and how it fits.",
    )
    joints.set_defaults(run=_joints)
    assemble = commands.add_parser(
        "assemble",
        help="stand the parts up and look for interference",
        description="The parts as solids where they stand, with boards as thick as they are on average, at their thinnest and at "
        "their thickest. Prints JSON, as prove does. Status 0: nothing interferes; 1: something does; 4: not all was looked at.",
    )
    assemble.add_argument("--stl", type=Path, metavar="FILE", help="write the solids there, in mm")
    assemble.set_defaults(run=_assemble)
    for command in (joints, assemble):
        command.add_argument("design", type=Path, metavar="DESIGN", help="a design or a job's document")
    return [joints, assemble]


def _joints(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict

    from ..documents.codec import write
    from ..making import build, joint_fits
    from ..proof.interference import gaps

    known = job(arguments)
    built = build(known.design, known.basis, outlines(arguments))
    mates = {mate.id: mate for mate in built.mates}
    fits = {one.mate: one.fit for one in joint_fits(built.parts, built.mates, known.basis)}
    gap_of = {gap.joint: gap for gap in gaps(built, known.basis)}
    document, lines = [], []
    for joint in known.design.joints:
        mate, lost = mates.get(joint.id), built.lost.get(joint.id)
        row: dict[str, Any] = {
            "id": joint.id, "title": joint.title, "kind": type(joint.how).kind, "how": write(joint.how),
            "first": f"{joint.first.placement}/{joint.first.edge}", "second": f"{joint.second.placement}/{joint.second.edge}",
            "made": mate is not None,
        }  # fmt: skip
        lines.append(f"{joint.id}: {joint.title}, {row['kind']} of {row['first']} and {row['second']}")
        if mate is None:
            row["problem"] = {"code": lost.code, "why": lost.why, "fix": lost.fix} if lost else None
            lines.append(f"  cannot be made: {lost.why} {lost.fix}" if lost else "  cannot be made")
            document.append(row)
            continue
        fit, gap = fits[joint.id], gap_of.get(joint.id)
        said = [one for one in built.findings if one.joint == joint.id]
        row |= {
            "about": mate.about, "length": mate.meeting.length, "angle": mate.meeting.angle, "verdict": fit.verdict,
            "wants": fit.wants, "gap": asdict(gap) if gap else None,
            "numbers": [asdict(figure) for figure in mate.figures],
            "contacts": [
                {
                    "inner": one.inner_part, "outer": one.outer.part, "width": one.width, "clearance": one.clearance,
                    "depth": one.depth, "by_thickness": one.inner is None, "in_pocket": one.in_pocket,
                }
                for one in mate.contacts
            ],
            "findings": [asdict(one) for one in said],
        }  # fmt: skip
        document.append(row)
        lines.append(
            f"  {mate.about}, {len(mate.contacts)} contacts, {fit.verdict}{': ' + fit.wants if fit.wants else ''}"
        )
        if gap:
            lines.append(f"  gap {gap.thin:.3f} mm where thin, {gap.mean:.3f} mm, {gap.thick:.3f} mm where thick")
        lines += [f"  {one.severity}: {one.code}: {one.why} {one.fix}" for one in said]
    say(arguments, document, lines)
    stops = any(one.joint and one.severity == "stop" for one in built.findings)
    return 1 if stops or not all(row["made"] for row in document) else 0


def _assemble(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict

    from ..making import build
    from ..proof.interference import gaps
    from ..proof.put_together import levels as all_levels

    known = job(arguments)
    built = build(known.design, known.basis, outlines(arguments))
    levels = all_levels(built, known.basis)
    said = [
        *(one for one in built.findings if one.joint or one.code == "joints-overlap"),
        *(one for level in levels for one in level.findings),
    ]
    stops = sum(one.severity == "stop" for one in said)
    unseen = sum(one.severity == "unseen" for one in said)
    verdict = "interferes" if stops else "as-far-as-seen" if unseen else "clear"
    document = {
        "verdict": verdict, "standing": len(built.standings),
        "levels": [{"level": one.level, "pairs": one.pairs} for one in levels],
        "gaps": [asdict(one) for one in gaps(built, known.basis)], "findings": [asdict(one) for one in said],
    }  # fmt: skip
    if arguments.stl:
        from ..formats.stl_write import write_stl

        put_bytes(write_stl(_slabs(built), known.design.name), arguments.stl)
        document["stl"] = arguments.stl.name
    print(json.dumps(document, indent=1))
    for one in said:
        at = " at {:.2f}, {:.2f}, {:.2f}".format(*one.space) if one.space else ""
        print(f"{one.severity}: {one.code}{at}: {one.why} {one.fix}", file=sys.stderr)
    many = f"{counted(len(built.standings), 'part')} stood up"
    print(
        f"{many}, {counted(levels[0].pairs, 'pair')} of neighbours compared at three thicknesses: {verdict}",
        file=sys.stderr,
    )
    return 1 if stops else 4 if unseen else 0


def _slabs(built: Build) -> list[Slab]:
    """The solids: a part with something sunk into it is several that lie on each other."""
    import shapely

    from ..formats.stl_write import Slab
    from ..geometry import loops
    from ..making import slices

    parts = {part.id: part for part in built.parts}
    return [
        Slab(standing.frame.behind(one.low), shapely.Polygon(*loops(one.region, STL_CHORD_MM)), one.high - one.low)
        for standing in built.standings
        for one in slices(parts[standing.part], parts[standing.part].thickness)
    ]

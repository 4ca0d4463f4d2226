"""The files that are handed over, in every format and split, spoiled in every way that a writer or a hand may: none of them "fits"."""

from __future__ import annotations

import io
import re
from collections.abc import Callable
from dataclasses import replace

import pikepdf
import pypdfium2
import pytest
from conftest import drawn, make_job
from faults import mark
from lean_notch.cutting import CutPath, Profile, SheetPlan
from lean_notch.formats.file_kinds import not_held
from lean_notch.formats.pdf_read import read_pdf
from lean_notch.geometry import Circle, Contour, Motion, Trace, Vertex
from lean_notch.ground.errors import MissingInput
from lean_notch.hand_over.files import OutFile, _written, planned_files, write_files
from lean_notch.hand_over.proving import FilesProof, prove_files
from lean_notch.job import Job, Result, compute

FORMATS = ("svg", "dxf", "dxf-r12", "pdf")
PROFILES = {
    "plain": Profile(),
    "inches": Profile(unit="in", origin="centre", reference_square=True, labels=True, y_down=True),
    "leads": Profile(lead_in_mm=1.5, engrave="hatch", hatch_mm=0.5, reference_square=True, order=("score", "engrave", "pocket", "cut", "fold", "reference")),
}  # fmt: skip


def marked_job() -> Job:
    """A tray with a score, an engraved area, a pocket and holes."""
    hole = {"kind": "shape", "id": "drain", "shape": {"kind": "disc", "diameter": 6}, "does": "cut", "x": 40, "y": 40}
    job = drawn(
        make_job(),
        mark("label", "score", {"kind": "line", "to_x": 90, "to_y": 30}, x=30, y=30),
        mark("name", "engrave", {"kind": "rectangle", "width": 18, "height": 6}, x=60, y=36),
    )
    return drawn(
        job,
        hole,
        mark("well", "pocket", {"kind": "rectangle", "width": 14, "height": 12}, x=70, y=60, depth="1.5"),
        part="base",
    )


JOB = marked_job()


def result_of(profile: str, split: str) -> Result:
    return compute(JOB, replace(PROFILES[profile], split=split))  # type: ignore[arg-type]


@pytest.mark.parametrize("split", ["sheet", "part", "operation"])
@pytest.mark.parametrize("profile", PROFILES)
@pytest.mark.parametrize("file_format", FORMATS)
def test_what_is_handed_over_is_read_back_and_fits(file_format, profile, split):
    result = result_of(profile, split)
    found = prove_files(result, write_files(result, file_format), file_format)
    assert found.proof.verdict == "fits", [(one.code, one.why) for one in found.proof.findings]
    assert {one.said.verdict for one in found.files} == {"fits"}
    assert all(len(one.sha256) == 64 for one in found.files)


PlanFault = Callable[[SheetPlan, Profile], tuple[SheetPlan, Profile]]


def one_path(
    change: Callable[[CutPath], list[CutPath]], operation: str = "cut", inner: bool | None = None
) -> PlanFault:
    """A fault of the first path of an operation."""

    def spoil(plan: SheetPlan, profile: Profile) -> tuple[SheetPlan, Profile]:
        at = next(
            (
                i
                for i, path in enumerate(plan.paths)
                if path.operation == operation and (inner is None or path.inner is inner)
            ),
            None,
        )
        if at is None:
            return plan, profile
        return replace(plan, paths=(*plan.paths[:at], *change(plan.paths[at]), *plan.paths[at + 1 :])), profile

    return spoil


def moved(path: CutPath, motion: Motion) -> CutPath:
    shape = motion.trace(path.shape) if isinstance(path.shape, Trace) else motion.ring(path.shape)
    return replace(path, shape=shape)


def opened(path: CutPath) -> list[CutPath]:
    """Its last side ends 0.05 short."""
    ring = path.shape
    assert isinstance(ring, Contour)
    (x, y), (u, v) = ring.vertices[-1].point, ring.vertices[0].point
    size = ((u - x) ** 2 + (v - y) ** 2) ** 0.5
    end = Vertex(u + 0.05 * (x - u) / size, v + 0.05 * (y - v) / size)
    return [replace(path, shape=Trace((*ring.vertices, end)))]


def of_profile(**values: object) -> PlanFault:
    return lambda plan, profile: (plan, replace(profile, **values))  # type: ignore[arg-type]


def renamed(**values: object) -> PlanFault:
    """One layer written otherwise than the profile says."""

    def spoil(plan: SheetPlan, profile: Profile) -> tuple[SheetPlan, Profile]:
        return plan, replace(profile, layers={**profile.layers, "cut": replace(profile.layers["cut"], **values)})

    return spoil


def outline_first(plan: SheetPlan, profile: Profile) -> tuple[SheetPlan, Profile]:
    cut = [path for path in plan.paths if path.operation == "cut"]
    ordered = sorted(cut, key=lambda path: path.inner)
    rest = [path for path in plan.paths if path.operation != "cut"]
    return replace(plan, paths=(*rest, *ordered)), profile


def swapped_colours(plan: SheetPlan, profile: Profile) -> tuple[SheetPlan, Profile]:
    layers = dict(profile.layers)
    cut, score = layers["cut"], layers["score"]
    return plan, replace(
        profile, layers={**layers, "cut": replace(cut, colour=score.colour), "score": replace(score, colour=cut.colour)}
    )


FAULTS: dict[str, PlanFault] = {
    "a writer that is 1 mm wrong": one_path(lambda path: [moved(path, Motion(1.0, 0.0))]),
    "moved a little": one_path(lambda path: [moved(path, Motion(0.02, 0.0))]),
    "a hole moved": one_path(lambda path: [moved(path, Motion(0.0, 0.3))], inner=True),
    "dropped": one_path(lambda path: []),
    "doubled": one_path(lambda path: [path, replace(path, what="again")]),
    "a score doubled": one_path(lambda path: [path, replace(path, what="again")], "score"),
    "a score dropped": one_path(lambda path: [], "score"),
    "a score moved": one_path(lambda path: [moved(path, Motion(0.3, 0.0))], "score"),
    "a pocket left open": one_path(opened, "pocket"),
    "a cut left open": one_path(lambda path: opened(path) if isinstance(path.shape, Contour) else [path], inner=False),
    "outlines before their holes": outline_first,
    "colours swapped": swapped_colours,
    "cuts in another colour": renamed(colour="#CC79A7"),
    "cuts on a layer that says how deep": renamed(name="CUT 1MM"),
    "another order": of_profile(order=("cut", "pocket", "engrave", "score", "fold", "reference")),
    "another unit": lambda plan, profile: (plan, replace(profile, unit="mm" if profile.unit == "in" else "in")),
    "no square": lambda plan, profile: (
        replace(plan, paths=tuple(path for path in plan.paths if path.what != "reference-square")), profile,
    ),
}  # fmt: skip

WITHOUT = {("another unit", "pdf")}
"""What a format cannot be wrong about: PDF is in points whatever is asked for."""


def spoiled(result: Result, file_format: str, fault: PlanFault) -> tuple[list[OutFile], list[int]]:
    """All files, and the numbers of those that came out otherwise."""
    files, changed = [], []
    for number, (planned, right) in enumerate(
        zip(planned_files(result, file_format), write_files(result, file_format), strict=True)  # type: ignore[arg-type]
    ):
        plan, profile = fault(planned.plan, result.profile)
        data = _written(replace(result, profile=profile), replace(planned, plan=plan), file_format)  # type: ignore[arg-type]
        files.append(replace(right, data=data))
        changed += [number] if data != right.data else []
    return files, changed


@pytest.mark.parametrize("split", ["sheet", "part"])
@pytest.mark.parametrize("profile", PROFILES)
@pytest.mark.parametrize("file_format", FORMATS)
def test_no_spoiled_file_fits(file_format, profile, split):
    result = result_of(profile, split)
    tried = 0
    for name, fault in FAULTS.items():
        files, changed = spoiled(result, file_format, fault)
        if not changed or (name, file_format) in WITHOUT:
            continue
        tried += 1
        found = prove_files(result, files, file_format)
        assert found.proof.verdict != "fits", name
        assert all(found.files[number].said.verdict != "fits" for number in changed), name
    assert tried >= 13


def of_text(old: str, new: str, count: int = 1) -> Callable[[bytes], bytes]:
    return lambda data: re.sub(old, new, data.decode(), count=count, flags=re.DOTALL).encode()


def dxf_entity(*pairs: str) -> Callable[[bytes], bytes]:
    """More group codes for the first entity that is drawn."""
    more = "".join(f"\n{code}" for code in pairs)
    return lambda data: re.sub(
        r"(  0\n(?:LWPOLYLINE|POLYLINE|CIRCLE)\n)(.*?  8\n\w+)", rf"\1\2{more}", data.decode(), count=1, flags=re.DOTALL
    ).encode()


DRAWN_OTHERWISE: dict[str, dict[str, Callable[[bytes], bytes]]] = {
    "svg": {
        "a transform in a path's style": of_text(r"<path ", '<path style="transform:translate(3mm,0)" '),
        "a transform in a rule": of_text(r"<title>", "<style>path{transform:rotate(2deg)}</style><title>"),
        "a transform on the root": of_text(r"<svg ", '<svg transform="scale(1.01)" '),
        "a clip path": of_text(r"<path ", '<path clip-path="url(#a)" '),
        "a mask": of_text(r"<g ", '<g mask="url(#a)" '),
        "collapsed": of_text(r"<path ", '<path visibility="collapse" '),
        "hidden": of_text(r"<path ", '<path visibility="hidden" '),
        "not displayed": of_text(r"<path ", '<path display="none" '),
        "no stroke": of_text(r"<path ", '<path stroke="none" '),
        "opacity 0": of_text(r"<path ", '<path opacity="0" '),
        "dashed": of_text(r"<path ", '<path stroke-dasharray="2 1" '),
        "animated": of_text(r"</path>", '<animateTransform attributeName="transform" type="rotate" to="9"/></path>'),
        "a page wider than its viewBox": of_text(r'width="([\d.]+)(mm|in)"', r'width="9\1\2"'),
        "a script": of_text(r"<title>", "<script>1</script><title>"),
        "a rule on a condition": of_text(r"<title>", "<style>@media print{path{stroke:none}}</style><title>"),
        "a hidden group with a child that is seen": of_text(r"<g ", '<g display="none"><path d="M0 0h9"/></g><g '),
    },
    "dxf": {
        "invisible": dxf_entity(" 60", "1"),
        "tilted": of_text(r"(AcDbPolyline\n 90\n\d+\n 70\n1\n)", r"\g<1>210\n0.1\n220\n0.0\n230\n0.99\n"),
        "a colour of its own": dxf_entity(" 62", "1"),
        "a layer that is not plotted": of_text(r"(AcDbLayerTableRecord\n  2\nCUT\n 70\n0)", r"\1\n290\n0"),
    },
    "dxf-r12": {
        "dashed": lambda data: of_text(r"( 62\n\d+\n  6\n)CONTINUOUS", r"\1DASHED", 9)(
            of_text(r"( 72\n65\n) 73\n0\n 40\n0.0", r"\1 73\n2\n 40\n3.0\n 49\n2.0\n 49\n-1.0")(
                of_text(r"(  0\nLTYPE\n  2\n)CONTINUOUS", r"\1DASHED")(data)
            )
        ),
        "a colour of its own": dxf_entity(" 62", "1"),
    },
}  # fmt: skip


@pytest.mark.parametrize("file_format", DRAWN_OTHERWISE)
def test_what_another_program_would_draw_otherwise_is_named_and_not_looked_at(file_format):
    """CSS Transforms and SVG 2 (visibility 11.3, preserveAspectRatio 8.6); DXF Reference, groups 60, 62, 210, 290 and 6."""
    result = result_of("plain", "sheet")
    [file] = write_files(result, file_format)
    for name, spoil in DRAWN_OTHERWISE[file_format].items():
        data = spoil(file.data)
        assert data != file.data, name
        found = prove_files(result, [replace(file, data=data)], file_format)
        assert found.proof.verdict != "fits", name


def of_content(change: Callable[[bytes], bytes]) -> Callable[[bytes], bytes]:
    def spoil(data: bytes) -> bytes:
        with pikepdf.open(io.BytesIO(data)) as pdf:
            pdf.pages[0].Contents.write(change(pdf.pages[0].Contents.read_bytes()))
            out = io.BytesIO()
            pdf.save(out)
        return out.getvalue()

    return spoil


@pytest.mark.parametrize(
    ("spoil", "code"),
    [
        (of_content(lambda text: text.replace(b" w 1 j", b" w [3 1] 0 d 1 j")), "not-looked-at"),
        (of_content(lambda text: text.replace(b" RG", b" RG 0 0 9 9 re W n", 1)), "not-looked-at"),
        (of_content(lambda text: text.replace(b"0 0 0 RG", b"1 0 0 RG")), "colour-astray"),
        (of_content(lambda text: text.replace(b" cm", b" cm 1.001 0 0 1.001 0 0 cm", 1)), "off-size"),
        (of_content(lambda text: text + b"\nBT ET"), "not-looked-at"),
    ],
)
def test_a_pdf_is_read_as_it_would_be_drawn_or_what_is_not_is_named(spoil, code):
    result = result_of("plain", "sheet")
    [file] = write_files(result, "pdf")
    data = spoil(file.data)
    assert data != file.data
    found = prove_files(result, [replace(file, data=data)], "pdf")
    assert code in {one.code for one in found.proof.findings}
    assert found.proof.verdict != "fits"


def test_a_pdf_by_another_reader():
    """pdfium, a general PDF reader: paths, page and their extent in points."""
    [file] = write_files(result_of("plain", "sheet"), "pdf")
    ours = read_pdf(file.data)
    page = pypdfium2.PdfDocument(file.data)[0]
    theirs = [one.get_bounds() for one in page.get_objects()]
    assert len(theirs) == len(ours.paths)
    per = 25.4 / 72
    for path, bounds in zip(ours.paths, theirs, strict=True):
        box = [f(s.box[k] for s in path.segments) for k, f in ((0, min), (1, min), (2, max), (3, max))]
        wide = 0.1 / per + 0.01  # a line, in points
        assert [v / per for v in box] == pytest.approx(bounds, abs=wide)
    assert page.get_size() == pytest.approx((ours.width / per, ours.height / per))


def proof_of(files: list[OutFile], result: Result) -> FilesProof:
    return prove_files(result, files, "svg")


def test_a_part_without_its_mates_is_not_said_to_fit_and_a_foreign_or_doubled_file_is_refused():
    result = result_of("plain", "part")
    front, *others = write_files(result, "svg")
    alone = proof_of([front], result)
    assert alone.proof.verdict == "as-far-as-seen"
    whys = [one.why for one in alone.proof.findings if one.code == "sheet-not-given"]
    assert any("The file of Base is not among the files" in why for why in whys)
    assert "joints-not-measured" in {one.code for one in alone.proof.findings}
    with pytest.raises(MissingInput, match="the same file, given twice"):
        proof_of([front, front], result)
    with pytest.raises(MissingInput, match="is no file of “Vial carrier”") as refused:
        proof_of([front, replace(others[0], part="lid", name="lid.svg")], result)
    assert refused.value.field == "lid.svg"


def test_files_of_two_parts_that_were_swapped_do_not_fit():
    result = result_of("plain", "part")
    files = list(write_files(result, "svg"))
    left, base = (next(i for i, one in enumerate(files) if one.part == name) for name in ("left", "base"))
    files[left], files[base] = replace(files[left], data=files[base].data), replace(files[base], data=files[left].data)
    found = proof_of(files, result)
    assert [found.files[i].said.verdict for i in (left, base)] == ["does-not-fit"] * 2
    assert {one.code for one in found.proof.findings} >= {"part-missing"}


def test_one_operation_alone_is_judged_for_what_it_holds():
    result = result_of("plain", "operation")
    files = list(write_files(result, "svg"))
    score = next(one for one in files if one.operation == "score")
    found = proof_of([score], result)
    assert found.proof.verdict == "as-far-as-seen"
    assert "marks-astray" not in {one.code for one in found.proof.findings}
    wrong = replace(score, data=score.data.replace(b'<g id="score"', b'<g transform="translate(1 0)" id="score"'))
    assert proof_of([wrong], result).proof.verdict == "does-not-fit"


@pytest.mark.parametrize("split", ["sheet", "part", "operation"])
def test_the_square_is_in_every_file_that_promises_it(split):
    result = compute(JOB, Profile(split=split, reference_square=True))
    for file in write_files(result, "svg"):
        square = re.search(r'id="reference-square"[^>]* d="([^"]*)"', file.data.decode())
        assert square, file.name
        numbers = [float(one) for one in re.findall(r"-?[\d.]+", square[1])]
        assert (max(numbers), min(numbers)) != (0.0, 0.0)
        width = float(re.search(r'width="([\d.]+)mm"', file.data.decode())[1])
        assert width >= 100


def test_what_a_format_cannot_hold_is_said_at_its_field():
    assert [one.field for one in not_held(Profile(unit="in", origin="centre", y_down=True), "pdf")] == [
        "unit",
        "origin",
        "y_down",
    ]
    assert [one.field for one in not_held(Profile(engrave="filled"), "dxf")] == ["engrave"]
    assert [one.field for one in not_held(Profile(y_down=True), "dxf")] == []
    layers = {**Profile().layers, "reference": replace(Profile().layers["reference"], include=False)}
    assert [one.field for one in not_held(Profile(layers=layers, reference_square=True), "svg")] == ["reference_square"]
    assert all(one.fix for one in not_held(Profile(unit="in"), "pdf"))


def test_a_circle_that_is_closed_without_its_flag_is_closed():
    """The right file that was stopped: a polyline whose ends meet, without the flag that it is closed. DXF Reference, LWPOLYLINE 70."""
    result = result_of("plain", "sheet")
    [file] = write_files(result, "dxf")
    text = file.data.decode()

    def opened_one(match: re.Match[str]) -> str:
        count = int(match[2]) + 1
        first = re.search(r" 10\n[^\n]*\n 20\n[^\n]*\n", match[3])
        return f"{match[1]}{count}\n 70\n0\n{match[3]}{first[0]}"

    changed = re.sub(
        r"(AcDbPolyline\n 90\n)(\d+)\n 70\n1\n((?: 10\n[^\n]*\n 20\n[^\n]*\n(?: 42\n[^\n]*\n)?)+)", opened_one, text
    )
    assert changed != text
    assert prove_files(result, [replace(file, data=changed.encode())], "dxf").proof.verdict == "fits"


def test_circles_stay_circles():
    [file] = [one for one in write_files(result_of("plain", "part"), "pdf") if one.part == "base"]
    round_one = next(path for path in read_pdf(file.data).paths if path.layer == "cut")
    centre, radius = round_one.segments[0].centre, round_one.segments[0].radius
    assert radius == pytest.approx(3 - 0.07, abs=1e-3)
    assert all(segment.centre == pytest.approx(centre, abs=1e-3) for segment in round_one.segments)
    assert isinstance(Circle(*centre, radius), Circle)

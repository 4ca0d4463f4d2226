"""A job as one open file: what goes in comes out, and a wrong file in it is refused at its name."""

import io
import json
import random
import zipfile

import pytest
from conftest import drawn, make_job
from lean_notch.ground.errors import NotchError
from lean_notch.ground.limits import MOST_PACKED_BYTES
from lean_notch.hand_over.packed import content_name, files_used, pack, unpack
from lean_notch.hand_over.proving import prove_job
from lean_notch.hand_over.reading import outlines_of
from lean_notch.job import compute, job_to_json

WASHER = (
    b'<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="20mm" viewBox="0 0 20 20">'
    b'<g id="cut"><path d="M0 0h20v20h-20z"/><path d="M5 5h10v10h-10z"/></g><g id="open" stroke="black"><path d="M1 1L2 9"/></g></svg>'
)
NAME = content_name(WASHER)


def imported(**shape):
    return {
        "kind": "shape",
        "id": "badge",
        "does": "cut",
        "x": 60,
        "y": 20,
        "shape": {"kind": "imported", "file": NAME, **shape},
    }


@pytest.fixture
def badge():
    return drawn(make_job(), imported())


def zipped(**files):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as packed:
        for name, data in files.items():
            packed.writestr(name.replace("__", "/").replace("_json", ".json"), data)
    return out.getvalue()


def test_closed_outlines_of_a_file_are_a_shape_with_the_holes_in_them(badge):
    result = compute(badge, outlines=outlines_of({NAME: WASHER}.__getitem__))
    front, plain = result.build.part("front"), compute(make_job()).build.part("front")
    assert plain.region.area - front.region.area == pytest.approx(400)  # what lies in the ring drops out
    assert "drops-out" in {finding.code for finding in result.build.findings}
    assert prove_job(result).verdict == "as-far-as-seen"  # an open line of the file is left out


def brought(data, **shape):
    """The front with a file in it, and its findings about the file."""
    name = content_name(data)
    step = {**imported(**shape), "shape": {"kind": "imported", "file": name, **shape}}
    built = compute(drawn(make_job(), step), outlines=outlines_of({name: data}.__getitem__)).build
    return built.part("front"), [one for one in built.findings if one.code.startswith("file-")]


def test_what_a_file_leaves_out_is_named_under_its_step_and_at_prove():
    part, [finding] = brought(WASHER)
    assert part.notes == (("badge", "Kept: 2 closed outlines. Left out: 1 open line on “open”."),)
    assert (finding.severity, finding.field) == ("unseen", "parts/front/steps/badge/shape/layers")
    part, findings = brought(WASHER, layers=["cut"])
    assert (part.notes, findings) == ((("badge", "Kept: 2 closed outlines."),), [])


def test_a_unit_that_the_file_does_not_say_is_asked_for_and_a_size_may_be_typed():
    """CSS Values and Units 3: a px is 1/96 in; so 20 of them are 5.29 mm, 20 mm or 508 mm, whatever the maker says."""
    bare = WASHER.replace(b' width="20mm" height="20mm"', b"").replace(
        b'<g id="open" stroke="black"><path d="M1 1L2 9"/></g>', b""
    )
    width = lambda part: max(h.box[2] - h.box[0] for h in part.region.holes)  # noqa: E731
    part, [asked] = brought(bare)
    assert (asked.severity, asked.code, asked.mend.path) == (
        "stop",
        "file-no-unit",
        "parts/front/steps/badge/shape/unit",
    )
    assert width(part) == pytest.approx(20 * 25.4 / 96)
    for shape, wide in (
        ({"unit": "mm"}, 20),
        ({"unit": "cm", "width": "30"}, 30),
        ({"width": {"text": "1", "unit": "in"}}, 25.4),
    ):
        part, findings = brought(bare, **shape)
        assert (width(part), findings) == (pytest.approx(wide), [])


def test_a_unit_is_not_said_of_a_file_that_names_one():
    failed = brought(WASHER, unit="in")[0].failed
    assert failed.error.field == "parts/front/steps/badge/shape/unit"
    assert "is in mm" in failed.error.why


@pytest.mark.parametrize(("shape", "words"), [({"layers": ["score"]}, "cut"), ({"layers": ["cut"]}, "")])
def test_only_the_layers_that_are_named_count(shape, words):
    part = compute(drawn(make_job(), imported(**shape)), outlines=outlines_of({NAME: WASHER}.__getitem__)).build.part(
        "front"
    )
    assert (words in part.failed.error.fix) if words else part.failed is None


def test_a_file_that_is_not_there_fails_at_its_step(badge):
    failed = compute(badge).build.part("front").failed
    assert (failed.error.field, failed.error.code) == ("parts/front/steps/badge/shape/file", "missing-input")


def test_a_job_is_packed_and_unpacked_the_same_bytes_each_time(badge):
    data = pack(badge, {NAME: WASHER, "other": b"x"})
    assert unpack(data) == (badge, {NAME: WASHER})
    again = pack(*unpack(data))
    assert pack(*unpack(again)) == again
    assert files_used(badge.design) == (NAME,)
    with zipfile.ZipFile(io.BytesIO(data)) as packed:
        assert packed.namelist() == ["job.json", f"files/{NAME}"]


def test_a_job_whose_file_is_missing_is_not_packed(badge):
    with pytest.raises(NotchError, match=NAME[:12]):
        pack(badge, {})


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"no zip", "not a packed job"),
        (zipped(other="x"), "no job.json"),
        (zipped(job_json="{"), "not JSON"),
        (zipped(job_json="[" * 100_000), "not JSON"),
        (zipped(job_json="{}"), "design"),
        (zipped(job_json=json.dumps(job_to_json(make_job())), files__abc="x"), "not what its name says"),
        (zipped(job_json=json.dumps(job_to_json(drawn(make_job(), imported())))), "which is not in it"),
        (zipped(job_json=b" " * (MOST_PACKED_BYTES + 1)), "60 MB"),
    ],
    ids=["no-zip", "no-job", "half", "deep", "empty", "wrong-file", "missing-file", "bomb"],
)
def test_a_packed_job_with_something_wrong_in_it_is_refused(data, words):
    with pytest.raises(NotchError) as caught:
        unpack(data)
    assert words in caught.value.why
    assert caught.value.fix


@pytest.mark.parametrize("kind", [zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED, zipfile.ZIP_BZIP2, zipfile.ZIP_LZMA])
def test_a_packed_job_with_flipped_bytes_is_refused_or_the_same(kind):
    """28 of 40 were errors that nobody expected. A flipped bit is found by the archive's own CRC-32."""
    job = make_job()
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", kind) as packed:
        packed.writestr("job.json", json.dumps(job_to_json(job)))
    chance, data, refused = random.Random(kind), out.getvalue(), []
    for _ in range(150):
        spoilt = bytearray(data)
        for _ in range(chance.choice([1, 1, 2, 8])):
            spoilt[chance.randrange(len(spoilt))] ^= 1 << chance.randrange(8)
        try:
            found, _ = unpack(bytes(spoilt[: chance.randrange(len(spoilt))] if chance.random() < 0.1 else spoilt))
        except NotchError as error:
            refused.append(error.fix)
        else:
            assert found == job  # a date, or a name that nothing is asked of
    assert all(refused)
    assert len(refused) > 75


@pytest.mark.parametrize(
    ("said", "words"),
    [(b'{"sets": ' + b"1" * 5_000 + b"}", "is not JSON"), (b"\xff\xfe{}", "is not JSON"), (b"[" * 100_000, "is not JSON"),
     (b'{"a": "' + b"x" * 4_100_000 + b'"}', "larger than a job")],
)  # fmt: skip
def test_a_document_that_is_none_is_refused_before_it_is_gone_through(said, words):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("job.json", said)
    with pytest.raises(NotchError, match=words):
        unpack(out.getvalue())

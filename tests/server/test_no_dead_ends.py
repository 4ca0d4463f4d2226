"""What a maker may do by mistake, or at the edge of what there is: told at its place, and nothing lost."""

import pytest
from client import edit, get, patch, post

NAMES = ["صندوق أدوات", "🦉 nest box 🪵", "Kist 3 ‮tekcap", "e\u0301tui", "a" * 80]


@pytest.fixture
def empty(wren, stock, machine):
    return post(wren, "/designs", {"name": "Empty", "stock": stock.id, "machine": machine.id}).json()


def part(width="100", height="60", title="Part", **more):
    blank = {"kind": "shape", "id": "blank", "shape": {"kind": "rectangle", "width": width, "height": height}}
    return {"title": title, "loose": 1, "steps": [blank], **more}


def put(path, value):
    return {"verb": "put", "path": path, "value": value}


@pytest.mark.parametrize("name", NAMES)
def test_any_name_of_a_job_and_a_part_goes_all_the_way_to_a_file(wren, empty, name):
    named = edit(wren, empty, put("name", name), put("parts/one", part(title=name)))
    assert named.status_code == 200, named.json()
    assert named.json()["parts"][0]["title"] == name
    box = f"/designs/{empty['id']}"
    for path in ("", "/proof", "/together", "/job-sheet?style=light", "/job-sheet?style=light&form=pdf"):
        assert get(wren, box + path).status_code == 200, path
    for form in ("svg", "dxf", "dxf-r12", "pdf"):
        made = post(wren, f"{box}/exports", {"format": form})
        assert made.status_code == 201, made.json()
        assert made.json()[0]["proof"]["verdict"] == "fits"


@pytest.mark.parametrize("path", ["name", "parts/one/title"])
def test_a_name_of_two_hundred_letters_is_refused_where_it_was_typed(wren, empty, path):
    job = edit(wren, empty, put("parts/one", part())).json()
    refused = edit(wren, job, put(path, "n" * 200))
    assert (refused.status_code, refused.json()["field"]) == (422, path)
    assert "at most" in refused.json()["fix"]
    assert get(wren, f"/designs/{empty['id']}").json()["moves"] == job["moves"]


def test_a_bed_smaller_than_every_part_keeps_the_job(wren, empty, machine):
    job = edit(wren, empty, put("parts/one", part()), put("parts/two", part("80", "50"))).json()
    assert (
        patch(wren, f"/machines/{machine.id}", {"bed_width": "40", "bed_height": "40", "unit": "mm"}).status_code == 200
    )
    small = edit(wren, job, put("basis/main/machine", machine.id))
    assert small.status_code == 200, small.json()
    shown = small.json()
    found = [one for one in shown["findings"] if one["code"] == "part-too-large"]
    assert {(one["part"], one["severity"]) for one in found} == {("one", "stop"), ("two", "stop")}
    assert (shown["sheets"], shown["placed"]) == ([], [])
    assert "2 pieces without a place" in str(shown["route"])
    box = f"/designs/{empty['id']}"
    for path in ("", "/proof", "/together", "/job-sheet?style=light", "/picture"):
        assert get(wren, box + path).status_code in (200, 404), path
    assert get(wren, box + "/proof").json()["verdict"] == "does-not-fit"
    refused = post(wren, f"{box}/exports", {"format": "svg"})
    assert (refused.status_code, refused.json()["code"]) == (422, "part-too-large")
    assert get(wren, "/designs").status_code == 200
    # What is asked of the job goes on, and what fits has a place again.
    smaller = edit(
        wren, shown, put("parts/one/steps/blank/shape/width", "20"), put("parts/one/steps/blank/shape/height", "20")
    )
    assert [one["part"] for one in smaller.json()["placed"]] == ["one"]
    larger = edit(wren, smaller.json(), put("parts/one/steps/blank/shape/width", "500"))
    assert (larger.status_code, larger.json()["field"]) == (422, "parts/one/steps/blank/shape/width")


def test_two_hundred_kinds_are_laid_out_stood_up_and_told(wren, empty):
    edits = [put(f"parts/p{i}", part(str(20 + i % 40), str(15 + i % 30), f"Part {i}")) for i in range(200)]
    for start in range(0, 200, 50):
        empty = edit(wren, empty, *edits[start : start + 50]).json()
    assert len(empty["placed"]) == 200
    asked = post(wren, f"/designs/{empty['id']}/placing", {"act": "stand", "part": "p7"})
    assert asked.status_code == 200, asked.json()
    stood = edit(wren, empty, *asked.json()["edits"])
    assert len(stood.json()["placements"]) == 1


def test_what_another_window_removed_meanwhile_is_named_and_the_rest_stays(wren, empty):
    job = edit(
        wren, empty, put("parts/one", part()), put("parts/two", part()), put("placements/one-1", {"part": "one"})
    ).json()
    box = f"/designs/{empty['id']}"
    gone = edit(wren, job, {"verb": "drop", "path": "parts/one"}).json()
    # The first window goes on from what it saw.
    asked = post(wren, f"{box}/placing", {"act": "stand", "part": "one"})
    assert (asked.status_code, asked.json()["field"]) == (422, "part")
    assert "no part" in asked.json()["why"]
    moved = edit(wren, job, put("placements/one-1/pose/x", "30"))
    assert moved.status_code in (404, 409, 422), moved.content
    assert moved.json()["why"]
    now = get(wren, box).json()
    assert (now["moves"], [one["id"] for one in now["parts"]]) == (gone["moves"], ["two"])


def test_nodes_dragged_over_each_other_are_refused_at_the_outline(wren, empty):
    nodes = [
        {"id": f"n{i}", "x": x, "y": y}
        for i, (x, y) in enumerate([("20", "10"), ("60", "10"), ("60", "40"), ("20", "40")])
    ]
    outline = {"kind": "shape", "id": "hole", "does": "cut", "shape": {"kind": "outline", "nodes": nodes}}
    job = edit(wren, empty, put("parts/one", part()), put("parts/one/steps/hole", outline)).json()
    for dx, dy in ((50, 10), (40, 30), (40, 0)):  # across an edge, onto a node, onto another
        asked = post(wren, f"/designs/{empty['id']}/placing",
                     {"act": "node-move", "part": "one", "steps": ["hole"], "node": "n0", "dx": dx, "dy": dy})  # fmt: skip
        assert asked.status_code == 200, asked.json()
        refused = edit(wren, job, *asked.json()["edits"])
        assert refused.status_code == 422, (dx, dy)
        assert refused.json()["field"].startswith("parts/one/steps/hole/shape/nodes"), refused.json()
    now = get(wren, f"/designs/{empty['id']}").json()
    assert now["moves"] == job["moves"]

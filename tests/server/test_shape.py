"""What the Shape stop asks of the server: parts as sentences, places as edits, own recipes, limits of a board."""

import pytest
from client import edit, get, patch, post


@pytest.fixture
def tag(wren, stock, machine):
    asked = {"recipe": "tag", "name": "Tag", "settings": {"width": "90"}, "stock": stock.id, "machine": machine.id}
    return post(wren, "/designs", asked).json()


def steps_of(shown):
    [part] = shown["parts"]
    return {step["id"]: step for step in part["steps"]}


def test_a_part_is_told_as_sentences_with_the_numbers_in_them(tag):
    hole = steps_of(tag)["hole"]
    words = "".join(one["text"] or f"[{one['path']}]" for one in hole["sentence"])
    assert words.startswith("Cut a hole Ø [shape/diameter], [x] from the left edge of plate")
    diameter = next(one for one in hole["sentence"] if one["path"] == "shape/diameter")
    assert (diameter["typed"], diameter["value"]) == ("hole", 5.0)
    assert hole["follows"]["names"] == ["hole", "margin"]
    assert hole["box"] == pytest.approx([6, 12.5, 11, 17.5])
    [part] = tag["parts"]
    assert {"edge:blank.right", "edge:blank.top"} <= {one["name"] for one in part["lines"]}
    assert {"centre:hole", "corner:blank.top-left"} <= {one["name"] for one in part["points"]}


def test_named_lengths_say_who_follows_them(wren, tag):
    shown = edit(
        wren,
        tag,
        {"verb": "put", "path": "dimensions/gap", "value": {"title": "gap", "length": "margin/2", "chosen": True}},
    ).json()
    lengths = {one["name"]: one for one in shown["lengths"]}
    assert (lengths["gap"]["value"], lengths["gap"]["source"]) == (3.0, "chosen")
    assert lengths["margin"]["direct"] == ["parts/tag/steps/hole", "dimensions/gap"]
    assert lengths["thickness"]["source"] == "measured"
    assert lengths["width"]["field"] == "answers/width"
    refused = edit(wren, shown, {"verb": "put", "path": "dimensions/gap/length", "value": "2*gap"})
    assert refused.status_code == 422
    assert "gap depends on itself: gap = 2*gap" in refused.json()["why"]


def test_what_an_edit_would_do_is_told_before_it_is_kept(wren, tag):
    edits = [{"verb": "put", "path": "answers/margin", "value": "10"}]
    told = post(wren, f"/designs/{tag['id']}/tried", {"edits": edits}).json()
    assert told["values"] == {"answers/margin": 10.0}
    moves = {one["step"]: (one["dx"], one["dy"]) for one in told["moved"]}
    assert moves["hole"] == pytest.approx((4, 0))
    assert moves["text"] == pytest.approx((2, 0))
    assert told["paths"].keys() == {"tag"}
    assert wren.get(f"/api/designs/{tag['id']}").json()["revision"] == tag["revision"]


def test_places_are_edits_that_the_core_makes(wren, tag):
    path = f"/designs/{tag['id']}/placing"
    moved = post(wren, path, {"act": "move", "part": "tag", "steps": ["hole"], "dx": 2, "dy": 0}).json()
    assert [one["path"] for one in moved["edits"]] == ["parts/tag/steps/hole/x"]
    assert moved["edits"][0]["value"]["text"] == "margin + 2 mm"
    assert moved["tried"]["moved"][0]["dx"] == pytest.approx(2)
    for asked, status in (
        ({"act": "from", "part": "tag", "steps": ["text"], "of": "edge:blank.left"}, 200),
        ({"act": "align", "part": "tag", "steps": ["hole", "text"], "side": "bottom"}, 200),
        ({"act": "spread", "part": "tag", "steps": ["hole", "text"], "axis": "x"}, 422),
        ({"act": "move", "part": "none", "steps": ["hole"]}, 422),
        ({"act": "jump", "part": "tag", "steps": ["hole"]}, 422),
        ({"act": "move", "part": "tag", "steps": []}, 422),
    ):
        assert post(wren, path, asked).status_code == status, asked
    assert wren.get(f"/api/designs/{tag['id']}").json()["revision"] == tag["revision"]


def test_a_job_is_kept_as_a_recipe_and_started_from(wren, tag, stock, machine):
    path = f"/designs/{tag['id']}/recipe"
    kept = post(wren, path, {"title": "Jar label", "open": ["width"]})
    assert kept.status_code == 201
    recipe = kept.json()
    assert (recipe["title"], recipe["own"], [one["name"] for one in recipe["settings"]]) == (
        "Jar label",
        True,
        ["width"],
    )
    assert recipe["flat"]
    assert recipe["name"] in [one["name"] for one in wren.get("/api/choices").json()["recipes"]]
    asked = {"recipe": recipe["name"], "settings": {"width": "70"}, "stock": stock.id, "machine": machine.id}
    drawn = post(wren, "/designs/draft", asked).json()
    assert [size["setting"] for size in drawn["views"][0]["sizes"]] == ["width"]
    started = post(wren, "/designs", {**asked, "name": "Jam"}).json()
    assert started["parts"][0]["box"] == pytest.approx([0, 0, 70, 30])
    assert started["recipe"] == "tag"  # and it goes on following that one
    for title, wanted, field in (("", ["width"], "title"), ("x", [], "open"), ("x", ["none"], "open")):
        refused = post(wren, path, {"title": title, "open": wanted})
        assert (refused.status_code, refused.json()["field"]) == (422, field)
    assert wren.delete(f"/api/recipes/{recipe['name']}").status_code == 204
    assert post(wren, "/designs/draft", asked).status_code == 422
    assert wren.delete("/api/recipes/tag").status_code == 422


def codes(client, design):
    return [one["code"] for one in get(client, f"/designs/{design['id']}").json()["findings"]]


def test_what_is_usual_for_a_kind_is_the_workshops_and_is_news_for_its_jobs(wren, tag, stock):
    """A board's own limit goes before the kind's, and the kind's before common practice."""
    assert patch(wren, "/limits/plywood", {"hole": "0.25", "web": "3", "unit": "in"}).status_code == 204
    shown = get(wren, "/choices").json()["limits"]["plywood"]
    assert (shown["common"]["hole"], shown["own"]["hole"], shown["used"]["hole"]) == (1.0, 6.35, 6.35)
    assert (shown["own"]["text"], shown["used"]["text"], shown["used"]["density"]) == (None, 2.0, 600.0)
    assert "hole-small" not in codes(wren, tag)
    [offer] = get(wren, f"/designs/{tag['id']}/news").json()
    assert offer["what"] == ["limits"]
    assert [card["news"] for card in get(wren, "/designs").json()] == [["limits"]]
    edit(wren, tag, stock=stock.id)
    assert "hole-small" in codes(wren, tag)
    assert get(wren, f"/designs/{tag['id']}/news").json() == []
    assert [card["news"] for card in get(wren, "/designs").json()] == [[]]
    patch(wren, f"/stocks/{stock.id}", {"limits": {"hole": "1"}})
    assert [one["what"] for one in get(wren, f"/designs/{tag['id']}/news").json()] == [["limits"]]
    patch(wren, "/limits/plywood", {"hole": "", "web": ""})
    assert get(wren, "/choices").json()["limits"]["plywood"]["own"]["hole"] is None


@pytest.mark.parametrize(("kind", "limits", "field"), [
    ("cheese", {"hole": "2"}, "kind"), ("cloth", {"web": "wide"}, "stock.limits.web"), ("cloth", {"text": "-1"}, "stock.limits.text"),
    ("cloth", {"density": "1e9"}, "stock.limits.density"),
])  # fmt: skip
def test_limits_of_a_kind_that_cannot_be_are_refused_at_their_field(wren, kind, limits, field):
    refused = patch(wren, f"/limits/{kind}", limits)
    assert (refused.status_code, refused.json()["field"]) == (422, field)
    assert "own" not in str(get(wren, "/choices").json()["limits"].get("cheese", ""))


def test_a_boards_limits_reach_its_jobs(wren, tag, stock):
    changed = patch(wren, f"/stocks/{stock.id}", {"limits": {"hole": "6", "web": ""}})
    assert changed.json()["document"]["limits"]["hole"] == 6
    followed = edit(wren, tag, stock=stock.id).json()
    [small] = [one for one in followed["findings"] if one["code"] == "hole-small"]
    assert small["mend"] == {"says": "Make it 6 mm", "path": "parts/tag/steps/hole/shape/diameter", "value": "6 mm"}
    mended = edit(
        wren, followed, {"verb": "put", "path": small["mend"]["path"], "value": small["mend"]["value"]}
    ).json()
    assert not [one for one in mended["findings"] if one["code"] == "hole-small"]
    refused = patch(wren, f"/stocks/{stock.id}", {"limits": {"hole": "-2"}})
    assert (refused.status_code, refused.json()["field"]) == (422, "stock.limits.hole")

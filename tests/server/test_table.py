"""The workshop table: how jobs stand, what is new, and copies of jobs."""

from __future__ import annotations

from datetime import datetime, timedelta

import pytest
from client import edit, post
from designs.actions import edit_design
from designs.models import Design, Export, Revision
from django.utils import timezone
from lean_notch.basis.settings import OUTCOMES
from lean_notch.edits import Edit
from workshop.actions import put_stock


def card(wren, name="Tray"):
    return next(one for one in wren.get("/api/designs").json() if one["name"] == name)


def moment(text):
    return datetime.fromisoformat(text)


def pairs(line):
    numbers = [float(one) for one in line.split()]
    return list(zip(numbers[::2], numbers[1::2], strict=True))


def stands(wren):
    found = card(wren)["stands"]
    return found["line"], found["tone"], found["next"]


def test_a_job_says_how_it_stands_from_its_basis_to_how_it_came_out(wren, tray):
    """The kerf of this machine was typed in: that is looked at first, whatever else is in order."""
    assert stands(wren) == ("Measure: kerf not measured", "look", "measure")
    design = Design.objects.get()
    basis = dict(design.head.document["basis"]["boards"]["main"])
    found = {
        "way": "slats",
        "stock": "Poplar ply",
        "stock_id": "",
        "thickness": 3.06,
        "date": "2026-11-02",
        "within": 0.001,
    }
    basis["machine"] = {**basis["machine"], "found": found}
    edit_design(design.pk, [Edit("put", "basis/main", basis)], "mm", design.moves)
    assert stands(wren) == ("Laid out; not proved yet", "plain", "prove")
    assert [stop["state"] for stop in card(wren)["stops"]] == ["ready", "ready", "ready", "ready", "open", "open"]
    proof = wren.get(f"/api/designs/{tray['id']}/proof").json()
    assert stands(wren) == ("Fits", "good", "hand-over")
    assert moment(card(wren)["stands"]["at"]) == moment(proof["at"])
    post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"})
    assert stands(wren) == ("Handed over", "good", "hand-over")
    assert [stop["state"] for stop in card(wren)["stops"]][-2:] == ["ready", "ready"]
    for outcome in OUTCOMES:
        Export.objects.update(outcome=outcome)
        tone = "good" if outcome == "cut well" else "look"
        assert stands(wren) == (outcome.capitalize(), tone, "hand-over")
    # A file of an older revision says nothing of this one.
    edit(wren, tray | {"moves": Design.objects.get().moves}, width="160")
    assert stands(wren) == ("Laid out; not proved yet", "plain", "prove")
    last = card(wren)["last_file"]
    assert (last["revision"], last["outcome"]) == (2, "did not fit")


def test_a_job_that_cannot_be_computed_is_drawn_as_it_last_could(wren, tray, monkeypatch):
    from designs import pictures
    from lean_notch.ground.errors import NotchError

    edit(wren, tray, width="160")
    head = Design.objects.get().head
    Revision.objects.filter(pk=head.pk).update(picture=None)
    compute = pictures.computed

    def failing(job):
        if job == head.job:
            raise NotchError("No such thing.", fix="Mend it.", field="parts/front")
        return compute(job)

    monkeypatch.setattr(pictures, "computed", failing)
    found = card(wren)
    assert (found["problem"]["why"], found["drawn"], len(found["panels"]), found["stops"]) == (
        "No such thing.",
        1,
        5,
        [],
    )
    assert found["stands"] is None


def test_a_picture_of_another_release_is_drawn_and_says_nothing_of_the_stops(wren, tray, monkeypatch):
    """Until it is made anew: another release may find otherwise."""
    from designs import table

    before = card(wren)
    kept = Revision.objects.get()
    Revision.objects.update(
        picture={**kept.picture, "release": "another", "stops": [["measure", "Measure", "all well", "ready", ""]] * 4}
    )
    monkeypatch.setattr(table, "PICTURE_SECONDS", -1.0)
    found = card(wren)
    assert (len(found["panels"]), found["stops"], found["stands"]) == (5, [], None)
    monkeypatch.undo()
    assert card(wren)["stops"] == before["stops"]


def test_panels_are_the_cores_own_to_a_tenth(wren, tray):
    """156.12 x 106.12 x 63.06 outside: 150, 100, 60 inside a board of 3.06."""
    panels = card(wren)["panels"]
    spans = []
    for axis in range(3):
        ends = [
            one["origin"][axis] + x * one["u"][axis] + y * one["v"][axis] - z * one["n"][axis]
            for one in panels
            for x, y in pairs(one["outline"])
            for z in (0, one["thickness"])
        ]
        spans.append(max(ends) - min(ends))
    assert spans == pytest.approx([156.12, 106.12, 63.06], abs=0.11)


def test_news_tell_a_board_measured_again_and_a_kerf_grown_old(wren, tray, stock):
    assert wren.get("/api/designs/news").json() == []
    put_stock({"readings": [3.20, 3.22]}, stock)
    [news] = wren.get("/api/designs/news").json()
    assert (news["what"], news["said"]) == ("newer", "Poplar ply measures 3.21 mm now, was 3.06 mm")
    assert [job["name"] for job in news["jobs"]] == ["Tray"]
    design = Design.objects.get()
    basis = dict(design.head.document["basis"]["boards"]["main"])
    for days, told in ((100, 0), (300, 1)):
        day = (timezone.now() - timedelta(days=days)).date().isoformat()
        found = {"way": "slats", "stock": "Poplar ply", "stock_id": "", "thickness": 3.06, "date": day, "within": 0.001}
        changed = {**basis, "machine": {**basis["machine"], "found": found}}
        edit_design(design.pk, [Edit("put", "basis/main", changed)], "mm", Design.objects.get().moves)
        kerfs = [one for one in wren.get("/api/designs/news").json() if one["what"] == "kerf"]
        assert [(one["machine"], one["days"]) for one in kerfs] == [("Shed laser", days)] * told


def test_a_copy_is_a_job_of_its_own(wren, tray, sign_in):
    copy = post(wren, f"/designs/{tray['id']}/duplicate", {}).json()
    assert (copy["name"], copy["revision"], len(copy["parts"])) == ("Tray, copy", 1, 5)
    names = [post(wren, f"/designs/{tray['id']}/duplicate", {}).json()["name"] for _ in range(2)]
    assert names == ["Tray, copy 2", "Tray, copy 3"]
    edit(wren, copy, width="90")
    assert card(wren)["panels"] != card(wren, "Tray, copy")["panels"]
    assert post(sign_in("Ines"), f"/designs/{tray['id']}/duplicate", {}).status_code == 404


def test_two_hundred_jobs_are_listed_at_once(wren, tray):
    design = Design.objects.get()
    wren.get("/api/designs")  # makes its picture
    head = Revision.objects.get()
    for i in range(199):
        other = Design.objects.create(owner=design.owner, name=f"Tray {i} " + "x" * 60)
        other.head = Revision.objects.create(
            design=other, number=1, document=head.document, picture=head.picture, by=design.owner
        )
        other.save()
    found = wren.get("/api/designs").json()
    assert (len(found), sum(one["pictured"] for one in found)) == (200, 200)


def draft(client, stock, machine, **settings):
    asked = {"recipe": "open-tray", "stock": stock.id, "machine": machine.id, "settings": settings}
    return post(client, "/designs/draft", asked)


def test_a_draft_is_what_would_be_started_and_keeps_nothing(wren, tray, stock, machine):
    made = draft(wren, stock, machine).json()
    assert made["panels"] == card(wren)["panels"]
    assert (made["pieces"], len(made["sheets"]), made["fit"]) == (5, 1, "snug")
    assert Design.objects.count() == 1
    sizes = {
        (size["setting"], size["says"]): round(size["value"], 2) for view in made["views"] for size in view["sizes"]
    }
    assert sizes == {
        ("width", "inside"): 150, ("", "outside"): 63.06, ("depth", "inside"): 100, ("height", "inside"): 60,
    }  # fmt: skip


def test_the_drawing_follows_a_size_by_its_slope_to_where_the_next_draft_is(wren, stock, machine):
    """What the page shows during a drag is what the core will say."""
    before, after = (draft(wren, stock, machine, width=width, sizes="outside").json() for width in ("150", "187.5"))

    def moved(now, slope):
        if isinstance(now, float):
            return now + 37.5 * slope
        if isinstance(now, list):
            return [moved(a, b) for a, b in zip(now, slope, strict=True)]
        return {name: moved(one, slope[name]) for name, one in now.items()} if isinstance(now, dict) else now

    followed = moved(before["views"], before["slopes"]["width"])
    for a, b in zip(followed, after["views"], strict=True):
        assert [one["box"] for one in a["shapes"]] == [pytest.approx(one["box"]) for one in b["shapes"]]
        assert [one["value"] for one in a["sizes"]] == pytest.approx([one["value"] for one in b["sizes"]])


@pytest.mark.parametrize(
    ("settings", "field"),
    [({"width": "2"}, "answers/width"), ({"width": "150/0"}, "answers/width"), ({"finger": "400"}, "answers/finger"),
     ({"height": ""}, "answers/height"), ({"lid": "yes"}, "answers/lid")],
)  # fmt: skip
def test_a_size_that_cannot_be_is_said_at_its_setting(wren, stock, machine, settings, field):
    answer = draft(wren, stock, machine, **settings)
    assert (answer.status_code, answer.json()["field"]) == (422, field)


def test_the_fit_of_a_start_is_a_word_of_the_scale(wren, stock, machine):
    asked = {"recipe": "open-tray", "name": "Tray", "stock": stock.id, "machine": machine.id, "fit": "press"}
    assert post(wren, "/designs", asked).json()["boards"][0]["basis"]["fit"] == "press"
    refused = post(wren, "/designs", asked | {"fit": "tight"})
    assert (refused.status_code, refused.json()["field"]) == (422, "fit")

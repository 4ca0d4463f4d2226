"""The database from every earlier state: jobs of version 1 open after migrating, and what was handed over stays."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

FOLDER = Path(__file__).resolve().parents[1] / "files" / "v1"
NEWEST = ("designs", "0007_proof_of_each_file")


def at(*targets):
    executor = MigrationExecutor(connection)
    executor.migrate(list(targets))
    return MigrationExecutor(connection).loader.project_state(list(targets)).apps


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("start", ["0001_initial", "0002_variants"])
def test_jobs_of_an_earlier_state_open_with_their_history_and_files(start):
    from designs.models import Design, Export
    from designs.shown import show_design, show_history
    from designs.table import show_cards

    try:
        old = at(("designs", start))
        user = old.get_model("auth", "User").objects.create(username="Wren")
        design = old.get_model("designs", "Design").objects.create(owner_id=user.pk, name="Vial carrier")
        revisions = old.get_model("designs", "Revision")
        parent = None
        documents = json.loads((FOLDER / "history.json").read_text())
        for one in documents:
            parent = revisions.objects.create(
                design_id=design.pk, number=one["number"], parent_id=parent and parent.pk, document=one["document"]
            )
        design.head_id = parent.pk
        design.save()
        layout = old.get_model("designs", "Layout").objects.create(revision_id=parent.pk, document={"sheets": 1})
        old.get_model("designs", "Export").objects.create(
            layout_id=layout.pk, sheet=1, format="svg", file_name="tray.svg", data=b"<svg/>\x00\xff"
        )
    finally:
        at(NEWEST)
    kept = Design.objects.select_related("head").get()
    shown = json.loads(show_design(kept))
    said = (shown["name"], shown["problem"], len(shown["parts"]), shown["revision"])
    assert said == ("Vial carrier", None, 5, 5)
    assert [row.number for row in show_history(kept) if row.before] == [5, 4, 3, 2, 1]
    [card] = show_cards([kept])
    assert len(card.panels) == 5
    assert [one.document for one in kept.revisions.order_by("number")] == [one["document"] for one in documents]
    assert bytes(Export.objects.get().data) == b"<svg/>\x00\xff"


@pytest.mark.django_db
def test_no_migration_is_missing():
    from django.core.management import call_command

    call_command("makemigrations", check=True, dry_run=True, verbosity=0)

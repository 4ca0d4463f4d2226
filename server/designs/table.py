"""The workshop table: every job with its picture, its stops, how it stands and its last file; and what is new. Told from what
was kept with the revisions; nothing is computed but a few pictures that are missing."""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import suppress
from datetime import date, datetime
from time import process_time
from typing import cast

from django.db.models import Max
from django.utils import timezone
from ground.problems import Problem
from lean_notch.basis.notebook import grown_old
from lean_notch.basis.settings import Outcome
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.files import FileFormat
from lean_notch.told.route import Stop, last_stops
from lean_notch.told.summary import Handed, summary
from results import release

from . import table_schemas as out
from . import verdicts
from .actions import head_of
from .bases import Document, bases_of, boards_of
from .models import Design, Export, Revision
from .pictures import Picture, is_current, is_of_release, keep_picture
from .schemas.jobs import Kin
from .shown_changes import said_of
from .shown_proof import show_verdict
from .today import News, Workshop, concerned

PICTURE_SECONDS = 0.1
"""How long one list of jobs may take to make pictures that are missing; the rest are made the next time."""


def show_cards(designs: Sequence[Design]) -> list[out.DesignCard]:
    """Jobs as they stand on the table."""
    started = process_time()
    workshop = Workshop()
    proved = set(
        Revision.objects.filter(design__in=designs, proof__release=release.core()).values_list("design_id", flat=True)
    )
    files, bases = _last_files(designs), bases_of(designs)
    cards = []
    for design in designs:
        head = head_of(design)
        if not is_of_release(head.picture) and process_time() - started < PICTURE_SECONDS:
            keep_picture(head)
        picture = head.picture if is_current(head.picture) else None
        news = [] if picture and picture["problem"] else _differs(workshop.newer(bases.get(head.pk)))
        cards.append(_card(design, head, picture, news, files.get(design.pk), proved_before=design.pk in proved))
    return cards


def _card(
    design: Design, head: Revision, picture: Picture | None, news: list[str], file: Export | None, *, proved_before: bool
) -> out.DesignCard:  # fmt: skip
    shown = picture or {}
    verdict = verdicts.known(head)
    problem = shown.get("problem")
    of_this = file is not None and file.layout.revision_id == head.pk
    stops, stands = _stands(shown, verdict, file if of_this else None)
    return out.DesignCard(
        id=design.pk, name=design.name, changed=design.changed, revision=head.number,
        boards=[out.CardBoard(name=b["name"], thickness=b["thickness"]) for b in shown.get("boards", ())],
        variant_of=design.variant_of.name if design.variant_of else "",
        news=news, problem=Problem(**problem) if problem else None,
        proof=show_verdict(verdict), proved_before=proved_before, pictured=picture is not None,
        panels=[out.PanelOut(**one) for one in shown.get("panels", ())],
        flat=[out.Silhouette(**one) for one in shown.get("flat", ())], drawn=shown.get("drawn"),
        titles=shown.get("titles", []), pieces=shown.get("pieces", 0), sheets=shown.get("sheets", 0),
        used=shown.get("used", 0.0), seconds=shown.get("seconds"), stops=tuple(stops), stands=stands,
        last_file=_file(file) if file else None,
    )  # fmt: skip


def _stands(
    picture: Picture, verdict: verdicts.Verdict | None, file: Export | None
) -> tuple[list[Stop], out.StandsOut | None]:
    """The six stops, and how the job stands; of one that cannot be computed, or was by another release, nothing is known. `file`
    is of this revision."""
    if not picture.get("stops") or picture.get("problem") or not is_of_release(picture):
        return [], None
    said = verdicts.said_of(verdict)
    first = [Stop(*one) for one in picture["stops"]]
    stops = [*first, *last_stops(picture["pieces"], picture["sheets"], said, handed=file is not None)]
    handed = Handed(cast("Outcome | None", file.outcome or None)) if file else None
    found = summary(stops, said, handed)
    moments = {"proof": verdict["at"] if verdict else None, "file": file.made if file else None, "": None}
    return stops, out.StandsOut(line=found.line, tone=found.tone, next=found.next, at=moments[found.dated])


def _file(file: Export) -> out.LastFileOut:
    return out.LastFileOut(
        format=cast(FileFormat, file.format), receiver=file.receiver, made=file.made, revision=file.layout.revision.number,
        outcome=file.outcome, proof=show_verdict(file.proof) if file.sha256 else None,
    )  # fmt: skip


def _last_files(designs: Sequence[Design]) -> dict[int, Export]:
    """The newest file of each job, without its bytes."""
    theirs = Export.objects.filter(layout__revision__design__in=designs).order_by()
    last = theirs.values("layout__revision__design").annotate(last=Max("id")).values("last")
    newest = (
        Export.objects.filter(pk__in=last)
        .select_related("layout__revision")
        .defer("data", "profile", "layout__document", "layout__revision__document", "layout__revision__picture")
    )
    return {one.layout.revision.design_id: one for one in newest}


def _differs(news: Sequence[News]) -> list[str]:
    return list(dict.fromkeys(word for one in news for word in one.what))


def show_concerned(designs: Sequence[Design]) -> list[out.ConcernedOut]:
    """The jobs that the workshop says something newer of."""
    return [
        out.ConcernedOut(
            id=one.design.pk, name=one.design.name, moves=one.design.moves, revision=head_of(one.design).number, handed=one.handed,
            said=said_of(one.news),
        )
        for one in concerned(designs)
    ]  # fmt: skip


def show_news(designs: Sequence[Design]) -> list[out.TableNews]:
    """What the workshop says newer than jobs were computed from, and kerfs that are old by now."""
    workshop = Workshop()
    told: dict[str, out.TableNews] = {}
    kerfs: dict[tuple[str, str], out.TableNews] = {}
    today = timezone.localdate()
    bases = bases_of(designs)
    for design in designs:
        kin = Kin(id=design.pk, name=design.name)
        news = workshop.newer(bases.get(head_of(design).pk))
        for said, at in dict.fromkeys((one.said, one.at) for one in news):
            one = told.setdefault(
                said, out.TableNews(what="newer", said=said, at=datetime.fromisoformat(at) if at else None)
            )
            one.jobs.append(kin)
        with suppress(NotchError, KeyError, TypeError):  # of a job that cannot be read, the job itself tells
            for board in boards_of(bases.get(head_of(design).pk)):
                if machine := workshop.machines.get(board["machine"].get("id", "")):
                    _old_kerf(kerfs, machine, board, kin, today)
    return [*sorted(told.values(), key=lambda one: str(one.at or ""), reverse=True), *kerfs.values()]


def _old_kerf(
    found: dict[tuple[str, str], out.TableNews], machine: Document, one: Document, job: Kin, today: date
) -> None:
    told = one["machine"].get("found")
    days = grown_old(told["date"], today) if told else None
    if told is None or days is None:
        return
    stock = int(told["stock_id"]) if str(told.get("stock_id", "")).isdigit() else None
    news = found.setdefault(
        (machine["id"], told["stock"]),
        out.TableNews(
            what="kerf", board=told["stock"], stock=stock, machine=machine["name"], machine_id=int(machine["id"]), days=days, at=told["date"]
        ),
    )  # fmt: skip
    news.jobs.append(job)

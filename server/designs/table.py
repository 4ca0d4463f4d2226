"""The workshop table: every job with its picture, its stops, how it stands and its last file; and what is new. Told from what
was kept with the revisions; nothing is computed but a few pictures that are missing."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from contextlib import suppress
from datetime import date
from time import process_time
from typing import Any, cast

from config.problems import Problem
from django.db.models import Max
from django.utils import timezone
from lean_notch.basis import stock_from_json
from lean_notch.basis.equip import news_of_machine, news_of_stock
from lean_notch.basis.notebook import grown_old
from lean_notch.basis.settings import Outcome
from lean_notch.errors import NotchError
from lean_notch.files import FileFormat
from lean_notch.route import Stop, last_stops
from lean_notch.summary import Handed, summary
from workshop.actions import stocks_in_use
from workshop.models import Machine, Stock

from . import table_schemas as out
from . import verdicts
from .actions import head_of
from .bases import bases_of, boards_of
from .models import Design, Export, Revision
from .pictures import Picture, is_current, is_of_release, keep_picture
from .schemas import Kin
from .shown import show_verdict

PICTURE_SECONDS = 0.1
"""How long one list of jobs may take to make pictures that are missing; the rest are made the next time."""

Document = Mapping[str, Any]


def show_cards(designs: Sequence[Design]) -> list[out.DesignCard]:
    """Jobs as they stand on the table."""
    started = process_time()
    stocks = stocks_in_use()
    machines = {str(row.pk): row.document for row in Machine.objects.filter(removed=None)}
    proved = set(
        Revision.objects.filter(design__in=designs, proof__release=verdicts.release()).values_list(
            "design_id", flat=True
        )
    )
    files, bases = _last_files(designs), bases_of(designs)
    cards = []
    for design in designs:
        head = head_of(design)
        if not is_of_release(head.picture) and process_time() - started < PICTURE_SECONDS:
            keep_picture(head)
        picture = head.picture if is_current(head.picture) else None
        news = [] if picture and picture["problem"] else _told_anew(bases.get(head.pk), stocks, machines)
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
        used=shown.get("used", 0.0), seconds=shown.get("seconds", 0.0), stops=tuple(stops), stands=stands,
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


def _told_anew(basis: Document | None, stocks: Mapping[str, Document], machines: Mapping[str, Document]) -> list[str]:
    """What the workshop says otherwise of a job's boards and machines: told from the documents, without computing."""
    said: list[str] = []
    for one in boards_of(basis):
        stock, machine = one["stock"], one["machine"]
        if rack := stocks.get(stock.get("id", "")):
            said += news_of_stock(stock, rack)
        if workshop := machines.get(machine.get("id", "")):
            said += news_of_machine(machine, workshop)
    return list(dict.fromkeys(said))


def show_news(designs: Sequence[Design]) -> list[out.TableNews]:
    """Boards that were measured again since jobs were computed from them, and kerfs that are old by now."""
    stocks = {str(row.pk): row for row in Stock.objects.filter(removed=None)}
    machines = {str(row.pk): row for row in Machine.objects.filter(removed=None)}
    boards: dict[str, out.TableNews] = {}
    kerfs: dict[tuple[str, str], out.TableNews] = {}
    today = timezone.localdate()
    bases = bases_of(designs)
    for design in designs:
        with suppress(NotchError, KeyError, TypeError):  # of a job that cannot be read, the job itself tells
            for one in boards_of(bases.get(head_of(design).pk)):
                kin = Kin(id=design.pk, name=design.name)
                if rack := stocks.get(one["stock"].get("id", "")):
                    _measured_again(boards, rack, one["stock"], kin)
                if machine := machines.get(one["machine"].get("id", "")):
                    _old_kerf(kerfs, machine, one, kin, today)
    return [*boards.values(), *kerfs.values()]


def _measured_again(found: dict[str, out.TableNews], rack: Stock, copy: Document, job: Kin) -> None:
    if "thickness" not in news_of_stock(copy, rack.document):
        return
    was, now = (stock_from_json(one).readings.mean for one in (copy, rack.document))
    news = found.setdefault(
        str(rack.pk),
        out.TableNews(what="measured", board=rack.name, stock=rack.pk, was=was, now=now, at=rack.document["measured"] or None),
    )  # fmt: skip
    news.jobs.append(job)


def _old_kerf(
    found: dict[tuple[str, str], out.TableNews], machine: Machine, one: Document, job: Kin, today: date
) -> None:
    told = one["machine"].get("found")
    days = grown_old(told["date"], today) if told else None
    if told is None or days is None:
        return
    stock = int(told["stock_id"]) if str(told.get("stock_id", "")).isdigit() else None
    news = found.setdefault(
        (str(machine.pk), told["stock"]),
        out.TableNews(what="kerf", board=told["stock"], stock=stock, machine=machine.name, machine_id=machine.pk, days=days, at=told["date"]),
    )  # fmt: skip
    news.jobs.append(job)

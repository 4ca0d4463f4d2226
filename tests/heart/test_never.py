"""Boards that are never cut on a laser: refused wherever one is brought to it, told where one stands there already."""

import json
from dataclasses import replace

import pytest
from conftest import edited, make_basis, make_job
from lean_notch.basis import Basis, Limits, Machine, basis_to_json, stock_from_json, stock_to_json
from lean_notch.basis.never import MADE_OF, NeverOnMachine, Rule, ask_made_of
from lean_notch.basis.news import news_of_stock
from lean_notch.basis.stock import KINDS
from lean_notch.cli.main import main
from lean_notch.edits import Edit
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.contents import in_files
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute, job_from_json, job_to_json
from lean_notch.job.for_machine import on_machine
from lean_notch.test_pieces import TEST_PIECES, piece_job
from lean_notch.told.route import route

LASER = Machine("Shed laser", "laser", 600, 400, 0.14)
ROUTER = Machine("Barn router", "router", 1250, 1250, 3.0)
NEVER = ("PVC and other chlorinated plastic", "plastic of unknown kind", "coated or imitation leather")
FIBRES = "glass or carbon fibres in resin"


def job_of(kind="plywood", machine=LASER, limits=None, made_of=""):
    basis = make_basis().of("main")
    stock = replace(basis.stock, kind=kind, limits=limits or Limits(), made_of=made_of)
    return make_job(basis=Basis((("main", replace(basis, stock=stock, machine=machine)),)))


@pytest.mark.parametrize("kind", NEVER)
def test_no_file_is_written_of_such_a_board_and_its_proof_says_why(kind):
    job = job_of(kind)
    result = compute(job)
    for write in (write_files, in_files):
        with pytest.raises(NeverOnMachine) as refused:
            write(result, "svg")
        assert refused.value.field == "machine"
        assert "never cut on a laser: " in str(refused.value)
    assert route(result)[0].wants == "never on a laser"
    proof = prove_job(result)  # an old job is read, and looked at
    assert not proof.fits
    assert [one.field for one in proof.findings if one.code == "never-on-machine"] == ["basis/main/machine"]
    routed = on_machine(job, ROUTER)
    assert write_files(compute(routed), "svg")


@pytest.mark.parametrize("way", TEST_PIECES)
def test_nor_a_test_piece(way):
    stock = job_of(NEVER[0]).basis.of("main").stock
    with pytest.raises(NeverOnMachine):
        piece_job(way, {}, stock, LASER)
    assert piece_job(way, {}, stock, ROUTER)


def test_it_is_refused_where_the_machine_or_the_board_is_chosen():
    """By a whole document here: numbers of the workshop are tried on the server."""
    laser, router = (basis_to_json(job_of(NEVER[0], one).basis)["boards"]["main"] for one in (LASER, ROUTER))
    job = job_of(NEVER[0], ROUTER)
    for path, value in (("basis/main", laser), ("basis/main/machine", laser["machine"])):
        with pytest.raises(NeverOnMachine) as refused:
            edited(job, Edit("put", path, value))
        assert refused.value.field == path
    with pytest.raises(NeverOnMachine) as refused:
        edited(job_of(), Edit("put", "basis/main/stock", router["stock"]))
    assert refused.value.field == "basis/main/stock"
    with pytest.raises(NeverOnMachine) as refused:
        on_machine(job, LASER)
    assert refused.value.field == "machine"
    # One that stands there already can still be read, measured and changed.
    old = job_of(NEVER[0])
    assert job_from_json(job_to_json(old)) == old
    assert edited(old, Edit("put", "basis/main/readings", [3.1, 3.12])).basis.of("main").thickness == 3.11


def test_a_rule_of_the_boards_own_goes_before_its_kinds():
    no, yes = Rule(True, "it smells of chlorine"), Rule(False, "the data sheet says PETG")
    assert job_of(limits=Limits(laser=no)).basis.of("main").stock.never_on("laser") == "it smells of chlorine"
    assert job_of(limits=Limits(router=no)).basis.of("main").stock.never_on("laser") == ""
    allowed = job_of(NEVER[1], limits=Limits(laser=yes))
    assert write_files(compute(allowed), "svg")
    said = [one for one in prove_job(compute(allowed)).findings if one.code == "overruled"]
    assert ["the data sheet says PETG" in one.why for one in said] == [True], "who overrules it is not silent"
    # Of a workshop's rule for the kind and a board's own, the board's.
    stock = allowed.basis.of("main").stock
    over = replace(stock, limits=stock.limits.over(Limits(laser=no)))
    assert (over.never_on("laser"), over.overruled_on("laser")) == ("", "the data sheet says PETG")
    assert news_of_stock(stock_to_json(job_of().basis.of("main").stock), stock_to_json(over)) == (
        "kind",
        "where it may be cut",
    )


@pytest.mark.parametrize(
    "rule", [{"never": True}, {"never": "yes", "reason": "x"}, {"never": False, "reason": "  "}, 3]
)
def test_a_rule_without_a_reason_is_none(rule):
    document = stock_to_json(job_of().basis.of("main").stock)
    with pytest.raises(NotchError) as refused:
        stock_from_json({**document, "limits": {"laser": rule}})
    assert refused.value.field == "stock.limits.laser"


@pytest.mark.parametrize("made_of", MADE_OF)
def test_a_composite_is_as_dangerous_as_what_it_is_made_of(made_of):
    stock = job_of("composite", made_of=made_of).basis.of("main").stock
    assert bool(stock.never_on("laser")) == (MADE_OF[made_of] is not None)
    ask_made_of(stock)
    assert stock_from_json(stock_to_json(stock)).board == stock


def test_a_composite_of_which_that_is_not_known_is_asked():
    old = job_of("composite").basis.of("main").stock
    assert old.never_on("laser") == "", "an old one is as it was"
    with pytest.raises(NotchError) as refused:
        ask_made_of(old)
    assert refused.value.field == "made_of"
    document = stock_to_json(old)
    with pytest.raises(NotchError):
        stock_from_json({**document, "made_of": "something"})
    assert stock_from_json({**document, "kind": "plywood", "made_of": FIBRES}).made_of == ""


def test_a_document_of_before_rules_opens():
    document = json.loads(json.dumps(stock_to_json(job_of().basis.of("main").stock)))
    del document["made_of"], document["limits"]["laser"], document["limits"]["router"]
    assert stock_from_json(document).board == job_of().basis.of("main").stock


def test_what_is_common_practice_is_few_and_has_reasons():
    assert tuple(name for name, kind in KINDS.items() if kind.laser) == NEVER
    assert not any(kind.router for kind in KINDS.values())
    assert all(kind.laser.reason for kind in KINDS.values() if kind.laser)


def test_the_command_line_says_the_same(tmp_path, capsys):
    (tmp_path / "job.json").write_text(json.dumps(job_to_json(job_of(NEVER[0]))))
    basis = tmp_path / "basis.json"
    basis.write_text(json.dumps(basis_to_json(job_of(NEVER[0]).basis)))
    out = str(tmp_path / "out")
    for arguments in (
        ["export", str(tmp_path / "job.json"), "--out", out, "--json"],
        ["test-piece", "slats", "--basis", str(basis), "--out", out, "--json"],
    ):
        assert main(arguments) == 2
        told = json.loads(capsys.readouterr().err)["error"]
        assert told["code"] == "never-on-machine", told
    assert not (tmp_path / "out").exists()

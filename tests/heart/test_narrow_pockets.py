"""Pockets that the tool does not go into."""

from conftest import edited, make_basis, make_job, with_marks
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute


def test_a_pocket_narrower_than_the_tool_is_a_finding():
    job = with_marks(edited(make_job(make_basis(kerf=2.0)), spacing="5"), {"id": "p", "kind": "rectangle", "operation": "pocket",
         "lengths": {"x": "50", "y": "50", "width": "30", "height": "1.5", "depth": "1"}}, part="base")  # fmt: skip
    [lost] = [finding for finding in compute(job).plan.findings if finding.code == "tool-too-wide"]
    assert lost.severity == "stop"
    assert "1.5 mm" in lost.why
    assert not prove_job(compute(job)).fits

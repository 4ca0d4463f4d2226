"""What the maker's first page shows of a job, made once a revision: in, a job; out, a small document kept with it."""

from __future__ import annotations

from typing import Any

from lean_notch.errors import NotchError
from lean_notch.formats.svg_path import path_data
from lean_notch.job import Job

from .compute import computed
from .models import Revision

Picture = dict[str, Any]


def picture_of(revision: Revision) -> Picture:
    """The picture of a revision; of one that cannot be read or computed any more, its problem."""
    try:
        return picture(revision.job)
    except NotchError as error:
        return {"boards": [], "silhouettes": [], "problem": error.as_json()}


def picture(job: Job) -> Picture:
    """Silhouettes of the parts, and the boards as measured."""
    result = computed(job)
    return {
        "boards": [
            {"name": basis.stock.name, "thickness": basis.thickness, "stock": basis.stock.id, "machine": basis.machine.id}
            for basis in (job.basis.of(board.id) for board in job.design.boards)
        ],
        "silhouettes": [
            {"path": "".join(path_data(ring) for ring in part.region.rings), "box": part.region.box, "quantity": part.quantity}
            for part in result.build.parts
        ],
        "problem": None,
    }  # fmt: skip

"""Edits of a job: a list of small verbs with a path, the same from page, command line and tests."""

from .apply import NO_WORKSHOP, Workshop, edit_job, number_in, refuse_own_failures
from .between import edits_between
from .edit import Edit, edits_from_json, edits_to_json
from .merge import independent
from .sentences import sentence

__all__ = [
    "NO_WORKSHOP", "Edit", "Workshop", "edit_job", "edits_between", "edits_from_json", "edits_to_json",
    "independent", "number_in", "refuse_own_failures", "sentence",
]  # fmt: skip

"""A whole job: design + basis + layout settings in; what is built, laid out and planned of it out."""

from .job import (
    PLAN_S,
    ChosenLayout,
    Job,
    Result,
    compute,
    job_from_json,
    job_to_json,
    refuse_without_place,
    settings_from_json,
    with_layout,
)

__all__ = [
    "PLAN_S",
    "ChosenLayout",
    "Job",
    "Result",
    "compute",
    "job_from_json",
    "job_to_json",
    "refuse_without_place",
    "settings_from_json",
    "with_layout",
]

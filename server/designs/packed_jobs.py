"""Jobs packed with the files they use, and unpacked."""

from __future__ import annotations

from dataclasses import replace

from django.contrib.auth.models import User
from lean_notch.basis import Basis
from lean_notch.hand_over.packed import check_file, files_used, pack, unpack

from . import again
from .actions import head_of, start_kept
from .compute import computed
from .files_of_jobs import keep_for
from .kept_files import read_kept
from .models import Design


def pack_design(design: Design) -> bytes:
    """The job and its files as one open file."""
    job = head_of(design).job
    return pack(job, {name: read_kept(name) for name in files_used(job.design)})


def unpack_design(owner: User, data: bytes) -> Design:
    """A new job from a packed one. Its numbers of boards and machines are another workshop's, and are forgotten."""
    again.look_into_packed(data)
    job, files = unpack(data)
    for content in files.values():
        check_file(content)
        keep_for(owner, again.PACKED_TITLE, content)
    boards = tuple(
        (name, replace(one, stock=replace(one.stock, id=""), machine=replace(one.machine, id="")))
        for name, one in job.basis.boards
    )
    job = replace(job, basis=Basis(boards))
    computed(job)
    return start_kept(owner, job, "Unpacked from a file")

"""Designs and their revisions. Nothing is ever overwritten: every saved edit is a new revision."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from django.utils.functional import cached_property
from lean_notch.job import Job

from .compute import job_of


class Design(models.Model):
    """One maker's job. `head` is the revision that is shown; undo, redo and the history move it."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="designs")
    name = models.CharField(max_length=80)
    head = models.ForeignKey("Revision", null=True, on_delete=models.PROTECT, related_name="+")
    moves = models.PositiveIntegerField(default=0)
    """Counts every save, undo and redo: by it a window knows whether somebody else was there since."""
    changed = models.DateTimeField(auto_now=True)
    removed = models.DateTimeField(null=True)
    variant_of = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="variants")


class Revision(models.Model):
    """`document` is the core's job document, of whatever version it was written in. `redo` is the revision that redo leads
    to from here. `sentence` says what was done, `picture` is what the maker's first page shows of it, `proof` what its proof
    said, when, and by which release."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    parent = models.ForeignKey("self", null=True, on_delete=models.PROTECT, related_name="+")
    redo = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="+")
    document = models.JSONField()
    saved = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    sentence = models.CharField(max_length=400, blank=True, default="")
    picture = models.JSONField(null=True)
    proof = models.JSONField(null=True)

    @property
    def key(self) -> tuple[object, ...]:
        """Nothing of a revision is ever changed: whatever follows from it may be kept under this."""
        return (self.pk, self.saved.isoformat())

    @cached_property
    def job(self) -> Job:
        """Raises NotchError for a document that cannot be read any more."""
        return job_of(self.key, lambda: self.document)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["design", "number"], name="one_number_a_design")]


class OwnRecipe(models.Model):
    """A design that the workshop starts others from: `document` is the core's design document, `open` names the lengths that a
    new job may set. All makers of the workshop see it."""

    title = models.CharField(max_length=80)
    document = models.JSONField()
    open = models.JSONField()
    saved = models.DateTimeField(auto_now_add=True)
    removed = models.DateTimeField(null=True)


class KeptFile(models.Model):
    """A file that jobs use. `name` is the SHA-256 of its content, which lies in the data folder under that name; `makers` are those who
    brought it: knowing its name is not having it."""

    name = models.CharField(max_length=64, primary_key=True)
    title = models.CharField(max_length=200)
    size = models.PositiveIntegerField()
    added = models.DateTimeField(auto_now_add=True)
    makers = models.ManyToManyField(settings.AUTH_USER_MODEL, related_name="+")


class FileUse(models.Model):
    """A revision that uses a file: while there is one, the file stays."""

    file = models.ForeignKey(KeptFile, on_delete=models.CASCADE, related_name="uses")
    revision = models.ForeignKey(Revision, on_delete=models.CASCADE, related_name="files")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["revision", "file"], name="one_use_a_revision")]


class Layout(models.Model):
    """Where the parts lay when files were handed over: engines improve, what was cut stays known."""

    revision = models.OneToOneField(Revision, on_delete=models.CASCADE, related_name="layout")
    document = models.JSONField()


class Export(models.Model):
    """One file handed over, byte for byte, with their SHA-256: to whom, by which `profile`, what of the job it `holds` (part,
    operation, back), and what its own proof said. Of files of older releases the first three are not known. `outcome` is how it
    came out, "" as long as nobody told."""

    layout = models.ForeignKey(Layout, on_delete=models.CASCADE, related_name="exports")
    sheet = models.PositiveIntegerField()
    format = models.CharField(max_length=10)
    file_name = models.CharField(max_length=200)
    sha256 = models.CharField(max_length=64, blank=True, default="")
    profile = models.JSONField(null=True)
    holds = models.JSONField(null=True)
    proof = models.JSONField(null=True)
    data = models.BinaryField()
    made = models.DateTimeField(auto_now_add=True)
    receiver = models.CharField(max_length=80, blank=True, default="")
    outcome = models.CharField(max_length=20, blank=True, default="")
    told = models.DateTimeField(null=True)

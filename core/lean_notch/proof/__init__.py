"""A written file read back, cut by a beam of the real width, and what is left compared with what was wanted."""

from ..ground.findings import Finding
from .as_cut import AsCut, as_cut
from .promised import promised, registered
from .proof import NOT_LOOKED_AT, Face, Given, MateProof, PartProof, Proof, Said, said_of
from .prove import prove

__all__ = [
    "NOT_LOOKED_AT", "AsCut", "Face", "Finding", "Given", "MateProof", "PartProof", "Proof", "Said", "as_cut", "promised", "prove", "registered",
    "said_of",
]  # fmt: skip

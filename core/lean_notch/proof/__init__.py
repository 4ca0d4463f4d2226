"""A written file read back, cut by a beam of the real width, and what is left compared with what was wanted."""

from ..findings import Finding
from .as_cut import AsCut, as_cut
from .proof import NOT_LOOKED_AT, MateProof, PartProof, Proof, Said
from .prove import prove

__all__ = ["NOT_LOOKED_AT", "AsCut", "Finding", "MateProof", "PartProof", "Proof", "Said", "as_cut", "prove"]

"""A written file read back, cut by a beam of the real width, and what is left compared with what was wanted."""

from ..findings import Finding
from .as_cut import AsCut, as_cut
from .prove import MateProof, PartProof, Proof, prove

__all__ = ["AsCut", "Finding", "MateProof", "PartProof", "Proof", "as_cut", "prove"]

"""A written file read back, cut by a beam of the real width, and what is left compared with what was wanted."""

from .as_cut import AsCut, as_cut
from .prove import Finding, MateProof, PartProof, Proof, prove

__all__ = ["AsCut", "Finding", "MateProof", "PartProof", "Proof", "as_cut", "prove"]

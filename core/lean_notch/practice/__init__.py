"""A machine, a board and a caliper to practise with: they ship with the app, and keep to themselves what is true."""

from .practice import Practice, PracticeCut, Truth
from .round import Practised, practised

__all__ = ["Practice", "PracticeCut", "Practised", "Truth", "practised"]

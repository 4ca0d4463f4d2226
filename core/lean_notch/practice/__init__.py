"""A machine, a board and a caliper to practise with: they ship with the app, and keep to themselves what is true."""

from .practice import Practice, PracticeCut, Truth

__all__ = ["Practice", "PracticeCut", "Truth"]

"""Small pieces that tell a kerf or a fit: recipes like any other, built, laid out and handed over like any job."""

from .test_pieces import INSTRUCTIONS, TEST_PIECES, AsGiven, as_given, kerf_note, piece_job, recipe_of

__all__ = ["INSTRUCTIONS", "TEST_PIECES", "AsGiven", "as_given", "kerf_note", "piece_job", "recipe_of"]

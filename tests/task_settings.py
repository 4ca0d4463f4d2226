"""The server's settings with kinds of tasks that misbehave, for the children of tests."""

from config.settings import *  # noqa: F403

TASK_KINDS = ["designs.heavy", "designs.together", "designs.tries", "bad_kinds"]

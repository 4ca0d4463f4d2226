"""Build + layout + basis → CutPlan: the only place where the kerf moves a path."""

from .estimate import Estimate, estimate, say_time
from .plan import CutPath, CutPlan, SheetPlan, check_room, cut_lengths, finished, plan_cut, plan_part, segments_of
from .profile import PLAIN, Layer, Profile, profile_from_json, profile_to_json

__all__ = [
    "PLAIN", "CutPath", "CutPlan", "Estimate", "Layer", "Profile", "SheetPlan", "check_room", "cut_lengths", "estimate", "finished", "plan_cut", "plan_part",
    "profile_from_json", "profile_to_json", "say_time", "segments_of",
]  # fmt: skip

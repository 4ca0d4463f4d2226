"""Build + layout + basis → CutPlan: the only place where the kerf moves a path."""

from .drawn import cut_lengths, finished, segments_of
from .estimate import Estimate, estimate, rests_on, say_time
from .paths import CutPath, CutPlan, SheetPlan
from .plan import Alone, alone, plan_cut
from .profile import PLAIN, Layer, Profile, profile_from_json, profile_to_json
from .room import room_to_cut

__all__ = [
    "PLAIN", "Alone", "CutPath", "CutPlan", "Estimate", "Layer", "Profile", "SheetPlan", "alone", "cut_lengths", "estimate", "finished", "plan_cut",
    "profile_from_json", "profile_to_json", "rests_on", "room_to_cut", "say_time", "segments_of",
]  # fmt: skip

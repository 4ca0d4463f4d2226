"""Build + layout + basis → CutPlan: the only place where the kerf moves a path."""

from .plan import OPERATIONS, CutPath, CutPlan, Operation, SheetPlan, plan_cut

__all__ = ["OPERATIONS", "CutPath", "CutPlan", "Operation", "SheetPlan", "plan_cut"]

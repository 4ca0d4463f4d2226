"""The rack and the machines over HTTP."""

from __future__ import annotations

from config.problems import Problem
from django.db.models import QuerySet
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from .actions import put_machine, put_profile, put_stock
from .models import Machine, Profile, Stock
from .schemas import MachineIn, MachineOut, ProfileOut, ProfileValues, StockIn, StockOut

router = Router()


@router.get("/stocks", response=list[StockOut])
def list_stocks(request: HttpRequest) -> QuerySet[Stock]:  # noqa: ARG001
    return Stock.objects.order_by("document__nominal", "name", "id")


@router.post("/stocks", response={201: StockOut, 422: Problem})
def add_stock(request: HttpRequest, given: StockIn) -> Status[Stock]:  # noqa: ARG001
    return Status(201, put_stock(given.document()))


@router.put("/stocks/{stock_id}", response={200: StockOut, 422: Problem, 404: Problem})
def change_stock(request: HttpRequest, stock_id: int, given: StockIn) -> Stock:  # noqa: ARG001
    return put_stock(given.document(), get_object_or_404(Stock, id=stock_id))


@router.get("/machines", response=list[MachineOut])
def list_machines(request: HttpRequest) -> QuerySet[Machine]:  # noqa: ARG001
    return Machine.objects.order_by("name", "id")


@router.post("/machines", response={201: MachineOut, 422: Problem})
def add_machine(request: HttpRequest, given: MachineIn) -> Status[Machine]:  # noqa: ARG001
    return Status(201, put_machine(given.document()))


@router.put("/machines/{machine_id}", response={200: MachineOut, 422: Problem, 404: Problem})
def change_machine(request: HttpRequest, machine_id: int, given: MachineIn) -> Machine:  # noqa: ARG001
    return put_machine(given.document(), get_object_or_404(Machine, id=machine_id))


@router.get("/profiles", response=list[ProfileOut])
def list_profiles(request: HttpRequest) -> QuerySet[Profile]:  # noqa: ARG001
    return Profile.objects.order_by("id")


@router.post("/profiles", response={201: ProfileOut, 422: Problem})
def add_profile(request: HttpRequest, given: ProfileValues) -> Status[Profile]:  # noqa: ARG001
    return Status(201, put_profile(given.model_dump()))


@router.put("/profiles/{profile_id}", response={200: ProfileOut, 422: Problem, 404: Problem})
def change_profile(request: HttpRequest, profile_id: int, given: ProfileValues) -> Profile:  # noqa: ARG001
    return put_profile(given.model_dump(), get_object_or_404(Profile, id=profile_id))

"""Checking somebody's plan over HTTP."""

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import json_of
from fennup.app.schemas.api import Problem
from fennup.app.schemas.plan_check import PlanAsked, PlanChecked, PlanRead, PlanText
from fennup.app.services.plan_check import PlanDesk

api = APIBlueprint("plan_check", __name__, url_prefix="/api", abp_responses={422: Problem})


@api.post("/plan-check/read", responses={200: PlanRead})
def read_plan_text(body: PlanText) -> Response:
    """What a plan's text or table says, and what each line was taken for: to be put right before it is checked."""
    return json_of(PlanDesk(body.start, body.unit).read(body.text))


@api.post("/plan-check", responses={200: PlanChecked})
def check_plan_lines(body: PlanAsked) -> Response:
    """Which figures of a plan cannot all be true, by how much, and what they are."""
    return json_of(PlanDesk(body.start, body.unit).check(body.lines))

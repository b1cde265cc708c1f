"""Which way of testing suits a question."""

from typing import Annotated

from fastapi import APIRouter, Query

from kessik.api.schemas.common import Finite
from kessik.api.schemas.suiting import WaysOut
from kessik.api.views.suiting import ways_out
from kessik.core.planning.suiting import InHand, TestQuestion, Wanted, ways_for

router = APIRouter(tags=["plans"])


@router.get("/ways-of-testing")
def get_ways(
    question: TestQuestion,
    in_hand: Annotated[list[InHand], Query(max_length=20)] = [],  # noqa: B006 - FastAPI copies it
    blades: int = 2,
    wanted_percent: Finite = 20.0,
    hours: Finite | None = None,
) -> WaysOut:
    """The ways of testing that answer a question, with what they cost; nothing is kept."""
    return ways_out(ways_for(Wanted(question, frozenset(in_hand), blades, wanted_percent, hours)))

"""The guided practice over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Wire
from kessik.core.trials.practice import PracticeStepKind


class PracticeOut(Wire):
    """Where the practice stands: its step of so many in words, and where that is done."""

    trial_id: str
    kind: PracticeStepKind
    number: int
    of: int
    title: str
    says: str
    button: str = Field(description="what the virtual bench does next; empty: done by hand")
    path: str = Field(description="the page of the practice where the step is done")
    runs_cut: Annotated[list[int], Field(max_length=2)] = Field(
        default_factory=list,
        description="runs cut by the virtual bench, and of how many, while it cuts",
    )

"""What is refused for its shape is said as a tester would say it."""

from typing import Annotated, Literal

import pytest
from pydantic import BaseModel, Field, ValidationError

from kessik.api.schemas.common import ShortText
from kessik.interchange.fault_words import fault_words


class Jar(BaseModel, extra="forbid"):
    name: ShortText
    lids: int = 1
    depth_mm: Annotated[float, Field(ge=0, le=9, allow_inf_nan=False)] = 0
    of: Literal["glass", "clay"] = "glass"


@pytest.mark.parametrize(
    ("sent", "says"),
    [
        ({}, "this is missing"),
        ({"name": "x" * 201}, "this is longer than 200 characters: shorten it"),
        ({"name": "two\nlines"}, "this has one line: take the line breaks out"),
        ({"name": "x", "lids": "some"}, "this is not a whole number"),
        ({"name": "x", "depth_mm": "deep"}, "this is not a number"),
        ({"name": "x", "depth_mm": -1}, "this has to be 0 or more"),
        ({"name": "x", "of": "tin"}, "this has to be 'glass' or 'clay'"),
        ({"name": "x", "colour": "red"}, "Kessik has no field of this name"),
    ],
)
def test_a_refusal_is_plain(sent, says):
    with pytest.raises(ValidationError) as refused:
        Jar(**sent)
    assert fault_words(refused.value.errors()[0]) == says

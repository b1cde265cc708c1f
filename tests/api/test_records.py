"""Bodies, patches and answers follow the records of the core."""

from dataclasses import dataclass, make_dataclass
from typing import Annotated

import pytest
from pydantic import ValidationError

from kessik.api.schemas.records import Answer, Body, Patch
from kessik.core.records import Day, Within


@dataclass(frozen=True)
class Grain:
    """What a jar holds."""

    size_um: float
    words: str = ""


@dataclass(frozen=True)
class Jar:
    """A record as the core has them."""

    id: str
    name: str
    bought_on: Day = ""
    depth_mm: Annotated[float, Within("position_mm")] | None = None
    grains: Annotated[tuple[Grain, ...], Within("steps")] = ()


class GrainBody(Body[Grain]):
    """A grain as it is sent."""


class JarBody(Body[Jar], without="id"):
    """A jar as it is sent."""


class JarPatch(Patch[Jar], without="id"):
    """A jar to change."""


class JarOut(Answer[Jar]):
    """A jar as it is told."""


def test_what_is_sent_becomes_the_record_and_is_told_as_it_was():
    sent = JarBody(name="fine", bought_on="2026-05-04", grains=[{"size_um": 3}])
    jar = sent.to_core(id="jar-0001")
    assert jar == Jar("jar-0001", "fine", "2026-05-04", None, (Grain(3.0),))
    assert JarOut.showing(jar).model_dump() == {"id": "jar-0001", **sent.model_dump()}


def test_a_field_added_to_the_record_is_taken_changed_and_told():
    later = make_dataclass("Later", [("id", str), ("name", str), ("colour", str, "grey")])
    body = type("LaterBody", (Body[later],), {})
    patch = type("LaterPatch", (Patch[later],), {})
    answer = type("LaterOut", (Answer[later],), {})
    for made in (body, patch, answer):
        assert "colour" in made.model_fields
    assert body(id="x", name="y").to_core().colour == "grey"
    assert patch(colour="red").changes() == {"colour": "red"}


def test_a_patch_says_what_was_sent_and_empties_only_what_may_be_empty():
    assert JarPatch().changes() == {}
    assert JarPatch(depth_mm=None, name=None).changes() == {"depth_mm": None}


@pytest.mark.parametrize(
    ("sent", "says"),
    [
        ({"name": "x" * 201}, "at most 200 characters"),
        ({"name": "x", "bought_on": "2026-02-30"}, "not a day of the calendar"),
        ({"name": "x", "depth_mm": 2001}, "a place of 2001 mm is out of range"),
        ({"name": "x", "grains": [{"size_um": float("inf")}]}, "finite number"),
        ({"name": "x", "colour": "red"}, "Extra inputs are not permitted"),
        ({}, "Field required"),
    ],
)
def test_bounds_come_with_the_record(sent, says):
    with pytest.raises(ValidationError, match=says):
        JarBody(**sent)


def test_a_field_that_the_record_has_no_more_is_said_at_once():
    with pytest.raises(TypeError, match="Jar has no lid"):
        type("LidlessBody", (Body[Jar],), {}, without="lid")

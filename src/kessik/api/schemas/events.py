"""Bench events over the wire: a union by kind, made of the core's classes, one body a kind."""

from datetime import datetime
from typing import Annotated, Any, Union

from pydantic import (
    AfterValidator,
    BeforeValidator,
    Field,
    PlainSerializer,
    WithJsonSchema,
    create_model,
)
from pydantic_core import PydanticCustomError

from kessik.api.schemas.common import Bounded, Finite, Id, LogPosition, Wire
from kessik.core.errors import KessikError
from kessik.core.limits import LIMITS, most
from kessik.core.protocols.events import (
    CLASSES,
    KIND_TYPES,
    SENT_KINDS,
    BenchEvent,
    Payload,
    check_count_at,
    plain_fields,
    read_payload,
    schema_of,
)


def _a_time(text: str) -> str:
    try:
        moment = datetime.fromisoformat(text)
        if moment.tzinfo is not None and LIMITS["year"].holds(moment.year):
            return text
    except ValueError:
        pass
    raise ValueError("give the device's time with its offset, like 2026-05-04T14:30:00+02:00")


def _a_count(count: float) -> float:
    try:
        check_count_at(count)
    except KessikError as wrong:
        raise PydanticCustomError("kessik", "{says}", {"says": wrong.message}) from wrong
    return count


class _Envelope(Wire):
    """What every event carries besides what it says; its id is in the path."""

    device: Id
    device_sequence: Annotated[int, Field(ge=1, le=most("log_position"))]
    last_seen_position: LogPosition
    count_at: Annotated[Finite, Bounded("count"), AfterValidator(_a_count)]
    client_time: Annotated[str, Field(max_length=40), AfterValidator(_a_time)]


def _payload_of(kind: str) -> Any:  # noqa: ANN401 - a type that pydantic builds from
    """The type of a payload: read by the core's class, and described by it."""

    def read(payload: object) -> Payload:
        if not isinstance(payload, dict):
            raise PydanticCustomError(
                "kessik", "{says}", {"says": "what an event says is an object"}
            )
        try:
            return read_payload(kind, payload)
        except KessikError as wrong:
            raise PydanticCustomError(
                "kessik", "{says}", {"says": wrong.message, "field": wrong.field}
            ) from wrong

    schema = {**schema_of(CLASSES[kind]), "title": f"{kind.title().replace('_', '')}Payload"}
    return Annotated[
        Any,
        BeforeValidator(read),
        PlainSerializer(plain_fields, return_type=dict),
        WithJsonSchema(schema),
    ]


def _body_of(kind: str) -> type[_Envelope]:
    """The body of one kind of event; an event that says nothing may come without a payload."""
    needed = "required" in schema_of(CLASSES[kind])
    payload: Any = _payload_of(kind)
    fields: dict[str, Any] = {
        "kind": (KIND_TYPES[kind], ...),
        "payload": (payload, ...) if needed else (payload, Field(default_factory=CLASSES[kind])),
    }
    name = f"{kind.title().replace('_', '')}Event"
    return create_model(name, __base__=_Envelope, __doc__=CLASSES[kind].__doc__, **fields)


_BODIES = tuple(_body_of(kind) for kind in SENT_KINDS)
EventBody = Annotated[Union[_BODIES], Field(discriminator="kind")]  # type: ignore[valid-type]  # noqa: UP007 - a tuple


def event_of(body: Any, event_id: str) -> BenchEvent:  # noqa: ANN401 - one of the bodies made above
    """The event that a body brings."""
    return BenchEvent(
        id=event_id,
        payload=body.payload,
        device=body.device,
        device_sequence=body.device_sequence,
        last_seen_position=body.last_seen_position,
        count_at=body.count_at,
        client_time=body.client_time,
    )


class EventOut(Wire):
    """An event as the log holds it; `not_understood` says why one cannot be read, and `payload` is
    empty then.
    """

    id: str
    position: int
    kind: str
    device: str
    count_at: float
    client_time: str
    payload: dict[str, Any]
    not_understood: str = ""

"""Which way of testing suits a question, over the wire."""

from kessik.api.schemas.common import Wire


class WayOut(Wire):
    """One way of testing: what it shows and does not, what it costs, and what it lacks. `school`
    or `soak` names the method that a trial or a soak begins with.
    """

    name: str
    school: str
    soak: str
    is_partly: bool
    shows: str
    cannot: str
    cost: str
    in_hours: str
    missing: str
    cautions: list[str]


class WaysOut(Wire):
    """The ways that answer a question, those that can be had at once first."""

    says: str
    stand: str
    ways: list[WayOut]

"""Packages and testers over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Id, ShortText, Wire


class TesterOut(Wire):
    """Whoever sent packages, and how many trials came from them."""

    id: str
    name: str
    trials: int


class TestersOut(Wire):
    """Whose folder this is, empty before it was ever said, and who else sent trials."""

    here: str
    others: list[TesterOut]


class TesterBody(Wire):
    """Who sends the packages of this folder."""

    name: Annotated[ShortText, Field(min_length=1)]


class CameTrialOut(Wire):
    """A trial of a package that is here now."""

    id: str
    name: str


class PackageBroughtOut(Wire):
    """What a package brought, in sentences, and its trials."""

    says: list[str]
    trials: list[CameTrialOut]


class BladeQuestionOut(Wire):
    """Two blades that may be one; `is_same` is empty until it was said."""

    one: str
    other: str
    says: str
    facts: str
    nothing_differs: bool
    is_same: bool | None


class SameBladeBody(Wire):
    """The tester's word on two blades."""

    one: Id
    other: Id
    is_same: bool

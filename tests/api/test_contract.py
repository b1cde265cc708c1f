"""The OpenAPI contract, driven by Schemathesis: whatever is sent, never a 500, and answers as declared."""

import schemathesis
from hypothesis import HealthCheck, given, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import response_schema_conformance, status_code_conformance

from kessik.api.app import create_app
from kessik.store.database import Database

CHECKS = [not_a_server_error, status_code_conformance, response_schema_conformance]
BRIEF = settings(
    max_examples=12, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck), database=None
)


class AtHome:
    """The application as a browser on its own machine meets it."""

    def __init__(self, app):
        self.app = app

    async def __call__(self, scope, receive, send):
        await self.app({**scope, "client": ("127.0.0.1", 50000)}, receive, send)


def test_nothing_sent_makes_the_server_fail(tmp_path):
    app = AtHome(create_app(Database(tmp_path)))
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", app, headers={"host": "localhost"})
    asked = schema.exclude(path_regex=r"/follow$")  # a stream has no end to wait for; it has tests of its own
    operations = [found.ok() for found in asked.get_all_operations()]
    assert len(operations) >= 14, "the checker saw the contract"
    for operation in operations:

        @BRIEF
        @given(case=operation.as_strategy())
        def send(case):
            case.call_and_validate(checks=CHECKS, headers={"host": "localhost"})

        send()

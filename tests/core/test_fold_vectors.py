"""The vectors that the bench counts by as well: both sides say the same of a log."""

import json
from pathlib import Path

import pytest

from kessik.core.protocols.counting import amount_of
from kessik.core.protocols.events import BenchEvent, read_payload
from kessik.core.protocols.folding import fold
from kessik.core.protocols.methods import force_limit_rope

VECTORS = json.loads((Path(__file__).parent.parent / "vectors" / "fold.json").read_text())


def logged(events):
    return [
        BenchEvent(
            each["id"],
            read_payload(each["kind"], each["payload"]),
            each["device"],
            number,
            number - 1,
            each["count_at"],
            each["client_time"],
            number,
        )
        for number, each in enumerate(events, 1)
    ]


@pytest.mark.parametrize("vector", VECTORS, ids=lambda vector: vector["name"])
def test_a_log_folds_to_what_the_bench_shows_before_it_is_sent(vector):
    known = fold(logged(vector["before"]), force_limit_rope())
    proposed = [{"event_id": e.id, "device": e.device, "amount": 1} for e in known.proposals]
    told = {"count": known.count, "holder": known.holder, "proposals": proposed}
    assert told.items() <= vector["known"].items()
    state = fold(logged(vector["before"] + vector["unsent"]), force_limit_rope())
    assert {
        "count": state.count,
        "holds": state.holder in (None, "phone"),
        "proposed": sum(amount_of(e) for e in state.proposals),
        "paused": state.status == "paused",
        "readings": [[c.check.count, c.check.force_gf] for c in state.checks if not c.check.struck],
    } == vector["expects"]

"""Events that no log of ours would hold."""

import json

HUGE = int("9" * 400)


NESTED = json.loads("[" * 260 + "]" * 260)


ODD = [
    ("reading", {"check": ["force"], "value": 180}, "check"),
    ("reading", {"check": {"a": 1}, "value": 180}, "check"),
    ("reading", {"check": "smell", "value": 180}, "check"),
    ("reading", {"check": "force", "value": 180, "stage": ["keen"]}, "stage"),
    ("reading", {"check": "force", "value": 180, "stage": "blunt"}, "stage"),
    ("reading", {"check": "force", "value": HUGE}, "value"),
    ("reading", {"check": "dose_end", "value": 1e300}, "value"),
    ("reading", {"check": "rank", "value": 500}, "value"),
    ("reading", {"check": "depth", "value": 5000}, "value"),
    ("reading", {"check": "force", "value": 180, "unit": "N"}, "unit"),
    ("reading", {"check": "force", "value": 180, "extra_key": [1, 2]}, "extra_key"),
    ("outcome", {"outcome": "pass"}, "check"),
    ("outcome", {"check": "paper", "outcome": ["pass"]}, "outcome"),
    ("note", {"text": NESTED}, "text"),
    ("note", {"text": "\ud800"}, "text"),
    ("note", {"text": "nul\x00"}, "text"),
    ("cut", {"amount": HUGE}, "amount"),
    ("correction", {"target": "x" * 8, "becomes": 7}, "becomes"),
    ("accept", {"targets": [["x"]]}, "targets"),
    ("pause", {"why": [1]}, "why"),
]  # fmt: skip  # a table is read by its rows


UNREADABLE = [
    *(
        (kind, json.dumps(payload))
        for kind, payload, field in ODD
        if field not in ("stage", "extra_key", "why")
    ),
    ("reading", "no JSON at all"),
    ("sharpen", "{}"),
    ("note", "[1]"),
]

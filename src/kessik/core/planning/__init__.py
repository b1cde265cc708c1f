"""What to do next and what it will cost: adaptive checks."""

__all__ = [
    "adaptive",
    "bench_card",
    "budget",
    "calendar",
    "expected",
    "one_blade",
    "order",
    "played",
    "power",
    "reasons",
    "rehearsal",
    "resting",
    "schedule",
    "starting_life",
    "suiting",
]

"""How a run goes: methods, stop rules, and the run's state as a pure fold over its bench log."""

__all__ = [
    "admission",
    "checks",
    "corrections",
    "counting",
    "entries",
    "events",
    "folding",
    "joined_stages",
    "methods",
    "pace",
    "reading_gate",
    "run_state",
    "schools",
    "series",
    "stop_rules",
    "unlike_methods",
]

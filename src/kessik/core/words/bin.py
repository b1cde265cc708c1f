"""What goes with a thing that is deleted, in words."""

from collections.abc import Mapping, Sequence

from kessik.core.bin import Held

_HELD: Mapping[Held, tuple[str, str]] = {
    "event": ("event", "events"),
    "run": ("run", "runs"),
    "edge": ("edge", "edges"),
    "measurement": ("measurement", "measurements"),
    "place": ("place in a trial", "places in a trial"),
    "soak": (
        "soak, which keeps the coupon without the blade",
        "soaks, which keep the coupon without the blade",
    ),
    "coupon": ("coupon", "coupons"),
    "look": ("look", "looks"),
    "staying_blade": ("blade in it stays on the shelf", "blades in it stay on the shelf"),
    "run_of_lot": (
        "run used it and would no longer name its lot",
        "runs used it and would no longer name their lot",
    ),
}


def held_words(held: Sequence[tuple[Held, int]]) -> list[str]:
    """What goes with a thing, each kind with its number; what there is none of is not named."""
    return [f"{number} {_HELD[what][number != 1]}" for what, number in held if number]


def run_name(trial: str, number: int, edge: tuple[str, int] | None) -> str:
    """A run by the code of its blade and its edge, None while they are covered or not known."""
    if edge is None:
        return f"a run in {trial}"
    return f"{edge[0]}, edge {edge[1]}, run {number} in {trial}"

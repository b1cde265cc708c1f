"""Played plans, for the wire."""

from kessik.api.schemas.played import PlayedOut, PlayedPairOut, PlayedVerdictOut
from kessik.core.planning.played import PairTally, PlayedPair
from kessik.core.words.played import played_words
from kessik.services.practice.played import Played


def played_out(play_id: str, played: Played) -> PlayedOut:
    """A played plan, pair by pair."""
    return PlayedOut(
        id=play_id,
        trials=len(played.trials),
        says=played_words(played.pairs, played.expected),
        pairs=[
            _pair(pair, share, played)
            for pair, share in zip(played.pairs, played.expected, strict=True)
        ],
    )


def _pair(pair: PairTally, share: float, played: Played) -> PlayedPairOut:
    verdicts = [
        _verdict(trial.number, found, turned=found.a != pair.a)
        for trial in played.trials
        for found in trial.pairs
        if {found.a, found.b} == {pair.a, pair.b}
    ]
    return PlayedPairOut.showing(
        pair, percent=_percent(pair.true_ratio), expected=100 * share, verdicts=verdicts
    )


def _verdict(number: int, found: PlayedPair, turned: bool) -> PlayedVerdictOut:
    low, high = found.low, found.high
    ratio = found.ratio
    if turned:
        ratio = 1 / ratio if ratio else None
        low, high = (1 / high if high else None), (1 / low if low else None)
    return PlayedVerdictOut(
        number=number,
        percent=_percent(ratio),
        low=_percent(low),
        high=_percent(high),
        outcome=found.outcome,
    )


def _percent(ratio: float | None) -> float | None:
    return None if ratio is None else 100 * (ratio - 1)

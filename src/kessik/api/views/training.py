"""The trainers, for the wire."""

from collections.abc import Sequence
from typing import Any

from kessik.api.schemas.training import (
    CallBladeOut,
    CalledLifeOut,
    GradeBiasOut,
    JudgedOut,
    OptionOut,
    PointOut,
    SessionOut,
    TapOut,
    TrainerOut,
    TrainingRecordOut,
    TrainingRoundOut,
)
from kessik.core.training.rounds import (
    ROUNDS,
    TRAINERS,
    CallRound,
    CountRound,
    ForeseeRound,
    JudgedAnswer,
    RustRound,
    SteelRound,
    TrainerKind,
    TrainingRound,
    UnfairRound,
)
from kessik.core.words.training import (
    INTERRUPTIONS,
    NAMES,
    TEACHES,
    agreed_words,
    asks_words,
    eye_words,
    option_words,
    score_words,
    truth_words,
    variable_labels,
)
from kessik.services.training.sessions import ScoredSession, TrainingRecord


def round_out(kind: TrainerKind, number: int, asked: TrainingRound) -> TrainingRoundOut:
    """What a round asks."""
    nothing: dict[str, Any] = {
        "taps": [],
        "readings": [],
        "limit_gf": None,
        "has_picture": isinstance(asked, RustRound),
        "blades": [],
        "heads": [],
        "rows": [],
    }
    return TrainingRoundOut(
        kind=kind,
        number=number,
        of=ROUNDS,
        asks=asks_words(asked),
        options=[OptionOut(key=key, says=says) for key, says in option_words(asked)],
        **{**nothing, **_shown(asked)},
    )


def _shown(asked: TrainingRound) -> dict[str, Any]:
    match asked:
        case CountRound():
            return {"taps": [TapOut.showing(tap, words=_tap_words(tap)) for tap in asked.taps]}
        case ForeseeRound():
            return {"readings": _points(asked.readings), "limit_gf": asked.limit_gf}
        case CallRound():
            return {
                "blades": [
                    CallBladeOut(name=code, lives=[_life(life) for life in lives])
                    for code, lives in asked.lives.items()
                ]
            }
        case UnfairRound():
            labels = variable_labels(list(asked.values))
            return {
                "heads": ["blade", *asked.blades],
                "rows": [
                    [label, *(f"{value:g}" for value in values)]
                    for label, values in zip(labels, asked.values.values(), strict=True)
                ],
            }
        case SteelRound():
            return _steel(asked)
    return {}


def _life(life: tuple[float, float, float]) -> CalledLifeOut:
    low, estimate, high = life
    return CalledLifeOut(low=low, estimate=estimate, high=high)


def _steel(asked: SteelRound) -> dict[str, Any]:
    read = {symbol: f"{percent:.3g} ± {error:.2g}" for symbol, percent, error in asked.readings}
    wanted = {symbol: _range(low, high) for symbol, low, high in asked.ranges}
    symbols = list(dict.fromkeys([*wanted, *read]))
    return {
        "heads": ["mass per cent", "read", asked.claim],
        "rows": [
            [symbol, read.get(symbol, "not seen"), wanted.get(symbol, "no range")]
            for symbol in symbols
        ],
    }


def _range(low: float | None, high: float | None) -> str:
    if low is None:
        return f"up to {high:g}" if high is not None else ""
    return f"from {low:g}" if high is None else f"{low:g} to {high:g}"


def _tap_words(tap: object) -> str:
    place = getattr(tap, "place", 0)
    return INTERRUPTIONS[place] if getattr(tap, "kind", "") == "interruption" else ""


def _points(pairs: Sequence[tuple[float, float]]) -> list[PointOut]:
    return [PointOut(count=count, gf=gf) for count, gf in pairs]


def judged_out(asked: TrainingRound, judged: JudgedAnswer) -> JudgedOut:
    """How an answer was, with the truth."""
    later = _points(asked.later) if isinstance(asked, ForeseeRound) else []
    return JudgedOut(is_right=judged.is_right, says=truth_words(asked), later=later)


def session_out(kind: TrainerKind, scored: ScoredSession) -> SessionOut:
    """A session in one line."""
    return SessionOut.showing(
        scored.score,
        id=scored.training.id,
        made_utc=scored.training.made.utc,
        says=score_words(kind, scored.score),
    )


def training_record_out(record: TrainingRecord) -> TrainingRecordOut:
    """All trainers with their sessions, and what the eye has learned."""
    return TrainingRecordOut(
        trainers=[
            TrainerOut(
                kind=kind,
                name=NAMES[kind],
                teaches=TEACHES[kind],
                sessions=[session_out(kind, each) for each in record.sessions[kind]],
            )
            for kind in TRAINERS
        ],
        eye=eye_words(record.eye),
        by_grade=[GradeBiasOut.showing(row) for row in record.eye.by_grade],
        can_agree=record.eye.error is not None,
        has_agreed=record.agreed is not None,
        agreed=agreed_words(record.agreed),
    )

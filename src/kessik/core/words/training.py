"""The trainers in words: what a round asks, its options, and what the truth was."""

from collections.abc import Sequence

from kessik.core.comparison.variables import BY_NAME
from kessik.core.corrosion.ratings import most_percent
from kessik.core.training.rounds import (
    FAIR,
    STANDARD,
    CallRound,
    CountRound,
    ForeseeRound,
    RustRound,
    SteelRound,
    TrainerKind,
    TrainingRound,
    UnfairRound,
)
from kessik.core.training.scores import LearnedEye, RaterError, SessionScore
from kessik.core.words.sentences import listed

NAMES: dict[TrainerKind, str] = {
    "count": "Count",
    "foresee": "Foresee",
    "rust": "Read rust",
    "call": "Call it",
    "unfair": "Spot the unfair pair",
    "steel": "Name the steel",
}
TEACHES: dict[TrainerKind, str] = {
    "count": "Keep the count through interruptions.",
    "foresee": "Say where dull will come, from the first readings.",
    "rust": "Grade rusted area at a glance, 0 to 10.",
    "call": "Same or different? Learn what two edges can show.",
    "unfair": "Find the one value that spoils a comparison.",
    "steel": "Does the analyser bear the claim out?",
}
INTERRUPTIONS = (
    "The phone: when are you home?",
    "A neighbour: is that the good rope?",
    "The kettle has boiled.",
    "How many edges are left?",
    "What is 7 plus 8?",
    "The lamp flickers.",
)


def asks_words(asked: TrainingRound) -> str:
    """What a round asks."""
    match asked:
        case CountRound():
            return "How many cuts were counted? A spoiled cut does not count."
        case ForeseeRound():
            return f"After how many cuts does this edge pass {asked.limit_gf:g} gf?"
        case RustRound():
            return "How much of this side is rusted? Press its grade (ISO 10289)."
        case CallRound():
            return "Which lasts longer: A, B, or do these edges not tell them apart?"
        case UnfairRound():
            return "The question is the steel. Which variable makes this line-up unfair?"
        case SteelRound():
            return f"Sold as {asked.claim}. What do the readings say of that?"


def option_words(asked: TrainingRound) -> list[tuple[str, str]]:
    """The keys of a round with what each says; none where a number is typed."""
    match asked:
        case RustRound():
            return [(str(grade), _upto(grade)) for grade in range(9, -1, -1)]
        case CallRound():
            return [("a", "A lasts longer"), ("b", "B lasts longer"), ("n", "not told apart")]
        case UnfairRound():
            named = [(str(n), BY_NAME[name].label) for n, name in enumerate(asked.values, 1)]
            return [*named, (FAIR, "none: it is fair")]
        case SteelRound():
            return [
                ("1", "they fit the claim alone"),
                ("2", "they fit the claim and another grade"),
                ("3", "they exclude the claim"),
            ]
    return []


def _upto(grade: int) -> str:
    most = most_percent(STANDARD, grade)
    return f"up to {most:g} %" if grade else "more than 50 %"


def truth_words(asked: TrainingRound) -> str:
    """What the truth was, and why."""
    match asked:
        case CountRound():
            return f"{asked.cuts} cuts."
        case ForeseeRound():
            low, middle, high = asked.forecast
            return (
                f"It passed after {asked.life:.0f} cuts. Kessik foresaw {middle:.0f}, 80 % between"
                f" {low:.0f} and {high:.0f}."
            )
        case RustRound():
            return f"Grade {asked.grade}: {asked.rust_percent:.2g} % is rusted."
        case CallRound():
            return _call_words(asked)
        case UnfairRound():
            if asked.planted is None:
                return "It is fair: every value lies within its tolerance."
            variable = BY_NAME[asked.planted]
            return f"{asked.odd_blade} differs in {variable.label} by more than the tolerance."
        case SteelRound():
            return _steel_words(asked)


def _call_words(asked: CallRound) -> str:
    said = {
        "a": "A lasts longer",
        "b": "B lasts longer",
        "n": "the interval holds 1, so they are not told apart",
    }[asked.supported]
    truth = (
        "they were made alike"
        if asked.true_ratio == 1
        else f"B was made to last {asked.true_ratio:.2f} times as long as A"
    )
    return f"B/A is {asked.low:.2f} to {asked.high:.2f}: {said}. In truth {truth}."


def _steel_words(asked: SteelRound) -> str:
    others = listed(asked.fitting[:3])
    match asked.standing:
        case "consistent":
            return f"It is {asked.truly}, and no other grade fits."
        case "undecidable":
            also = f": {others} fits as well" if others else ""
            return f"It is {asked.truly}, but an analyser cannot tell{also}."
    fits = f"; {others} fits" if others else ""
    return f"It is {asked.truly}, not {asked.claim}{fits}."


def score_words(kind: TrainerKind, score: SessionScore) -> str:
    """A session's score."""
    said = f"{score.right} of {score.of} right"
    if score.typical_off is None:
        return said
    off = {
        "count": f"typically {score.typical_off:.1f} cuts off",
        "foresee": f"typically {100 * score.typical_off:.0f} % off",
        "rust": f"typically {score.typical_off:.1f} grades off",
    }[kind]
    return f"{said}, {off}"


def eye_words(eye: LearnedEye) -> str:
    """What the graded pictures say of the rater."""
    if eye.error is None:
        graded = sum(row.rounds for row in eye.by_grade)
        return f"{graded} pictures graded; after 20 your own error is offered for your soaks."
    return f"From {eye.error.rounds} pictures: {_error_words(eye.error)}."


def agreed_words(agreed: RaterError | None) -> str:
    """Which error soaks reckon with."""
    if agreed is None:
        return "Soaks reckon with the usual error of a rating, 0.7 grades (common practice)."
    return f"Soaks reckon with your error, {agreed.points:.1f} grades."


def _error_words(error: RaterError) -> str:
    size = abs(error.bias_points)
    side = "good" if error.bias_points > 0 else "bad"
    bias = f"on average {size:.1f} grades too {side}" if size >= 0.05 else "right on average"
    return f"you grade {bias}, and single grades scatter by {error.points:.1f}"


def variable_labels(names: Sequence[str]) -> list[str]:
    """Heads of a line-up's columns, with unit and tolerance."""
    found = []
    for name in names:
        variable = BY_NAME[name]
        unit = "%" if variable.kind == "relative" else variable.unit
        found.append(f"{variable.label}, {variable.unit} (±{variable.tolerance:g} {unit})")
    return found

"""Played plans in words."""

from collections.abc import Sequence

from kessik.core.planning.played import PairTally

_A_FACTOR = 4.0


def played_words(pairs: Sequence[PairTally], expected: Sequence[float]) -> list[str]:
    """What playing a plan showed, against what the plan itself expects."""
    found = []
    apart = [pair for pair in pairs if not pair.are_alike]
    alike = [pair for pair in pairs if pair.are_alike]
    if apart:
        found.append(_apart_words(apart))
    if alike:
        named = sum(pair.wrong for pair in alike)
        of = sum(pair.trials for pair in alike)
        found.append(
            f"Blades stated alike were named longer or shorter in {named} of {of} verdicts."
        )
    far = [
        (pair, share)
        for pair, share in zip(pairs, expected, strict=True)
        if not pair.are_alike and abs(pair.right / pair.trials - share) > _doubt(pair, share)
    ]
    if far:
        pair, share = max(far, key=lambda each: abs(each[0].right / each[0].trials - each[1]))
        found.append(
            f"The plan expects {pair.a} and {pair.b} to be told apart in {100 * share:.0f} of 100;"
            f" played, it was {pair.right} of {pair.trials}."
        )
    return found


def _apart_words(pairs: Sequence[PairTally]) -> str:
    hardest = min(pairs, key=lambda pair: pair.right)
    wrong = sum(pair.wrong for pair in pairs)
    trials = hardest.trials
    words = (
        f"{hardest.a} and {hardest.b}, {apart_words(hardest.true_ratio)} apart, were told apart"
        f" in {hardest.right} of {trials} trials"
    )
    if hardest.silent:
        words = f"{words}; in {hardest.silent} the verdict stayed silent"
    if len(pairs) > 1:
        words = f"Hardest pair: {words}"
    wrongly = {0: "no verdict was wrong", 1: "1 verdict in all was wrong"}.get(
        wrong, f"{wrong} verdicts in all were wrong"
    )
    return f"{words}, and {wrongly}."


def apart_words(ratio: float) -> str:
    """How far two lives lie apart, on the shorter."""
    more = max(ratio, 1 / ratio)
    return f"{100 * (more - 1):.0f} %" if more < _A_FACTOR else f"a factor of {more:.3g}"


def _doubt(pair: PairTally, share: float) -> float:
    """What a share of so many trials differs from its expectation by chance and by the plan's own
    rounding: two standard errors and a tenth.
    """
    return 2.0 * float((share * (1 - share) / pair.trials) ** 0.5) + 0.1

"""A gauge study in sentences: what it means for the next reading, and what it cannot say."""

import math
from collections.abc import Mapping

from kessik.core.gauge.kept import GaugeDrift, KeptStudy, repeats_of_lives, scatter_percent
from kessik.core.gauge.study import Component, GaugeStudy
from kessik.core.spreads import Z_95
from kessik.core.words.sentences import counted

_NAMES: Mapping[Component, str] = {
    "repeatability": "repeatability",
    "operator": "operators",
    "interaction": "operators by part",
    "part": "parts",
}
_FEW = 5


def component_name(name: Component) -> str:
    """A component by its plain name."""
    return _NAMES[name]


def gauge_sentences(found: GaugeStudy, unit: str) -> list[str]:
    """What two readings may differ by, what more of them would bring, and how the gauge stands
    beside the parts.
    """
    one = Z_95 * math.sqrt(2.0 * found.components["repeatability"])
    both = Z_95 * math.sqrt(2.0 * found.grr)
    told = [
        f"Two readings of one part by one operator differ by up to {_value(one, unit)} in 95 of"
        f" 100; means of three by {_value(one / math.sqrt(3.0), unit)}."
    ]
    if found.operators > 1:
        told.append(f"By two operators they differ by up to {_value(both, unit)}.")
    if found.percent_study is not None and "part" not in found.unseen:
        told.append(
            f"The gauge makes up {found.percent_study:.3g} % of the spread of all readings, and"
            f" {found.percent_contribution:.3g} % of their variance."
        )
    if found.distinct is not None:
        told.append(f"It tells {counted(found.distinct, 'kind')} of parts apart.")
    return told


def drift_words(found: GaugeDrift, kept: KeptStudy) -> str:
    """How repeatability changed since the last study."""
    now = math.sqrt(kept.found.components["repeatability"])
    then = now / found.ratio
    change = f"{_value(then, kept.unit)} on {found.since.utc[:10]}, {_value(now, kept.unit)} now"
    if not found.is_real:
        return f"Repeatability, as a standard deviation: {change}: no more than chance."
    worse = "worse" if found.ratio > 1 else "better"
    return f"Repeatability, as a standard deviation: {change}: it became {worse}."


def use_words(kept: KeptStudy) -> str:
    """What plans and lives take from a study."""
    if kept.measures == "force":
        return f"readings scatter by {scatter_percent(kept):g} %"
    if kept.measures == "lives":
        repeats = sum(len(lives) - 1 for lives in repeats_of_lives(kept))
        return f"edge-to-edge spread from {counted(repeats, 'repeat')}"
    return ""


def study_words(kept: KeptStudy) -> str:
    """Which study it is, and what is taken from it."""
    return f"{kept.instrument}, studied on {kept.made.utc[:10]}: {use_words(kept)}"


def gauge_notes(found: GaugeStudy) -> list[str]:
    """What was pooled, set to nothing, or cannot be told."""
    told = []
    test = found.interaction
    if test.pooled:
        why = f" (p {test.p:.2f})" if test.p is not None else ""
        told.append(f"operators by part is no more than chance{why}: counted as repeatability")
    told += [f"{_NAMES[name]}: the estimate was below 0 and is 0" for name in found.negative]
    if "operator" in found.unseen:
        told.append("one operator: what operators add cannot be told")
    if "part" in found.unseen:
        told.append("one part: how the gauge stands beside parts cannot be told")
    if not found.is_balanced:
        told.append("not every part was read equally often by everyone")
    if found.parts and found.parts < _FEW and "part" not in found.unseen:
        told.append(f"{counted(found.parts, 'part')}: five or more would tell how parts differ")
    told += [f"reading {at + 1} lies far from the others of its part" for at in found.far_off]
    return told


def _value(value: float, unit: str) -> str:
    return f"{value:.3g} {unit}".strip()

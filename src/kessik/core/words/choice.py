"""A choice in sentences: who is first and how sure, what flips it, and what a gain is worth."""

from collections.abc import Mapping, Sequence

from kessik.core.choice.axes import BY_KEY, AxisKey, Choosable, Figure
from kessik.core.choice.decision import Bargain, Decision, Flip, Missing, Standing
from kessik.core.sharpening.reangling import Reangling
from kessik.core.units import format_interval, format_to_uncertainty
from kessik.core.words.sentences import listed

Names = Mapping[str, str]


def choice_headline(decision: Decision, names: Names, use: str) -> str:
    """Who comes first for a use, and who may as well."""
    if not decision.ranked:
        return f"{use}: nothing that is weighed is known of any blade yet."
    first = names[decision.ranked[0].id]
    close = [names[each.id] for each in decision.ranked[1:] if each.is_within_doubt]
    if not close:
        return f"{use}: {first}."
    if len(close) > 3:
        return f"{use}: {first}, but {len(close)} others may do as well."
    return f"{use}: {first}; {listed(close)} may do as well."


def figure_words(figure: Figure) -> str:
    """A value with its interval and unit."""
    unit = f" {figure.unit}" if figure.unit else ""
    if figure.low == figure.high:
        return f"{figure.value:g}{unit}"
    if figure.unit == "%":
        return f"{figure.value:.2g} %, {figure.low:.2g} to {figure.high:.2g}"
    value = format_to_uncertainty(figure.value, figure.low, figure.high)
    return f"{value}{unit}, {format_interval(figure.low, figure.high)}"


def standing_sentence(standing: Standing, names: Names) -> str:
    """What is to be said of a blade's place beside its figures."""
    if standing.beaten_by:
        by = names[standing.beaten_by]
        surely = "" if standing.is_beaten_surely else ", as far as can be told"
        return f"{by} is at least as good in everything that is weighed{surely}"
    if standing.is_within_doubt:
        return f"may be first: {100 * standing.chance:.0f} in 100"
    return ""


def missing_sentence(missing: Missing, names: Names) -> str:
    """What is not known, and what it would have to be."""
    unknown = listed([BY_KEY[key].label for key in missing.unknown])
    verb = "is" if len(missing.unknown) == 1 else "are"
    said = f"{names[missing.id]}: {unknown} {verb} not known"
    if missing.needed is None or len(missing.unknown) != 1:
        return said
    axis = BY_KEY[missing.unknown[0]]
    if missing.needed < 0:
        return f"{said}; it would not come first even with none"
    bound = "more" if axis.more_is_better else "less"
    return f"{said}; it would come first with {bound} than {missing.needed:.3g}"


def flip_sentence(flip: Flip, names: Names) -> str:
    """At which weight another comes first."""
    way = "more" if flip.upwards else "less"
    label = BY_KEY[flip.axis].label
    return f"{names[flip.id]} comes first once {label} weighs {way} than {flip.weight:.1f}."


def not_compared_sentences(priced: Sequence[str], tested: Sequence[str]) -> list[str]:
    """What is known and still not weighed, being on another scale than the rest."""
    told = []
    if priced:
        told.append(f"Priced in another currency, and not compared: {listed(priced)}.")
    if tested:
        told.append(f"Toughness by another test, and not compared: {listed(tested)}.")
    return told


def bargain_sentence(bargain: Bargain | None, found: Mapping[str, Choosable]) -> str:
    """Whether what the first has over the second is worth its price, in the tester's own units."""
    if bargain is None:
        return ""
    first, second = found[bargain.first], found[bargain.second]
    gains = [
        _gain(key, gain, first, second)
        for key, gain in bargain.gains.items()
        if key != "price" and abs(gain - 1.0) > 0.005
    ]
    told = f"{first.name} beside {second.name}: {listed(gains) if gains else 'nothing else'}"
    if bargain.price_ratio is None or bargain.worth is None:
        return f"{told}."
    if bargain.worth <= 1.0:
        return f"{told}; it costs {_times(bargain.price_ratio)}."
    return (
        f"{told}; it costs {_times(bargain.price_ratio)}. At these weights it would be worth"
        f" {_times(bargain.worth)}."
    )


def _gain(key: AxisKey, gain: float, first: Choosable, second: Choosable) -> str:
    """What one has over the other on an axis."""
    axis = BY_KEY[key]
    if axis.from_nothing:
        here, there = first.figures[key], second.figures[key]
        return (
            f"{axis.label} {here.value:.2g} {here.unit} instead of {there.value:.2g} {there.unit}"
        )
    ratio = gain if axis.more_is_better else 1.0 / gain
    return f"{axis.label} {_times(ratio)}"


def _times(ratio: float) -> str:
    """A ratio as a tester says it."""
    if ratio >= 1.995:
        return f"{ratio:.2g} times as much"
    if ratio >= 1.0:
        return f"{100 * (ratio - 1.0):.0f} % more"
    return f"{100 * (1.0 - ratio):.0f} % less"


def reangling_words(found: Reangling, from_side_deg: float) -> str:
    """What re-angling takes, beside a usual sharpening."""
    if found.steel_mm2 < 1e-4:
        return f"{2 * from_side_deg:.3g}° already"
    said = f"{found.steel_mm2:.2g} mm² of steel for each mm of edge"
    if found.apex_back_mm > 0:
        said += f", the apex {found.apex_back_mm:.2g} mm back"
    if found.sharpenings is not None:
        said += f", as much as {found.sharpenings:.2g} usual sharpenings"
    return said

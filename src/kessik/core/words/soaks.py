"""Soaks in words: what was answered, why no more can be said, and what stands against a picture."""

from collections.abc import Mapping, Sequence

from kessik.core.corrosion.answer import SoakAnswer, Validity
from kessik.core.corrosion.course import Bounds, FirstRust
from kessik.core.corrosion.fairness import NAMES, FairnessCheck
from kessik.core.corrosion.levels import LevelPair
from kessik.core.corrosion.photo.area import Doubt
from kessik.core.corrosion.places import SharedPlaces
from kessik.core.corrosion.ratings import Rating, Standard
from kessik.core.corrosion.soaks import Coupon, Soak
from kessik.core.vocabulary import DISCOLOURATIONS, INSPECTION_STAGES
from kessik.core.words.matching import and_words
from kessik.core.words.performance import caveat_words
from kessik.core.words.sentences import as_sentence, counted

DEED_WORDS = {
    "look": "look", "end": "end", "sprayed": "spray with brine", "sprayed_fresh":
    "spray with fresh water", "wiped_on": "wipe brine on", "film_broken": "break the film",
    "topped_up": "top up with plain water", "turned": "turn over", "dampened": "dampen the cloth",
}  # fmt: skip
DOUBT_WORDS: dict[Doubt, str] = {
    "too_fine": "The spots are too fine to be measured here: move closer, or count them.",
    "dark_steel": "The steel is too dark for its colour to be told from rust: mark the rust with"
    " the brush.",
    "black": "There are dark places without colour: black rust, an etched mark or a pit in"
    " shadow. Leave marks out, or mark it with the brush; they count in the upper bound only.",
    "tint": "Part of the steel is tinted without a border: straw, oil or a warm reflection. It is"
    " not counted as rust.",
    "salt": "There are light grains on the steel: rust may lie under a crust of salt. Rinse and"
    " look again.",
    "burnt": "Part of the blade blinded the camera: turn the light, and repeat it.",
    "small": "The blade is small in this picture: move closer.",
    "no_card": "No white card was pointed out, so colours lean on the steel being grey.",
    "wide_mask": "The mask reaches past the blade; what looks like the ground was left out."
    " Move it.",
}  # fmt: skip


def percent_words(value: float) -> str:
    """An area with honest digits."""
    if value < 0.005:
        return "0"
    return f"{value:.2f}" if value < 1 else f"{value:.1f}" if value < 20 else f"{value:.0f}"


def area_words(area: Bounds) -> str:
    """An area with its bounds, once."""
    low, high = percent_words(area.low), percent_words(area.high)
    if low == high:
        return f"{low} %"
    span = f"{low} to {high} %"
    return span if area.best is None else f"{percent_words(area.best)} %, {span}"


def hours_words(hours: float) -> str:
    """Hours of a soak, in days from three on."""
    if hours < 1:
        return f"{60 * hours:.0f} min"
    if hours < 10:
        whole, minutes = divmod(round(60 * hours), 60)
        return f"{whole} h {minutes} min" if minutes else f"{whole} h"
    if hours < 72:
        return f"{hours:.0f} h"
    days = hours / 24
    return f"{days:.3g} days"


def soak_headline(soak: Soak, answer: SoakAnswer, names: Mapping[str, str]) -> str:
    """The answer in a sentence or two."""
    if soak.method.scale == "discolouration":
        return _discoloured(answer, names)
    standings = {s.coupon_id: s for s in answer.ranking.standings}
    if not standings:
        return "Nothing has been looked at yet."
    severity = answer.validity.severity
    if severity == "not_enough":
        why = validity_words(answer.validity, names)
        return f"Not severe enough to tell: {why} Nothing is ranked."
    if len(standings) == 1:
        only = next(iter(standings.values()))
        return f"{as_sentence(names[only.coupon_id])}: {area_words(only.area)} rusted."
    clean = [names[i] for i, s in standings.items() if s.is_clean]
    if answer.levels and len(clean) < len(standings):
        return levels_words(answer.levels, soak.factor)
    places = [[names[i] for i in place] for place in answer.ranking.places]
    if len(clean) == len(standings):
        return f"None of the {len(clean)} rusted in {hours_words(answer.hours)}."
    if len(places) == 1:
        return f"{and_words(places[0])} are tied: this soak cannot tell them apart."
    said = f"Least rust first: {order_words(answer, names)}."
    if clean:
        said += f" {as_sentence(and_words(clean))} did not rust."
    return said


_WITHOUT = {
    "oil": "dry", "coating": "uncoated", "polished_before": "as it was", "exposed_before": "new",
    "flat_finish": "unknown finish", "degreased_with": "not degreased",
}  # fmt: skip


def level_words(pair: LevelPair, factor: str) -> str:
    """What one level of the factor did beside another."""
    first, second = level_name(pair.first, factor), level_name(pair.second, factor)
    pairs = f"{pair.apart} of {pair.pairs} pairs"
    if pair.apart == pair.pairs:
        pairs = {1: "the one pair", 2: "both pairs"}.get(pair.pairs, f"all {pair.pairs} pairs")
    match pair.told:
        case "less":
            return f"{as_sentence(first)} rusted less than {second}, told apart on {pairs}."
        case "more":
            return f"{as_sentence(second)} rusted less than {first}, told apart on {pairs}."
        case "mixed":
            return f"{as_sentence(first)} against {second}: one way here and the other there."
    return f"{as_sentence(first)} and {second} cannot be told apart by this soak."


def levels_words(pairs: Sequence[LevelPair], factor: str) -> str:
    """What the levels of the factor did: in one row where they have an order, else pair by pair."""
    levels = list(dict.fromkeys([level for p in pairs for level in (p.first, p.second)]))
    better = dict.fromkeys(levels, 0)
    for pair in pairs:
        if pair.told in ("less", "more"):
            better[pair.first if pair.told == "less" else pair.second] += 1
    is_row = sorted(better.values()) == list(range(len(levels)))
    if len(levels) < 3 or not is_row:
        return " ".join(level_words(pair, factor) for pair in pairs[:3])
    row = sorted(levels, key=lambda level: -better[level])
    names = [level_name(level, factor) for level in row]
    of = max(pair.pairs for pair in pairs)
    on = {1: "one coupon of each", 2: "both coupons of each"}.get(of, f"up to {of} coupons of each")
    return f"Least rust first: {', then '.join(names)}, by {on}."


def level_name(level: str, factor: str) -> str:
    """A level of the factor as it is called."""
    if not level:
        return _WITHOUT[factor]
    return f"oiled with {level}" if factor == "oil" else level


def order_words(answer: SoakAnswer, names: Mapping[str, str]) -> str:
    """All coupons in order, those that share a place together."""
    places = [[names[i] for i in place] for place in answer.ranking.places]
    return ", then ".join(
        f"{and_words(place)} together" if len(place) > 1 else place[0] for place in places
    )


def _discoloured(answer: SoakAnswer, names: Mapping[str, str]) -> str:
    if not answer.discoloured:
        return "Nothing has been looked at yet."
    told = [
        f"{and_words([names[i] for i in coupons])} {DISCOLOURATIONS[word]}"
        for word, coupons in answer.discoloured
    ]
    return f"By discolouration, the least first: {'; '.join(told)}. This does not measure rust."


def validity_words(found: Validity, names: Mapping[str, str]) -> str:
    """Whether the baseline rusted enough."""
    needed = f"more than {percent_words(found.needed_percent)} %"
    if found.severity == "no_baseline":
        return (
            "No coupon is the baseline that must rust, so it is not known whether the soak"
            " was severe enough."
        )
    name = names[found.baseline_id]
    if found.area is None:
        return f"The baseline, {name}, has not been looked at yet."
    area = area_words(found.area)
    match found.severity:
        case "enough":
            return f"The baseline, {name}, rusted ({area}; {needed} was required)."
        case "not_enough":
            return f"the baseline, {name}, rusted {area}, and {needed} was required."
    return f"The baseline, {name}, rusted {area}: perhaps not {needed}, as required."


def soak_reasons(soak: Soak, answer: SoakAnswer, names: Mapping[str, str]) -> list[str]:
    """Why no more can be said, each reason once."""
    said = []
    if answer.validity.severity != "not_enough" and soak.method.scale == "rust":
        said.append(validity_words(answer.validity, names))
    if answer.validity.reference_rusted:
        said.append("The reference that should not rust did: look at its finish, and at the brine.")
    said += [held_words(each, names) for each in answer.confounded]
    for each in answer.held:
        if each.status == "pending":
            said.append(f"{as_sentence(NAMES[each.variable])} is not known of all: it may differ.")
    in_pairs = max((pair.pairs for pair in answer.levels), default=0)
    for hardened in answer.hardened:
        whose = and_words([names[i] for i in hardened.coupon_ids])
        said.append(f"{whose}: {caveat_words(hardened.caveat)}.")
    if answer.one_side_each and len(answer.ranking.standings) > 1 and in_pairs < 3:
        said.append("One side each proves little: expose both sides, or another coupon.")
    shared = [place for place in answer.ranking.places if len(place) > 1]
    chains = [tie for tie in answer.ranking.ties if not any(set(tie) == set(p) for p in shared)]
    if chains:
        told = "; ".join(and_words([names[i] for i in tie]) for tie in chains)
        said.append(
            f"Not told apart, being closer than what sides of one coupon differ by: {told}."
        )
    said += _by_hand(answer, names)
    return said


def _by_hand(answer: SoakAnswer, names: Mapping[str, str]) -> list[str]:
    said = []
    for course in answer.courses:
        if course.elsewhere:
            where = and_words([region.replace("_", " ") for region in course.elsewhere])
            said.append(
                f"{names[course.coupon_id]} rusted at its {where}, too: not counted for the steel."
            )
        if course.gone_matte:
            said.append(f"{names[course.coupon_id]} has gone matte.")
    return said


def held_words(held: FairnessCheck, names: Mapping[str, str]) -> str:
    """What differs besides the factor."""
    groups: dict[str, list[str]] = {}
    for coupon_id, value in held.values.items():
        groups.setdefault(value or "none", []).append(names[coupon_id])
    told = "; ".join(f"{value}: {and_words(coupons)}" for value, coupons in groups.items())
    return (
        f"{as_sentence(NAMES[held.variable])} differs, too ({told}): part of the difference"
        " may come from that."
    )


def superficial_words(area: Bounds) -> str:
    """How much of what was found wiped off."""
    if area.high <= 0.02:
        return "nothing wiped off"
    return f"{area_words(area)} wiped off: superficial"


def first_words(first: FirstRust) -> str:
    """When rust was first seen, between looks."""
    if first.by_h is None:
        return f"no rust by {hours_words(first.after_h)}" if first.after_h else "not looked at"
    if first.after_h == 0:
        return f"rust by {hours_words(first.by_h)}"
    return f"first rust between {hours_words(first.after_h)} and {hours_words(first.by_h)}"


def kept_words(kept: SharedPlaces) -> str:
    """Whether blades keep their places from soak to soak."""
    if kept.pairs == 0:
        return "No two blades were told apart in two soaks, so their ranks cannot be compared."
    pairs = counted(kept.pairs, "pair")
    if not kept.swaps:
        told = "was" if kept.pairs == 1 else "were"
        return f"Every blade keeps its rank: {pairs} {told} told apart in more than one soak."
    swapped = "; ".join(
        f"{s.one} rusted less than {s.other} in {s.better_in} and more in {s.worse_in}"
        for s in kept.swaps[:4]
    )
    return f"Ranks change with the medium: {swapped}."


def place_words(place: int, *, is_shared: bool) -> str:
    """A place, from the least rust on."""
    ordinal = {1: "1st", 2: "2nd", 3: "3rd"}.get(place, f"{place}th")
    return f"tied {ordinal}" if is_shared else ordinal


def conditions_words(soak: Soak, coupon: Coupon | None, answer: SoakAnswer) -> str:
    """What a result was got under, in one line."""
    salt = soak.method.salt_percent
    parts = [
        soak.method.medium,
        "" if salt is None else f"{salt:g} % salt",
        hours_words(min(answer.hours, answer.whole_h)),
        INSPECTION_STAGES[answer.stage] if answer.stage else "",
    ]
    if coupon is not None:
        parts += [
            coupon.flat_finish,
            f"oiled with {coupon.oil}" if coupon.oil else "dry",
            coupon.coating,
            coupon.exposed_before,
        ]
    return ", ".join(part for part in parts if part)


def doubts_words(doubts: Sequence[Doubt]) -> list[str]:
    """What stands against an area read from a picture."""
    return [DOUBT_WORDS[doubt] for doubt in doubts]


def coating_words(soak: Soak, answer: SoakAnswer) -> list[str]:
    """Which coating held both parts of a coating trial, wear and rust, which are kept apart."""
    if soak.factor != "coating" or not answer.worn or not answer.ranking.standings:
        return []
    scratched: dict[str, list[float]] = {}
    rusted: dict[str, list[float]] = {}
    by_id = {s.coupon_id: s.area.middle for s in answer.ranking.standings}
    for worn in answer.worn:
        coupon = soak.coupon(worn.coupon_id)
        marks = [n for what, n in worn.counts if "scratch" in what]
        if coupon is None or not marks or worn.coupon_id not in by_id:
            continue
        scratched.setdefault(coupon.coating, []).append(sum(marks))
        rusted.setdefault(coupon.coating, []).append(by_id[worn.coupon_id])
    if len(scratched) < 2:
        return []
    fewest = min(scratched, key=lambda c: sum(scratched[c]) / len(scratched[c]))
    least = min(rusted, key=lambda c: sum(rusted[c]) / len(rusted[c]))
    names = [level_name(c, "coating") for c in (fewest, least)]
    if fewest == least:
        return [
            f"{as_sentence(names[0])} is best in both: the fewest scratches and the least rust."
        ]
    return [f"No blade is best in both: {names[0]} was scratched least, {names[1]} rusted least."]


STANDARD_WORDS: dict[Standard, str] = {
    "iso_10289": "ISO 10289", "astm_d610": "ASTM D610", "iso_4628_3": "ISO 4628-3",
}  # fmt: skip
BORROWED = "These grades are from standards written for coatings."


def rating_words(rating: Rating) -> str:
    """A grade, or between which grades it lies."""
    prefix = "Ri " if rating.standard == "iso_4628_3" else ""
    name = STANDARD_WORDS[rating.standard]
    if rating.is_one:
        return f"{name}: {prefix}{rating.worst}"
    low, high = sorted((rating.worst, rating.best))
    span = f"{prefix}{low} to {high}"
    return f"{name}: {span}" if rating.grade is None else f"{name}: {prefix}{rating.grade} ({span})"

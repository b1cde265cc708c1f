"""Soaks in words: what was answered, and why no more can be said."""

from collections.abc import Mapping, Sequence

from kessik.core.corrosion.agreement import Agreement
from kessik.core.corrosion.answer import PhaseAnswer, SoakAnswer
from kessik.core.corrosion.course import NOTHING_PERCENT
from kessik.core.corrosion.duties import Deed
from kessik.core.corrosion.fairness import ASKED_FOR, NAMES, FairnessCheck
from kessik.core.corrosion.not_as_planned import (
    BrineOff,
    DryHours,
    NotAsPlanned,
    PhaseOff,
    TendingMissed,
)
from kessik.core.corrosion.phases import are_alike_throughout
from kessik.core.corrosion.places import SharedPlaces
from kessik.core.corrosion.rounds import Round
from kessik.core.corrosion.soaks import Act, ActKind, Coupon, Soak
from kessik.core.corrosion.wear import Worn
from kessik.core.vocabulary import ACTS, DISCOLOURATIONS, INSPECTION_STAGES
from kessik.core.words.climate import climate_reading_words, out_of_cabinet_words
from kessik.core.words.matching import and_words
from kessik.core.words.performance import caveat_words
from kessik.core.words.rust import (
    AFTER_STAGE,
    area_words,
    entry_words,
    hours_words,
    percent_words,
)
from kessik.core.words.sentences import as_sentence, counted
from kessik.core.words.soak_levels import levels_words
from kessik.core.words.wear import worn_words

DEED_WORDS = {
    "look": "inspect", "end": "end", "sprayed": "spray with brine", "sprayed_fresh":
    "spray with fresh water", "wiped_on": "wipe brine on", "film_broken": "break the film",
    "topped_up": "top up with plain water", "turned": "turn over", "dampened": "dampen the cloth",
    "next_phase": "begin the next phase",
}  # fmt: skip


def deed_words(what: Deed, missing: int = 0, places: int = 0, medium: str = "") -> str:
    """What is due; of a round that was begun, how much of it is still to see, of a phase what it is
    begun with.
    """
    if medium:
        return f"{DEED_WORDS[what]}: {medium}"
    if 0 < missing < places:
        return f"{DEED_WORDS[what]}: {missing} of {places} still to see"
    return DEED_WORDS[what]


def soak_headline(soak: Soak, answer: SoakAnswer, names: Mapping[str, str]) -> str:
    """The answer in a sentence or two; of phases that cannot be one answer, each its own."""
    unlike = _phases_apart(answer)
    if unlike:
        told = [
            f"{as_sentence(each.span.phase.medium)}:"
            f" {_inside(soak_headline(each.soak, each.answer, names), names)}"
            for each in unlike
            if each.answer.rounds
        ]
        return " ".join(told) or "Nothing has been inspected yet."
    if soak.method.scale == "discolouration":
        return _discoloured(answer, names)
    standings = answer.ranking.standings
    if not standings:
        return _nothing_yet(answer)
    if answer.validity.severity == "not_enough":
        why = validity_words(answer, names)
        return f"Not severe enough to tell: {why} Nothing is ranked."
    if len(standings) == 1:
        only = standings[0]
        return f"{as_sentence(names[only.coupon_id])}: {entry_words(only)} rusted."
    if all(standing.is_clean for standing in standings):
        return _none_rusted(answer, names)
    if answer.levels is not None:
        return levels_words(answer.levels, soak.factor)
    places = [[names[i] for i in place] for place in answer.ranking.places]
    if len(places) == 1:
        said = f"{and_words(places[0])} are tied: this soak cannot tell them apart."
    else:
        said = f"Least rust first: {order_words(answer, names)}."
    clean = [standing.coupon_id for standing in standings if standing.is_clean]
    return " ".join([said, *_clean_words(answer, clean, names)])


_NO_RUST_SCALE = " This does not measure rust."


def _inside(headline: str, names: Mapping[str, str]) -> str:
    """A headline after a colon."""
    said = headline.removesuffix(_NO_RUST_SCALE)
    is_name = any(said.startswith(f"{name} ") for name in names.values())
    return said if is_name else said[:1].lower() + said[1:]


def _phases_apart(answer: SoakAnswer) -> Sequence[PhaseAnswer]:
    """The phases, where they are read on unlike sides or scales."""
    alike = are_alike_throughout([each.span for each in answer.phases])
    return () if alike else answer.phases


def is_one_answer(answer: SoakAnswer) -> bool:
    """Whether all phases are told of by the last round."""
    return not _phases_apart(answer)


def _nothing_yet(answer: SoakAnswer) -> str:
    if answer.rounds:
        return "No rusted area has been read yet."
    return "Nothing has been inspected yet."


def _none_rusted(answer: SoakAnswer, names: Mapping[str, str]) -> str:
    all_ids = [standing.coupon_id for standing in answer.ranking.standings]
    if not any(answer.had_rust(coupon_id) for coupon_id in all_ids):
        return f"None of the {len(all_ids)} rusted in {hours_words(answer.compared.round_h)}."
    return " ".join(_clean_words(answer, all_ids, names))


def _clean_words(
    answer: SoakAnswer, clean: Sequence[str], names: Mapping[str, str]
) -> list[str]:  # fmt: skip
    """What is said of coupons without rust where they are judged: whether any was there before."""
    never = [names[i] for i in clean if not answer.had_rust(i)]
    stage = AFTER_STAGE[answer.stage] if answer.stage else ""
    said = [f"{as_sentence(and_words(never))} did not rust."] if never else []
    for coupon_id in clean:
        if not answer.had_rust(coupon_id):
            continue
        gone = next(c.superficial for c in answer.courses if c.coupon_id == coupon_id)
        came_off = f"; {area_words(gone)} came off" if gone and gone.high > NOTHING_PERCENT else ""
        said.append(f"{as_sentence(names[coupon_id])} has no rust {stage}{came_off}.")
    return said


def order_words(answer: SoakAnswer, names: Mapping[str, str]) -> str:
    """All coupons in order, those that share a place together."""
    places = [[names[i] for i in place] for place in answer.ranking.places]
    return ", then ".join(
        f"{and_words(place)} together" if len(place) > 1 else place[0] for place in places
    )


def _discoloured(answer: SoakAnswer, names: Mapping[str, str]) -> str:
    if not answer.discoloured:
        return "Nothing has been inspected yet."
    told = [
        f"{and_words([names[i] for i in coupons])} {DISCOLOURATIONS[word]}"
        for word, coupons in answer.discoloured
    ]
    return f"By discolouration, the least first: {'; '.join(told)}.{_NO_RUST_SCALE}"


def validity_words(answer: SoakAnswer, names: Mapping[str, str]) -> str:
    """Whether the baseline rusted enough."""
    found = answer.validity
    needed = f"more than {percent_words(found.needed_percent)} %"
    if found.severity == "no_baseline":
        return (
            "No coupon is the baseline that must rust, so it is not known whether the soak"
            " was severe enough."
        )
    name = names[found.baseline_id]
    if found.area is None:
        is_seen = answer.stage is not None and answer.had_area(found.baseline_id)
        stage = f" {AFTER_STAGE[answer.stage]}" if answer.stage and is_seen else ""
        return f"The baseline, {name}, has not been inspected{stage} yet."
    area = area_words(found.area)
    match found.severity:
        case "enough":
            return f"The baseline, {name}, rusted ({area}; {needed} was required)."
        case "not_enough":
            return f"the baseline, {name}, rusted {area}, and {needed} was required."
    return f"The baseline, {name}, rusted {area}: perhaps not {needed}, as required."


def soak_reasons(soak: Soak, answer: SoakAnswer, names: Mapping[str, str]) -> list[str]:
    """Why no more can be said, each reason once."""
    apart = _phases_apart(answer)
    said = [] if apart else _order_reasons(soak, answer, names)
    for each in apart:
        told = _order_reasons(each.soak, each.answer, names) if each.answer.rounds else []
        said += [f"{as_sentence(each.span.phase.medium)}: {reason}" for reason in told]
    said += round_words(answer)
    said += [not_as_planned_words(each) for each in answer.not_as_planned]
    said += [out_of_cabinet_words(each) for each in answer.out_of_cabinet]
    said += [agreement_words(each) for each in answer.agreements]
    for held in answer.held:
        if held.status == "confounded" and not (
            held.variable == "heat_treatment" and answer.hardened
        ):  # its risks are said below
            said.append(held_words(held, names))
    for held in answer.held:
        if held.status == "pending":
            said.append(f"{as_sentence(NAMES[held.variable])} is not known of all: it may differ.")
    for hardened in answer.hardened:
        whose = and_words([names[i] for i in hardened.coupon_ids])
        said.append(f"{whose}: {caveat_words(hardened.caveat)}.")
    return [*said, *_by_hand(answer, names)]


def _order_reasons(soak: Soak, answer: SoakAnswer, names: Mapping[str, str]) -> list[str]:
    """What stands against the order itself."""
    said = []
    if answer.validity.severity != "not_enough" and soak.method.scale == "rust":
        said.append(validity_words(answer, names))
    if answer.validity.reference_rusted:
        said.append("The reference that should not rust did: check its finish and the brine.")
    said += compared_words(answer, names)
    blocks = answer.levels.blocks if answer.levels else 0
    if answer.one_side_each and len(answer.ranking.standings) > 1 and blocks < 3:
        said.append("One side each proves little: expose both sides, or another coupon.")
    return [*said, *_tie_words(answer, names)]


def _tie_words(answer: SoakAnswer, names: Mapping[str, str]) -> list[str]:
    """Who cannot be told apart where groups alone would say too much, and what could have been."""
    ranking = answer.ranking
    shared = [place for place in ranking.places if len(place) > 1]
    chains = [tie for tie in ranking.ties if not any(set(tie) == set(p) for p in shared)]
    said = []
    if chains:
        told = "; ".join(and_words([names[i] for i in tie]) for tie in chains)
        said.append(f"Not told apart, as they differ by no more than two sides of one do: {told}.")
    if ranking.ties:
        said.append(
            "To be told apart here, one coupon has to show about"
            f" {ranking.apart_factor:.2g} times the rusted area of another."
        )
    return said


def compared_words(answer: SoakAnswer, names: Mapping[str, str]) -> list[str]:
    """What of the soak is not ranked, being of other hours, another stage or another side."""
    like, said = answer.compared, []
    stage = AFTER_STAGE[like.stage] if like.stage else ""
    ranked_at = hours_words(like.round_h)
    for coupon_id, why, last_h in like.unlike:
        name = as_sentence(names[coupon_id])
        match why:
            case "not_looked_at":
                said.append(f"{name} is not ranked: it has not been inspected yet.")
            case "not_in_stage":
                said.append(f"{name} is not ranked: at {ranked_at} it was not inspected {stage}.")
            case "not_in_round":
                said.append(
                    f"{name} is not ranked: its last inspection was at {hours_words(last_h)},"
                    f" the others are ranked at {ranked_at}."
                )
    if like.later_h is not None and like.stage is not None:
        said.append(
            f"Ranked at {ranked_at}, {stage}, the last round that all of them share; what was"
            f" seen since, up to {hours_words(like.later_h)}, is shown along the hours."
        )
    for coupon_id, side in like.sides_dropped:
        said.append(
            f"{as_sentence(names[coupon_id])}, {side} side, is not compared: others were not"
            " inspected on that side."
        )
    return said


def round_words(answer: SoakAnswer) -> list[str]:
    """Rounds that were late or left unfinished, and coupons that left early."""
    said = []
    for each in answer.rounds:
        if each.planned_h is None:
            continue
        due = hours_words(each.planned_h)
        if each.is_late:
            said.append(f"The round due at {due} was made at {hours_words(each.from_h)}.")
        if each.missing and each is not answer.rounds[-1]:
            said.append(f"The round due at {due} {_missed_words(each)}.")
    return said


def agreement_words(found: Agreement) -> str:
    """How far two raters agree, or one with himself."""
    first, second = found.first or "somebody", found.second or "somebody"
    raters = f"{first} twice" if first == second else f"{first} and {second}"
    kappa = "" if found.kappa is None else f" (weighted kappa {found.kappa:.2f})"
    return (
        f"Graded by {raters}: {counted(found.sides, 'side')}, {found.mean_size:.1f} grades apart"
        f" on average{kappa}."
    )


def not_as_planned_words(found: NotAsPlanned) -> str:
    """What was not as the method has it."""
    match found:
        case BrineOff(measured, planned, _):
            return f"The brine was measured at {measured:g} % salt; {planned:g} % was planned."
        case TendingMissed(kind, missed, due):
            return f"Not recorded: {DEED_WORDS[kind]}, {missed} of {due} times."
        case DryHours(hours):
            return f"The coupons were dry for {hours_words(hours)}; these hours do not count."
        case PhaseOff(medium, planned_h, changed_h):
            return f"Changed to {medium} at {changed_h:.4g} h; {planned_h:g} h was planned."


def act_words(act: Act) -> str:
    """What was done, with its figures."""
    if act.kind == "worn":
        return worn_words(Worn(act.coupon_id, act.said, act.amount or 0.0, act.scratch_grade))
    figures = [
        "" if act.ph is None else f"pH {act.ph:g}",
        "" if act.salt_percent is None else f"{act.salt_percent:g} % salt",
        climate_reading_words(act.temperature_c, act.humidity_percent),
        "" if act.amount is None else _amount_words(act.kind, act.amount),
    ]
    return ", ".join(part for part in [ACTS[act.kind], *figures, act.said] if part)


def _amount_words(kind: ActKind, amount: float) -> str:
    match kind:
        case "weighed" | "cleaned":
            return f"{amount:.10g} g"
        case "blank":
            return f"{amount:g} mg/cm²"
        case "prolonged":
            return f"to {amount:g} h"
    return f"{amount:g}"


def _missed_words(found: Round) -> str:
    """What of a round was not seen: whole stages by their names, else how much of it."""
    stages = dict.fromkeys(place.stage for place in found.missing)
    whole = [s for s in stages if not any(p.stage == s for p in found.seen)]
    if sum(p.stage in whole for p in found.missing) == len(found.missing):
        return f"was not inspected {and_words([AFTER_STAGE[stage] for stage in whole])}"
    return f"is not whole: {len(found.missing)} of {len(found.places)} inspections are missing"


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
        groups.setdefault(value_words(held, value), []).append(names[coupon_id])
    told = "; ".join(f"{value}: {and_words(coupons)}" for value, coupons in groups.items())
    return (
        f"{as_sentence(NAMES[held.variable])} differs, too ({told}): part of the difference"
        " may come from that."
    )


def value_words(held: FairnessCheck, value: str) -> str:
    """What a coupon has of a variable: nothing written is not known of some, and none of others."""
    return value or ("not known" if held.variable in ASKED_FOR else "none")


def kept_words(kept: SharedPlaces, *, by_steel: bool = False) -> str:
    """Whether blades keep their places from soak to soak, or steels where no blade was in two."""
    what = "steel" if by_steel else "blade"
    said = "No blade was in two of these soaks, so the rows are steels. " if by_steel else ""
    return said + _kept_words(kept, what)


def _kept_words(kept: SharedPlaces, what: str) -> str:
    if kept.pairs == 0:
        return f"No two {what}s were told apart in two soaks, so their ranks cannot be compared."
    pairs = counted(kept.pairs, "pair")
    if not kept.swaps:
        told = "was" if kept.pairs == 1 else "were"
        return f"Every {what} keeps its rank: {pairs} {told} told apart in more than one soak."
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

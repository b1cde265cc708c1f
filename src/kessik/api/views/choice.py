"""A choice as the wire has it."""

from collections.abc import Sequence

from kessik.api.schemas.choice import (
    AxisOut,
    ChoiceOptionOut,
    ChoiceOut,
    ChosenOut,
    FigureAtOut,
    UpkeepRowOut,
    UseBody,
    UseOut,
)
from kessik.core.choice.axes import AXES, Choosable
from kessik.core.choice.decision import Decision, decide
from kessik.core.choice.upkeep import BladeUpkeep
from kessik.core.choice.uses import Use
from kessik.core.sharpening.reangling import reangling
from kessik.core.shelf.blades import Blade
from kessik.core.words.choice import (
    bargain_sentence,
    choice_headline,
    figure_words,
    flip_sentence,
    missing_sentence,
    not_compared_sentences,
    reangling_words,
    standing_sentence,
)
from kessik.services.choice.gathering import Known, candidates, not_compared


def use_of(use_id: str, body: UseBody) -> Use:
    """A use as the core has it."""
    return Use(id=use_id, **body.model_dump())


def use_out(use: Use) -> UseOut:
    """A use as it is kept."""
    return UseOut.model_validate({**vars(use), "weights": dict(use.weights)})


def choice_out(known: Known, use: Use, progress: tuple[int, int]) -> ChoiceOut:
    """What a use leads to."""
    found = candidates(known, use)
    decision = decide(found, use.weights)
    names = {candidate.id: candidate.name for candidate in found}
    return ChoiceOut(
        headline=choice_headline(decision, names, use.name),
        bargain=bargain_sentence(decision.bargain, {each.id: each for each in found}),
        flips=[flip_sentence(flip, names) for flip in decision.flips],
        candidates=_chosen(found, decision, names),
        axes=[
            AxisOut(
                key=axis.key,
                label=axis.label,
                more_is_better=axis.more_is_better,
                known_of=sum(axis.key in candidate.figures for candidate in found),
            )
            for axis in AXES
        ],
        lives=[ChoiceOptionOut(value=each.like, says=each.says) for each in known.lives],
        soaks=[ChoiceOptionOut(value=s.soak.id, says=s.soak.name) for s in known.soaks],
        no_lives=known.why_no_lives,
        notes=not_compared_sentences(*not_compared(known)),
        trials_done=progress[0],
        trials=progress[1],
    )


def _chosen(
    found: Sequence[Choosable], decision: Decision, names: dict[str, str]
) -> list[ChosenOut]:
    by_id = {candidate.id: candidate for candidate in found}
    ranked = [
        _candidate(
            by_id[each.id],
            standing_sentence(each, names),
            is_placed=True,
            is_within_doubt=each.is_within_doubt,
            is_beaten=bool(each.beaten_by),
        )
        for each in decision.ranked
    ]
    missing = [
        _candidate(by_id[each.id], missing_sentence(each, names).partition(": ")[2])
        for each in decision.missing
    ]
    return [*ranked, *missing]


def _candidate(
    candidate: Choosable,
    says: str,
    *,
    is_placed: bool = False,
    is_within_doubt: bool = False,
    is_beaten: bool = False,
) -> ChosenOut:
    figures = [
        FigureAtOut(
            axis=key,
            value=figure.value,
            low=figure.low,
            high=figure.high,
            says=figure_words(figure),
            rests_on=figure.rests_on,
        )
        for key, figure in candidate.figures.items()
    ]
    return ChosenOut(
        id=candidate.id,
        name=candidate.name,
        mark=candidate.mark,
        grade=candidate.grade,
        figures=figures,
        is_placed=is_placed,
        is_within_doubt=is_within_doubt,
        is_beaten=is_beaten,
        says=says,
    )


def upkeep_rows(known: Known, use: Use, to_side_deg: float | None = None) -> list[UpkeepRowOut]:
    """What each blade asks for, the quickest to sharpen first, and what re-angling it would take;
    blades without a note stay out.
    """
    told = {candidate.id: candidate for candidate in candidates(known, use)}
    rows = []
    for blade in known.field.blades.values():
        own = known.upkeep.get(blade.id)
        if own is None or blade.id not in told or not own.sharpenings:
            continue
        if own.minutes is None and own.strokes is None:
            continue
        per_cut = told[blade.id].figures.get("upkeep")
        minutes = own.minutes
        rows.append(
            UpkeepRowOut(
                blade_id=blade.id,
                code=blade.code,
                mark=blade.mark,
                grade=blade.claimed_grade or "",
                sharpenings=own.sharpenings,
                minutes=minutes.value if minutes else None,
                minutes_low=minutes.low if minutes else None,
                minutes_high=minutes.high if minutes else None,
                minutes_says=figure_words(minutes) if minutes else "",
                strokes_says=figure_words(own.strokes) if own.strokes else "",
                steel_says=figure_words(own.steel_mm) if own.steel_mm else "",
                steps_again=_share(own.steps_again),
                trouble=_share(own.trouble),
                strop=_strop(own.strop_backs, own.strop_share),
                per_cut_says=figure_words(per_cut) if per_cut else "",
                reangling_says=_reangling(blade, own, to_side_deg),
            )
        )
    return sorted(rows, key=lambda row: (row.minutes is None, row.minutes or 0.0))


def _reangling(blade: Blade, upkeep: BladeUpkeep, to_side_deg: float | None) -> str:
    """What it takes to bring the last edge of a blade to another angle."""
    last = max(blade.edges, key=lambda edge: edge.number, default=None)
    if to_side_deg is None or last is None:
        return ""
    angle, thick = last.value("side_angle_deg"), last.value("thickness_behind_edge_mm")
    if angle is None or thick is None:
        return "angle or thickness not known"
    usual = upkeep.steel_mm.value if upkeep.steel_mm else None
    return reangling_words(reangling(thick, angle, to_side_deg, usual), angle)


def _share(share: float | None) -> str:
    return "" if share is None else f"{100 * share:.0f} %"


def _strop(count: int, share: float | None) -> str:
    if not count:
        return ""
    back = "" if share is None else f", {100 * share:.0f} % of the loss came back"
    return f"{count} strop-back{'s' if count > 1 else ''}{back}"

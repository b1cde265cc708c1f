"""Standings as the wire has them."""

import json
from collections.abc import Mapping
from functools import lru_cache
from zlib import crc32

from kessik.api.schemas.common import shape_of
from kessik.api.schemas.standings import (
    AdviceOut,
    BoardOut,
    BridgeOut,
    ConsistencyOut,
    CriterionOut,
    DoubtedOut,
    GroupOut,
    IslandOut,
    LikeClassOut,
    OwnRungOut,
    ProposedTrialOut,
    ReferenceCurveOut,
    ReferenceOut,
    RungOut,
    SpreadShareOut,
    TesterStandingOut,
    UsefulCutOut,
)
from kessik.core.standings.board import Board, Rung
from kessik.core.standings.comparable import CRITERIA
from kessik.core.standings.groups import GroupLife
from kessik.core.vocabulary import TRIAL_ROLES
from kessik.core.words.standings import (
    CHECKLIST,
    advice_words,
    basis_words,
    bridge_words,
    class_size_words,
    class_words,
    consistency_words,
    cut_words,
    doubted_words,
    group_words,
    headline,
    judged_words,
    life_ratio_words,
    loosened_words,
    off_group_words,
    place_words,
    power_words,
    repeat_words,
    rests_words,
    spread_words,
    tester_words,
    unlike_words,
    with_and_without_words,
)
from kessik.services.reading.summaries import SHAPE
from kessik.services.standings.boards import Field
from kessik.services.standings.references import PlacedReference

STANDINGS_VERSION = "6"
_GROUPINGS = {
    "arm": "grade", "blade": "blade", "grade": "grade", "maker": "maker",
    "heat_treatment": "heat treatment", "edge_finish": "edge finish",
}  # fmt: skip  # a table is read by its rows


@lru_cache(maxsize=1)
def board_version() -> str:
    """Changes with how standings are calculated, and with what the page says."""
    return f"{STANDINGS_VERSION}-{crc32((shape_of(BoardOut) + SHAPE).encode()):08x}"


def board_page(found: Board, field: Field) -> str:
    """A board as JSON."""
    return _board(found, field).model_dump_json()


def _board(found: Board, field: Field) -> BoardOut:
    facts = field.arms
    codes = {rung.arm: facts[rung.arm].code if rung.arm in facts else "?" for rung in found.rungs}
    question = found.question
    by_arm = _groups_by_arm(found)
    sizes = [sum(rung.island == n for rung in found.rungs) for n in range(len(found.references))]
    proposed = _Proposals(found, field, codes)
    names = {each.tester: _name(field, each.tester) for each in found.by_tester}
    return BoardOut(
        headline=headline(found, codes),
        basis=basis_words(found),
        loosened=loosened_words(found.like),
        criteria=[
            CriterionOut.showing(each, agrees=each.key in question.agree) for each in CRITERIA
        ],
        classes=[
            LikeClassOut(
                like=[f"{key}:{value}" for key, value in each.traits],
                says=class_words(each),
                size=class_size_words(each),
                is_shown=each == found.like,
            )
            for each in found.classes
        ],
        reference=found.reference,
        unit=found.unit,
        by=question.by,
        asking=question.asking,
        first=question.first,
        second=question.second,
        fair_only=question.fair_only,
        with_doubted=question.with_doubted,
        rungs=[_rung(rung, found, field, codes, by_arm) for rung in found.rungs],
        islands=[
            IslandOut(reference=reference, arms=size)
            for reference, size in zip(found.references, sizes, strict=True)
        ],
        groups=[
            GroupOut.showing(
                group, name=_group_name(group, field), arms=list(group.arms),
                says=group_words(group),
            )
            for group in (found.groups.groups if found.groups else ())
        ],
        spread=[
            SpreadShareOut(label=label, percent=percent)
            for label, percent in (
                spread_words(found.groups.spread, _GROUPINGS[question.by]) if found.groups else ()
            )
        ],
        doubted=[
            DoubtedOut(
                trial_id=each.trial,
                trial=field.trials.get(each.trial, ""),
                arm=each.arm,
                says=doubted_words(each, codes, field.trials.get(each.trial, "")),
                with_and_without=with_and_without_words(each, codes),
                checklist=list(CHECKLIST),
            )
            for each in found.doubted
        ],
        power=power_words(found),
        advice=AdviceOut(
            says=advice_words(found.advice, codes, [question.first, question.second]),
            is_enough=found.advice.is_enough,
            cuts=[
                UsefulCutOut(says=cut_words(cut, codes), trial=proposed.of(cut.a, cut.b, cut.edges))
                for cut in found.advice.cuts
            ],
        ),
        bridges=[
            BridgeOut(
                island=bridge.islands[1],
                says=bridge_words(bridge, codes, sizes),
                trial=proposed.of(bridge.a, bridge.b, bridge.edges),
            )
            for bridge in found.bridges
        ],
        trials={
            trial: field.trials[trial]
            for trial in {t for rung in found.rungs for t in rung.trials}
            if trial in field.trials
        },
        testers=_testers(found, field),
        consistency=[
            ConsistencyOut(
                code=codes[level.arm],
                name=names[cell.tester],
                runs=cell.runs,
                h=judged_words(cell.h),
                k=judged_words(cell.k),
                cochran=judged_words(level.cochran),
            )
            for level in found.consistency
            for cell in level.cells
            if level.arm in codes
        ],
        apart=[
            line
            for level in found.consistency
            if level.arm in codes
            for line in consistency_words(level, codes[level.arm], names)
        ],
        repeats=repeat_words(found),
    )  # fmt: skip  # one field a line


def _name(field: Field, tester: str) -> str:
    return field.testers.get(tester) or "this bench"


def _testers(found: Board, field: Field) -> list[TesterStandingOut]:
    names = [_name(field, each.tester) for each in found.by_tester]
    return [
        TesterStandingOut(
            name=name,
            says=tester_words(each, names[0]),
            rungs=[
                OwnRungOut(
                    arm=arm,
                    says=life_ratio_words(each.ratios.get(arm)),
                    place=place_words(place.best, place.worst),
                )
                for arm, place in each.places.items()
            ],
        )
        for name, each in zip(names, found.by_tester, strict=True)
    ]


def _rung(
    rung: Rung,
    found: Board,
    field: Field,
    codes: Mapping[str, str],
    by_arm: Mapping[str, GroupLife],
) -> RungOut:
    known = field.arms.get(rung.arm)
    blade = field.blades.get(known.blade_id) if known else None
    groups = known.groups if known else {}
    life = rung.ratio
    off = rung.off_its_group
    return RungOut(
        arm=rung.arm,
        blade_id=known.blade_id if known else "",
        code=codes[rung.arm],
        mark=blade.mark if blade else 0,
        grade=groups.get("grade", ""),
        maker=groups.get("maker", ""),
        heat_treatment=groups.get("heat_treatment", ""),
        edge_finish=groups.get("edge_finish", ""),
        edge_length_mm=blade.edge_length_mm if blade else None,
        archived=bool(known and known.archived),
        island=rung.island,
        best=rung.place.best,
        worst=rung.place.worst,
        place=place_words(rung.place.best, rung.place.worst, rung.of),
        ratio=life.ratio if life else None,
        low=life.low if life else None,
        high=life.high if life else None,
        says=life_ratio_words(life),
        cuts=rung.cuts,
        trials=list(rung.trials),
        rests=rests_words(rung, codes, found.references[rung.island]),
        marks=unlike_words(rung),
        off_group=off_group_words(off, by_arm[rung.arm]) if off and rung.arm in by_arm else "",
    )


def reference_out(placed: PlacedReference, page: str) -> ReferenceOut:
    """A reference of earlier trials; `page` is the answer of the trial that read a curve of it."""
    blade, life = placed.blade, placed.life
    return ReferenceOut(
        blade_id=blade.id,
        code=blade.code,
        mark=blade.mark,
        grade=blade.claimed_grade,
        says=f"{TRIAL_ROLES[placed.role]}, from earlier trials",
        estimate=life.estimate,
        low=life.low,
        high=life.high,
        curve=_curve(placed, page) if page and placed.own else None,
    )


def _curve(placed: PlacedReference, page: str) -> ReferenceCurveOut | None:
    """The first curve of the blade that the page has, its counts scaled."""
    assert placed.own
    scale = placed.life.estimate / placed.own
    for run in json.loads(page).get("runs", ()):
        band = run["band"] if run["blade"] == placed.blade.code else None
        if band:
            return ReferenceCurveOut(
                **{**band, "counts": [scale * count for count in band["counts"]]}
            )
    return None


def _groups_by_arm(found: Board) -> dict[str, GroupLife]:
    return {arm: group for group in found.of_grades.groups for arm in group.arms}


def _group_name(group: GroupLife, field: Field) -> str:
    blade = field.blades.get(group.name)
    return blade.code if blade else group.name


class _Proposals:
    """Trials to be made of two arms, by the method of the newest trial of the class."""

    def __init__(self, found: Board, field: Field, codes: Mapping[str, str]) -> None:
        taking_part = {trial for rung in found.rungs for trial in rung.trials}
        self._like = next((trial for trial in field.trials if trial in taking_part), "")
        self._codes = codes

    def of(self, a: str, b: str, edges: int) -> ProposedTrialOut:
        """The trial of a cut."""
        return ProposedTrialOut(
            arms=[a, b],
            edges_per_blade=edges,
            like_trial_id=self._like,
            question=f"{self._codes[a]} beside {self._codes[b]}: which lasts longer?",
        )

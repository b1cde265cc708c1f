"""Lives against composition, and two recipes side by side, over the wire."""

from kessik.api.schemas.performance import (
    AgainstOut,
    DescribedBladeOut,
    DiffersOut,
    OfferOut,
    PerformanceOut,
    SideBySideOut,
)
from kessik.core.composition.separation import Difference
from kessik.core.trials.points import FarBelowUsual
from kessik.core.words.assay import range_words
from kessik.core.words.elements import effect_of
from kessik.core.words.facts import hardening_words, hardness_words
from kessik.core.words.performance import (
    EQUAL_COMPARISON,
    NOT_MEASURED,
    caveat_words,
    far_below_words,
    trial_life_words,
)
from kessik.core.words.sentences import as_sentence
from kessik.services.assays.performance import Performance
from kessik.services.assays.side_by_side import DescribedBlade, SideBySide


def performance_out(found: Performance) -> PerformanceOut:
    """Lives against what steels are made of, with what the points say."""
    return PerformanceOut.showing(
        found,
        variables=[AgainstOut(name=n, label=lab, unit=u) for n, lab, u in found.variables],
    )


def offer_out(found: FarBelowUsual) -> OfferOut:
    """A blade whose life asks for an assay."""
    return OfferOut(blade_id=found.point.blade_id, says=far_below_words(found))


def described_blade_out(found: DescribedBlade) -> DescribedBladeOut:
    """A blade as it is described."""
    blade = found.blade
    return DescribedBladeOut(
        id=blade.id,
        code=blade.code,
        mark=blade.mark,
        claim=blade.claimed_grade or "",
        hardness=hardness_words(blade.used("hardness_hrc")),
        hardening=hardening_words(blade.heat_treatment),
        lives=[trial_life_words(line.trial, line.point) for line in found.lives],
    )


def side_by_side_out(found: SideBySide) -> SideBySideOut:
    """Two blades as their makers describe them, side by side."""
    warnings = [as_sentence(f"{caveat_words(caveat)}.") for caveat in found.caveats]
    for each in (found.first, found.second):
        warnings += [f"{each.blade.code}: {caveat_words(risk)}." for risk in each.risks]
    return SideBySideOut(
        first=described_blade_out(found.first),
        second=described_blade_out(found.second),
        differs=[_differs_out(difference) for difference in found.differences],
        warnings=warnings,
        standing=NOT_MEASURED if found.is_all_claimed else "",
        equal_comparison=EQUAL_COMPARISON,
    )


def _differs_out(found: Difference) -> DiffersOut:
    return DiffersOut(
        element=found.element,
        first=range_words(found.first),
        second=range_words(found.second),
        says=effect_of(found.element),
    )

"""What the shots of a blade say of its steel, in words; never that it *is* a grade."""

from collections.abc import Sequence

from kessik.core.composition.candidates import Candidate, Departure
from kessik.core.composition.claims import Assay
from kessik.core.composition.elements import ELEMENTS
from kessik.core.composition.grades import Range
from kessik.core.composition.means import ElementMean, Outlier
from kessik.core.composition.separation import NEVER_APART
from kessik.core.composition.settling import Settling
from kessik.core.composition.steels import Steel, steels
from kessik.core.composition.table import is_compared
from kessik.core.words.matching import and_words
from kessik.core.words.sentences import counted

VERDICT_WORDS = {
    "consistent": "consistent",
    "undecidable": "undecidable",
    "excluded": "excluded",
    "no_claim": "no claim",
    "not_shot": "not shot",
}
METHOD_OF = {
    "C": "spark emission or combustion analysis",
    "N": "spark emission or melt extraction",
    "O": "melt extraction",
    "B": "spark emission",
}
ASSUMPTION = (
    "Every grade on the shelf is taken as equally likely beforehand, and its melts as lying"
    " anywhere in its range. The product allowance, the error of the shots and that of the"
    " calibration are all in."
)
_NAMED = 3


def element_name(symbol: str) -> str:
    """The plain name of an element."""
    return ELEMENTS[symbol].name


def verdict_sentence(assay: Assay) -> str:
    """The verdict in a sentence or two, with the element that decides and by how much."""
    if assay.verdict == "not_shot":
        why = "the shots are on the coating" if assay.blade.on_coating else "there are no shots yet"
        return f"The steel cannot be judged: {why}."
    if assay.verdict == "no_claim":
        return _search_words(assay)
    assert assay.claim is not None
    assert assay.own is not None
    name = assay.claim.name
    if assay.verdict == "excluded":
        why = departure_words(assay.own.excluded_by[0])
        return f"{name} is excluded: {why}. {_search_words(assay)}"
    if assay.verdict == "consistent":
        return (
            f"Consistent with {name}{_same_words(assay)}: of the"
            f" {counted(assay.grades_tried, 'grade')} on the shelf no other steel fits as"
            f" well{_decides(assay)}.{_unmet_words(assay)}"
        )
    return _undecidable_words(assay, name, assay.own)


def _same_words(assay: Assay) -> str:
    """What other standards call the steel, of those whose ranges it meets."""
    others = [c.grade.name for c in assay.own_names if c.is_in and c.grade != assay.claim]
    return f" (by other standards {and_words(others)})" if others else ""


def _unmet_words(assay: Assay) -> str:
    """Of which standard's range for the same steel the piece lies outside, and by what."""
    unmet = [c for c in assay.own_names if not c.is_in]
    return "".join(
        f" Outside the range of {c.grade.name}: {departure_words(c.excluded_by[0])}."
        for c in sorted(unmet, key=lambda c: c.grade != assay.claim)[:2]
    )


def _decides(assay: Assay) -> str:
    """What separates the claim from the nearest grade that is out."""
    nearest = nearest_out(assay)
    if nearest is None:
        return ""
    departure = nearest.excluded_by[0]
    return f"; {element_name(departure.element)} rules out {nearest.grade.name}, the nearest"


def nearest_out(assay: Assay) -> Candidate | None:
    """The excluded grade that lies nearest."""
    out = [c for c in assay.candidates if not c.is_in and not c.is_same_steel]
    return min(out, key=lambda candidate: candidate.distance, default=None)


def deciding(assay: Assay) -> str:
    """The symbol of the element that decides, or would; empty where none does."""
    if assay.verdict == "excluded" and assay.own is not None:
        return assay.own.excluded_by[0].element
    if assay.verdict == "undecidable":
        return next((s.elements[0] for s in assay.settlings if s.elements), "")
    nearest = nearest_out(assay) if assay.verdict == "consistent" else None
    return nearest.excluded_by[0].element if nearest else ""


def place_headline(assays: Sequence[Assay]) -> str:
    """How the claims stand, in a sentence."""
    shot = [assay for assay in assays if assay.verdict != "not_shot"]
    if not assays:
        return "No blade has been shot yet."
    if not shot:
        return f"{counted(len(assays), 'blade')} to be shot."
    order = ("excluded", "undecidable", "consistent", "no_claim")
    counts = [(sum(1 for a in shot if a.verdict == v), VERDICT_WORDS[v]) for v in order]
    said = ", ".join(f"{many} {word}" for many, word in counts if many)
    waiting = len(assays) - len(shot)
    rest = f"; {waiting} to be shot" if waiting else ""
    return f"{counted(len(shot), 'blade')} shot: {said}{rest}."


def _undecidable_words(assay: Assay, name: str, own: Candidate) -> str:
    if assay.suspicion is not None:
        return f"Undecidable for {name}: these shots do not look like bare steel."
    never = [steel for steel in assay.rivals if steel.overlap >= NEVER_APART]
    better = [steel for steel in assay.rivals if steel not in never]
    said = []
    if never:
        unseen = _unseen_of(assay, never)
        why = (
            f", because it does not see {and_words([element_name(e) for e in unseen])}"
            if unseen
            else ""
        )
        said.append(f"this analyser never separates {name} from {named(never)}{why}")
    if better:
        verb = "fits" if len(better) == 1 else "fit"
        how = "better" if better[0].weight > own.weight else "as well"
        said.append(f"{named(better)} {verb} {how}")
    if own.close and all(c.close for c in assay.own_names if c.is_in):
        said.append(f"{departure_words(own.close[0])}, close enough to shoot again first")
    return f"Undecidable for {name}: {'; '.join(said)}."


def _unseen_of(assay: Assay, never: Sequence[Steel]) -> list[str]:
    names = {steel.grade.name for steel in never}
    found = [s.elements for s in assay.settlings if s.rival.name in names]
    return list(dict.fromkeys(e for each in found for e in each if e in assay.not_seen))


def named(found: Sequence[Steel]) -> str:
    """The first steels of a list by name, and how many more there are."""
    names = [steel.grade.name for steel in found]
    more = len(names) - _NAMED
    if more <= 0:
        return and_words(names)
    return f"{', '.join(names[:_NAMED])} and {more} more"


def _search_words(assay: Assay) -> str:
    """What fits, among how many grades it was tried; or what is nearest."""
    fitting, tried = assay.steels_in, counted(assay.grades_tried, "grade")
    if not fitting:
        nearest = steels(assay.candidates, assay.claim)[:_NAMED]
        return f"No grade of the {tried} on the shelf fits; nearest are {named(nearest)}."
    if len(fitting) > 1:
        return (
            f"Of the {tried} on the shelf {named(fitting)} fit; {fitting[0].grade.name} fits best."
        )
    (only,) = fitting
    others = f" (by other standards {and_words(only.other_names)})" if only.other_names else ""
    return f"Of the {tried} on the shelf only {only.grade.name}{others} fits."


def departure_words(found: Departure) -> str:
    """How an element lies outside a range: what it reads with its standard uncertainty, and what
    the grade says, with the allowance where one is used.
    """
    bound = found.low_percent if found.z < 0 else found.high_percent
    uncertainty = abs((found.measured_percent - bound) / found.z)
    reads = (
        f"{element_name(found.element)} reads {percent(found.measured_percent)} ±"
        f" {percent(uncertainty)} %"
    )
    if found.listed is None:
        return f"{reads}, and as it is not listed it may be at most {percent(bound)} %"
    return f"{reads}, and {_listed_words(found, found.listed)}"


def _listed_words(found: Departure, listed: Range) -> str:
    named = listed.low_percent if found.z < 0 else listed.high_percent
    bound = found.low_percent if found.z < 0 else found.high_percent
    allowance = abs(bound - (named or 0.0))
    notes = [
        _allowance_words(listed, allowance),
        "range unconfirmed" if listed.is_recalled else "",
    ]
    noted = ", ".join(note for note in notes if note)
    return f"{range_words(listed)} is needed{f' ({noted})' if noted else ''}"


def _allowance_words(listed: Range, allowance: float) -> str:
    if allowance <= 0:
        return ""
    whose = "usual tolerance of a melt with its allowance" if listed.is_nominal else "allowance"
    return f"{whose} {allowance:.2g}"


def percent(value: float) -> str:
    """A content with honest digits."""
    if value >= 10:
        return f"{value:.1f}"
    return f"{value:.2f}" if value >= 0.1 else f"{value:.3f}"


def range_words(found: Range | None) -> str:
    """What a grade promises of an element."""
    if found is None:
        return "not listed"
    low, high = found.low_percent, found.high_percent
    if low is None and high is None:
        return "any"
    if found.is_nominal:
        return f"about {low:g} %"
    if low is None or high is None:
        return f"at least {low:g} %" if high is None else f"at most {high:g} %"
    return f"{low:g} to {high:g} %"


def mean_words(mean: ElementMean) -> str:
    """What was read of an element."""
    if not mean.detected:
        return f"under {percent(mean.limit_percent or 0.0)} %"
    return f"{percent(mean.percent)} ± {percent(mean.uncertainty_percent)} %"


def weight_words(candidate: Candidate, best: float) -> str:
    """How well a grade fits beside the one that fits best, whose weight is `best`."""
    if not candidate.is_in:
        return "excluded"
    share = candidate.weight / best if best else 0.0
    if share >= 0.5:
        return "fits in the middle of its ranges" if share > 0.99 else "fits about as well"
    if share >= 0.1:
        return "fits less well"
    return "fits at the edge of its ranges" if share >= 0.01 else "hardly fits"


def listed_words(candidate: Candidate, read: Sequence[str]) -> str:
    """How complete a grade's ranges are beside what was read; empty where it lists all of it, or is
    out.
    """
    compared = [symbol for symbol in read if is_compared(symbol)]
    listed = [symbol for symbol in compared if candidate.grade.range_of(symbol) is not None]
    if not candidate.is_in or len(listed) == len(compared):
        return ""
    return f"lists {len(listed)} of the {len(compared)} elements read"


def settling_lines(found: Sequence[Settling]) -> list[str]:
    """What would separate the claim from its rivals, one line for those that the same would."""
    groups: list[list[Settling]] = []
    for each in found:
        own = next((g for g in groups if _by_the_same(g[0], each)), None)
        if own is None:
            groups.append([each])
        else:
            own.append(each)
    return [_settling_words(g[0], _names([each.rival.name for each in g])) for g in groups]


def _by_the_same(one: Settling, other: Settling) -> bool:
    return (one.by, one.shots, one.elements) == (other.by, other.shots, other.elements)


def _names(rivals: Sequence[str]) -> str:
    more = len(rivals) - 2 * _NAMED
    if more <= 0:
        return and_words(rivals)
    return f"{', '.join(rivals[: 2 * _NAMED])} and {more} more"


def _settling_words(found: Settling, rivals: str) -> str:
    if found.by == "shots":
        return f"{found.shots} shots in all would separate it from {rivals}."
    if found.by == "nothing":
        return f"Nothing in the composition separates it from {rivals}."
    if found.by == "structure":
        return (
            f"The composition of {rivals} is the same by another making route; only the"
            " structure under a microscope separates them."
        )
    elements = and_words([element_name(symbol) for symbol in found.elements])
    if found.by == "unseen_element":
        methods = list(dict.fromkeys(METHOD_OF.get(e, "a laboratory") for e in found.elements))
        return f"{elements.capitalize()} would separate it from {rivals}: {and_words(methods)}."
    return f"More shots do not separate it from {rivals}; a laboratory would, by {elements}."


def separated_words(found: Settling) -> str:
    """What separates two grades, in a few words."""
    if found.by == "nothing":
        return "nothing in the composition"
    if found.by == "structure":
        return "the structure under a microscope"
    elements = and_words([element_name(symbol) for symbol in found.elements])
    if found.by == "unseen_element":
        return f"{elements}, which this analyser does not see"
    return elements


HARDNESS_IS_NONE = (
    "A hardness after a known treatment does not decide it: too many grades reach the same."
)


def suspicion_words(assay: Assay) -> str:
    """The question a coating raises; empty where there is none."""
    if assay.suspicion is None:
        return ""
    read = and_words(
        [f"{element_name(m.element)} at {percent(m.percent)} %" for m in assay.suspicion.elements]
    )
    return (
        f"No bare grade explains {read}: this looks like a coating or a plating. Grind or find a"
        " bare place and shoot there."
    )


def outlier_words(found: Outlier) -> str:
    """How a shot stands out."""
    return (
        f"Shot {found.shot} reads {percent(found.percent)} % {element_name(found.element)}, the"
        f" others {percent(found.others_percent)} %; it counts until you exclude it."
    )


def normalised_words(assay: Assay) -> str:
    """What was done about a file that adds up to 100 %."""
    if assay.blade.normalised == "yes":
        return (
            "The file is normalised to 100 %, so every element reads high by what is not seen."
            " Each grade is compared with the readings less its own carbon and nitrogen."
        )
    if assay.blade.normalised == "unknown":
        return (
            "It is not recorded whether the file is normalised to 100 %: both readings are"
            " tried, and a"
            " grade is excluded only where both exclude it."
        )
    return "The file is not normalised: readings are used as they are."

"""What blades still do after a dose, in words: the plain fact before any bound."""

from collections.abc import Sequence

from kessik.core.comparison.dose_outcomes import AfterDose, ShownAfterDose
from kessik.core.words.matching import and_words


def dose_words(found: Sequence[AfterDose]) -> str:
    """What each blade does after the dose, check by check, in one sentence; empty where nothing was
    judged.
    """
    told = []
    for kind in dict.fromkeys(each.check for each in found):
        own = [each for each in found if each.check == kind]
        told.append("; ".join([_who_does(own), *_controls(own)]))
    if not told:
        return ""
    return f"At {found[0].count:g} {found[0].unit} {'; '.join(told)}."


def shown_words(found: Sequence[ShownAfterDose]) -> str:
    """What each blade shows after the dose by the tester's own scales and numbers; empty where
    there are none.
    """
    told = []
    for key in dict.fromkeys(each.check.key for each in found):
        own = [each for each in found if each.check.key == key]
        told.append(f"{key}, sharpest first: {', '.join(_value_words(each) for each in own)}")
    return f"At {found[0].count:g} {found[0].unit} {'; '.join(told)}." if told else ""


def _value_words(each: ShownAfterDose) -> str:
    if each.grade:
        return f"{each.blade} “{each.grade}”"
    return f"{each.blade} {each.value:.3g} {each.check.unit}".strip()


def control_words(each: AfterDose) -> str:
    """Where a blade's untouched edge was looked at: `untouched edge at 12 mm`."""
    at = and_words([f"{place:g} mm" for place in each.control_mm]) if each.control_mm else ""
    return f"untouched edge{f' at {at}' if at else ''}"


def _who_does(own: Sequence[AfterDose]) -> str:
    still = [each.blade for each in own if each.still == "does"]
    gone = [each.blade for each in own if each.still == "does_not"]
    partly = [each.blade for each in own if each.still == "in_part"]
    one, many = own[0].check.does
    parts = []
    if still:
        parts.append(f"{and_words(still)} still {one if len(still) == 1 else many}")
    if gone and still:
        parts.append(f"{and_words(gone)} no longer {'does' if len(gone) == 1 else 'do'}")
    elif gone:
        parts.append(f"{and_words(gone)} no longer {one if len(gone) == 1 else many}")
    if partly:
        does = "does" if parts else one
        parts.append(f"{and_words(partly)} {does} only in part")
    return and_words(parts)


def _controls(own: Sequence[AfterDose]) -> list[str]:
    """What the untouched edge of those that lost it says: wear, or something else."""
    told = []
    for each in own:
        if each.control is None or each.still == "does":
            continue
        whose = f"{each.blade}'s {control_words(each)}"
        if each.control == "does":
            told.append(f"{whose} still does, so it is wear")
        else:
            told.append(f"{whose} does not either, so look at the edge and the check, not at wear")
    return told

"""Packages, testers and blades that may be one, as the wire has them."""

from kessik.api.schemas.packages import (
    BladeQuestionOut,
    CameTrialOut,
    PackageBroughtOut,
    TesterOut,
    TestersOut,
)
from kessik.core.packages import PackageBrought
from kessik.core.words.identity import facts_words, same_words
from kessik.core.words.packages import brought_sentences
from kessik.services.packages.identities import Identities
from kessik.services.packages.testers import Testers


def brought_out(brought: PackageBrought) -> PackageBroughtOut:
    """What a package brought."""
    trials = [CameTrialOut(id=trial.id, name=trial.name) for trial in brought.trials]
    return PackageBroughtOut(says=brought_sentences(brought), trials=trials)


def testers_out(found: Testers) -> TestersOut:
    """Whose folder this is, and who else sent trials."""
    others = [
        TesterOut(id=each.id, name=each.name, trials=found.trials.get(each.id, 0))
        for each in found.others
    ]
    return TestersOut(here=found.here, others=others)


def blade_questions_out(found: Identities) -> list[BladeQuestionOut]:
    """Open questions first, then what was said."""
    open_ones = [
        BladeQuestionOut(
            one=each.one.blade.id,
            other=each.other.blade.id,
            says=same_words(each.one, each.other, found.testers),
            facts=facts_words(each),
            nothing_differs=not each.unlike,
            is_same=None,
        )
        for each in found.questions
    ]
    said = [
        BladeQuestionOut(
            one=each.one,
            other=each.other,
            says=same_words(found.blades[each.one], found.blades[each.other], found.testers),
            facts="",
            nothing_differs=False,
            is_same=each.is_same,
        )
        for each in found.said
        if each.one in found.blades and each.other in found.blades
    ]
    return [*open_ones, *said]

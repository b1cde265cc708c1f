"""Stages that several checks decide: lost when any fails, or only when all do, at one count."""

from dataclasses import replace

import pytest

from kessik.core.comparison.analysis import analyse
from kessik.core.comparison.matching import MatchingRule
from kessik.core.errors import OutOfRangeError
from kessik.core.planning.schedule import plan_next
from kessik.core.protocols.checks import CheckSpec
from kessik.core.protocols.methods import Stage, StopRule
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.protocols.series import Check, RunSeries
from kessik.core.protocols.stop_rules import assess
from kessik.core.sharpness.life import Bracketed
from kessik.core.words.methods import ends_when, stage_words


def method(together, tries=1):
    return replace(
        BY_SCHOOL["push_cut_board"],
        checks=(CheckSpec("hair_sample", tries), CheckSpec("paper", tries)),
        stages=(Stage("done", "hair_sample", also=("paper",), together=together),),
        ends=(StopRule("limit", "done"),),
        every=5,
    )


def looks(*told):
    return [Check(float(n), kind, outcome=said) for n, kind, said in told]


# Hair is lost at 10; paper holds there and is lost at 15.
RECORD = looks(
    (5, "hair_sample", "pass"), (5, "paper", "pass"), (10, "hair_sample", "fail"),
    (10, "paper", "pass"), (15, "hair_sample", "fail"), (15, "paper", "fail"),
)  # fmt: skip  # a record is read by its rows


@pytest.mark.parametrize(
    ("together", "lost", "bracket"), [("any", 10, (5, 10)), ("all", 15, (10, 15))]
)
def test_any_or_all_of_the_checks_decide(together, lost, bracket):
    own = method(together)
    progress = assess(RECORD, own, 15.0)
    assert (progress.lost, progress.met) == ({"done": lost}, True)
    (run,) = analyse([RunSeries("A", 1, 1, tuple(RECORD))], {}, MatchingRule(), own).runs
    assert run.lives["done"].life.found == Bracketed(*bracket)


def test_the_second_check_is_asked_for_at_the_same_count_and_only_where_it_can_decide():
    own = method("all", tries=2)
    first = looks((0, "hair_sample", "pass"), (0, "hair_sample", "pass"))
    planned = plan_next(first, own, 0.0)
    assert planned.next_count == 5, "a pass leaves the stage standing: paper decides nothing here"
    failed = [*first, *looks((5, "hair_sample", "fail"), (5, "hair_sample", "fail"))]
    progress = assess(failed, own, 5.0)
    planned = plan_next(failed, own, 5.0, progress)
    assert (progress.asked, planned.next_count, planned.readings) == ("paper", 5, 2)
    passed = [*failed, *looks((5, "paper", "pass"), (5, "paper", "pass"))]
    progress = assess(passed, own, 5.0)
    assert (progress.asked, plan_next(passed, own, 5.0, progress).next_count) == ("hair_sample", 10)


def test_its_words_and_what_it_refuses():
    assert ends_when(method("all")) == (
        "ends when “cuts a hair sample off the body” and “slices held paper” fail at one count"
    )
    assert stage_words(method("any").stages[0], method("any")).endswith(
        "or “slices held paper” fails"
    )
    for wrong in (("force",), ("hair_sample",), ("shave",)):
        with pytest.raises(OutOfRangeError):
            replace(method("any"), stages=(Stage("done", "hair_sample", also=wrong),))

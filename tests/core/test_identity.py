"""Which blades of two testers are asked about, and what a word on them leads to."""

from hypothesis import given
from hypothesis import strategies as st

from kessik.core.facts import Measurement
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.identity import OwnedBlade, SameBlade, blade_questions, one_for_all
from kessik.core.words.identity import facts_words, same_words

TESTERS = {"m": "Mira"}


def owned(blade_id, code, tester="", *, owner="", grade="1.4116", hrc=58.0):
    fact = Measurement(f"{blade_id}-h", "hardness_hrc", hrc, standing="measured_here")
    blade = Blade(blade_id, code, 0, claimed_grade=grade, owner=owner, measurements=(fact,))
    return OwnedBlade(blade, frozenset({tester}), code)


def asked(*blades, said=()):
    return [(q.one.blade.id, q.other.blade.id) for q in blade_questions(blades, said)]


def test_one_code_of_two_testers_is_asked_about_with_what_speaks_against_it():
    mine, theirs = owned("1", "AV-03"), owned("2", "av-03", "m", grade="1.3343", hrc=64.0)
    (question,) = blade_questions([mine, theirs], [])
    assert same_words(question.one, question.other, TESTERS) == "your AV-03 and av-03 of Mira"
    assert facts_words(question) == "same code; different grade and hardness"


def test_another_code_of_one_owner_is_asked_about_only_where_nothing_differs():
    mine = owned("1", "AV-03", owner="Corran Forge")
    alike = owned("2", "K7", "m", owner="corran forge", hrc=58.4)
    harder = owned("3", "K8", "m", owner="Corran Forge", hrc=61.0)
    nobodys = owned("4", "K9", "m")
    assert asked(mine, alike, harder, nobodys) == [("1", "2")]


def test_blades_of_one_tester_are_never_asked_about_and_an_answer_is_remembered():
    assert asked(owned("1", "AV-03"), owned("2", "AV-03")) == []
    pair = owned("1", "AV-03"), owned("2", "AV-03", "m")
    assert asked(*pair, said=[SameBlade("2", "1", is_same=False)]) == []


@given(st.lists(st.tuples(st.integers(0, 7), st.integers(0, 7)), max_size=12))
def test_what_is_said_to_be_one_has_one_that_stands_for_all(pairs):
    said = [SameBlade(str(a), str(b), is_same=True) for a, b in pairs if a != b]
    leads = one_for_all(said, [str(n) for n in range(8)])
    for each in said:
        assert leads.get(each.one, each.one) == leads.get(each.other, each.other)
    assert all(int(to) < int(blade) and to not in leads for blade, to in leads.items())


def test_two_blades_stay_two():
    assert one_for_all([SameBlade("1", "2", is_same=False)], ["1", "2"]) == {}

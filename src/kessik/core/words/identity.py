"""Blades of several testers that may be one, in words."""

from collections.abc import Mapping

from kessik.core.facts import QUANTITIES
from kessik.core.shelf.identity import BladeQuestion, OwnedBlade
from kessik.core.words.sentences import listed


def same_words(one: OwnedBlade, other: OwnedBlade, testers: Mapping[str, str]) -> str:
    """`your AV-03 and AV-03 of Rhea`."""
    return f"{_named(one, testers)} and {_named(other, testers)}"


def facts_words(question: BladeQuestion) -> str:
    """What is the same and what is not."""
    told = []
    if question.alike:
        told.append(f"same {listed([_label(each) for each in question.alike])}")
    if question.unlike:
        told.append(f"different {listed([_label(each) for each in question.unlike])}")
    return "; ".join(told)


def _named(blade: OwnedBlade, testers: Mapping[str, str]) -> str:
    if "" in blade.testers:
        return f"your {blade.code}"
    names = sorted(testers.get(each, "somebody") for each in blade.testers)
    return f"{blade.code} of {listed(names)}"


def _label(fact: str) -> str:
    return fact if fact in ("code", "owner", "grade") else QUANTITIES[fact].label

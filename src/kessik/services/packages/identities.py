"""Blades of several testers that may be one: asked about once, remembered, split again."""

from dataclasses import dataclass

from kessik.core.errors import ConflictError, UnknownError
from kessik.core.moments import Moment
from kessik.core.shelf.identity import BladeQuestion, OwnedBlade, SameBlade, blade_questions
from kessik.store.database import Database, Session
from kessik.store.queries import shelf, testers


@dataclass(frozen=True)
class Identities:
    """What is open and what was said; names of testers by id, and blades by id."""

    questions: tuple[BladeQuestion, ...]
    said: tuple[SameBlade, ...]
    testers: dict[str, str]
    blades: dict[str, OwnedBlade]


def identities_of(db: Database) -> Identities:
    """Every pair of blades that may be one, and those that were decided."""
    with db.read() as session:
        said = testers.same_blades(session)
        names = {each.id: each.name for each in testers.all_testers(session).values()}
        owned = _owned(session, names)
    questions = blade_questions(owned, said) if any(b.testers - {""} for b in owned) else []
    return Identities(tuple(questions), tuple(said), names, {b.blade.id: b for b in owned})


def say_same(db: Database, said: SameBlade, now: Moment) -> Identities:
    """Keep the tester's word on two blades; UnknownError where one of them is not on the shelf."""
    if said.one == said.other:
        raise ConflictError("a blade is the same as itself; name two", field="other")
    with db.write() as session:
        there = shelf.known_ids(session, (said.one, said.other))
        if len(there) < 2:
            raise UnknownError("one of these blades is not on the shelf", field="blade")
        testers.say_same(session, said, now.utc)
    return identities_of(db)


def ask_again(db: Database, one: str, other: str) -> Identities:
    """Forget what was said of two blades; they are two until it is said anew."""
    with db.write() as session:
        testers.forget_same(session, one, other)
    return identities_of(db)


def _owned(session: Session, names: dict[str, str]) -> list[OwnedBlade]:
    sent_by = {trial: origin.tester_id for trial, origin in testers.origins(session).items()}
    placed = shelf.trials_of_blades(session)
    found = []
    for blade in shelf.all_blades(session):
        cut_by = frozenset(sent_by.get(trial, "") for trial in placed.get(blade.id, ()))
        told = next((f" ({n})" for n in names.values() if blade.code.endswith(f" ({n})")), "")
        code = blade.code.removesuffix(told) if told else blade.code
        found.append(OwnedBlade(blade, cut_by or frozenset({""}), code))
    return found

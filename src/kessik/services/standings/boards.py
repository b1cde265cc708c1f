"""Standings kept: each question about all trials with its last answer, renewed as trials change."""

import logging
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from functools import cached_property

import numpy as np
from pydantic import TypeAdapter

from kessik.core.errors import KessikError
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.identity import one_for_all
from kessik.core.standings.answer import PLACES_SEED
from kessik.core.standings.board import ArmFacts, Board, StandingsQuestion, board
from kessik.core.standings.comparable import LivesByTrial, TrialLife, check_criteria
from kessik.core.words.facts import hardening_words
from kessik.services.clock import now
from kessik.services.reading.summaries import summaries_of
from kessik.store.database import Database, Session
from kessik.store.queries import shelf, testers, trials
from kessik.store.queries.boards import (
    KeptBoard,
    ask,
    keep_board,
    kept_board,
    kept_boards,
    rests_on,
)

CANNOT = "these standings cannot be calculated from the data stored"
_LATELY, _NOTED_EVERY = timedelta(minutes=10), timedelta(minutes=1)
_LOG = logging.getLogger("kessik")
_QUESTION = TypeAdapter(StandingsQuestion)


@dataclass(frozen=True)
class Field:
    """All that standings rest on: lives by the id of their trial, names of trials by id, blades by
    id, and names of testers by id; `same` leads from a blade to the one that stands for both.
    """

    lives: LivesByTrial
    trials: dict[str, str]
    blades: dict[str, Blade]
    testers: dict[str, str]
    same: Mapping[str, str]

    @cached_property
    def arms(self) -> dict[str, ArmFacts]:
        """What is known of each arm that has a life."""
        ids = {life.arm: life.blade_id for own in self.lives.values() for life in own}
        return {
            arm: _facts(self.blades[blade_id], arm)
            for arm, blade_id in ids.items()
            if blade_id in self.blades
        }


@dataclass(frozen=True)
class BoardPage:
    """The last answer to a question as JSON, empty while there is none; why there can be none; and
    whether a newer one is on its way.
    """

    answer: str
    failed: str
    is_behind: bool


RenderBoard = Callable[[Board, Field], str]


def read_field(session: Session) -> Field:
    """Lives, trials and blades in one state of the data."""
    names = {trial.id: trial.name for trial in trials.all_trials(session)}
    known = summaries_of(session)
    blades = {blade.id: blade for blade in shelf.all_blades(session)}
    one = one_for_all(testers.same_blades(session), list(blades))
    sent_by = {trial: origin.tester_id for trial, origin in testers.origins(session).items()}
    lives = {  # in one order, whenever they were worked out: places are drawn
        trial_id: [
            _common(life, sent_by.get(trial_id, ""), one) for life in known[trial_id].standing
        ]
        for trial_id in sorted(names)
        if trial_id in known and known[trial_id].standing
    }
    known_testers = testers.all_testers(session).values()
    people = {each.id: each.name for each in known_testers}
    people[""] = next((each.name for each in known_testers if each.is_here), "")
    return Field(lives, names, blades, people, one)


def _common(life: TrialLife, sent_by: str, one: Mapping[str, str]) -> TrialLife:
    """A life as the common table has it: whose it is, and of the blade that stands for all that
    are the same.
    """
    blade_id = one.get(life.blade_id, life.blade_id)
    arm = life.arm.replace(life.blade_id, blade_id, 1)
    return replace(life, of=sent_by, arm=arm, blade_id=blade_id)


def work_out(field: Field, question: StandingsQuestion) -> Board:
    """The board of a question."""
    normals = np.random.default_rng(PLACES_SEED).standard_normal
    return board(field.lives, question, field.arms, normals)


class Boards:
    """The kept boards of a data folder: read by the page, renewed where no page waits."""

    def __init__(self, db: Database, render: RenderBoard, version: str) -> None:
        self._db, self._render, self._version = db, render, version

    def page(self, question: StandingsQuestion) -> BoardPage:
        """The last answer there is; OutOfRangeError for a question that is none."""
        text = self._text(question)
        with self._db.read() as session:
            kept, state = kept_board(session, text), self._state(session)
        is_behind = kept is None or kept.rests_on != state
        if kept is None or (is_behind and kept.asked_utc < _ago(_NOTED_EVERY)):
            with self._db.write() as session:
                ask(session, text, now().utc)
        if kept is None:
            return BoardPage("", "", True)
        return BoardPage(kept.answer, kept.failed, is_behind)

    def settle(self, is_over: Callable[[], bool] = lambda: False) -> None:
        """Renew every board that is behind and was asked for lately, the last one first, unless it
        is over before; whatever nobody looks at waits until somebody does.
        """
        since = _ago(_LATELY)
        with self._db.read() as session:
            state = self._state(session)
            lately = [kept for kept in kept_boards(session) if kept.asked_utc >= since]
            waiting = [kept for kept in lately if kept.rests_on != state]
            field = read_field(session) if waiting else None
        for kept in waiting:
            if is_over() or field is None:
                return
            made = self._made(kept, field)
            with self._db.write() as session:
                keep_board(session, replace(made, rests_on=state))

    def _made(self, kept: KeptBoard, field: Field) -> KeptBoard:
        try:
            found = work_out(field, _QUESTION.validate_json(kept.question))
            return replace(kept, answer=self._render(found, field), failed="")
        except KessikError as error:
            return replace(kept, answer="", failed=error.message)
        except Exception as error:  # whatever one question leads to, the others are answered
            _LOG.error("standings cannot be worked out: %s", kept.question, exc_info=error)
            return replace(kept, answer="", failed=CANNOT)

    def _state(self, session: Session) -> str:
        return f"{self._version}-{rests_on(session)}"

    def _text(self, question: StandingsQuestion) -> str:
        agree = check_criteria(question.agree)
        return _QUESTION.dump_json(replace(question, agree=agree)).decode()


def _ago(time: timedelta) -> str:
    return (datetime.fromisoformat(now().utc) - time).isoformat(timespec="milliseconds")


def _facts(blade: Blade, arm: str) -> ArmFacts:
    _, _, preparation = arm.partition("/")
    heat = blade.heat_treatment
    groups = {
        "grade": blade.claimed_grade or "",
        "maker": blade.origin,
        "heat_treatment": hardening_words(heat) if heat.is_told else "",
        "edge_finish": _finish(blade, preparation),
    }
    code = f"{blade.code} {preparation}" if preparation else blade.code
    return ArmFacts(blade.id, code, groups, bool(blade.archived_utc))


def _finish(blade: Blade, preparation: str) -> str:
    """The last abrasive of an arm's edges, where it is one."""
    edges = [edge for edge in blade.edges if not preparation or edge.arm == preparation]
    finishes = {edge.value("final_abrasive_um") for edge in edges} - {None}
    return f"{finishes.pop():g} µm" if len(finishes) == 1 else ""

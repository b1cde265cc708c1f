"""Answers kept: worked out in the background, one trial at a time, and read by every page.

A page never waits for an analysis: it shows the last answer, and says that a newer one is on its
way.
"""

import logging
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from kessik.core.due import PlannedWork
from kessik.core.errors import KessikError, StorageError, StoreDamagedError
from kessik.core.trials.points import lives_of, points_of, repeats_of
from kessik.core.trials.standing_lives import standing_lives
from kessik.core.trials.state import TrialState
from kessik.core.trials.verdict import Evidence, Verdict, judged, unanswered
from kessik.services.reading.summaries import Summary, written
from kessik.services.reading.trial_states import state_until_answered, trial_state
from kessik.services.trials.past import pace_of
from kessik.services.trials.plans import dated_work_of
from kessik.services.trials.verdicts import evidence
from kessik.store.database import Database
from kessik.store.queries import answers
from kessik.store.queries.answers import KeptAnswer, KeptPage, Page

CANNOT = "this cannot be calculated from the data stored; its files can still be exported"
UNANSWERED_SHOWN = 20
"""Lines of Today without any answer yet, each of which has to read its trial; the others follow as
they are worked out."""
_LOG = logging.getLogger("kessik")


Render = Callable[[Verdict], str]


@dataclass(frozen=True)
class Pages:
    """How a verdict is written down for each page, and the version of all that."""

    today: Render
    verdict: Render
    version: str


@dataclass(frozen=True)
class Todays:
    """The lines of Today as JSON; the trials that cannot be worked out, each with its id, its name
    and why; and how many answers are on their way.
    """

    lines: tuple[str, ...]
    failed: tuple[tuple[str, str, str], ...]
    behind: int


class Answers:
    """The kept answers of a data folder: read by every page, renewed where no page waits."""

    def __init__(self, db: Database, pages: Pages) -> None:
        self._db, self._pages = db, pages
        self._lines: dict[str, tuple[int, tuple[bool, str]]] = {}

    def settle(self, is_over: Callable[[], bool] = lambda: False) -> None:
        """Renew all that is behind, one trial at a time, unless it is over before."""
        while waiting := self.behind():
            for trial_id in waiting:
                if is_over():
                    return
                self.renew(trial_id)

    def behind(self) -> list[str]:
        """The trials whose answer is not the newest."""
        with self._db.read() as session:
            return answers.behind(session, self._pages.version)

    def progress(self) -> tuple[int, int]:
        """Of how many trials the answer is the newest, and how many there are."""
        with self._db.read() as session:
            of = answers.all_of(session)
            return of - len(answers.behind(session, self._pages.version)), of

    def renew(self, trial_id: str) -> None:
        """Work a trial's answer out from one snapshot, and keep it."""
        revision = 0
        try:
            with self._db.read() as session:
                revision = answers.revision_of(session, trial_id)
                known = evidence(session, trial_id)
            made = self._made(trial_id, revision, known)
        except Exception as error:  # whatever one trial holds, the others are answered
            if _is_of_the_moment(error):
                raise
            made = self._failed(trial_id, revision, _why(trial_id, error))
        with self._db.write() as session:
            answers.keep(session, made)

    def _made(self, trial_id: str, revision: int, known: Evidence) -> KeptAnswer:
        found = judged(known)
        summary = written(summary_of(found, self._work(found), pace_of(self._db, found.state)))
        pages = self._pages.today(found), self._pages.verdict(found)
        sealed, under_way = bool(found.sealed), found.state.is_under_way
        return KeptAnswer(
            trial_id, revision, self._pages.version, sealed, under_way, summary, *pages
        )

    def _work(self, found: Verdict) -> list[PlannedWork]:
        """The dated work of the trial's plan; a plan that cannot be worked out spoils no answer."""
        try:
            return dated_work_of(self._db, found.state, lives_of(found))
        except Exception as error:
            if _is_of_the_moment(error):
                raise
            _LOG.error("the plan of %s cannot be worked out", found.trial.id, exc_info=error)
            return []

    def _failed(self, trial_id: str, revision: int, why: str) -> KeptAnswer:
        version = self._pages.version
        return KeptAnswer(trial_id, revision, version, True, False, "", "", "", why)

    def page(self, page: Page, trial_id: str) -> tuple[str, int]:
        """A page of a trial as JSON, and how many answers are on their way while a newer one of
        this trial is among them; UnknownError where there is no such trial.

        Both are of one state of the data: a page that is not the newest never says that it is.
        """
        with self._db.read() as session:
            kept = next(iter(answers.pages(session, page, self._pages.version, trial_id)), None)
            is_current = kept is not None and kept.is_current
            behind = 0 if is_current else len(answers.behind(session, self._pages.version))
        if kept is None or not self._may_be_shown(kept):
            return self._without_answer(page, trial_state(self._db, trial_id)), behind
        if kept.failed:
            raise StoreDamagedError(kept.failed, field="trial")
        return kept.text or "", behind

    def todays(self) -> Todays:
        """Every trial's line, those with a run under way before the others, newest first."""
        with self._db.read() as session:
            kept = answers.pages(session, "today", self._pages.version)
        failed, lines, unanswered_lines = [], [], 0
        for each in kept:
            if each.failed and each.is_current:
                failed.append((each.trial_id, each.name, each.failed))
            elif self._may_be_shown(each) and each.text:
                self._lines.pop(each.trial_id, None)
                lines.append((not each.under_way, each.text))
            elif (unanswered_lines := unanswered_lines + 1) <= UNANSWERED_SHOWN:
                lines += self._line_without_answer(each)
        lines.sort(key=lambda line: line[0])
        behind = sum(1 for each in kept if not each.is_current)
        return Todays(tuple(text for _, text in lines), tuple(failed), behind)

    def _line_without_answer(self, kept: KeptPage) -> list[tuple[bool, str]]:
        """A trial's line until its answer is there; read once for each revision."""
        revision, line = self._lines.get(kept.trial_id, (-1, (False, "")))
        if revision != kept.revision:
            try:
                state = state_until_answered(self._db, kept.trial_id)
            except KessikError:
                return []  # told among the failed, once it was looked at
            line = (not state.is_under_way, self._without_answer("today", state))
            self._lines[kept.trial_id] = (kept.revision, line)
        return [line]

    def _may_be_shown(self, kept: KeptPage) -> bool:
        """Whether a kept page may stand while a newer one is on its way: an open answer to a trial
        that is sealed by now may not.
        """
        if kept.is_current:
            return True
        if kept.text is None or kept.failed:
            return False
        if kept.sealed or not kept.may_be_sealed:
            return True
        return not trial_state(self._db, kept.trial_id).sealed

    def _without_answer(self, page: Page, state: TrialState) -> str:
        render = self._pages.today if page == "today" else self._pages.verdict
        return render(unanswered(state))


def _is_of_the_moment(error: Exception) -> bool:
    """Whether it lies in the store as it is now, busy or full, and not in what is stored."""
    return isinstance(error, StorageError) and not isinstance(error, StoreDamagedError)


def _why(trial_id: str, error: Exception) -> str:
    if isinstance(error, KessikError):
        return error.message
    _LOG.error("the trial %s cannot be worked out", trial_id, exc_info=error)
    return CANNOT


def summary_of(
    found: Verdict,
    work: Sequence[PlannedWork] = (),
    pace_s: tuple[float | None, float | None] = (None, None),
) -> Summary:
    """What other pages learn of an answer."""
    ended = [r for r in found.runs if r.state.status in ("stopped", "abandoned")]
    return Summary(
        found.stage,
        lives_of(found),
        repeats_of(found),
        {r.run.id: (r.state.count, len(r.state.checks)) for r in ended},
        tuple(work),
        pace_s,
        points_of(found),
        standing_lives(found),
    )

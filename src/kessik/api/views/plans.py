"""Plans over the wire."""

from kessik.api.schemas.plans import (
    BladeAheadOut,
    PlanBody,
    ScheduleAheadOut,
    StockNeedOut,
    TrialPlanOut,
    WorkOut,
)
from kessik.api.views.methods import method_out
from kessik.core.trials.stock_needs import StockNeed
from kessik.core.trials.trial import Plan
from kessik.core.words.blinding import sealed_trial_words
from kessik.core.words.due import work_words
from kessik.core.words.methods import schedule_words
from kessik.core.words.plans import basis_words, one_blade_words, shortfall_words
from kessik.interchange.calendar_ics import CalendarEntry
from kessik.services.trials.plans import DatedWork, ScheduleAhead, TrialPlan, planned


def plan_body(plan: Plan, edges_per_blade: int) -> PlanBody:
    """A plan as the form has it."""
    return PlanBody.showing(plan, edges_per_blade=edges_per_blade)


def stock_need_out(need: StockNeed) -> StockNeedOut:
    """What a plan takes of a lot, in the lot's unit."""
    lot = need.lot
    return StockNeedOut.showing(
        need, lot_id=lot.id, lot=lot.name, unit=lot.unit, currency=lot.currency
    )


def work_out(dated: DatedWork) -> WorkOut:
    """A piece of work on its day."""
    work = dated.work
    return WorkOut.showing(work, on=dated.on.isoformat())


def schedule_out(ahead: ScheduleAhead) -> ScheduleAheadOut:
    """A check schedule by its name, with what it uses and reaches."""
    return ScheduleAheadOut.showing(ahead, name=schedule_words(ahead.method))


def calendar_entries(found: TrialPlan) -> list[CalendarEntry]:
    """The dated work of a plan as days of a calendar."""
    trial, codes = found.trial, found.codes if found.trial.is_blind else {}
    return [
        CalendarEntry(
            f"{trial.id}-{work.on}-{n}",
            work.on,
            work_words(planned(work, trial, codes)),
            f"About {work.work.hours:.1f} h",
        )
        for n, work in enumerate(found.work)
    ]


def trial_plan_out(found: TrialPlan) -> TrialPlanOut:
    """A trial's plan with its cost, and what it lacks."""
    blades = [BladeAheadOut.showing(b, life_from=basis_words(b.starts_with)) for b in found.blades]
    return TrialPlanOut.showing(
        found,
        plan=plan_body(found.trial.plan, found.trial.edges_per_blade),
        method=method_out(found.trial.method, found.trial.method_id, found.trial.method_number),
        is_blind=found.trial.is_blind,
        unblinded_utc=found.trial.unblinded_utc,
        needs=[stock_need_out(need) for need in found.needs],
        work=[work_out(work) for work in found.work],
        blades=blades,
        schedules=[schedule_out(ahead) for ahead in found.schedules],
        sealed=sealed_trial_words(found.sealed),
        shortfalls=[shortfall_words(each) for each in found.shortfalls],
        reading_scatter_percent=100 * found.trial.method.force_scatter,
        edge_spread_percent=100 * found.edge_spread,
        shows_percent=found.shows.percent if found.shows else None,
        one_blade=one_blade_words(found.one_blade) if found.one_blade else "",
    )

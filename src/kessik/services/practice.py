"""Practice runs: readings on request from the virtual bench, marked as practice and kept out of comparisons."""

from kessik.core.errors import NotAllowedNowError
from kessik.instruments.virtual_bench.virtual_blade import virtual_reading_gf
from kessik.services.bench import run_view
from kessik.store.database import Database

USUAL_DULL_GF = 400.0


def virtual_reading(db: Database, run_id: str) -> float:
    """The virtual tester's reading at the run's present count, in gf; only in a practice run."""
    view = run_view(db, run_id)
    if not view.run.practice or view.run.practice_seed is None:
        raise NotAllowedNowError("readings from the virtual bench are for practice runs only", field="run")
    limits = view.method.limits_gf
    limit_gf = limits[-1][1] if limits else USUAL_DULL_GF
    number = len(view.state.checks)
    return virtual_reading_gf(view.run.practice_seed, view.blade.claimed_grade, limit_gf, view.state.count, number)

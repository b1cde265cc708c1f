"""The assay of the scenario: all six blades shot with the simulated analyser."""

from dataclasses import replace

import numpy as np

from kessik.core.composition.batches import Batch
from kessik.core.composition.library import our_grades
from kessik.core.composition.shots import Shot
from kessik.demo.cutting import demo_id
from kessik.demo.days import Days
from kessik.instruments.stand_ins.analyser import NITRIDE_OF_TITANIUM, AnalyserStandIn
from kessik.instruments.virtual_bench.melts import melt_of
from kessik.services.assays.batches import make_batch
from kessik.services.assays.shots import put_shot
from kessik.store.database import Database

_SEED = 20_260_501
_TRULY = {
    "AV-01": "1.4034",
    "AV-02": "1.4112",
    "AV-03": "1.2436",
    "AV-04": "1.2842",
    "AV-05": "1.3344",
    "AV-06": "1.2363",
}
"""What the blades are made of, whatever they are sold as."""
_SHOTS = 3
_COATED, _SLIPPED = "AV-04", "AV-01"


def build_assays(db: Database, days: Days) -> None:
    """One batch that went out and came back; one shot slipped, one went through a coating."""
    batch_id = demo_id("batch", "spring")
    batch = Batch(
        batch_id,
        "Spring post",
        tuple(demo_id(code) for code in _TRULY),
        "Ardle Voe Mussel Growers",
        days.date(21),
        days.date(13),
        "handheld analyser, simulated",
        "Operator 2",
    )
    make_batch(db, batch, days.moment(22, 10))
    rng = np.random.default_rng(_SEED)
    analyser = AnalyserStandIn(rng, batch.analyser)
    for code, grade in _TRULY.items():
        melt = melt_of(our_grades()[grade], rng)
        for number in range(1, _SHOTS + 1):
            blank = _blank(code, str(number), batch_id, days)
            shot = analyser.shoot(melt, blank, normalise=True)
            put_shot(db, _slipped(shot) if _slips(code, number) else shot, days.moment(13, 11))
        if code == _COATED:
            blank = _blank(code, "on the tape", batch_id, days)
            taken = analyser.shoot(melt, blank, coating=NITRIDE_OF_TITANIUM, normalise=True)
            put_shot(db, taken, days.moment(13, 11))


def _blank(code: str, name: str, batch_id: str, days: Days) -> Shot:
    shot_id = demo_id("shot", code, name)
    return Shot(
        shot_id, demo_id(code), name, (), "bare", "yes", days.date(13), "", "Operator 2", batch_id
    )


def _slips(code: str, number: int) -> bool:
    return code == _SLIPPED and number == _SHOTS


def _slipped(shot: Shot) -> Shot:
    """The analyser slid off the blade: everything but iron reads low."""
    readings = tuple(
        replace(r, percent=round(0.86 * r.percent, 3)) if r.element == "Cr" else r
        for r in shot.readings
    )
    return replace(shot, readings=readings)

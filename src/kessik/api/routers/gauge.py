"""Gauge studies: the order to read in, and what readings say of the gauge, and
the studies that are kept.
"""

from typing import Annotated

import numpy as np
from fastapi import APIRouter, File, Query, UploadFile

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id, ShortText
from kessik.api.schemas.gauge import (
    GaugeFileOut,
    GaugeReadingBody,
    GaugeStudyBody,
    GaugeStudyOut,
    KeptStudyBody,
    KeptStudyOut,
    TurnOut,
)
from kessik.api.views.gauge import gauge_study_out, kept_study_out
from kessik.core.gauge.kept import KeptStudy
from kessik.core.gauge.order import blind_order
from kessik.core.gauge.study import study
from kessik.interchange.gauge_csv import read_gauge, readings_of
from kessik.services.clock import now
from kessik.services.gauge.studies import delete_study, keep_study, studies

router = APIRouter(tags=["reckoner"])


@router.get("/gauge-order")
def get_order(
    parts: int,
    repeats: int,
    operator: Annotated[list[ShortText], Query(max_length=50)],
    seed: Annotated[int, Query(ge=0, le=2**31)] = 0,
) -> list[TurnOut]:
    """The order in which a study is read; one seed is one order."""
    permutation = np.random.default_rng(seed).permutation
    turns = blind_order(parts, operator, repeats, lambda n: [int(i) for i in permutation(n)])
    return [TurnOut.showing(turn) for turn in turns]


@router.post("/gauge-studies")
def post_study(body: GaugeStudyBody) -> GaugeStudyOut:
    """What the readings of a study say of its gauge."""
    found = study([reading.to_core() for reading in body.readings])
    return gauge_study_out(found, body.unit)


@router.get("/gauge-studies")
def get_studies(store: Store) -> list[KeptStudyOut]:
    """The studies that are kept, newest first."""
    return [kept_study_out(found) for found in studies(store)]


@router.put("/gauge-studies/{study_id}")
def put_study(study_id: Id, body: KeptStudyBody, store: Store) -> KeptStudyOut:
    """Keep a study under a client-made id, or say whether plans reckon with it."""
    readings = tuple(reading.to_core() for reading in body.readings)
    kept = KeptStudy(
        study_id,
        body.instrument.strip(),
        body.measures,
        body.unit,
        readings,
        now(),
        body.in_use,
    )
    return kept_study_out(keep_study(store, kept))


@router.delete("/gauge-studies/{study_id}", status_code=204)
def delete_kept_study(study_id: Id, store: Store) -> None:
    """Delete a kept study."""
    delete_study(store, study_id)


@router.post("/gauge-files")
def post_file(file: Annotated[UploadFile, File()]) -> GaugeFileOut:
    """The readings of a `*.gauge.csv` file."""
    table = read_gauge((file.filename or "study.gauge.csv")[:200], file.file.read())
    table.faults.refuse()
    readings, unit = readings_of(table)
    told = [GaugeReadingBody.showing(reading) for reading in readings]
    return GaugeFileOut(readings=told, unit=unit, notes=list(table.notes))

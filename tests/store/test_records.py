"""A record is written once: its table holds every field, or it is said here where it comes from."""

from dataclasses import dataclass, field, fields, replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.composition.batches import Batch
from kessik.core.composition.grades import Grade
from kessik.core.composition.shots import Shot
from kessik.core.corrosion.soaks import Soak
from kessik.core.devices import Instrument, PairedDevice, ReferenceCheck
from kessik.core.facts import Measurement
from kessik.core.geometry import Zone
from kessik.core.heat_treatment import HeatTreatment
from kessik.core.runs import Run
from kessik.core.sharpening.regimes import Step
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Abrasive, Edge, Recipe
from kessik.core.stock import Lot, LotCorrection
from kessik.core.trials.trial import Trial
from kessik.store.queries import shelf
from kessik.store.queries.records import from_plain, plain
from kessik.store.tables import (
    AbrasiveRow,
    BatchRow,
    BladeRow,
    EdgeRow,
    GradeRow,
    InstrumentRow,
    LotCorrectionRow,
    LotRow,
    MeasurementRow,
    PairedDeviceRow,
    RecipeRow,
    ReferenceCheckRow,
    RunRow,
    ShotRow,
    SoakRow,
    TrialRow,
)

ELSEWHERE = [
    (Abrasive, AbrasiveRow, ""),
    (Batch, BatchRow, "blade_ids"),  # a table of places
    # a trial says its place, role and arms; an arm is worked out of its edges
    (Blade, BladeRow, "place role arms arm blade_code arm_edge_ids measurements edges"),
    (Edge, EdgeRow, "measurements"),
    (Grade, GradeRow, ""),
    (Instrument, InstrumentRow, ""),
    (Lot, LotRow, ""),
    (LotCorrection, LotCorrectionRow, ""),
    (Measurement, MeasurementRow, "on"),  # kept as made_on
    (PairedDevice, PairedDeviceRow, ""),
    (Recipe, RecipeRow, ""),
    (ReferenceCheck, ReferenceCheckRow, "made"),  # its two halves
    (Run, RunRow, "started"),  # its two halves
    (Shot, ShotRow, "on"),  # kept as made_on
    (Soak, SoakRow, "coupons started"),  # a table; its two halves
    (Trial, TrialRow, "created rule method method_number"),  # its halves; the rule's own columns
]


@pytest.mark.parametrize(("record", "row", "elsewhere"), ELSEWHERE)
def test_every_field_of_a_record_stands_in_its_table(record, row, elsewhere):
    columns = set(row.__table__.columns.keys())
    told = set(elsewhere.split())
    assert {field.name for field in fields(record)} - columns == told


@dataclass(frozen=True)
class Nested:
    """A record of everything that is read back by its type."""

    name: str
    steps: tuple[Step, ...] = ()
    zone: Zone | None = None
    treatment: HeatTreatment = field(default_factory=HeatTreatment)
    outline: tuple[tuple[float, float], ...] = ()


numbers = st.floats(-1e6, 1e6)
nested = st.builds(
    Nested,
    name=st.text(),
    steps=st.lists(st.builds(Step, abrasive=st.text(), size_um=st.none() | numbers)).map(tuple),
    zone=st.none() | st.builds(Zone, from_mm=numbers, to_mm=numbers),
    treatment=st.builds(HeatTreatment, tempers_c=st.lists(numbers).map(tuple)),
    outline=st.lists(st.tuples(numbers, numbers)).map(tuple),
)


@given(nested)
def test_plain_values_make_the_same_record_again(record):
    assert from_plain(Nested, plain(record)) == record


def test_a_blade_comes_back_as_it_was_kept(database):
    edge = Edge("edge-1", "blade-1", 4, steps=(Step("stone", size_um=6.0),), zones=(Zone(0, 40),))
    blade = Blade("blade-1", "A", heat_treatment=HeatTreatment(tempers_c=(180.0, 180.0)))
    with database.write() as session:
        shelf.save_whole_blades(session, [replace(blade, edges=(edge,))])
    with database.read() as session:
        assert shelf.find_blade(session, "blade-1") == replace(blade, edges=(edge,))

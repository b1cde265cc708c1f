"""A gauge study, for the wire."""

import math

from kessik.api.schemas.gauge import (
    GaugeComponentOut,
    GaugeMeanOut,
    GaugeReadingBody,
    GaugeStudyOut,
    KeptStudyOut,
)
from kessik.core.gauge.study import COMPONENTS, GaugeStudy
from kessik.core.words.gauge import (
    component_name,
    drift_words,
    gauge_notes,
    gauge_sentences,
    use_words,
)
from kessik.core.words.sentences import as_sentence
from kessik.services.gauge.studies import StudyBeside


def gauge_study_out(found: GaugeStudy, unit: str) -> GaugeStudyOut:
    """How good the gauge is."""
    shown = {str(name): component_name(name) for name in COMPONENTS if name not in found.unseen}
    shown |= {"grr": "gauge in all", "total": "all readings"}
    variances = {str(name): value for name, value in found.components.items()}
    variances |= {"grr": found.grr, "total": found.total}
    return GaugeStudyOut(
        sentences=gauge_sentences(found, unit),
        notes=[as_sentence(f"{note}.") for note in gauge_notes(found)],
        components=[
            _component(label, variances[key], found.intervals.get(key), found.total)
            for key, label in shown.items()
        ],
        means=[
            GaugeMeanOut(part=part, operator=operator, mean=mean)
            for (part, operator), mean in found.means.items()
        ],
        far_off=list(found.far_off),
    )


def kept_study_out(found: StudyBeside) -> KeptStudyOut:
    """A kept study in one line, beside the one before."""
    kept = found.kept
    return KeptStudyOut.showing(
        kept,
        made_utc=kept.made.utc,
        says=gauge_sentences(kept.found, kept.unit)[0],
        drift=drift_words(found.drift, kept) if found.drift else "",
        use=use_words(kept),
        readings=[GaugeReadingBody.showing(reading) for reading in kept.readings],
    )


def _component(
    name: str, variance: float, interval: tuple[float, float] | None, total: float
) -> GaugeComponentOut:
    ends = [math.sqrt(max(end, 0.0)) for end in interval] if interval else []
    return GaugeComponentOut(
        name=name,
        sd=f"{math.sqrt(variance):.3g}",
        interval=f"{ends[0]:.3g} to {ends[1]:.3g}" if ends else "",
        percent=f"{100 * variance / total:.0f}" if total > 0 else "",
    )

"""Methods over the wire."""

from kessik.api.schemas.methods import (
    CheckRowOut,
    GaugeScatterOut,
    KnownMethodsOut,
    MethodOut,
    OwnMethodOut,
)
from kessik.core.gauge.kept import scatter_percent
from kessik.core.protocols.checks import CheckKind
from kessik.core.protocols.methods import (
    Method,
)
from kessik.core.trials.trial import MethodVersion
from kessik.core.words.gauge import study_words
from kessik.core.words.methods import checked_words, ends_when, stage_words
from kessik.services.trials.methods import KnownMethods


def check_row_out(row: CheckKind) -> CheckRowOut:
    """A kind of check as the bench and the pages know it."""
    return CheckRowOut.showing(row, least=row.limit.least, most=row.limit.most)


def method_out(method: Method, method_id: str = "", number: int = 1) -> MethodOut:
    """A method with its sentences."""
    return MethodOut.showing(
        method,
        id=method_id,
        number=number,
        ends_when=ends_when(method),
        checked=checked_words(method),
        stage_words=[stage_words(stage, method) for stage in method.stages],
        check_rows=[check_row_out(row) for row in method.rows],
        all_cautions=list(method.all_cautions()),
    )


def method_version_out(version: MethodVersion) -> MethodOut:
    """A version of a method."""
    return method_out(version.method, version.id, version.number)


def known_methods_out(known: KnownMethods) -> KnownMethodsOut:
    """What a trial can take its method from."""
    study = known.study
    return KnownMethodsOut(
        gauge=GaugeScatterOut(percent=scatter_percent(study), says=study_words(study))
        if study
        else None,
        ready=[method_out(method) for method in known.ready],
        own=[
            OwnMethodOut.showing(
                method_version_out(version),
                line_id=version.line_id,
                archived=version.line_id in known.archived,
            )
            for version in known.own
        ],
    )

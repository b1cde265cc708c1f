"""Copies of the data over the wire."""

from kessik.api.schemas.backups import BackupRuleBody, CopiesOut, CopyOut
from kessik.services.upkeep.copies import Copies


def copies_out(found: Copies) -> CopiesOut:
    """The copies of a data folder, and how one comes back."""
    rule = found.rule
    newest = found.copies[0].path if found.copies else "COPY"
    return CopiesOut(
        folder=str(found.folder),
        copies=[
            CopyOut(
                name=copy.path.name,
                reason=copy.reason,
                made_utc=copy.made.isoformat(),
                size_mb=copy.size / 1e6,
            )
            for copy in found.copies
        ],
        rule=BackupRuleBody.showing(rule),
        failed=found.failed.why if found.failed else "",
        second_failed=found.second_failed.why if found.second_failed else "",
        bring_back=f"kessik restore {newest} --data {found.folder}",
    )

"""The looks of a soak as a file, and from one."""

from datetime import datetime, timedelta

from kessik.core.corrosion.soaks import Soak
from kessik.core.corrosion.timing import exposure_h
from kessik.core.errors import Fault, KessikError, NotAllowedNowError, RefusedFileError
from kessik.core.moments import Moment
from kessik.interchange.csv_tables import Row
from kessik.interchange.looks_csv import look_of, read_looks, write_looks
from kessik.interchange.named_files import NamedFile
from kessik.services.soaks.sheets import coupon_names, soak_sheet
from kessik.services.soaks.soaks import clock_h, keep_look
from kessik.store.database import Database


def looks_csv(db: Database, soak_id: str, now: Moment) -> tuple[Soak, str]:
    """Every look of a soak as `*.looks.csv`."""
    sheet = soak_sheet(db, soak_id, now)
    names = {coupon.id: coupon.name for coupon in sheet.soak.coupons}
    rows = [
        (names[look.coupon_id], exposure_h(look.clock_h, sheet.acts), look)
        for look in sheet.looks
        if look.coupon_id in names
    ]
    return sheet.soak, write_looks(sheet.soak.name, rows)


def import_looks(db: Database, soak_id: str, file: NamedFile, now: Moment) -> int:
    """Keep the looks of a file in a soak, all or nothing; how many there were.

    A coupon is found by its name, or by the name with its side or arm. RefusedFileError lists every
    row that cannot be.
    """
    sheet = soak_sheet(db, soak_id, now)
    if sheet.soak.started is None:
        raise NotAllowedNowError("this soak has not begun; start it first", field="soak")
    table = read_looks(file.name, file.data)
    table.faults.refuse()
    coupons = {name.casefold(): i for i, name in coupon_names(sheet.soak).items()}
    for coupon in sheet.soak.coupons:
        coupons.setdefault(coupon.name.casefold(), coupon.id)
    faults, looks = [], []
    for row in table.rows:
        name = str(row.values["coupon"])
        coupon_id = coupons.get(name.casefold())
        if coupon_id is None:
            known = ", ".join(coupon.name for coupon in sheet.soak.coupons)
            faults.append(
                Fault(file.name, row.line, "coupon", f"{name} is not in this soak; {known} are")
            )
            continue
        at = _moment(sheet.soak.started, row)
        if clock_h(at, now) < 0:
            faults.append(Fault(file.name, row.line, "hours", "that hour has not come yet"))
            continue
        looks.append((row, look_of(row, coupon_id, at, soak_id)))
    if faults:
        raise RefusedFileError(faults)
    with db.write() as session:
        for row, look in looks:
            try:
                keep_look(session, sheet.soak, look, None, now)
            except KessikError as wrong:
                raise RefusedFileError(
                    [Fault(file.name, row.line, wrong.field or "", wrong.message)]
                ) from wrong
    return len(looks)


def _moment(begun: Moment, row: Row) -> Moment:
    at = datetime.fromisoformat(begun.utc) + timedelta(hours=float(row.values["hours"]))
    return Moment(at.isoformat(timespec="milliseconds"), begun.offset_minutes)

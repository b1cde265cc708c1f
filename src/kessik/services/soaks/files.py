"""The looks of a soak as a file, and from one."""

from collections.abc import Iterator, Sequence
from datetime import datetime, timedelta

from kessik.core.corrosion.exposures import clock_of_exposure, exposure_h
from kessik.core.corrosion.soaks import Look, Soak
from kessik.core.errors import Fault, KessikError, NotAllowedNowError, RefusedFileError
from kessik.core.moments import Moment
from kessik.interchange.csv_tables import Row
from kessik.interchange.looks_csv import look_of, read_looks, write_looks
from kessik.interchange.named_files import NamedFile
from kessik.services.soaks.sheets import SoakSheet, all_sheets, coupon_names, soak_sheet
from kessik.services.soaks.soaks import clock_h, keep_look
from kessik.store.database import Database

_NOT_BEGUN = "this soak has not begun; start it first"
_SAME_HOUR = 0.01


def looks_csv(db: Database, soak_id: str, now: Moment) -> tuple[Soak, str]:
    """Every look of a soak as `*.looks.csv`."""
    sheet = soak_sheet(db, soak_id, now)
    return sheet.soak, write_looks(look_rows(sheet))


def look_rows(sheet: SoakSheet) -> list[tuple[str, str, float, Look]]:
    """The looks of a soak as a file of looks has them."""
    names = {coupon.id: coupon.name for coupon in sheet.soak.coupons}
    return [
        (sheet.soak.name, names[look.coupon_id], exposure_h(look.clock_h, sheet.acts), look)
        for look in sheet.looks
        if look.coupon_id in names
    ]


def import_looks(db: Database, soak_id: str, file: NamedFile, now: Moment) -> int:
    """Keep the looks of a file in a soak, all or nothing; how many there were.

    A coupon is found by its name, or by the name with its side or arm. RefusedFileError lists every
    row that cannot be.
    """
    sheet = soak_sheet(db, soak_id, now)
    rows = _sound_rows(file)
    if sheet.soak.started is None:
        raise NotAllowedNowError(_NOT_BEGUN, field="soak")
    _keep(db, file.name, [(sheet, rows)], now)
    return len(rows)


def import_looks_by_name(db: Database, file: NamedFile, now: Moment) -> list[str]:
    """Keep the looks of a file in the soaks that its rows name, all or nothing; what was kept, in
    words.

    RefusedFileError where a soak of a name is not there, not begun, or there twice.
    """
    rows = _sound_rows(file)
    sheets: dict[str, list[SoakSheet]] = {}
    for sheet in all_sheets(db, now):
        sheets.setdefault(sheet.soak.name.casefold(), []).append(sheet)
    faults, rows_of = [], dict[str, list[Row]]()
    for row in rows:
        name = str(row.values["soak"]).strip()
        wrong = _why_not(sheets.get(name.casefold(), []))
        if wrong:
            faults.append(Fault(file.name, row.line, "soak", f"{name}: {wrong}"))
        rows_of.setdefault(name.casefold(), []).append(row)
    if faults:
        raise RefusedFileError(faults)
    placed = [(sheets[name][0], own) for name, own in rows_of.items()]
    _keep(db, file.name, placed, now)
    return [f"inspections saved in {sheet.soak.name}: {len(own)}" for sheet, own in placed]


def _sound_rows(file: NamedFile) -> tuple[Row, ...]:
    table = read_looks(file.name, file.data)
    table.faults.refuse()
    return table.rows


def _why_not(named: Sequence[SoakSheet]) -> str:
    """Why looks cannot be kept in the soak of a name; empty where they can."""
    if len(named) > 1:
        return "several soaks are called that; open the right one and import there"
    if not named:
        return "there is no soak of this name"
    return _NOT_BEGUN if named[0].soak.started is None else ""


def _keep(
    db: Database, file_name: str, placed: Sequence[tuple[SoakSheet, Sequence[Row]]], now: Moment
) -> None:
    """Keep the looks of rows in their soaks, which have begun, all in one piece."""
    faults: list[Fault] = []
    found = [
        (sheet, row, look)
        for sheet, rows in placed
        for row, look in _looks_of(sheet, file_name, rows, now, faults)
    ]
    if faults:
        raise RefusedFileError(faults)
    with db.write() as session:
        for sheet, row, look in found:
            try:
                keep_look(session, sheet.soak, look, None, now, _SAME_HOUR)
            except KessikError as wrong:
                raise RefusedFileError(
                    [Fault(file_name, row.line, wrong.field or "", wrong.message)]
                ) from wrong


def _looks_of(
    sheet: SoakSheet, file_name: str, rows: Sequence[Row], now: Moment, faults: list[Fault]
) -> Iterator[tuple[Row, Look]]:
    """Each row as a look; what is wrong with the others is added to the faults."""
    begun = sheet.soak.started
    coupons = {name.casefold(): i for i, name in coupon_names(sheet.soak).items()}
    for coupon in sheet.soak.coupons:
        coupons.setdefault(coupon.name.casefold(), coupon.id)
    for row in rows:
        name = str(row.values["coupon"])
        coupon_id = coupons.get(name.casefold())
        if coupon_id is None:
            known = ", ".join(coupon.name for coupon in sheet.soak.coupons)
            faults.append(
                Fault(file_name, row.line, "coupon", f"{name} is not in this soak; {known} are")
            )
        elif begun is not None:
            at = _moment(begun, clock_of_exposure(float(row.values["hours"]), sheet.acts))
            if clock_h(at, now) < 0:
                faults.append(Fault(file_name, row.line, "hours", "that hour has not come yet"))
            look = look_of(row, coupon_id, at, sheet.soak.id)
            if not _is_there(sheet, look):
                yield row, look


def _moment(begun: Moment, clock_h: float) -> Moment:
    at = datetime.fromisoformat(begun.utc) + timedelta(hours=clock_h)
    return Moment(at.isoformat(timespec="milliseconds"), begun.offset_minutes)


def _is_there(sheet: SoakSheet, look: Look) -> bool:
    """Whether the soak has this very look already, under whatever id."""
    told = (
        "coupon_id", "side", "stage", "region", "rust_percent", "rust_low", "rust_high", "pits",
        "seen_by", "blind",
    )  # fmt: skip  # names, several a line
    hour = clock_h(sheet.soak.started, look.at) if sheet.soak.started else 0.0
    return any(
        all(getattr(there, name) == getattr(look, name) for name in told)
        and bool(there.struck) == bool(look.struck)
        and abs(there.clock_h - hour) < _SAME_HOUR
        for there in sheet.looks
    )

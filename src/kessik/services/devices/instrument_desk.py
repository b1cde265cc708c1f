"""The desk where instruments are plugged in: their lines read, judged, and told to whoever
listens.
"""

import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from threading import Lock
from typing import Protocol
from uuid import uuid4

import numpy as np

from kessik.core.devices import Instrument, InstrumentKind, NewsKind
from kessik.core.errors import RefusedFileError
from kessik.core.limits import most
from kessik.core.protocols.reading_gate import ReadingGate, pass_line
from kessik.instruments.folder import FolderWatch
from kessik.instruments.lines import LineReader
from kessik.instruments.stand_ins.edge_force import EdgeForceStandIn
from kessik.instruments.stand_ins.transport import LoopbackLine
from kessik.interchange.instrument_lines import read_line
from kessik.interchange.shots_csv import read_shots
from kessik.services.clock import now
from kessik.services.devices.instruments import BY_FOLDER, range_of
from kessik.services.devices.shots import keep_shots
from kessik.services.live import INSTRUMENTS, Live
from kessik.services.pictures.storing import keep_picture
from kessik.store.database import Database
from kessik.store.queries import instruments

_SUFFIXES = {"camera": (".png", ".jpg", ".jpeg", ".webp"), "xrf": (".csv",)}
VIRTUAL = Instrument("virtual-edge-force", "force", "virtual bench", "virtual", unit="gf")


@dataclass(frozen=True)
class InstrumentNews:
    """What an instrument did just now. A reading has an id of its own, so that it is recorded once
    whoever hears it; `run_id` names the practice run that a reading of the virtual bench is for.
    """

    instrument_id: str
    name: str
    kind: InstrumentKind
    what: NewsKind
    text: str
    value: float | None = None
    unit: str = ""
    reading_id: str = ""
    picture: str = ""
    run_id: str | None = None


@dataclass
class Status:
    """Whether an instrument is there, and the last thing it said."""

    is_there: bool = False
    text: str = ""


class _Port(Protocol):
    def open(self) -> None: ...
    def close(self) -> None: ...


class Desk:
    """The instruments of one data folder, each with its port open while it is in use."""

    def __init__(self, db: Database, live: Live) -> None:
        self._db, self._live = db, live
        self._ports: dict[str, tuple[Instrument, _Port]] = {}
        self._statuses: dict[str, Status] = {}
        self._gates: dict[str, ReadingGate] = {}
        self._lock, self._pulling = Lock(), Lock()
        self._virtual: tuple[LoopbackLine, LineReader] | None = None
        self._pulled_for: str | None = None

    def plug_in_all(self) -> None:
        """Open the port of every instrument in use."""
        with self._db.read() as session:
            wanted = instruments.all_instruments(session)
        self.plug_in(wanted)

    def plug_in(self, wanted: list[Instrument]) -> None:
        """Open the ports of the instruments in use, close the others; one whose port is unchanged
        goes on.
        """
        in_use = [each for each in wanted if each.in_use and each.archived_utc is None]
        by_id = {each.id: each for each in in_use[: most("instruments")]}
        with self._lock:
            for instrument_id, (known, port) in list(self._ports.items()):
                if by_id.get(instrument_id) != known:
                    port.close()
                    del self._ports[instrument_id]
                    self._statuses.pop(instrument_id, None)
            for instrument in by_id.values():
                if instrument.id not in self._ports:
                    self._statuses[instrument.id] = Status()
                    opened = self._port(instrument)
                    self._ports[instrument.id] = (instrument, opened)
                    opened.open()

    def status(self, instrument_id: str) -> Status:
        return self._statuses.get(instrument_id, Status())

    def pull_virtual(self, run_id: str, true_gf: float, rng: np.random.Generator) -> None:
        """Pull the test line of the virtual bench over an edge; its reading comes as any
        instrument's does.
        """
        with self._pulling:
            line = self._virtual_line()
            self._pulled_for = run_id
            EdgeForceStandIn(line, rng).pull(true_gf)

    def close(self) -> None:
        """Let go of every port."""
        self.plug_in([])
        if self._virtual is not None:
            line, reader = self._virtual
            reader.close()
            line.close()
            self._virtual = None

    def _virtual_line(self) -> LoopbackLine:
        if self._virtual is None:
            line = LoopbackLine()
            reader = LineReader(
                line.address, 9600, lambda text: self._heard(VIRTUAL, text), self._on_state(VIRTUAL)
            )
            reader.open()
            self._virtual = (line, reader)
        line, _ = self._virtual
        until = time.monotonic() + 2
        # A port that is just being opened throws away what comes meanwhile: connected is not yet
        # listening.
        while not (line.readers and self.status(VIRTUAL.id).is_there) and time.monotonic() < until:
            time.sleep(0.005)
        return line

    def _port(self, instrument: Instrument) -> _Port:
        on_state = self._on_state(instrument)
        if instrument.kind in BY_FOLDER:

            def on_file(name: str, data: bytes) -> None:
                self._found(instrument, name, data)

            return FolderWatch(
                Path(instrument.address), _SUFFIXES[instrument.kind], on_file, on_state
            )
        return LineReader(
            instrument.address,
            instrument.baud,
            lambda text: self._heard(instrument, text),
            on_state,
        )

    def _on_state(self, instrument: Instrument) -> Callable[[bool, str], None]:
        def told(is_there: bool, why: str) -> None:
            self._statuses[instrument.id] = Status(is_there, why)
            self._tell(instrument, "there" if is_there else "lost", why)

        return told

    def _heard(self, instrument: Instrument, text: str) -> None:
        line = read_line(text, instrument.unit)
        self._statuses[instrument.id] = Status(True, text)
        if line.standing == "up":
            return
        if line.standing == "down" or instrument.kind == "pedal":
            self._tell(instrument, "pedal" if line.standing == "down" else "refused", text)
            return
        low, high = range_of(instrument)
        fits = line.unit == instrument.unit or line.standing == "garbled"
        standing = line.standing if fits else "garbled"
        gate = self._gates.get(instrument.id, ReadingGate())
        self._gates[instrument.id], answer = pass_line(
            gate, standing, line.value, time.monotonic(), low, high
        )
        if answer == "taken":
            self._tell(instrument, "reading", text, line.value, reading_id=str(uuid4()))
        elif answer == "moving":
            self._tell(instrument, "moving", text, line.value)
        elif answer == "out_of_range":
            said = (
                f"{line.value:g} {instrument.unit} is out of its range, {low:g} to {high:g}; not"
                " recorded"
            )
            self._tell(instrument, "refused", said, line.value)
        elif answer == "garbled":
            self._tell(instrument, "refused", f"“{_printable(text)}” cannot be read; not recorded")

    def _found(self, instrument: Instrument, name: str, data: bytes) -> None:
        try:
            if instrument.kind == "camera":
                picture = keep_picture(self._db, data, now().utc)
                self._tell(instrument, "picture", name, picture=picture.hash)
                return
            table = read_shots(name, data)
            table.faults.refuse()
            shots = {(row.values["blade"], row.values["shot"]) for row in table.rows}
            keep_shots(self._db, instrument.id, name, table, now().utc)
            many = "1 shot" if len(shots) == 1 else f"{len(shots)} shots"
            said = f"{name}: {many} of {len(table.rows)} elements in all; they wait to be used"
            self._tell(instrument, "result", said)
        except RefusedFileError as refused:
            self._tell(instrument, "refused", f"{name}: {refused.faults[0].message}; not taken")

    def _tell(
        self,
        instrument: Instrument,
        what: NewsKind,
        text: str,
        value: float | None = None,
        *,
        reading_id: str = "",
        picture: str = "",
    ) -> None:
        news = InstrumentNews(
            instrument_id=instrument.id,
            name=instrument.name,
            kind=instrument.kind,
            what=what,
            text=text,
            value=value,
            unit=instrument.unit,
            reading_id=reading_id,
            picture=picture,
            run_id=self._pulled_for if instrument is VIRTUAL else None,
        )
        self._live.tell(INSTRUMENTS, news)


def _printable(text: str) -> str:
    return "".join(char if char.isprintable() else "·" for char in text)[:40]

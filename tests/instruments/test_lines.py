"""Instruments on their lines: read over TCP and a pseudo-terminal, misbehaving, lost and found
again.
"""

import numpy as np
import pytest

from kessik.core.devices import Instrument
from kessik.instruments.folder import FolderWatch
from kessik.instruments.lines import LineReader
from kessik.instruments.stand_ins.edge_force import EdgeForceStandIn
from kessik.instruments.stand_ins.others import (
    PedalStandIn,
    RockwellStandIn,
    take_picture,
    write_shot,
)
from kessik.instruments.stand_ins.transport import LoopbackLine, PseudoTerminalLine
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.interchange.instrument_lines import read_line
from kessik.interchange.shots_csv import read_shots
from kessik.services.devices.instrument_desk import Desk
from kessik.services.live import Live
from tests.helpers.lines import Told, until


@pytest.mark.parametrize(
    ("text", "standing", "value"),
    [
        ("ST +0212.0 gf", "stable", 212.0),
        ("US,+0148.5 gf", "moving", 148.5),
        ("  S   - 3.2 g", "stable", -3.2),
        ("+00212,5 gf", "stable", 212.5),
        ("2.0 N", "stable", 203.943),
        ("ST 1961.33 mN", "stable", 200.0),
        ("212", "stable", 212.0),
        ("S\x00+0#1?.g", "garbled", None),
        ("ST 212 psi", "garbled", None),
        ("XX 212 gf", "garbled", None),
    ],
)
def test_a_line_is_read_whichever_way_a_tester_writes_it(text, standing, value):
    # 1 gf = 9.80665 mN exactly (standard gravity, CGPM 1901)
    line = read_line(text, "gf")
    assert line.standing == standing
    assert line.value == (value if value is None else pytest.approx(value, abs=0.001))


@pytest.mark.parametrize("plug", [LoopbackLine, PseudoTerminalLine])
def test_a_stand_in_is_read_over_its_line(plug):
    line, heard, states = plug(), [], []
    reader = LineReader(line.address, 9600, heard.append, lambda there, why: states.append(there))
    reader.open()
    until(lambda: states == [True] and getattr(line, "readers", 1))
    shown = EdgeForceStandIn(line, np.random.default_rng(1)).pull(200)
    until(lambda: heard and heard[-1].startswith("ST"))
    assert read_line(heard[-1], "gf").value == shown
    assert [read_line(text, "gf").standing for text in heard[:-1]] == ["moving"] * 3
    reader.close()
    line.close()


def test_a_lost_line_is_announced_once_and_found_again():
    line, heard, states = LoopbackLine(), [], []
    reader = LineReader(line.address, 9600, heard.append, lambda there, why: states.append(there))
    reader.open()
    until(lambda: line.readers == 1)
    line.hang_up()
    until(lambda: states[:3] == [True, False, True])
    until(lambda: line.readers == 1)
    line.say("ST +0200.0 gf")
    until(lambda: heard == ["ST +0200.0 gf"])
    reader.close()
    line.close()


@pytest.fixture
def told(database):
    live = Live()
    opened = Told(Desk(database, live), live)
    yield opened
    opened.desk.close()


def test_a_pull_becomes_one_reading_and_what_cannot_be_is_told_and_not_taken(told):
    line = LoopbackLine()
    told.desk.plug_in([Instrument("tester-1", "force", "line tester", line.address, unit="gf")])
    until(lambda: line.readers == 1 and told.whats("there"))
    stand_in = EdgeForceStandIn(line, np.random.default_rng(2), garbage_share=1.0)
    shown = stand_in.pull(230)
    until(lambda: told.whats("reading"))
    (reading,) = told.whats("reading")
    assert (reading.value, reading.run_id) == (shown, None)
    assert "cannot be read; not recorded" in told.whats("refused")[0].text
    stand_in.show(7000)
    until(lambda: len(told.whats("refused")) >= 3)
    assert "out of its range" in told.whats("refused")[-1].text
    assert len(told.whats("reading")) == 1
    line.close()


def test_a_drifting_stand_in_reads_by_so_much_more():
    class Nowhere:
        address = ""

        def say(self, text): ...
        def hang_up(self): ...

    exact = SimulatedTester(0.0, 0.0)
    drifted = EdgeForceStandIn(
        Nowhere(), np.random.default_rng(1), exact, drift_percent=10, pause_s=0
    ).pull(200)
    assert drifted == 220
    lost = EdgeForceStandIn(Nowhere(), np.random.default_rng(1), exact, lost_share=1.0, pause_s=0)
    assert lost.pull(200) is None


def test_the_other_devices_are_heard_too(told, tmp_path):
    rockwell, pedal, folder, results = (
        LoopbackLine(),
        LoopbackLine(),
        tmp_path / "camera",
        tmp_path / "xrf",
    )
    folder.mkdir()
    results.mkdir()
    told.desk.plug_in(
        [
            Instrument(
                "rockwell", "rockwell", "bench Rockwell tester", rockwell.address, unit="HRC"
            ),
            Instrument("pedal-01", "pedal", "pedal", pedal.address),
            Instrument("camera-1", "camera", "camera", str(folder)),
            Instrument("xrf-0001", "xrf", "analyser", str(results)),
        ]
    )
    until(lambda: rockwell.readers == 1 and pedal.readers == 1 and len(told.whats("there")) == 4)
    shown = RockwellStandIn(rockwell, np.random.default_rng(3)).press(60.4)
    PedalStandIn(pedal).press()
    take_picture(folder, "apex.png")
    (folder / "broken.png").write_bytes(b"no picture")
    write_shot(results, "AV-01", "1", {"Cr": 14.1, "Mo": 0.5})
    until(
        lambda: (
            told.whats("reading")
            and told.whats("pedal")
            and told.whats("picture")
            and told.whats("result")
        )
    )
    until(lambda: told.whats("refused"))
    assert (told.whats("reading")[0].value, told.whats("reading")[0].unit) == (shown, "HRC")
    assert len(told.whats("pedal")) == 1, "letting go is no second stroke"
    assert len(told.whats("picture")[0].picture) == 64
    assert "1 shot of 2 elements" in told.whats("result")[0].text
    assert told.whats("refused")[0].text.startswith("broken.png: this is not a whole picture")
    rockwell.close()
    pedal.close()


def test_a_folder_that_goes_away_is_announced(tmp_path):
    states, folder = [], tmp_path / "pictures"
    folder.mkdir()
    watch = FolderWatch(
        folder, (".png",), lambda name, data: None, lambda there, why: states.append(there)
    )
    watch.open()
    until(lambda: states == [True])
    folder.rmdir()
    until(lambda: states == [True, False])
    watch.close()


def test_a_shot_is_read_as_the_analyser_wrote_it(tmp_path):
    table = read_shots("a.shots.csv", write_shot(tmp_path, "AV-01", "1", {"Cr": 14.1}).read_bytes())
    assert [(r.values["element"], r.values["percent"]) for r in table.rows] == [("Cr", 14.1)]
    assert read_shots(
        "a.shots.csv", b"blade,shot,element,percent,plus_minus\nA,1,Cr,140,1\n"
    ).faults

"""Two windows on one run, an instrument on its line, and a phone let in from the network."""

import numpy as np
import pytest
from selenium.webdriver.common.keys import Keys

from kessik.instruments.stand_ins.edge_force import EdgeForceStandIn
from kessik.instruments.stand_ins.transport import LoopbackLine
from tests.browser.chromium import chromium
from tests.browser.conftest import Person
from tests.helpers.at_the_bench import at_the_bench, log_of
from tests.serving import Served


@pytest.fixture
def stand_in():
    line = LoopbackLine()
    yield EdgeForceStandIn(line, np.random.default_rng(5))
    line.close()


def test_a_second_window_follows_and_a_reading_of_the_stand_in_is_recorded_once(
    person, served, stand_in
):
    hand, run = at_the_bench(person, served)
    tester = {
        "id": "line-tester",
        "kind": "force",
        "name": "Line tester",
        "address": stand_in.line.address,
    }
    assert hand.client.put("/api/instruments/line-tester", json=tester).status_code == 200
    with chromium(390, 844) as driver:
        phone = Person(driver, served.address)
        phone.open(f"/runs/{run}")
        phone.until(lambda: phone.text("count") == "0")
        shown = stand_in.pull(151)
        for someone in (person, phone):
            someone.see(f"Line tester: {shown:g} gf, recorded")
            someone.until(lambda s=someone: s.text("last-reading") == f"{shown:g} gf")
        person.press(" ", " ")
        phone.until(lambda: phone.text("count") == "2", 5)
        stand_in.line.say("ST #+2?2 gf")
        person.see("cannot be read; not recorded")
        phone.press("t", " ")
        person.see("Another device holds the count")
        person.until(lambda: person.text("count") == "3")
    assert [c["force_gf"] for c in log_of(hand, run)["state"]["checks"]] == [shown]


def test_a_practice_run_reads_the_virtual_bench_and_ends_with_the_strop(person, served):
    hand = served.hand()
    (_, edge), _ = hand.make_trial("A", "B", schedule="every", every=10)
    run = hand.start(edge, practice=True, practice_seed=4)
    person.open(f"/runs/{run}")
    person.see("take 2 readings")
    person.press("r")
    person.see("virtual bench")
    person.until(lambda: len(log_of(hand, run)["state"]["checks"]) == 1)
    person.press("s", "enough", Keys.ENTER)
    person.see("Strop the edge")
    person.tab_to("Strokes on the strop")
    person.press("1", "2", Keys.ENTER)
    person.see("12 strokes so far; wipe it and take a reading")
    hand.client.post(f"/api/runs/{run}/virtual-reading")
    person.see("After 12 strokes")


def test_a_pedal_is_learned_and_a_letter_changed(person, served):
    _, _ = at_the_bench(person, served)
    person.press("k")
    person.tab_to("Learn the pedal")
    person.press(Keys.ENTER, "b")
    person.see("B is the key for “break”")
    person.tab_to("Learn the pedal")
    person.press(Keys.ENTER, Keys.PAGE_DOWN)
    person.see("pedal sends")
    person.press("k", Keys.PAGE_DOWN, Keys.PAGE_DOWN)
    person.until(lambda: person.text("count") == "2")
    person.driver.refresh()
    person.until(lambda: person.text("count") == "2")
    person.press(Keys.PAGE_DOWN)
    person.until(lambda: person.text("count") == "3")


def test_a_phone_is_let_in_by_the_code_the_laptop_shows(tmp_path):
    # 127.0.0.2 stands for the address in the local network: another host of this machine that it
    # must not trust
    bench = Served(tmp_path / "lan", options=("--address", "127.0.0.2"))
    try:
        with chromium() as driver, chromium(390, 844) as other:
            laptop, phone = (
                Person(driver, bench.address),
                Person(other, f"http://127.0.0.2:{bench.port}"),
            )
            laptop.open("/devices")
            laptop.see("Show a code")
            laptop.tab_to("Show a code")
            laptop.press(Keys.ENTER)
            laptop.see("works once")
            phone.open("/")
            phone.see("Pair this device with the bench")
            phone.open(f"/pair?code={laptop.text('code')}")
            other.find_element("css selector", "button").click()
            phone.see("Which blade lasts?")
            laptop.see("1 paired device")
            laptop.tab_to("Unpair")
            laptop.press(Keys.ENTER)
            laptop.see("Ready to pair a device")
            phone.open("/")
            phone.see("Pair this device with the bench")
    finally:
        bench.kill()

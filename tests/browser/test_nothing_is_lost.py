"""The count survives a reload, a slip, and a server that goes away in the middle."""

import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.chromium import chromium
from tests.browser.conftest import Person
from tests.helpers.at_the_bench import at_the_bench, log_of

KEPT_BY_WORKER = "return navigator.serviceWorker.controller !== null"


def device_of(log):
    """The device that cut first."""
    return next(e["device"] for e in log["log"] if e["kind"] == "cut")


def test_a_reload_in_the_middle_of_a_run(person, served):
    hand, run = at_the_bench(person, served)
    person.press("1", "5", "0", Keys.ENTER, "1", "5", "2", Keys.ENTER)
    person.see("Check after 1 more")
    person.press(" ", "1", "7", "0", Keys.ENTER)
    person.press(" ", " ", " ", Keys.BACKSPACE)
    person.until(lambda: person.text("count") == "3")
    person.see("all on disk")  # a reload within the same millisecond as a tap is no tester's
    person.driver.refresh()
    person.until(lambda: person.text("count") == "3")
    assert person.text("last-reading") == "170 gf"
    person.press(" ")
    person.until(lambda: person.text("count") == "4")
    person.see("all on disk")
    state = log_of(hand, run)["state"]
    assert state["count"] == 4
    assert [(c["count"], c["force_gf"]) for c in state["checks"]] == [(0, 150), (0, 152), (1, 170)]


@pytest.mark.apart
def test_an_outage_with_a_reload_and_a_second_device_loses_nothing_and_counts_nothing_twice(
    person, served
):
    hand, run = at_the_bench(person, served)
    person.press(" ", " ")
    person.until(lambda: person.text("count") == "2")
    with chromium(390, 844) as driver:
        phone = Person(driver, served.address)
        phone.open(f"/runs/{run}")
        phone.until(lambda: phone.text("count") == "2")
        person.until(lambda: person.driver.execute_script(KEPT_BY_WORKER))
        served.kill()
        person.press(" " * 25, "2", "1", "0", Keys.ENTER, " " * 5, "2", "2", "4", Keys.ENTER)
        person.see("32 events stored here and sent when it answers")
        person.driver.refresh()
        person.until(lambda: person.text("count") == "32", 20)
        person.press(" " * 10, Keys.BACKSPACE, "2", "4", "0", Keys.ENTER)
        person.until(lambda: person.text("count") == "41")
        phone.press(" ", " ", " ", " ")
        phone.see("4 tapped here wait for it to accept")
        served.start()
        person.see("all on disk", seconds=30)
        person.see("The other device proposes 4 more cuts", seconds=30)
        person.press("a")
        for someone in (person, phone):
            someone.until(lambda s=someone: s.text("count") == "45")
        log = log_of(hand, run)
    told = [
        (e["kind"], e["count_at"], e["payload"].get("value"))
        for e in log["log"]
        if e["device"] == device_of(log)
    ]
    cuts = [("cut", n, None) for n in range(27)]
    cuts += [("reading", 27, 210), *[("cut", n, None) for n in range(27, 32)], ("reading", 32, 224)]
    cuts += [
        *[("cut", n, None) for n in range(32, 42)],
        ("correction", 42, None),
        ("reading", 41, 240),
    ]
    assert told == [*cuts, ("accept", 41, None)], "each event once, in its order, at its count"
    assert log["state"]["count"] == 45
    assert [(c["count"], c["force_gf"]) for c in log["state"]["checks"]] == [
        (27, 210),
        (32, 224),
        (41, 240),
    ]
    assert len({e["id"] for e in log["log"]}) == len(log["log"])


def test_a_wrong_reading_is_said_at_once_and_a_right_one_can_be_corrected_later(person, served):
    hand, run = at_the_bench(person, served)
    person.press("0", Keys.ENTER)
    person.see("cannot be a reading; 1 to 5000 gf can")
    person.press(Keys.ESCAPE, "9", "1", "5", Keys.ENTER)
    person.until(lambda: person.text("last-reading") == "915 gf")
    person.press("l")
    person.see("Events, newest first")
    person.tab_to("Correct")
    person.press(Keys.ENTER)
    person.tab_to("Reading")
    person.press(Keys.BACKSPACE * 3, "151", Keys.ENTER)
    person.see("915 gf at 0, corrected to 151 gf")
    person.until(lambda: log_of(hand, run)["state"]["checks"][0]["force_gf"] == 151)

"""The count survives a reload, a slip, and a server that goes away in the middle."""

from selenium.webdriver.common.keys import Keys


def at_the_bench(person, served):
    hand = served.hand()
    ((_, edge), _) = hand.make_trial("A", "B")
    run = hand.start(edge)
    person.open(f"/runs/{run}")
    person.see("take 2 readings")
    return hand, run


def log_of(hand, run):
    return hand.client.get(f"/api/runs/{run}").json()


def test_a_reload_in_the_middle_of_a_run(person, served):
    hand, run = at_the_bench(person, served)
    person.press("1", "5", "0", Keys.ENTER, "1", "5", "2", Keys.ENTER)
    person.see("Check after 1 more")
    person.press(" ", "1", "7", "0", Keys.ENTER)
    person.press(" ", " ", " ", Keys.BACKSPACE)
    person.until(lambda: person.text("count") == "3")
    person.driver.refresh()
    person.until(lambda: person.text("count") == "3")
    assert person.text("last-reading") == "170 gf"
    person.press(" ")
    person.until(lambda: person.text("count") == "4")
    person.see("all on disk")
    state = log_of(hand, run)["state"]
    assert state["count"] == 4
    assert [(c["count"], c["force_gf"]) for c in state["checks"]] == [(0, 150), (0, 152), (1, 170)]


def test_counting_goes_on_while_the_server_is_away_and_catches_up_once(person, served):
    hand, run = at_the_bench(person, served)
    person.press(" ", " ")
    person.until(lambda: person.text("count") == "2")
    person.see("all on disk")
    served.kill()
    person.press(*[" "] * 9, Keys.BACKSPACE, "2", "1", "0", Keys.ENTER)
    person.until(lambda: person.text("count") == "10")
    person.see("kept here and sent when it is back")
    served.start()
    person.see("all on disk", seconds=30)
    log = log_of(hand, run)
    assert log["state"]["count"] == 10
    assert [c["force_gf"] for c in log["state"]["checks"]] == [210]
    assert [e["kind"] for e in log["log"]].count("cut") == 11
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
    person.tab_to("Right reading, gf")
    person.press(Keys.BACKSPACE * 3, "151", Keys.ENTER)
    person.see("915 gf at 0, corrected to 151 gf")
    person.until(lambda: log_of(hand, run)["state"]["checks"][0]["force_gf"] == 151)

"""Pass and fail at the bench, by keyboard alone: two stages one after the other, and a glint put at
its place.
"""

import json
import urllib.request

from selenium.webdriver.common.keys import Keys


def run_of(person, run):
    with urllib.request.urlopen(f"{person.address}/api/runs/{run}") as answer:
        return json.loads(answer.read())


def test_a_two_stage_run_by_keyboard(person, served):
    hand = served.hand()
    (_, edge), _ = hand.make_trial("A", "B", school="two_stage_board")
    run = hand.start(edge)
    person.open(f"/runs/{run}")
    person.see("does it cut the hair sample, 2 tries")
    person.press("p")
    person.see("does it cut the hair sample")
    person.press("p")
    person.see("Check after 10 more")
    person.press(*" " * 10)
    person.see("Check now: wipe, does it cut the hair sample")
    person.press("f", "f")
    person.see("Fine is lost; from here on")
    person.see("does it slice the held paper, 2 tries")
    person.press("p", "p")
    person.see("Check after 10 more")
    person.press(*" " * 4, "x", *" " * 6)
    person.see("does it slice the held paper, 2 tries")
    person.press("f", "f")
    person.see("To fine: between 0 and 10 ft; to working: between 10 and 20 ft")
    ended = run_of(person, run)
    assert ended["state"]["stages"] == {"fine": 10, "working": 20}
    assert [e["count_at"] for e in ended["log"] if e["kind"] == "spoiled"] == [14]
    assert person.errors() == []


def test_a_glint_is_put_at_its_place_and_a_run_is_abandoned_only_with_a_reason(person, served):
    hand = served.hand()
    (_, edge), _ = hand.make_trial("A", "B", school="push_cut_board")
    run = hand.start(edge)
    person.open(f"/runs/{run}")
    person.see("look along the apex under the lamp")
    person.press("c")
    person.see("Check after 5 more")
    person.press(*" " * 5)
    person.see("look along the apex under the lamp")
    person.press("g")
    person.see("tap the edge strip where it is")
    person.press("3", "3", Keys.ENTER)
    person.see("Deformation is lost")
    (glint,) = [c for c in run_of(person, run)["state"]["checks"] if c["seen"] == "glint"]
    assert (glint["position_mm"], glint["count"]) == (33, 5)
    person.press("s")
    person.see("Abandon run")
    person.tab_to("Abandon run")
    person.press(Keys.ENTER)
    person.see("Give a reason to abandon the run")
    assert run_of(person, run)["state"]["status"] == "cutting"


def test_looks_made_off_their_schedule_count_and_leave_no_prompt_standing(person, served):
    """The paper record: hair still passes at 6 ft and fails at 13, paper passes there and fails at
    18; the schedule wanted looks at 10 and at 20.
    """
    hand = served.hand()
    (_, edge), _ = hand.make_trial("A", "B", school="two_stage_board")
    run = hand.start(edge)
    person.open(f"/runs/{run}")
    person.see("does it cut the hair sample, 2 tries")
    person.press("p", "p")
    person.see("Check after 10 more")
    person.press(*" " * 6, "p", "p")
    person.see("Check after 4 more")
    person.press(*" " * 7, "f", "f")
    person.see("Fine is lost; from here on")
    person.press("p", "p")
    person.see("Check after 10 more")
    person.press(*" " * 5, "f", "f")
    person.see("To fine: between 6 and 13 ft; to working: between 13 and 18 ft")
    assert run_of(person, run)["state"]["stages"] == {"fine": 13, "working": 18}
    assert person.errors() == []

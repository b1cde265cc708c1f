"""A check of the tester's own: defined on the method page, used at the bench by its keys, read in
the verdict.
"""

import json
import urllib.request

from selenium.webdriver.common.by import By


def json_of(person, path):
    with urllib.request.urlopen(person.address + path) as answer:
        return json.loads(answer.read())


def fill(person, label, text):
    """Type into the last field that is called so."""
    found = person.driver.find_elements(
        By.XPATH, f"//label[starts-with(normalize-space(.), '{label}')]/following::input[1]"
    )
    person.driver.execute_script("arguments[0].select()", found[-1])
    found[-1].send_keys(text)


def press_button(person, words):
    buttons = person.driver.find_elements(By.XPATH, f"//button[normalize-space(.)='{words}']")
    person.driver.execute_script("arguments[0].click()", buttons[-1])


def define_whittling(person, trial):
    """Hair whittling in four grades, lost from the third on, checked every 10 cuts."""
    person.open(f"/trials/{trial}/method")
    person.see("Medium and cut")
    person.pick("Check", "a check of my own …")
    fill(person, "Name of your check", "hair whittling")
    fill(person, "On what", "loose hair")
    person.pick("It shows", "a grade on a scale")
    fill(person, "Grades, sharpest first", "whittles, splits, cuts, slides")
    delete = "//section[starts-with(@aria-label, 'Stages')]//button[@aria-label='Delete this line']"
    second = person.driver.find_elements(By.XPATH, delete)[-1]  # one stage is enough
    person.driver.execute_script("arguments[0].click()", second)
    fill(person, "Stage", "fine")
    person.pick("decided by", "hair whittling")
    person.pick("Lost from", "cuts")
    person.pick("Checked", "at even gaps")
    fill(person, "Every", "10")
    person.pick("Stage", "fine", section="End of a run")
    person.pick("Confirmed by", "nothing more")
    press_button(person, "Save method")
    person.until(lambda: person.driver.current_url.endswith("/plan"))


def test_whittling_in_grades_from_the_method_page_to_the_verdict(person, served):
    """By hand: A splits hairs at 20 and only cuts them at 30; B splits them at 10 and cuts them at
    20. So A's fine edge was lost between 20 and 30 cuts, B's between 10 and 20.
    """
    hand = served.hand()
    edges = [edge for _, edge in hand.make_trial("A", "B")]
    define_whittling(person, hand.trial)
    method = json_of(person, f"/api/trials/{hand.trial}/line-up")["trial"]["method"]
    assert method["ends_when"] == "ends when “hair whittling” is at “cuts” or duller"
    for edge, grades in zip(edges, ("1123", "123"), strict=True):
        run = hand.start(edge)
        person.open(f"/runs/{run}")
        person.see("Check now: wipe, hair whittling on loose hair")
        for place, grade in enumerate(grades):
            person.press(grade)
            if place < len(grades) - 1:
                person.see("Check after 10 more")
                person.press(*" " * 10)
                person.see("Check now: wipe, hair whittling")
        last = 10 * (len(grades) - 1)
        person.see(f"To fine: between {last - 10} and {last} cuts")
        state = json_of(person, f"/api/runs/{run}")["state"]
        assert (state["status"], state["stages"]) == ("stopped", {"fine": last})
        assert state["checks"][0]["seen"] == "whittles"
    person.open(f"/trials/{hand.trial}/verdict")
    person.see("A outlasts B by 73 %")
    person.see("Fine: “hair whittling” is at “cuts” or duller.")
    assert person.errors() == []

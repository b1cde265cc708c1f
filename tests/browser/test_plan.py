"""The plan: a school is chosen, one number moved moves cost and power, what runs short is said, the
sheet prints.
"""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.helpers.browser import press_button


def field(person, label):
    return person.driver.find_element(
        By.XPATH, f"//label[starts-with(., '{label}')]/following-sibling::*[1]"
    )


def button(person, words):
    return person.driver.find_element(By.XPATH, f"//button[contains(., '{words}')]")


def type_over(person, label, text):
    field(person, label).send_keys(Keys.CONTROL + "a")
    field(person, label).send_keys(text)


def test_a_school_is_chosen_edges_move_cost_and_power_and_the_plan_is_kept(person, served):
    hand = served.hand()
    hand.make_trial("A", "B", "C")
    person.open(f"/trials/{hand.trial}/line-up")
    person.see("not known yet")
    person.press("n")
    person.see("2 edges a blade can show a difference of")
    person.driver.find_element(By.LINK_TEXT, "Force-limit rope series").send_keys(Keys.ENTER)
    person.see("Save method")
    button(person, "Paper-stop rope series").send_keys(Keys.ENTER)
    type_over(person, "Every", "0")
    press_button(person, "Save method")
    person.see("a gap between checks of 0 is out of range")
    type_over(person, "Every", "4")
    press_button(person, "Save method")
    person.see(
        "Paper-stop rope series, version 1: a run ends when “slices held paper” fails in all of 2"
        " tries."
    )
    person.see("Checked every 4 cuts")

    before = person.text("plan-says"), person.text("cost")
    type_over(person, "Edges a blade", "5")
    person.see("5 edges a blade can show a difference of")
    person.until(lambda: "15 runs" in person.text("cost"))
    assert person.text("plan-says") != before[0]
    assert person.text("cost") != before[1]
    person.pick("Order inside blocks", "there and back (two blades)")
    person.see("ABBA alternates two blades, and this trial has 3; use the Latin square")
    person.pick("Order inside blocks", "Latin square")
    type_over(person, "Prediction", "C first, by a fifth")
    type_over(person, "Rope a cut", "wide")
    person.see("“wide” is not a number")
    type_over(person, "Rope a cut", "30")
    press_button(person, "Save plan")
    person.until(
        lambda: (
            not person.driver.find_elements(
                By.XPATH, "//button[.='Save plan'][contains(@class, 'bg-next')]"
            )
        )
    )
    person.driver.refresh()
    person.see("5 edges a blade can show a difference of")
    assert field(person, "Prediction").get_attribute("value") == "C first, by a fifth"
    rows = person.driver.find_elements(By.CSS_SELECTOR, "section[aria-label='Order sheet'] li")
    assert len(rows) == 5
    for row in rows:
        assert sorted(row.find_elements(By.TAG_NAME, "b")[i].text for i in range(3)) == [
            "A",
            "B",
            "C",
        ]
    person.driver.execute_script("window.print = () => { window.printed = true }")
    press_button(person, "Print order sheet")
    assert person.driver.execute_script("return window.printed")
    person.open(f"/trials/{hand.trial}/verdict")
    person.see("Prediction, recorded before the first cut: C first, by a fifth")


def test_a_lot_is_bought_runs_short_and_is_named_in_the_plan(person, served):
    hand = served.hand()
    hand.make_trial("A", "B")
    person.open("/shelf?part=lots")
    person.see("Enter what you bought")
    person.pick("Kind", "test line")
    type_over(person, "Name of the lot", "spool 4")
    type_over(person, "Bought", "2")
    press_button(person, "Add to shelf")
    person.see("2.0 m left")
    person.open(f"/trials/{hand.trial}/plan")
    person.see("Cost")
    without = "//p[. = 'no such lot on the shelf yet']"
    person.until(lambda: len(person.driver.find_elements(By.XPATH, without)) == 1)
    person.pick("Checked with", "spool 4, 2.0 m left")
    person.see("Spool 4 is short by")
    press_button(person, "Cut blind")
    person.see("The bench shows codes")
    person.open("/")
    person.see("This trial is blind: 0 runs are cut")

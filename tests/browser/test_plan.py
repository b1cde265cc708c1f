"""The plan: one number moved moves cost and power, what runs short is said, and the order sheet is there to print."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.test_nothing_is_lost import Link
from tests.browser.test_shelf_and_edges import press_button
from tests.conftest import BenchHand


def field(person, label):
    return person.driver.find_element(By.XPATH, f"//label[starts-with(., '{label}')]/following-sibling::*[1]")


def type_over(person, label, text):
    field(person, label).send_keys(Keys.CONTROL + "a")
    field(person, label).send_keys(text)


def test_edges_a_blade_move_cost_and_power_and_the_plan_is_kept(person, served):
    hand = BenchHand(Link(served.address))
    hand.make_trial("A", "B", "C")
    person.open(f"/trials/{hand.trial}/line-up")
    person.see("still open")
    person.press("n")
    person.see("2 edges a blade can show a difference of")
    before = person.text("plan-says"), person.text("cost")
    type_over(person, "Edges a blade", "5")
    person.see("5 edges a blade can show a difference of")
    person.until(lambda: "15 runs" in person.text("cost"))
    assert person.text("plan-says") != before[0]
    assert person.text("cost") != before[1]

    type_over(person, "Test line left", "3")
    person.see("Test line runs short by")
    Select(field(person, "Order inside blocks")).select_by_value("abba")
    person.see("ABBA alternates two blades, and this trial has 3; take the Latin square")
    Select(field(person, "Order inside blocks")).select_by_value("latin_square")
    type_over(person, "What is expected", "C first, by a fifth")
    type_over(person, "Rope a cut", "wide")
    person.see("“wide” is not a number")
    type_over(person, "Rope a cut", "30")
    press_button(person, "Keep the plan")
    person.until(
        lambda: not person.driver.find_elements(By.XPATH, "//button[.='Keep the plan'][contains(@class, 'bg-next')]")
    )
    person.driver.refresh()
    person.see("5 edges a blade can show a difference of")
    assert field(person, "What is expected").get_attribute("value") == "C first, by a fifth"
    rows = person.driver.find_elements(By.CSS_SELECTOR, "section[aria-label='Order sheet'] li")
    assert len(rows) == 5
    for row in rows:
        assert sorted(row.find_elements(By.TAG_NAME, "b")[i].text for i in range(3)) == ["A", "B", "C"]
    person.open(f"/trials/{hand.trial}/verdict")
    person.see("Written down before the first cut: C first, by a fifth")

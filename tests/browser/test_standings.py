"""From the standings into a trial, and from a trial that disagrees to its record."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.chromium import chromium
from tests.browser.conftest import Person
from tests.helpers.browser import press_button


def rows(person):
    return [
        row.text.split("\n")[0] for row in person.driver.find_elements(By.CSS_SELECTOR, "ol li")
    ]


def test_filtered_opened_and_made_into_a_trial(demo):
    with chromium() as driver:
        person = Person(driver, demo.address)
        person.open("/standings")
        person.see("First of 14")
        find = driver.find_element(By.XPATH, "//label[.='Find']/following::input[1]")
        find.send_keys("tidewall")
        person.until(lambda: set(rows(person)) == {"AV-12", "AV-10", "AV-11"})
        driver.find_element(By.CSS_SELECTOR, "ol li button").send_keys(Keys.ENTER)
        person.see("Use as reference")
        press_button(person, "Plan its next cut")
        person.see("To settle where AV-12 stands")
        press_button(person, "Make trial")
        person.see("beside")
        person.see("AV-12")


def test_a_trial_that_disagrees_is_followed_to_its_record(demo):
    with chromium() as driver:
        person = Person(driver, demo.address)
        person.open("/standings")
        person.see("AV-10 lasted 0.5")
        driver.find_element(By.LINK_TEXT, "Open record").click()
        person.see("Rope log")
        assert "/record" in driver.current_url
        assert person.errors() == []

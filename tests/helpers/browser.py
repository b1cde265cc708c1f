"""What a person does on several pages."""

from selenium.common.exceptions import ElementNotInteractableException
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys


def press_button(person, words):
    """Press a button by its words, once it is there, awake and not behind a closing sheet."""

    def pressed():
        (button,) = person.driver.find_elements(By.XPATH, f"//button[.='{words}']")[:1] or [None]
        if button is None or not button.is_enabled():
            return False
        try:
            button.send_keys(Keys.ENTER)
        except ElementNotInteractableException:
            return False
        return True

    person.until(pressed)


def cut_to_the_end(person, life):
    """Do what the screen says until it says that the run has ended; readings follow a curve of this
    life.
    """
    cuts = 0
    for _ in range(200):
        person.until(lambda: not person.text("next").startswith("Working out"))
        says = person.text("next")
        if says.startswith("This run has ended"):
            return cuts
        if ("reading" in says and not says.startswith("Check after")) or says.startswith(
            "Read once more"
        ):
            gf = round(150 + 250 * (cuts / life) ** 0.6)
            person.press(*str(gf), Keys.ENTER)
            person.until(lambda shown=gf: person.text("last-reading") == f"{shown} gf")
            person.until(
                lambda: "all on disk" in person.driver.find_element("tag name", "header").text
            )
        else:
            person.press(" ")
            cuts += 1
            person.until(lambda shown=str(cuts): person.text("count") == shown)
    raise AssertionError("the run did not end")


def cell(person, blade, variable):
    row = person.driver.find_element(By.XPATH, f"//tr[th//a[.='{blade}']]")
    return row.find_element(By.CSS_SELECTOR, f"td[data-variable={variable}]")


def state(person, blade, variable):
    return person.until(lambda: cell(person, blade, variable).get_attribute("data-state"))

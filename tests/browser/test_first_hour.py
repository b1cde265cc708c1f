"""The first hour of somebody who has only ever cut on paper, counted in presses."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.helpers.browser import press_button


class Counting:
    """A person whose presses are counted."""

    def __init__(self, person):
        self.person, self.presses = person, 0

    def button(self, words):
        press_button(self.person, words)
        self.presses += 1

    def link(self, words):
        self.person.see(words)
        self.person.driver.find_element("link text", words).click()
        self.presses += 1

    def key(self, key):
        self.person.press(key)
        self.presses += 1


def test_from_an_empty_folder_to_a_verdict_in_25_presses_and_back_without_a_trace(person):
    new = Counting(person)
    person.open()
    new.button("Try it in five minutes")
    new.button("Sharpen P-2 again, with the same side angle as P-1")
    new.link("Go to: Plan the edges")
    new.button("Plan 3 edges a blade")
    new.button("Start the first run")
    cut_a_dozen(new)
    new.button("Cut the rest and read the verdict")
    person.see("P-1 outlasts P-2 by", 90)
    person.see("Is that inside the interval of the answer?")
    assert new.presses <= 25, new.presses
    assert person.errors() == []

    new.link("Leave practice")
    person.see("Guided practice, step 6 of 6: Read the verdict.")
    person.see("Which blade lasts?")
    press_button(person, "Delete practice")
    person.until(lambda: "Guided practice" not in person.driver.page_source)
    person.open("/shelf")
    person.see("Shelf")
    assert "P-1" not in person.driver.page_source


def cut_a_dozen(new):
    """Count, and read where the screen asks for it, until the practice is at its next step."""
    person, cuts = new.person, 0
    while cuts < 12:
        person.until(lambda: not person.text("next").startswith("Working out"))
        if person.text("next").split()[0] == "Check" and "after" in person.text("next"):
            new.key(" ")
            cuts += 1
            person.until(lambda shown=str(cuts): person.text("count") == shown)
        else:
            before = readings(person)
            new.key("r")
            person.until(lambda was=before: readings(person) == was + 1)
    person.see("Cut the rest and read the verdict")


def readings(person):
    """How many readings the log of the open run holds."""
    log = person.driver.execute_async_script(
        "const said = arguments[0], id = location.pathname.split('/').pop();"
        "fetch(`/practice/api/runs/${id}/log`).then((answer) => answer.json()).then(said);"
    )
    return sum(event["kind"] == "reading" for event in log)


def test_a_first_paper_record_comes_to_a_verdict_in_12_presses_besides_its_cells(person):
    new = Counting(person)
    person.open()
    new.button("Enter results I have")
    new.button("New trial for paper results")
    person.see("What is the trial called?")
    field(person, "What is the trial called?").send_keys("Twine on softwood")
    person.pick("How is it cut and checked?", "Paper-stop rope series")
    new.presses += 2
    field(person, "Blade 1, code").send_keys("A")
    field(person, "Blade 2, code").send_keys("B")
    new.button("Set up the paper sheet")
    person.see("One finished run a line")
    person.until(lambda: (person.focused().get_attribute("aria-label") or "").endswith("line 1"))
    person.press("62", Keys.ENTER, "41", Keys.ENTER)
    new.button("Save 2 runs")
    person.see("How often did you check?")
    unknown = "//label[contains(., 'gap not known')]"
    person.until(lambda: person.driver.find_elements(By.XPATH, unknown))[0].click()
    new.presses += 1
    new.button("Save 2 runs")
    person.until(lambda: "/verdict" in person.driver.current_url)
    person.see("from paper", 40)
    assert new.presses <= 12, new.presses
    assert person.errors() == []


def field(person, label):
    """The input under a label."""
    named = f"//label[starts-with(normalize-space(.), '{label}')]"
    return person.driver.find_element(By.XPATH, f"//input[@id={named}/@for]")

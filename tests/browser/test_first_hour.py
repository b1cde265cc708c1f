"""The first hour of somebody who has only ever cut on paper, counted in presses."""

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

"""The main path without a pointer: new trial, two blades, two runs to their stop, verdict."""

from selenium.webdriver.common.keys import Keys

from tests.helpers.browser import cut_to_the_end


def test_from_an_empty_database_to_a_verdict(person):
    person.open()
    person.see("Which blade lasts?")
    person.tab_to("Plan a trial")
    person.press(Keys.ENTER)
    person.see("What is the trial called?")
    person.press("Raft rope", Keys.TAB, Keys.TAB, Keys.TAB, "hemp", Keys.TAB, "32", Keys.TAB)
    person.press(
        "A",
        Keys.TAB,
        "1.4034",
        Keys.TAB,
        "3",
        Keys.TAB,
        "B",
        Keys.TAB,
        "1.4112",
        Keys.TAB,
        "3",
        Keys.ENTER,
    )
    person.see("not known yet")
    person.see("hardness of A and B are not known")

    person.press("c")
    person.until(lambda: person.focused().text == "Start run")
    person.press(Keys.ENTER)
    person.see("take 2 readings")
    shorter = cut_to_the_end(person, life=5)
    person.until(lambda: "A, edge 3." in person.text("found"))

    person.until(lambda: person.focused().text == "Cut B, run 1")
    person.press(Keys.ENTER)
    person.see("take 2 readings")
    longer = cut_to_the_end(person, life=14)
    assert longer > shorter

    person.tab_to("Read the verdict")
    person.press(Keys.ENTER)
    person.see("B outlasts A by")
    person.see("the answer holds for these blades")
    person.tab_to("Picture")
    person.press(Keys.ARROW_RIGHT)
    person.press(Keys.ENTER)
    person.see("by the stop rule")
    person.press("?")
    person.see("Keys here")
    person.press(Keys.ESCAPE)
    person.press("/")
    person.see("Search")
    person.press("today", Keys.ENTER)
    person.see("Cut A, run 2")
    assert person.errors() == []

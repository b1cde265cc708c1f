"""One knife with two finishes: its arms are named in the line-up, cut one after the other, and
compared.
"""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.helpers.browser import cut_to_the_end


def test_two_finishes_on_one_knife(person, served):
    hand = served.hand()
    hand.make_trial(schedule="every", every=2, factor="edge_finish", edges_per_blade=1)
    blade, first = hand.add_blade("K1")
    person.open(f"/trials/{hand.trial}/line-up")
    person.see("or two preparations of this one")
    person.tab_to("not named")
    person.press(Keys.ENTER)
    person.see("Preparations compared")
    field = person.driver.find_element(
        By.XPATH, "//label[contains(., 'Preparations compared')]/following::input[1]"
    )
    field.send_keys("coarse, polished", Keys.ENTER)
    person.see("on K1")
    for edge, arm in ((first, "coarse"), ("edge-four-of-K1", "polished")):
        sent = {"id": edge, "arm": arm}
        assert hand.client.put(f"/api/blades/{blade}/edges/{edge}", json=sent).status_code == 200

    person.open(f"/trials/{hand.trial}/line-up")
    person.see("Cut coarse, run 1")
    person.press("c")
    person.until(lambda: person.focused().text == "Start run")
    person.press(Keys.ENTER)
    person.see("take 2 readings")
    cut_to_the_end(person, life=5)
    person.until(lambda: "coarse, edge 3." in person.text("found"))

    person.until(lambda: person.focused().text == "Cut polished, run 1")
    person.press(Keys.ENTER)
    person.see("take 2 readings")
    cut_to_the_end(person, life=14)
    person.tab_to("Read the verdict")
    person.press(Keys.ENTER)
    person.see("polished outlasts coarse by")
    person.see("2 runs of 2 arms of K1")
    assert person.errors() == []

"""Changing the line-up in place, and files in through the page, with every fault at its place."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.helpers.browser import cell, state


def change(person, blade, variable, *keys):
    cell(person, blade, variable).find_element(By.TAG_NAME, "button").send_keys(Keys.ENTER)
    person.until(lambda: person.focused().tag_name == "input")
    person.press(*keys)


def test_facts_are_typed_into_the_matrix_and_judged_at_once(person, served):
    hand = served.hand()
    hand.make_trial("A", "B")
    person.open(f"/trials/{hand.trial}/line-up")
    person.see("not known yet")
    assert state(person, "A", "thickness_behind_edge_mm") == "pending"
    change(person, "A", "thickness_behind_edge_mm", "0,36", Keys.ENTER)
    person.until(lambda: state(person, "A", "thickness_behind_edge_mm") == "matched")
    change(person, "B", "thickness_behind_edge_mm", "thin", Keys.ENTER)
    person.see("“thin” is not a number")
    person.press(Keys.BACKSPACE * 4, "0.72", Keys.ENTER)
    person.see("B is not a fair test of steel: thickness behind the edge differs by 0.36 mm")
    assert state(person, "B", "thickness_behind_edge_mm") == "confounded"

    change(person, "B", "hardness_hrc", "150", Keys.ENTER)
    person.see("hardness of 150 HRC is out of range")
    assert person.focused().get_attribute("value") == "150", "what was typed stays"
    person.press(Keys.ESCAPE)

    person.tab_to("make it the factor")
    person.press(Keys.ENTER)
    person.until(lambda: state(person, "B", "thickness_behind_edge_mm") == "factor")
    (refused,) = person.errors()
    assert "422" in refused, "the impossible hardness, and nothing else"


def test_a_bad_file_lists_its_faults_and_a_good_one_leads_to_the_verdict(person, tmp_path):
    bad, good = tmp_path / "bad.series.csv", tmp_path / "raft.series.csv"
    bad.write_text("blade,count,check,value\nA,0,force,150\n,1,force,0\nA,two,forse,150\n")
    rows = [
        f"{blade},{edge},{n},force,{150 + 250 * (n / life) ** 0.6:.0f}"
        for blade, life in (("A", 9), ("B", 30))
        for edge in (1, 2)
        for n in range(life + 3)
    ]
    good.write_text("\n".join(["blade,edge,count,check,value", *rows]) + "\n")
    person.open("/?new=import")
    person.see("Read and import")
    field = person.driver.find_element(By.CSS_SELECTOR, "input[type=file]")
    field.send_keys(str(bad))
    person.tab_to("Read and import")
    person.press(Keys.ENTER)
    person.see("Nothing was imported: 4 to correct.")
    person.see("bad.series.csv, line 4, check")
    person.see("is “force” meant?")
    person.driver.execute_script("arguments[0].value = ''", field)
    field.send_keys(str(good))
    person.tab_to("Read and import")
    person.press(Keys.ENTER)
    person.see("Read the verdict on raft")
    person.tab_to("Read the verdict on raft")
    person.press(Keys.ENTER)
    person.see("B outlasts A by")

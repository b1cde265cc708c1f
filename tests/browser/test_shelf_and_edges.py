"""From a blade on loan to a fair pair of edges: the shelf, measuring, sharpening by recipe, and a
mismatch mended.
"""

import json
import urllib.request

import numpy as np
import pytest
from PIL import Image
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.helpers.browser import press_button, state
from tests.helpers.cutting import cut_run


def labelled(person, label):
    return person.driver.find_element(By.CSS_SELECTOR, f"[aria-label='{label}']")


def type_into(person, label, text):
    field = labelled(person, label)
    field.send_keys(Keys.CONTROL + "a")
    field.send_keys(text, Keys.TAB)


def test_a_blade_comes_to_the_shelf_is_measured_and_archived(person, served):
    person.open("/shelf")
    person.see("The shelf is empty.")
    person.tab_to("New blade")
    person.press(Keys.ENTER)
    person.see("Only its code is needed")
    person.press("AV-02", Keys.TAB, "1.4112", Keys.TAB, "96")
    person.driver.refresh()
    person.see("Only its code is needed")
    person.tab_to("Add to shelf")
    person.press(Keys.ENTER)
    person.see("claimed as 1.4112")
    person.see("96 mm")

    labelled(person, "Measure hardness").send_keys(Keys.ENTER)
    person.until(lambda: person.focused().tag_name == "input")
    person.press(Keys.TAB, "57.9 58.4", Keys.TAB, "60", Keys.TAB, "59.8 59.8", Keys.ENTER)
    person.see("58.4 HRC")
    person.see("2 of the 3 readings that make a hardness")
    labelled(person, "Measure hardness").send_keys(Keys.ENTER)
    person.until(lambda: person.focused().tag_name == "input")
    person.press("68")
    person.see("Above 67 HRC is rare. Is that so?")
    person.press(Keys.BACKSPACE * 2, "71", Keys.ENTER)
    person.see("hardness of 71 HRC is out of range: give 20 to 70 HRC")
    assert person.focused().get_attribute("value") == "71"
    person.press(Keys.ESCAPE)

    press_button(person, "Record a sharpening")
    person.see("Does it count?")
    press_button(person, "Add control zone")
    grip = labelled(person, "Zone 1, from")
    grip.send_keys(*[Keys.SHIFT + Keys.ARROW_RIGHT] * 1, Keys.NULL)
    person.until(lambda: labelled(person, "Zone 1, from").get_attribute("aria-valuenow") == "10")
    press_button(person, "Save zones")
    person.until(
        lambda: (
            "control 10 to 96 mm"
            in person.driver.find_element(By.CSS_SELECTOR, "svg[role=img]").get_attribute(
                "aria-label"
            )
        )
    )

    for back in ("Undo", "Restore from archive"):
        press_button(person, "Archive")
        person.see("archived")
        press_button(person, back)
        person.until(lambda: person.driver.find_elements(By.XPATH, "//button[.='Archive']"))
    assert len(person.errors()) == 1, "the refused hardness, and nothing else"


def test_edges_by_one_recipe_and_a_mismatch_that_comes_and_goes(person, served):
    hand = served.hand()
    hand.make_trial("A", "B", settled_kind="every_edge")
    run_out = f"/trials/{hand.trial}"
    person.open(f"{run_out}/prepare")
    person.see("All 2 blades have an edge that is ready to cut.")
    for code in ("A", "B"):
        type_into(person, f"{code}, edge 3: angle per side", "15")
        type_into(person, f"{code}, edge 3: thickness behind the edge", "16: 0.35 48: 0.37")
    person.until(
        lambda: (
            labelled(person, "B, edge 3: thickness behind the edge").get_attribute("value")
            == "0.36"
        )
    )

    for edge in newest_edges(served, hand.trial):
        hand.send(hand.start(edge), "abandon", {"reason": "only to use the edge up"})
    person.driver.refresh()
    person.see("No edge is ready to cut: 2 blades to sharpen.")
    press_button(person, "Write a new one")
    person.see("What is the recipe called?")
    person.until(lambda: person.focused().tag_name == "input")
    person.press("Bench set")
    type_into(person, "step 1, abrasive", "water stone")
    type_into(person, "step 1, strokes a side", "-5")
    press_button(person, "Save recipe")
    person.see("a number of strokes a side of -5 is out of range")
    type_into(person, "step 1, strokes a side", "30")
    press_button(person, "Save recipe")
    press_button(person, "Record the next edge of 2 blades")
    person.see("All 2 blades have an edge that is ready to cut.")
    person.see("thickness went stale: measured on edge 3")
    for code, thickness in (("A", "0.36"), ("B", "0.72")):
        type_into(person, f"{code}, edge 4: angle per side", "15")
        type_into(person, f"{code}, edge 4: thickness behind the edge", thickness)
    person.until(lambda: newest_thickness_mm(served, hand.trial) == [0.36, 0.72])
    person.open(f"{run_out}/line-up")
    person.see("B is not a fair test of steel")
    assert state(person, "B", "thickness_behind_edge_mm") == "confounded"
    person.open(f"{run_out}/prepare")
    person.see("Measured edges")
    type_into(person, "B, edge 4: thickness behind the edge", "0.38")
    person.until(
        lambda: (
            labelled(person, "B, edge 4: thickness behind the edge").get_attribute("value")
            == "0.38"
        )
    )
    person.open(f"{run_out}/line-up")
    person.until(lambda: state(person, "B", "thickness_behind_edge_mm") == "matched")


def newest_of_blades(served, trial):
    with urllib.request.urlopen(f"{served.address}/api/trials/{trial}/line-up") as answer:
        return [blade["edges"][-1] for blade in json.loads(answer.read())["blades"]]


def newest_edges(served, trial):
    return [edge["id"] for edge in newest_of_blades(served, trial)]


def newest_thickness_mm(served, trial):
    return [edge["thickness_behind_edge_mm"] for edge in newest_of_blades(served, trial)]


def test_a_blades_file_with_three_faults_changes_nothing(person, served, tmp_path):
    bad = tmp_path / "loan.blades.csv"
    bad.write_text(
        "blade,hardness_hrc,hardness_standing\nAV-07,91,measured_here\n,58,\nAV-08,58,measured_her\n"
    )
    person.open("/?new=import")
    person.see("Read and import")
    person.driver.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(bad))
    person.tab_to("Read and import")
    person.press(Keys.ENTER)
    person.see("Nothing was imported: 3 to correct.")
    person.see("loan.blades.csv, line 2, hardness_hrc")
    person.see("91 HRC is out of range: give 70 HRC or less")
    person.see("loan.blades.csv, line 3, blade")
    person.see("is “measured_here” meant?")
    person.open("/shelf")
    person.see("The shelf is empty.")


@pytest.mark.apart
def test_nothing_typed_is_lost_by_a_lost_connection_or_a_reload(person, served):
    hand = served.hand()
    ((blade, _),) = hand.make_trial("A")
    person.open(f"/blades/{blade}")
    person.see("Edges")
    labelled(person, "Measure stock thickness").send_keys(Keys.ENTER)
    person.until(lambda: person.focused().tag_name == "input")
    served.kill()
    person.press("3,05", Keys.ENTER)
    person.see("Kessik's server does not answer")
    assert person.focused().get_attribute("value") == "3,05"
    served.start()
    person.driver.refresh()
    person.see("Edges")
    labelled(person, "Measure stock thickness").send_keys(Keys.ENTER)
    person.until(lambda: person.focused().get_attribute("value") == "3,05")
    person.press(Keys.ENTER)
    person.see("3.05 mm")


def test_a_zone_is_drawn_with_the_pointer_and_a_picture_is_added(person, served, tmp_path):
    hand = served.hand()
    ((blade, edge),) = hand.make_trial("A")
    body = {
        "id": edge,
        "zones": [{"from_mm": 0, "to_mm": 40}, {"from_mm": 60, "to_mm": 90, "use": "control"}],
    }
    hand.client.put(f"/api/blades/{blade}/edges/{edge}", json=body)
    person.open(f"/blades/{blade}")
    person.see("Edges")
    grip = labelled(person, "Zone 1, to")
    person.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", grip)
    wide = int(
        person.driver.execute_script(
            "return arguments[0].ownerSVGElement.width.baseVal.value", grip
        )
    )
    mm = (wide - 28) / 100
    ActionChains(person.driver).drag_and_drop_by_offset(grip, round(30 * mm), 0).perform()
    person.until(
        lambda: labelled(person, "Zone 1, to").get_attribute("aria-valuenow") in ("69", "70", "71")
    )
    press_button(person, "Save zones")
    person.see("overlap; move them apart, or let them overlap")
    insist = "//label[contains(., 'overlap')]/preceding-sibling::button"
    person.driver.find_element(By.XPATH, insist).send_keys(Keys.SPACE)
    press_button(person, "Save zones")

    def kept():
        return hand.client.get(f"/api/blades/{blade}").json()["blade"]["edges"][0]

    person.until(lambda: kept()["zones_overlap"])
    assert 69 <= kept()["zones"][0]["to_mm"] <= 71

    taken = tmp_path / "blade.png"
    Image.fromarray(np.full((20, 30, 3), 120, np.uint8)).save(taken)
    person.driver.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(taken))
    person.until(lambda: person.driver.find_elements(By.CSS_SELECTOR, "img[alt='A']"))
    person.until(
        lambda: (
            person.driver.execute_script(
                "return document.querySelector(\"img[alt='A']\").naturalWidth"
            )
            == 30
        )
    )
    notes = tmp_path / "notes.png"
    notes.write_text("no picture")
    person.driver.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(notes))
    person.see("JPEG, PNG and WebP can")


def test_the_verdict_shows_the_answer_with_and_without_the_edges_left_out(person, served):
    hand = served.hand()
    hand.make_trial(schedule="every", every=2)
    for code, life in (("A", 8), ("B", 26)):
        edges = [{"id": f"{code}-edge-{n}", "number": n} for n in (2, 3)]
        hand.add_blade(code, edges=edges)
        for n, share in ((2, 0.5), (3, 1.0)):
            cut_run(hand, f"{code}-edge-{n}", share * life)
    person.open(f"/trials/{hand.trial}/verdict")
    person.see("B outlasts A by")
    person.see("A, edge 2 is left out: edge 2 since new is cut into fatigued steel and reads low")
    person.see("With every edge counted: B outlasts A by")


def test_a_tolerance_is_explained_and_changed_where_it_stands(person, served):
    hand = served.hand()
    (a, _), (b, _) = hand.make_trial("A", "B")
    for blade, stock in ((a, 3.0), (b, 3.5)):
        hand.client.put(
            f"/api/blades/{blade}/measurements/stock-of-{blade[:8]}",
            json={"id": f"stock-of-{blade[:8]}", "quantity": "stock_mm", "value": stock},
        )
    person.open(f"/trials/{hand.trial}/line-up")
    person.see("B is not a fair test of steel: stock differs by 0.50 mm")
    head = "//th/button[starts-with(@aria-label, 'stock, ±0.3 mm')]"
    person.driver.find_element(By.XPATH, head).send_keys(Keys.ENTER)
    person.see("Alike within three tenths of a millimetre. Where it differs, thicker stock wedges")
    person.press(Keys.BACKSPACE * 3, "0.6", Keys.ENTER)
    person.until(lambda: "stock differs" not in person.driver.find_element(By.TAG_NAME, "h1").text)
    person.see("Also matched: settled edge, stock.")
    person.see("Tolerances were changed for this trial.")
    press_button(person, "Restore the usual tolerances")
    person.see("B is not a fair test of steel: stock differs by 0.50 mm")
    person.tab_to("make it the factor")
    person.press(Keys.ENTER)
    person.until(lambda: "stock differs" not in person.driver.find_element(By.TAG_NAME, "h1").text)


def test_figures_reckoned_live_are_kept_on_a_blade(person, served):
    hand = served.hand()
    ((blade, _),) = hand.make_trial("A")
    person.open("/reckoner")
    person.see("0.684 mm wide")
    angle = person.driver.find_element(
        By.XPATH, "//label[starts-with(., 'Angle per side')]/following-sibling::input"
    )
    angle.send_keys(Keys.CONTROL + "a")
    angle.send_keys("8")
    person.see("angle per side under 10° is rare: is that so?")
    angle.send_keys(Keys.CONTROL + "a")
    angle.send_keys("15")
    person.see("0.773 mm wide")
    drawn = person.driver.find_element(
        By.XPATH, "//*[name()='svg'][starts-with(@aria-label, 'Cross-section')]"
    )
    assert "30.0° included" in drawn.get_attribute("aria-label")
    person.pick("Save it on", "A, edge 3")
    press_button(person, "Save thickness and angle")
    person.see("Saved on A")
    edge = hand.client.get(f"/api/blades/{blade}").json()["blade"]["edges"][0]
    assert (edge["thickness_behind_edge_mm"], edge["side_angle_deg"]) == (0.4, 15)

    hrc = person.driver.find_element(
        By.XPATH, "//label[starts-with(., 'Rockwell C')]/following-sibling::input"
    )
    hrc.send_keys(Keys.CONTROL + "a")
    hrc.send_keys("71")
    person.see("lies outside the table, which runs from 20 to 68 HRC")

"""A parcel comes back: a faulty file of shots is mended, its verdict read, an own grade opens it
again.
"""

from selenium.webdriver.common.by import By

HEAD = "blade,shot,element,percent,plus_minus,surface,normalised\n"
PART = {"Cr": 5.2, "Mo": 1.0, "V": 0.23, "Mn": 0.55, "Si": 0.3, "Fe": 91.6}
TWIN = "C 0.50-0.60\nCr 4.8-5.5\nMo 0.9-1.2\nV 0.15-0.35\nMn 0.4-0.8\nSi 0.1-0.4\nP -0.03\nS -0.03"


def field(person, label):
    path = f"//label[contains(., '{label}')]/following::*[self::input or self::textarea][1]"
    return person.driver.find_element(By.XPATH, path)


def press(person, words):
    person.driver.find_element(By.XPATH, f"//button[normalize-space()='{words}']").click()


def bring(person, path):
    person.until(lambda: person.driver.find_elements(By.CSS_SELECTOR, "input[type=file]"))
    chosen = person.driver.find_element(By.CSS_SELECTOR, "input[type=file]")
    person.driver.execute_script("arguments[0].value = ''", chosen)
    chosen.send_keys(str(path))
    press(person, "Read the shots")


def test_shots_are_mended_read_and_doubted(person, served, tmp_path):
    sold = {"id": "blade-av-06", "code": "AV-06", "claimed_grade": "1.2363"}
    assert served.hand().client.put("/api/blades/blade-av-06", json=sold).status_code == 200
    rows = [f"AV-06,{n},{s},{p},0.05,bare,no" for n in (1, 2) for s, p in PART.items()]
    good = HEAD + "\n".join(rows) + "\n"
    shots = tmp_path / "post.shots.csv"
    shots.write_text(good.replace("Mo,1.0", "Mm,1.0", 1).replace("Si,0.3,0.05", "Si,-0.3,0.05", 1))

    person.open("/assay")
    person.see("No blade has been shot yet")
    press(person, "Import shots")
    bring(person, shots)
    person.see("Nothing was imported: 2 to correct")
    person.see("post.shots.csv, line 3, element")
    person.see("post.shots.csv, line 6, percent")
    shots.write_text(good)
    press(person, "Read the shots")
    person.see("post.shots.csv was changed since it was chosen: choose it again")
    bring(person, shots)
    person.see("2 shots of 1 blade saved")
    person.driver.find_element(By.LINK_TEXT, "Open their assays").click()
    person.see("Consistent with 1.2363 (by other standards SKD12 and A2)")

    person.open("/shelf?part=grades&new=grade")
    person.see("Your shelf may hold any name")
    field(person, "Grade, by its designation").send_keys("Voe Special")
    field(person, "Ranges, an element a line").send_keys(TWIN.replace("4.8-5.5", "5.5-4.8"))
    press(person, "Save")
    person.see("line 2: the minimum, 5.5 %, is above the maximum, 4.8 %")
    ranges = field(person, "Ranges, an element a line")
    ranges.clear()
    ranges.send_keys(TWIN)
    press(person, "Save")
    person.see("yours")
    person.open("/assay")
    person.see("1 blade shot: 1 undecidable.")
    person.driver.find_element(By.PARTIAL_LINK_TEXT, "AV-06").click()
    person.see("this analyser never separates 1.2363 from Voe Special")
    person.see("Carbon would separate it from Voe Special: spark emission or combustion analysis.")
    assert [error for error in person.errors() if "422" not in error] == []

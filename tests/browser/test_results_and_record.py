"""Results that exist already, what is put right after the stop, and data that comes back."""

import subprocess
import sys
from pathlib import Path

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.chromium import chromium
from tests.browser.conftest import Person
from tests.serving import Served

MOST_KEYS = 160
TALLY = [("30", "25"), ("41", "22"), ("52", "30"), ("28", "19"), ("60", "41")]
SHEET = """Knife;Fine (ft);Working (ft);Total
A;31;26;58
B;4O;22;
"""


def click(person, words):
    """Press what begins with these words."""
    found = [
        each
        for each in person.driver.find_elements(By.CSS_SELECTOR, "button, main a")
        if each.text.strip().startswith(words)
    ]
    person.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", found[0])
    found[0].click()


def test_a_two_stage_tally_of_five_blades_by_keyboard_to_its_verdict(person, served):
    hand = served.hand()
    hand.make_trial(*"ABCDE", school="two_stage_board")
    keys = 0

    def press(*typed):
        nonlocal keys
        for key in typed:
            person.press(key)
            keys += len(key)

    person.open(f"/trials/{hand.trial}/paper")
    person.see("One finished run a line")
    person.until(lambda: person.focused().get_attribute("aria-label") == "fine, line 1")
    for fine, working in TALLY:
        press(fine, Keys.TAB, working, Keys.ENTER)
    while person.focused().text != "Add a verification of each" and keys < MOST_KEYS:
        press(Keys.TAB)
    press(Keys.ENTER)
    person.until(lambda: person.focused().get_attribute("aria-label") == "fine, line 7")
    for fine, working in TALLY:
        press(str(int(fine) + 1), Keys.TAB, working, Keys.ENTER)
    keys += 2
    assert keys <= MOST_KEYS
    chord = ActionChains(person.driver).key_down(Keys.CONTROL).send_keys(Keys.ENTER)
    chord.key_up(Keys.CONTROL).perform()
    person.see("How often did you check? Give the gap, or tick “gap not known”.")
    unknown = "//label[contains(., 'gap not known')]"
    person.until(lambda: person.driver.find_elements(By.XPATH, unknown))[0].click()
    click(person, "Save 10 runs")
    person.until(lambda: "/verdict" in person.driver.current_url)
    person.see("from paper", seconds=30)
    record = hand.client.get(f"/api/trials/{hand.trial}/record").json()["runs"]
    assert sorted(run["blade"] for run in record) == sorted("ABCDE" * 2)
    assert sum(1 for run in record if run["verifies_run_id"]) == 5
    assert person.errors() == []


def test_a_spreadsheet_with_faults_is_mended_and_brought_into_a_trial(person, served, tmp_path):
    hand = served.hand()
    hand.make_trial("A", school="two_stage_board")
    person.open(f"/sheets?trial={hand.trial}")
    person.see("Open a file, or paste")
    for name, text in (("faulty.csv", SHEET), ("mended.csv", SHEET.replace("58", "57"))):
        file = tmp_path / name
        file.write_text(text.replace("4O", "40") if name == "mended.csv" else text)
        person.driver.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(file))
        person.see(f"{name}:")
        if name == "faulty.csv":
            person.see("Row 2, D Total: fine 31 and working 26 make 57, and the total says 58")
            person.see("Row 3, B Fine (ft): “4O” is not a number")
            person.driver.find_element(By.TAG_NAME, "summary").click()
    person.see("2 runs to save")
    gap = person.driver.find_element(By.XPATH, "//label[contains(., 'is not known')]")
    person.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", gap)
    gap.click()
    click(person, "Save 2 runs")
    person.see("2 runs saved in Raft rope")
    record = hand.client.get(f"/api/trials/{hand.trial}/record").json()["runs"]
    assert [run["blade"] for run in record] == ["A", "B"]
    click(person, "Undo")
    person.see("Undone: the runs are in the bin.")
    person.see("2 runs to save")
    assert hand.client.get(f"/api/trials/{hand.trial}/record").json()["runs"] == []


def test_a_correction_after_the_stop_changes_the_verdict_and_is_undone(person, served):
    hand = served.hand()
    (_, edge), (_, other) = hand.make_trial("A", "B")
    for each, top in ((edge, 430), (other, 300)):
        run = hand.start(each)
        for n, gf in enumerate((150, 260, 350, top, top + 20)):
            if hand.client.get(f"/api/runs/{run}").json()["state"]["status"] == "stopped":
                break
            hand.read(run, gf, n)
            hand.cut(run, at=n)
        hand.send(run, "stop", {"reason": "tired"}, at=5)
    person.open(f"/trials/{hand.trial}/record")
    person.see("The record")
    click(person, "Open")
    person.see("430 gf at 3")
    row = person.driver.find_element(By.XPATH, "//li[contains(., '430 gf at 3')][not(.//li)]")
    row.find_element(By.XPATH, ".//button[contains(., 'Correct')]").click()
    field = person.until(
        lambda: person.driver.find_element(By.CSS_SELECTOR, "[aria-label='Reading']")
    )
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("330", Keys.ENTER)
    person.see("corrected to 330 gf")
    person.open(f"/trials/{hand.trial}/verdict")
    person.see("A, edge 3: corrected after the stop (1 entry)", seconds=30)
    person.open(f"/trials/{hand.trial}/record")
    person.see("corrected after the stop")
    click(person, "Open")
    person.see("corrected to 330 gf")
    click(person, "Include again")
    person.until(lambda: "corrected to 330 gf" not in person.driver.page_source)

    def notes():
        return hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]["notes"]

    # the verdict is worked out anew beside the server: the one before stands until it is there
    person.until(lambda: not any("corrected after the stop" in note for note in notes()))


@pytest.mark.apart
def test_a_backup_is_brought_back_after_the_data_were_damaged(tmp_path):
    served = Served(tmp_path / "data")
    hand = served.hand()
    hand.make_trial("A", "B")
    try:
        with chromium() as driver:
            person = Person(driver, served.address)
            person.open("/backups")
            person.see("Back up now")
            click(person, "Back up now")
            copies = served.folder / "backups"
            person.until(lambda: any(copies.glob("by-hand-*.sqlite3")))
            served.kill()
            database = served.folder / "kessik.sqlite3"
            database.write_bytes(b"spilled coffee" * 100)
            for beside in ("-wal", "-shm"):
                Path(f"{database}{beside}").unlink(missing_ok=True)
            copy = next(copies.glob("by-hand-*.sqlite3"))
            program = str(Path(sys.executable).parent / "kessik")
            command = [program, "restore", str(copy), "--data", str(served.folder)]
            said = subprocess.run(command, capture_output=True, text=True, check=True).stdout
            assert "It holds 1 trial, 0 runs, 0 events." in said
            assert "The data before is saved in" in said
            served.start()
            person.open("/")
            person.see("Raft rope")
    finally:
        served.kill()

"""A blade chosen by keyboard, a report made and read back, trials sent away and brought back."""

import io

import httpx2
import pypdf
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.chromium import chromium
from tests.browser.conftest import Person
from tests.helpers.browser import press_button
from tests.helpers.packages import other_ids, rewritten
from tests.serving import ServedHere


def slider(person, axis):
    labelled = f"//span[starts-with(., '{axis}')]/following::span[@role='slider'][1]"
    return person.until(lambda: person.driver.find_element(By.XPATH, labelled))


def headline(person):
    return person.driver.find_element(By.TAG_NAME, "h1").text.replace("\u2011", "-")


def test_weights_are_moved_by_keyboard_until_the_choice_flips(demo):
    with chromium() as driver:
        person = Person(driver, demo.address)
        person.open("/choice")
        person.see("Deck knife: AV-0", 120)
        person.until(
            lambda: "the others follow" not in driver.find_element(By.TAG_NAME, "body").text, 240
        )
        person.see("Deck knife: AV-02")
        person.see("comes first once price weighs more than")
        thumb = slider(person, "price")
        thumb.send_keys(Keys.END)
        person.until(lambda: headline(person).startswith("Deck knife: AV-01"))
        thumb.send_keys(Keys.HOME)
        person.until(lambda: "AV-01" not in headline(person).split(";")[0])
        person.see("not weighed")
        assert person.errors() == []


def test_a_report_is_made_and_says_what_the_page_says(demo):
    with chromium() as driver:
        person = Person(driver, demo.address)
        person.open("/")
        person.see("Raft rope")
        with httpx2.Client(base_url=demo.address, timeout=60) as web:
            today = web.get("/api/today").json()["trials"]
            trial = next(t["trial"]["id"] for t in today if "Raft" in t["trial"]["name"])
            person.open(f"/trials/{trial}/verdict")
            person.see("To dull, longest first")
            press_button(person, "Report and files …")
            press_button(person, "Save as PDF")
            person.see("The last report was made")
            sent = web.post("/api/reports", json={"trials": [trial]}, headers=_own(demo))
            said = " ".join(
                page.extract_text() for page in pypdf.PdfReader(io.BytesIO(sent.content)).pages
            )
        assert " ".join(headline(person).split()) in " ".join(said.split())
        assert person.errors() == []


def _own(server):
    return {"Origin": server.address}


def test_trials_leave_come_back_and_are_not_mixed_with_those_of_another(demo, tmp_path):
    """Export, an empty folder, import: the same verdict; then another tester's blades of the same
    codes, said to be one, and split again.
    """
    empty = ServedHere(tmp_path / "empty")
    try:
        with (
            chromium() as driver,
            httpx2.Client(base_url=demo.address, headers=_own(demo), timeout=60) as here,
            httpx2.Client(base_url=empty.address, headers=_own(empty), timeout=60) as there,
        ):
            here.put("/api/testers/here", json={"name": "Rhea"}).raise_for_status()
            names = [t["trial"] for t in here.get("/api/today").json()["trials"]]
            logs = [t for t in names if t["name"].startswith("Rope log 2026-11")]
            sent = here.get("/api/package", params={"trial": [t["id"] for t in logs]})
            package = tmp_path / "rhea.kessik.zip"
            package.write_bytes(sent.content)
            person = Person(driver, empty.address)
            bring(person, package, mine=True)
            person.see("From Rhea: 3 trials new here.")
            verdicts = [_verdict(web, logs[0]["id"]) for web in (here, there)]
            assert verdicts[0] == verdicts[1]
            theirs = rewritten(package, tmp_path / "mira.kessik.zip", _of_mira)
            bring(person, theirs)
            person.see("From Mira: 3 trials new here.")
            person.see("one blade?")
            press_button(person, "One blade")
            person.see("Split again")
            press_button(person, "Split again")
            person.until(lambda: "Split again" not in driver.find_element(By.TAG_NAME, "body").text)
            assert len(there.get("/api/testers").json()["others"]) == 1
    finally:
        empty.kill()


def bring(person, path, *, mine=False):
    person.open("/share")
    field = person.until(lambda: person.driver.find_element(By.CSS_SELECTOR, "input[type=file]"))
    field.send_keys(str(path))
    if mine:
        person.driver.find_element(By.XPATH, "//label[.='These are my own trials']").click()
    press_button(person, "Read and bring in")


def _of_mira(name, data):
    return other_ids(name, data, tester="Mira")


def _verdict(web, trial):
    """A verdict once it is worked out."""
    while True:
        found = web.get(f"/api/trials/{trial}/verdict").json()
        if not found["working_out"]:
            return found["answer"]

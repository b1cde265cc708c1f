"""Takes the pictures of docs/screenshots anew from the demo data: `make screenshots`."""

import json
import time
import urllib.error
import urllib.request
from pathlib import Path
from tempfile import TemporaryDirectory, gettempdir

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from kessik.demo.arms_and_blocks import FINISH_TRIAL_ID
from kessik.demo.soaks import COATINGS_ID, DAMP_WRAP_ID, SALT_PACK_ID
from tests.browser.chromium import chromium, picture, resize
from tests.browser.conftest import Person
from tests.serving import Served

FOLDER = Path(__file__).parents[2] / "docs" / "screenshots"


def take_bench(bench, name):
    """The bench as it stands, without opening it anew."""
    time.sleep(1.5)
    picture(bench.driver, FOLDER / f"{name}.png")


def filled_in(address):
    """Wait until the last part of the demo is there: its last soak is weighed."""
    while True:
        try:
            with urllib.request.urlopen(f"{address}/api/soaks/{COATINGS_ID}") as answer:
                masses = json.loads(answer.read())["answer"]["masses"]
        except urllib.error.HTTPError:
            masses = []
        if len(masses) == 5:
            time.sleep(2)
            return
        time.sleep(0.5)


def worked_out(address):
    """Today, once no answer is being worked out any more."""
    while True:
        with urllib.request.urlopen(address + "/api/today") as answer:
            today = json.loads(answer.read())
        if not today["working_out"]:
            return today
        time.sleep(0.5)


def reported(address, trial, folder):
    """The address of a trial's report as a page of its own."""
    wish = json.dumps({"trials": [trial], "kind": "html"}).encode()
    headers = {"Content-Type": "application/json", "Origin": address}
    asked = urllib.request.Request(f"{address}/api/reports", wish, headers)
    page = folder / "report.html"
    with urllib.request.urlopen(asked) as answer:
        page.write_bytes(answer.read())
    return page.as_uri()


def measured(address):
    """The look of the damp wrap with the most to see: the baseline's last, in a picture."""
    with urllib.request.urlopen(f"{address}/api/soaks/{DAMP_WRAP_ID}") as answer:
        looks = json.loads(answer.read())["looks"]
    return max((x for x in looks if x["how"] == "photo"), key=lambda x: x["rust_percent"])["id"]


GRADES = ("whittles", "splits", "cuts", "slides")
OLD_SHEET = """Knife;Steel;HRC;Angle incl.;Fine (ft);Working (ft);Total;Remarks
AV-02;1.4112;58,5;30;31;26;57;second box
AV-02;1.4112;58,5;30;30;27;57;
AV-09;1.4116;56,0;30;2O;22;;
AV-09;1.4116;56,0;30;21-24;20;;coarse
AV-06;;;;44;40;85;slip
"""


def take_record(bench, trial, demo):
    """Results on paper, a sheet with two faults and an entry put right."""
    hand = demo.hand()
    bench.open(f"/trials/{trial}/paper")
    bench.see("One finished run a line")
    for typed in ("30", Keys.TAB, "25", Keys.TAB, "57", Keys.ENTER, "28-33", Keys.TAB, "21"):
        bench.press(typed)
    bench.see("one of the three is wrong")
    take_bench(bench, "paper")
    sheet = Path(gettempdir()) / "ten years of cartons.csv"
    sheet.write_text(OLD_SHEET)
    bench.open(f"/sheets?trial={trial}")
    bench.see("Open a file, or paste")
    bench.driver.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(sheet))
    bench.see("2 errors to correct")
    take_bench(bench, "sheet")
    hand.client.close()


def take_played(driver, plan):
    """A plan played on lives that lie close together."""
    driver.get(plan)
    time.sleep(3)
    for label, life in (("Life of AV-02", "24"), ("Life of AV-03", "30")):
        field = driver.find_element(
            By.XPATH, f"//input[@id=//label[starts-with(., '{label}')]/@for]"
        )
        field.clear()
        field.send_keys(life)
    driver.find_element(By.XPATH, "//button[.='Play 100 trials']").click()
    time.sleep(30)
    driver.execute_script(
        "[...document.querySelectorAll('button')].find((b) => b.textContent === 'AV-03 / AV-02')"
        ".click()"
    )
    time.sleep(0.5)
    driver.execute_script(
        "document.querySelector('[aria-label=\"Simulate before cutting\"]').scrollIntoView()"
    )
    picture(driver, FOLDER / "played.png")


def take_trainers(driver, demo):
    """The trainers after a few sessions, and the guided practice at its first step."""
    hand = demo.hand()
    answers = {"count": "11", "foresee": "30", "rust": "5", "call": "n", "unfair": "1"}
    for n, (kind, answer) in enumerate([*answers.items()] * 3):
        body = {"kind": kind, "seed": n, "answers": [answer] * 10}
        hand.client.put(f"/api/trainings/session-{n:03}", json=body)
    driver.get(f"{demo.address}/trainers")
    time.sleep(2)
    picture(driver, FOLDER / "trainers.png")
    path = hand.client.post("/api/practice").json()["path"]
    driver.get(f"{demo.address}/practice{path}")
    time.sleep(3)
    picture(driver, FOLDER / "practice.png")
    hand.client.delete("/api/practice")
    hand.client.close()


def main():
    with TemporaryDirectory(ignore_cleanup_errors=True) as folder, chromium() as driver:
        demo = Served(Path(folder) / "demo", "demo")
        try:
            filled_in(demo.address)
            today = worked_out(demo.address)
            by_name = {t["trial"]["name"]: t for t in today["trials"]}
            entry = by_name["Raft rope, before the season"]
            trial = f"{demo.address}/trials/{entry['trial']['id']}"
            run = next(r["id"] for r in entry["runs"] if r["status"] == "paused")

            def take(address, name, seconds=2):
                driver.get(address)
                time.sleep(seconds)
                picture(driver, FOLDER / f"{name}.png")

            take(demo.address, "today")
            take(f"{demo.address}/standings", "standings", 12)
            take(f"{demo.address}/choice", "choice", 6)
            take(reported(demo.address, entry["trial"]["id"], Path(folder)), "report")
            take(f"{trial}/line-up", "line-up")
            take(f"{trial}/plan", "plan")
            take(
                f"{demo.address}/trials/{FINISH_TRIAL_ID}/verdict",
                "verdict-one-knife",
            )
            take(f"{demo.address}/blades/{entry['blades'][1]['id']}", "blade")
            take(f"{trial}/verdict", "verdict")
            take(f"{demo.address}/assay", "assay")
            take(f"{demo.address}/soak/{SALT_PACK_ID}", "soak")
            look = measured(demo.address)
            take(f"{demo.address}/soak/{DAMP_WRAP_ID}/look?look={look}", "soak-look", 6)
            take_played(driver, f"{trial}/plan")
            take_trainers(driver, demo)
            bench = Person(driver, demo.address)
            take_record(bench, by_name["Cartons in the shed"]["trial"]["id"], demo)
            bench.open(f"/runs/{run}")
            bench.see("Paused")
            bench.press(" ")
            take_bench(bench, "cut")
            resize(driver, 390, 844)
            take_bench(bench, "cut-phone")
            resize(driver, 1280, 800)
        finally:
            demo.kill()


if __name__ == "__main__":
    main()

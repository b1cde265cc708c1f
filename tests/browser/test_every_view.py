"""Every view of the demo: nothing fails, nothing leaves this machine, axe finds no fault, by day
and in the dark.
"""

import json
import urllib.request
from pathlib import Path

import pytest

from kessik.demo.soaks import COATINGS_ID, DAMP_WRAP_ID, SALT_PACK_ID
from tests.browser.chromium import chromium, in_the_dark, resize
from tests.browser.conftest import Person

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"


def looks_of(demo):
    """A look of the salt pack by each way it was read."""
    with urllib.request.urlopen(f"{demo.address}/api/soaks/{SALT_PACK_ID}") as answer:
        return {look["how"]: look["id"] for look in json.loads(answer.read())["looks"]}


def views(demo):
    looks = looks_of(demo)
    with urllib.request.urlopen(demo.address + "/api/today") as answer:
        by_name = {t["trial"]["name"]: t for t in json.loads(answer.read())["trials"]}
    entry = by_name["Raft rope, before the season"]
    trial, dose = entry["trial"]["id"], by_name["Fifty cuts each"]["trial"]["id"]
    run = next(r["id"] for r in entry["runs"] if r["status"] == "paused")
    return {
        "/": "Raft rope, before the season",
        f"/trials/{trial}/line-up": "AV-03 is not a fair test of steel",
        f"/trials/{trial}/line-up?start=": "Start a run",
        f"/trials/{trial}/verdict": "AV-05 outlasts",
        f"/runs/{run}": "Leave the bench",
        "/?new=trial": "What is the trial called?",
        "/?new=import": "Read and import",
        f"/trials/{trial}/plan": "Test line, spool 3 is short by",
        f"/trials/{trial}/method": "Stages, in the order they are lost",
        f"/trials/{dose}/verdict": "reading after the dose",
        "/shelf?part=lots": "Hemp dropper rope, lot 7",
        f"/trials/{trial}/prepare": "Measured edges",
        "/shelf": "16 blades on the shelf",
        "/standings": "First of 14",
        "/standings?by=grade": "Where lives differ",
        "/shelf?part=recipes": "Bench set, stropped",
        "/shelf?part=abrasives": "Compounds sold by size",
        "/shelf?part=grades": "usually hardened to",
        "/shelf?part=instruments": "Line tester, shed",
        "/devices": "Only this computer can use the bench",
        "/shelf?new=blade": "Add to shelf",
        f"/blades/{entry['blades'][0]['id']}": "Does it count?",
        f"/blades/{entry['blades'][0]['id']}/passport": "how it is known",
        "/assay": "6 blades shot: 1 excluded",
        f"/assay/blades/{entry['blades'][0]['id']}": "Weight of evidence",
        "/assay/claims": "Heat treatments differ",
        "/assay/performance": "Trials of one method",
        "/assay/standing": "A sheet sells.",
        "/grades/1.2436": "Composition",
        "/grades-alike": "have a twin that XRF",
        "/soak": "Rank in each medium",
        "/soak?new=soak": "The question, in one sentence",
        f"/soak/{SALT_PACK_ID}": "1.4112 and 1.4034 together",
        f"/soak/{DAMP_WRAP_ID}": "Inspect now",
        f"/soak/{DAMP_WRAP_ID}/look": "Rusted share of this side",
        f"/soak/{SALT_PACK_ID}/look?look={looks['photo']}": "counts from",
        f"/soak/{COATINGS_ID}": "best in both",
        "/reckoner": "Small calculations of the bench",
        f"/trials/{dose}/paper": "One finished run a line",
        f"/trials/{trial}/record": "Every change is listed here",
        "/sheets": "Open a file, or paste",
        "/trainers": "Ten rounds, five minutes",
        "/trainers/unfair": "Which variable makes this line-up unfair?",
        "/trainers/steel": "What do the readings say of that?",
        "/gauge": "How good are the tester, the line, the hand?",
        "/bin": "The bin is empty",
        "/backups": "Back up now",
    }


LAYS_OUT = ("target-size", "scrollable-region-focusable", "link-in-text-block", "button-name")
"""What a narrow screen can spoil: the other rules are held at 1280 px."""


@pytest.mark.parametrize("half", [0, 1])
def test_views_are_accessible_and_local(demo, half):
    with chromium() as driver:
        person = Person(driver, demo.address)
        for path, words in list(views(demo).items())[half::2]:
            resize(driver, 1280, 800)
            in_the_dark(driver, False)
            person.open(path)
            person.see(words)
            driver.execute_script(AXE.read_text())
            assert faults(driver) == [], f"{path} at 1280 px"
            assert overflow(driver) <= 0, f"{path} is wider than 1280 px"
            in_the_dark(driver, True)
            assert faults(driver, "color-contrast") == [], f"{path} in the dark"
            in_the_dark(driver, False)
            resize(driver, 390, 844)
            person.see(words)
            assert faults(driver, *LAYS_OUT) == [], f"{path} at 390 px"
            assert overflow(driver) <= 0, f"{path} is wider than 390 px"
            asked = driver.execute_script(
                "return performance.getEntriesByType('resource').map(e => e.name)"
            )
            assert all(url.startswith(demo.address) for url in asked)
        assert person.errors() == []


def faults(driver, *rules):
    """What axe finds against it, once the page has taken its new shape."""
    only = list(rules) or ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"]
    found = driver.execute_async_script(
        "const done = arguments[1];"
        "requestAnimationFrame(() => requestAnimationFrame(() =>"
        " axe.run(document, {runOnly: arguments[0]}).then(done)));",
        only,
    )
    return [(v["id"], [n["html"][:160] for n in v["nodes"]]) for v in found["violations"]]


def overflow(driver):
    return driver.execute_script("return document.documentElement.scrollWidth - window.innerWidth")


def test_the_count_can_be_read_from_afar_and_everything_at_the_bench_is_on_one_screen(demo):
    run = next(path for path in views(demo) if path.startswith("/runs/"))
    with chromium() as driver:
        person = Person(driver, demo.address)
        person.open(run)
        person.see("Leave the bench")
        size = driver.execute_script(
            "return"
            " parseFloat(getComputedStyle(document.querySelector('[data-testid=count]')).fontSize)"
        )
        assert size >= 160
        below = driver.execute_script(
            "return document.documentElement.scrollHeight - window.innerHeight"
        )
        assert below <= 0
        small = driver.execute_script(
            "return [...document.querySelectorAll('button, input')]"
            ".filter(e => e.getBoundingClientRect().height < 44).map(e => e.textContent)"
        )
        assert small == []

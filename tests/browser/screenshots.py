"""Takes the pictures of docs/screenshots anew from the demo data: `make screenshots`."""

import json
import time
import urllib.request
from pathlib import Path
from tempfile import TemporaryDirectory

from tests.browser.chromium import chromium, picture, resize
from tests.browser.conftest import Served

FOLDER = Path(__file__).parents[2] / "docs" / "screenshots"


def main():
    with TemporaryDirectory(ignore_cleanup_errors=True) as folder, chromium() as driver:
        demo, empty = Served(Path(folder) / "demo", "demo"), Served(Path(folder) / "empty")
        try:
            with urllib.request.urlopen(demo.address + "/api/today") as answer:
                by_name = {t["trial"]["name"]: t for t in json.loads(answer.read())["trials"]}
            entry = by_name["Raft rope, before the season"]
            trial = f"{demo.address}/trials/{entry['trial']['id']}"
            run = next(r["id"] for r in entry["runs"] if r["status"] == "cutting")

            def take(address, name, click=None):
                driver.get(address)
                time.sleep(2)
                if click:
                    driver.find_element("xpath", f'//button[.="{click}"]').click()
                    time.sleep(0.5)
                picture(driver, FOLDER / f"{name}.png")

            take(demo.address, "today")
            take(f"{trial}/line-up", "line-up")
            take(f"{trial}/plan", "plan")
            take(f"{trial}/method", "method")
            take(f"{demo.address}/trials/{by_name['Fifty cuts each']['trial']['id']}/verdict", "verdict-dose")
            take(f"{demo.address}/shelf?part=lots", "lots")
            take(f"{trial}/prepare", "edge-preparation")
            take(f"{demo.address}/blades/{entry['blades'][1]['id']}", "blade")
            take(f"{demo.address}/shelf", "shelf")
            take(f"{demo.address}/reckoner", "reckoner")
            take(f"{trial}/verdict", "verdict")
            take(f"{trial}/verdict", "verdict-table", click="Table")
            take(f"{demo.address}/runs/{run}", "cut")
            take(empty.address, "first-start")
            take(f"{empty.address}/?new=trial", "new-trial")
            resize(driver, 390, 844)
            take(f"{demo.address}/runs/{run}", "cut-phone")
        finally:
            demo.kill()
            empty.kill()


if __name__ == "__main__":
    main()

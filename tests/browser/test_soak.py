"""A soak from its question to its answer: two pictures, an outline between two presses, carried
over, inspections by one key, a tie; and a broken picture.
"""

from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By

from kessik.instruments.virtual_bench.soaked_blade import (
    WHITE_POINT,
    SoakedSide,
    photograph,
)

PLUNGE, TIP = (210, 173), (1045, 196)


def press(person, words):
    person.driver.find_element(By.XPATH, f"//button[normalize-space()='{words}']").click()


def field(person, label):
    path = f"//label[contains(., '{label}')]/following::*[self::input or self::textarea][1]"
    return person.driver.find_element(By.XPATH, path)


def put_picture(person, path):
    chosen = person.driver.find_element(By.CSS_SELECTOR, "input[type=file]")
    person.driver.execute_script("arguments[0].value = ''", chosen)
    chosen.send_keys(str(path))


def press_at(person, x, y):
    """A press on the board, at a pixel of the picture."""
    board = person.driver.find_element(By.CSS_SELECTOR, "[data-testid=board]")
    scale = board.size["width"] / 1120
    middle = (board.size["width"] / 2, board.size["height"] / 2)
    move = (round(x * scale - middle[0]), round(y * scale - middle[1]))
    ActionChains(person.driver).move_to_element_with_offset(board, *move).click().perform()


@pytest.fixture
def pictures(tmp_path):
    made = {
        "first": photograph(SoakedSide(5, 1.0)),
        "second": photograph(SoakedSide(5, 6.0, moved_px=(6, -4))),
    }
    made["broken"] = made["first"][:4000]
    for name, data in made.items():
        (tmp_path / f"{name}.jpg").write_bytes(data)
    return tmp_path


def begun(served):
    """A soak with A, B and the baseline D, begun fourteen hours ago; its id."""
    client = served.hand().client
    method = next(m for m in client.get("/api/soak-methods").json() if m["key"] == "salt_pack")
    soak_id = str(uuid4())
    coupons = [
        {"id": str(uuid4()), "name": name, "role": "baseline" if name == "D" else ""}
        for name in "ABD"
    ]
    soak = {
        "name": "Salt pack",
        "question": "Which rusts less?",
        "factor": "steel",
        "method": {**method, "look_h": [4, 12]},
        "coupons": coupons,
    }
    assert client.put(f"/api/soaks/{soak_id}", json=soak).status_code == 200
    start = {"at_utc": (datetime.now(UTC) - timedelta(hours=14)).isoformat()}
    assert client.put(f"/api/soaks/{soak_id}/started", json=start).status_code == 200
    return soak_id, coupons


def graded(person, soak_id, coupon, side, key):
    """An inspection by one key; the page goes on to the next side by itself."""
    address = f"/soak/{soak_id}/look?coupon={coupon['id']}&side={side}&stage=wiped"
    person.open(address)
    person.see("more than half")
    person.press(key)
    person.until(lambda: not person.driver.current_url.endswith(address))


def area(person):
    return float(person.text("area").removesuffix(" %"))


def test_a_new_soak_is_written_and_begun(person):
    person.open("/soak?new=soak")
    person.see("The question, in one sentence")
    press(person, "Add a piece of steel")
    press(person, "Save soak")
    person.see("name the soak")
    field(person, "Name").send_keys("Overnight")
    field(person, "The question").send_keys("Does it rust?")
    press(person, "Save soak")
    person.see("Not begun yet.")
    press(person, "Begin the soak")
    person.see("inspect, in")
    assert person.errors() == [] or all("422" in error for error in person.errors())


def test_pictures_are_measured_and_the_answer_has_a_tie(person, served, pictures):
    soak_id, (a, b, d) = begun(served)
    person.open(f"/soak/{soak_id}/look?coupon={a['id']}&side=left&stage=as_found")
    person.see("By eye")
    press(person, "In a picture")
    put_picture(person, pictures / "broken.jpg")
    person.see("broken.jpg: this is not a whole picture")
    put_picture(person, pictures / "first.jpg")
    person.see("Press on the plunge line and on the tip")
    for place in (PLUNGE, TIP):
        press_at(person, *place)
    person.see("Press on the white card.")
    press_at(person, *WHITE_POINT)
    person.see("ISO 10289")
    person.until(lambda: 0.5 < area(person) < 1.8)
    press(person, "Save, then A right")
    person.see("A, right side, as found")

    person.open(f"/soak/{soak_id}/look?coupon={a['id']}&side=left&stage=wiped")
    person.see("By eye")
    press(person, "In a picture")
    put_picture(person, pictures / "second.jpg")
    person.see("Press on the plunge line and on the tip")
    press(person, "Copy the last outline")
    person.see("new since the last inspection", seconds=40)
    person.until(lambda: 5 < area(person) < 7.5)
    press(person, "Save, then A right")
    for coupon, side, key in (
        (a, "right", "4"), (b, "left", "4"), (b, "right", "3"), (d, "left", "1"), (d, "right", "0"),
    ):  # fmt: skip
        graded(person, soak_id, coupon, side, key)
    person.open(f"/soak/{soak_id}")
    person.see("Least rust first: A and B together, then D.")
    person.see("The baseline, D, rusted")
    assert person.driver.find_elements(By.CSS_SELECTOR, "img[src*='/strip']")

    person.open(f"/soak/{soak_id}/blind")
    person.see("Every side of the last round once more")
    press(person, "Begin")
    person.see("Number 1 of 7")
    assert not any(name in person.driver.page_source for name in ("AV-", "right as found"))
    for number in range(1, 8):
        person.see(f"Number {number} of 7")
        person.press("5")
    person.see("All 7 sides are graded.")
    person.see("grades apart on average")

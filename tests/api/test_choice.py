"""Choice and upkeep over the API: uses kept, weights moved, gaps never filled."""

from uuid import uuid4

import pytest

from tests.helpers.paper import Paper, line

EDGE_AND_PRICE = {"name": "Deck knife", "weights": {"edge": 5, "price": 5}}


@pytest.fixture
def shelf(client):
    paper = Paper(client)
    paper.make_trial("A", "B", school="force_limit_rope")
    paper.kept(*(line(code, n, dull=at) for code, n, at in (
        ("A", 3, "18-20"), ("A", 4, "20-22"), ("B", 3, "30-33"), ("B", 4, "33-36"),
    )))  # fmt: skip
    blades = client.get(f"/api/trials/{paper.trial}/line-up").json()["blades"]
    for blade, price in zip(blades, ("300 kr", "360 kr"), strict=True):
        change = client.patch(f"/api/blades/{blade['id']}", json={"price": price})
        assert change.status_code == 200
    client.get("/api/today")
    return {blade["code"]: blade["id"] for blade in blades}


def chosen(client, **use):
    answer = client.post("/api/choice", json={**EDGE_AND_PRICE, **use})
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_longer_edge_is_weighed_against_its_price(client, shelf):
    found = chosen(client)
    assert found["headline"].startswith("Deck knife: B")
    assert [each["name"] for each in found["candidates"]] == ["B", "A"]
    assert "costs 20 % more" in found["bargain"]
    frugal = chosen(client, weights={"edge": 0.5, "price": 9})
    assert frugal["headline"].startswith("Deck knife: A")
    assert any("B comes first once edge life weighs more than" in flip for flip in frugal["flips"])


def test_a_blade_beaten_in_everything_is_shown_as_that(client, shelf):
    client.patch(f"/api/blades/{shelf['A']}", json={"price": "500 kr"})
    (first, beaten) = chosen(client)["candidates"]
    assert (first["name"], beaten["is_beaten"]) == ("B", True)
    assert "B is at least as good in everything" in beaten["says"]


def test_unknown_is_unknown(client, shelf):
    client.patch(f"/api/blades/{shelf['B']}", json={"price": ""})
    found = chosen(client)
    placed = [each["name"] for each in found["candidates"] if each["is_placed"]]
    assert placed == ["A"]
    (gap,) = [each for each in found["candidates"] if not each["is_placed"]]
    assert "price is not known; it would come first with less than" in gap["says"]
    assert next(a for a in found["axes"] if a["key"] == "price")["known_of"] == 1


def test_a_use_is_kept_changed_and_deleted(client, shelf):
    use = f"/api/uses/{uuid4()}"
    assert client.put(use, json=EDGE_AND_PRICE).status_code == 200
    assert client.put(use, json=EDGE_AND_PRICE).status_code == 200
    assert client.put(use, json={**EDGE_AND_PRICE, "name": "Kitchen, wet"}).status_code == 200
    assert [each["name"] for each in client.get("/api/uses").json()] == ["Kitchen, wet"]
    assert client.delete(use).status_code == 204
    assert client.delete(use).status_code == 404
    assert client.get("/api/uses").json() == []


@pytest.mark.parametrize(
    "odd",
    [
        {"weights": {"edge": 11}},
        {"weights": {"edge": -1}},
        {"weights": {"glamour": 5}},
        {"name": " "},
        {"steel_to_lose_mm": 0},
        {"hour_costs": -5},
    ],
)
def test_a_use_that_cannot_be_is_refused_at_its_field(client, odd):
    answer = client.put(f"/api/uses/{uuid4()}", json={**EDGE_AND_PRICE, **odd})
    assert answer.status_code == 422
    assert next(iter(odd)) in answer.text


def test_an_empty_shelf_and_no_weights_are_defined_answers(client):
    found = chosen(client)
    assert found["candidates"] == []
    assert found["no_lives"]
    assert "nothing that is weighed" in chosen(client, weights={})["headline"]
    assert client.get("/api/upkeep").json() == []


def test_upkeep_tells_minutes_and_re_angling(client, shelf):
    edge = {"id": str(uuid4()), "number": 6, "minutes": 12, "side_angle_deg": 26}
    edge |= {"thickness_behind_edge_mm": 0.4, "steel_removed_mm": 0.25}
    answer = client.put(f"/api/blades/{shelf['A']}/edges/{edge['id']}", json=edge)
    assert answer.status_code == 200, answer.text
    (row,) = client.get("/api/upkeep", params={"to_side_deg": 20}).json()
    assert row["minutes_says"].startswith("12 min")
    assert row["per_cut_says"].endswith(row["per_cut_says"].split("cuts")[-1])
    assert "0.028 mm²" in row["reangling_says"]
    assert "0.28 usual sharpenings" in row["reangling_says"]


@pytest.mark.parametrize(
    ("written", "value", "unit"),
    [
        ("310 kr", 310.0, "kr"),
        ("1 450 kr", 1450.0, "kr"),
        ("12,50 €", 12.5, "€"),
        ("$1,450.00", 1450.0, "$"),
        ("gift", None, ""),
        ("0", None, ""),
    ],
)
def test_prices_as_testers_write_them(written, value, unit):
    from kessik.services.choice.gathering import price_of

    found = price_of(written)
    assert (found.value if found else None, found.unit if found else "") == (value, unit)


def test_prices_in_two_currencies_are_not_weighed_against_each_other(client, shelf):
    client.patch(f"/api/blades/{shelf['B']}", json={"price": "36 €"})
    found = chosen(client)
    assert [each["name"] for each in found["candidates"] if each["is_placed"]] == ["A"]
    assert found["notes"] == ["Priced in another currency, and not compared: B."]


def test_energies_of_two_tests_are_not_weighed_against_each_other(client, shelf):
    tests = (("A", "charpy_v", 20), ("A", "charpy_v", 22), ("B", "bend", 90))
    for code, test, joules in tests:
        body = {"blade_id": shelf[code], "test": test, "joules": joules, "specimen": "10 x 10 mm"}
        assert client.put(f"/api/toughness/{uuid4()}", json=body).status_code == 200
    found = chosen(client, weights={"toughness": 5})
    (placed,) = [each for each in found["candidates"] if each["is_placed"]]
    assert (placed["name"], placed["figures"][-1]["value"]) == ("A", 22)
    assert "Toughness by another test, and not compared: B." in found["notes"]

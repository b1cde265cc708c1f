"""Anything is found by a few letters of it."""


def test_trials_blades_grades_lots_soaks_and_notes_are_found(hand):
    (_, edge), _ = hand.make_trial("A", "B")
    run = hand.start(edge)
    hand.send(run, "note", {"text": "rolled at the heel, wet rope"}, at=0)
    lot = {"id": "lot-of-rope", "kind": "rope", "name": "Hemp, wet", "unit": "m"}
    assert hand.client.put("/api/lots/lot-of-rope", json=lot).status_code == 200

    def found(text):
        return [(f["kind"], f["name"]) for f in hand.client.get(f"/api/find?text={text}").json()]

    assert found("wet") == [("lot", "Hemp, wet"), ("note", "Raft rope")]
    assert found("raft rope")[0] == ("trial", "Raft rope")
    assert ("grade", "1.2436") in found("1.2436")
    assert found("x") == []
    assert found("100%25") == []

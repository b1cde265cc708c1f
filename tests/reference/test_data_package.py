"""The tables of a trial as a data package, judged by the reference validator, frictionless."""

import io
import zipfile

import frictionless

from tests.helpers.paper import line


def test_a_trial_goes_out_as_a_package_that_its_validator_accepts(hand, tmp_path, monkeypatch):
    hand.make_trial("A", "=B", school="two_stage_board")
    body = {"lines": [], "by": "Operator 1", "cut_on": "2019-05-04"}
    for n, blade in enumerate(("A", "=B")):
        cells = line(blade, 3, fine="30", working="25,5", check_every="5", note="wet, cold")
        body["lines"].append({"id": f"line-{n}-of-paper", **cells})
    kept = hand.client.post(f"/api/trials/{hand.trial}/paper-runs", json=body)
    assert kept.status_code == 200, kept.text
    archive = hand.client.get(f"/api/trials/{hand.trial}/files").content
    with zipfile.ZipFile(io.BytesIO(archive)) as files:
        files.extractall(tmp_path)
    monkeypatch.chdir(tmp_path)
    report = frictionless.Package("datapackage.json").validate()
    assert report.valid, report.flatten(["fieldName", "message"])
    assert [task.name for task in report.tasks] == ["series", "runs", "blades", "edges"]

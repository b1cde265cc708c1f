"""Sheets of results, looked over and brought in."""

import json

TWO_STAGE = """Knife;Steel;HRC;Angle incl.;Fine (ft);Working (ft);Total;Remarks
A;1.4034;57,5;30;30;25;55;first try
B;1.4112;58,5;30;40-45;20;;
A;1.4034;57,5;30;31;26;57;again
"""


class Desk:
    def __init__(self, client):
        self.client = client

    def send(self, address, data, name="old.csv", **form):
        if isinstance(data, str):
            data = data.encode()
        if "reading" in form:
            form["reading"] = json.dumps(form["reading"])
        files = {"file": (name, data)}
        return self.client.post(f"/api/{address}", files=files, data=form)

    def look(self, data, **form):
        answer = self.send("sheet-previews", data, **form)
        assert answer.status_code == 200, answer.text
        return answer.json()

    def bring(self, data, **form):
        answer = self.send("sheet-imports", data, **form)
        assert answer.status_code == 200, answer.text
        return answer.json()

    def lives(self, trial):
        found = self.client.get(f"/api/trials/{trial}/verdict").json()["answer"]["runs"]
        return {
            (r["blade"], r["run"]["edge"]): {
                stage: (life["low"], life["high"]) for stage, life in r["lives"].items()
            }
            for r in found
        }

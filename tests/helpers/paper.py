"""A paper record, entered line by line."""

from uuid import uuid4

from tests.conftest import BenchHand


class Paper(BenchHand):
    """A tester with a sheet of results."""

    def keep(self, *lines, by="Operator 1", **rest):
        body = {"lines": [{"id": str(uuid4()), **line} for line in lines], "by": by, **rest}
        return self.client.post(f"/api/trials/{self.trial}/paper-runs", json=body)

    def kept(self, *lines, **rest):
        answer = self.keep(*lines, **rest)
        assert answer.status_code == 200, answer.text
        return answer.json()["run_ids"]

    def verdict(self):
        return self.client.get(f"/api/trials/{self.trial}/verdict").json()["answer"]

    def lives(self, blade, edge):
        found = [
            r for r in self.verdict()["runs"] if (r["blade"], r["run"]["edge"]) == (blade, edge)
        ]
        return {
            stage: (life["status"], life["low"], life["high"])
            for stage, life in found[0]["lives"].items()
        }


def line(blade, edge, readings="", **cells):
    return {"cells": {"blade": blade, "edge": str(edge), **cells}, "readings": readings}

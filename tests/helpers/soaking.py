"""A soak over the wire: begun, inspected, with pictures on its time line."""

from datetime import UTC, datetime, timedelta
from uuid import uuid4

from kessik.instruments.virtual_bench.soaked_blade import SoakedSide, photograph

BEGUN = datetime.now(UTC).replace(microsecond=0) - timedelta(hours=15)


def new_id():
    return str(uuid4())


def at(hours):
    return {"at_utc": (BEGUN + timedelta(hours=hours)).isoformat(), "offset_minutes": 60}


class Soaking:
    """A soak of A, B and the baseline D, begun 15 hours ago."""

    def __init__(self, client):
        self.client, self.id = client, new_id()
        self.coupons = {name: new_id() for name in "ABD"}
        methods = {m["key"]: m for m in client.get("/api/soak-methods").json()}
        self.body = {
            "name": "Brine",
            "question": "Which rusts less?",
            "factor": "steel",
            "method": methods["brine_overnight"],
            "coupons": [
                {"id": i, "name": name, "role": "baseline" if name == "D" else ""}
                for name, i in self.coupons.items()
            ],
        }
        self.ok(client.put(f"/api/soaks/{self.id}", json=self.body))
        self.ok(client.put(f"/api/soaks/{self.id}/started", json=at(0)))

    @staticmethod
    def ok(answer):
        assert answer.status_code == 200, answer.text
        return answer.json()

    def look(self, name, side="left", stage="wiped", hours=14, look_id=None, **seen):
        body = {"coupon_id": self.coupons[name], "side": side, "stage": stage, **at(hours), **seen}
        return self.client.put(f"/api/soaks/{self.id}/looks/{look_id or new_id()}", json=body)

    def picture(self, data=None):
        data = data or photograph(SoakedSide(5, 3.0, taken_at="2026:05:04 10:00:00"))
        files = [("photos", ("a.jpg", data))]
        return self.client.post(f"/api/soaks/{self.id}/pictures", files=files)

    def sheet(self):
        return self.ok(self.client.get(f"/api/soaks/{self.id}"))

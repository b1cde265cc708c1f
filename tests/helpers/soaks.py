"""Soaks as a paper record has them: coupons, inspections of both sides, and what is answered."""

from kessik.core.corrosion.answer import soak_answer
from kessik.core.corrosion.fairness import Specimen
from kessik.core.corrosion.methods import BY_KEY
from kessik.core.corrosion.soaks import Act, Coupon, Look, Soak
from kessik.core.moments import Moment
from kessik.core.words.soaks import soak_headline, soak_reasons

AT = Moment("2026-05-04T08:00:00+00:00")
STEEL = {"flat_finish": "satin", "degreased_with": "alcohol"}


def coupon(name, role="", **said):
    return Coupon(said.pop("id", name), name, role=role, **{**STEEL, **said})


def soak_of(*coupons, factor="steel", method="brine_overnight"):
    return Soak("s", "Brine", "Which rusts less?", factor, BY_KEY[method], coupons, started=AT)


def look(name, side, area, stage="wiped", hours=14.0, **said):
    low, high = said.pop("bounds", (0.9 * (area or 0), 1.1 * (area or 0)))
    key = f"{name}{side}{stage}{hours}{said.get('region', '')}"
    return Look(key, name, side, stage, AT, hours, rust_percent=area, rust_low=low,
                rust_high=high, **said)  # fmt: skip


def both(name, left, right, stage="wiped", hours=14.0):
    return [look(name, "left", left, stage, hours), look(name, "right", right, stage, hours)]


def answered(soak, looks, acts=(), steels=None, now_h=14.0):
    steels = steels or {c.id: c.name for c in soak.coupons}
    specimens = [Specimen(c, steels.get(c.id, "")) for c in soak.coupons]
    answer = soak_answer(soak, specimens, acts, looks, now_h)
    names = {c.id: c.name for c in soak.coupons}
    return answer, soak_headline(soak, answer, names), soak_reasons(soak, answer, names)


def act(kind, hours, **said):
    return Act(f"{kind}{hours}", kind, AT, hours, **said)

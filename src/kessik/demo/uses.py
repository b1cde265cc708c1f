"""A use that a blade is chosen for: what the crews want on deck."""

from kessik.core.choice.axes import AxisKey
from kessik.core.choice.uses import Use
from kessik.demo.cutting import demo_id
from kessik.demo.days import Days
from kessik.demo.soaks import BRINE_ID
from kessik.services.choice.uses import put_use
from kessik.store.database import Database

USE_ID = demo_id("use", "deck-knife")


def build_uses(db: Database, days: Days) -> None:
    """The deck knife: it lasts in rope, bears brine, is quick to sharpen and not too dear."""
    weights: dict[AxisKey, float] = {"edge": 6.0, "rust": 2.0, "upkeep": 2.0, "price": 3.0}
    use = Use(USE_ID, "Deck knife", weights, soak_id=BRINE_ID, hour_costs=250.0)
    put_use(db, use, days.moment(1, 18.0))

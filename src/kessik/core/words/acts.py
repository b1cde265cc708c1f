"""An act that can be undone, in words."""

from collections import Counter
from collections.abc import Sequence

_THINGS = {
    "soak_look": ("inspection", "inspections"),
    "soak_act": ("entry of the soak", "entries of the soak"),
    "picture_use": ("picture", "pictures"),
    "picture": ("picture", "pictures"),
    "assay_shot": ("shot", "shots"),
    "lot_correction": ("correction", "corrections"),
    "shot_file": ("file of shots", "files of shots"),
    "reference_check": ("reading on the reference", "readings on the reference"),
    "toughness": ("toughness", "toughnesses"),
    "field_exposure": ("exposure", "exposures"),
    "care": ("act of care", "acts of care"),
    "measurement": ("fact", "facts"),
    "edge": ("edge", "edges"),
    "archived": ("archive", "archive"),
    "blade": ("blade", "blades"),
    "trial_blade": ("place in the trial", "places in the trial"),
    "method": ("method", "methods"),
    "trial": ("trial", "trials"),
    "soak_coupon": ("coupon", "coupons"),
    "soak": ("soak", "soaks"),
    "assay_batch": ("batch", "batches"),
    "assay_blade": ("blade of the batch", "blades of the batch"),
    "lot": ("lot", "lots"),
    "recipe": ("recipe", "recipes"),
    "abrasive": ("abrasive", "abrasives"),
    "grade": ("grade", "grades"),
    "instrument": ("instrument", "instruments"),
}
"""What each kind of record is called, one and many; the most particular first names the act."""
_WHOLES = ("trial", "soak", "assay_batch", "blade")
"""What comes or goes with all that belongs to it, and names the act then."""


def act_words(rows: Sequence[tuple[str, str]]) -> str:
    """What was done, from what happened to each record by its kind: `fact added`, `3 edges
    changed`.
    """
    did_to = dict(rows)
    whole = (thing for thing in _WHOLES if did_to.get(thing) in ("added", "removed"))
    named = next(whole, None) or next(thing for thing in _THINGS if thing in did_to)
    did = Counter(done for thing, done in rows if thing == named)
    if named == "archived":
        return "archive changed"
    how = next(iter(did)) if len(did) == 1 else "changed"
    one, many = _THINGS[named]
    return f"{one} {how}" if did.total() == 1 else f"{did.total()} {many} {how}"

"""Any payload that an event can have."""

from hypothesis import strategies as st

from kessik.core.limits import LIMITS
from kessik.core.protocols.entries import Choice, Extra, Flag, Ids, Number, Pair, Text, is_plain
from kessik.core.protocols.events import (
    CLASSES,
    entries_of,
)

WORDS = st.text(max_size=30).filter(is_plain)


def of_entry(entry):
    """Values that a field takes."""
    if isinstance(entry, Number):
        limit = LIMITS.get(entry.limit)
        return st.floats(limit.least, limit.most) if limit else st.floats(1, 10)
    if isinstance(entry, Choice):
        return st.sampled_from(entry.words)
    if isinstance(entry, Text):
        return WORDS.filter(lambda text: text.strip()) if entry.needed else WORDS
    if isinstance(entry, Flag):
        return st.booleans()
    if isinstance(entry, Ids):
        return st.lists(WORDS.filter(lambda text: text.strip()), min_size=1, max_size=3)
    if isinstance(entry, Pair):
        return st.tuples(of_entry(entry.first), of_entry(entry.second)).map(list)
    return st.dictionaries(WORDS, WORDS, max_size=3) if isinstance(entry, Extra) else st.just({})


def payloads(kind):
    """What an event of a kind may hold; fields that need not be there are there or not."""
    known = entries_of(CLASSES[kind])
    must = {name: of_entry(entry) for name, (entry, needed) in known.items() if needed}
    may = {name: of_entry(entry) for name, (entry, needed) in known.items() if not needed}
    return st.fixed_dictionaries(must, optional=may)

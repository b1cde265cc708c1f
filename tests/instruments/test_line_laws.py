"""Laws of instrument lines: whatever comes over a line is read as what it says, or as nothing."""

from hypothesis import given
from hypothesis import strategies as st

from kessik.core.protocols.reading_gate import ReadingGate, pass_line
from kessik.interchange.instrument_lines import read_line

FLAGS = {"ST": "stable", "S": "stable", "US": "moving", "U": "moving", "": "stable"}


@given(
    st.sampled_from(sorted(FLAGS)),
    st.floats(-9999, 9999),
    st.sampled_from([" ", ", ", "\t"]),
    st.booleans(),
)
def test_a_written_value_is_read_back_with_its_standing(flag, value, gap, comma):
    shown = f"{value:+.1f}"
    text = f"{flag}{gap if flag else ''}{shown.replace('.', ',') if comma else shown} gf"
    line = read_line(text, "gf")
    assert (line.standing, line.value) == (FLAGS[flag], float(shown))


@given(st.text(max_size=60))
def test_no_text_breaks_the_reader_and_what_is_garbled_has_no_value(text):
    line = read_line(text, "gf")
    assert line.standing in ("stable", "moving", "garbled", "down", "up")
    assert (line.value is None) == (line.standing in ("garbled", "down", "up"))


LINES = st.tuples(
    st.sampled_from(["stable", "moving", "garbled"]), st.integers(-10, 6000), st.floats(0, 0.2)
)


@given(st.lists(LINES, max_size=40))
def test_a_reading_is_stable_in_range_and_never_taken_twice_in_a_row_without_a_sign_of_a_new_pull(
    lines,
):
    gate, at_s, fresh = ReadingGate(), 0.0, True
    for standing, value, later in lines:
        at_s += later  # a line every fifth of a second at most: no silence
        known = None if standing == "garbled" else float(value)
        gate, answer = pass_line(gate, standing, known, at_s, 1, 5000)
        if answer == "taken":
            assert standing == "stable"
            assert 1 <= value <= 5000
            assert fresh, "the value before it is still shown"
            fresh = False
        elif answer in ("moving", "at_rest"):
            fresh = True

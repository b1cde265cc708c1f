"""Laws of what was written and of what is put right: brackets, totals, units, undo of undo."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import OutOfRangeError
from kessik.core.protocols.corrections import corrected_by
from kessik.core.protocols.events import BenchEvent, Correction, Cut, Reading, Start, Stop, Strike
from kessik.core.protocols.folding import fold
from kessik.core.protocols.methods import force_limit_rope
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.trials.paper.cells import WrittenLife, life_in, number_in
from kessik.core.trials.paper.guessing import guess
from kessik.core.trials.paper.heads import head_of
from kessik.core.trials.paper.lines import PaperLine, read_lines
from kessik.core.trials.paper.sheets import changes_of, lines_of

TWO_STAGE = BY_SCHOOL["two_stage_board"]
COUNTS = st.integers(1, 900)


@given(COUNTS, COUNTS, st.sampled_from(["-", " - ", "–", "..", " to "]))
def test_a_bracket_is_read_as_written_and_never_upside_down(one, other, sign):
    text = f"{one}{sign}{other}"
    if one < other:
        assert life_in(text, "fine") == WrittenLife(one, other)
    else:
        with pytest.raises(OutOfRangeError, match="last pass comes first"):
            life_in(text, "fine")


@given(st.decimals(0, 9999, places=2))
def test_a_decimal_comma_is_a_decimal_point(value):
    assert number_in(str(value).replace(".", ","), "cut") == float(value)


def read(**cells):
    found, slips = next(
        read_lines([PaperLine("x", {"blade": "A", "edge": "3", **cells})], TWO_STAGE)
    )
    return found, [slip.key for slip in slips]


@given(COUNTS, COUNTS, st.integers(-3, 3))
def test_parts_make_the_total_or_a_slip_is_told(fine, working, off):
    found, slips = read(fine=f"{fine}", working=f"{working}", total=f"{fine + working + off}")
    assert slips == ([] if off == 0 else ["total"])
    if found:
        assert [at for at, _ in found.log] == [fine, fine + working]


@given(COUNTS, COUNTS, st.integers(1, 50))
def test_a_length_that_begins_inside_a_bracket_is_as_wide_as_both(held, working, width):
    found, _ = read(fine=f"{held}-{held + width}", working=f"{working}", check_every="4")
    ends = [at for at, said in found.log if said.stage == "working"]
    least = held + max(working - 4, 0)
    assert ends == [least, held + width + working]


def test_a_row_a_check_and_a_column_a_blade_tell_the_same():
    method = force_limit_rope()
    by_check = [("blade", "cuts", "force (gf)"), ("A", "0", "150"), ("A", "8", "310"),
                ("B", "0", "140"), ("B", "8", "260")]  # fmt: skip
    wide = [("cuts", "A", "B"), ("0", "150", "140"), ("8", "310", "260")]
    told = [
        [
            (own.line.text("blade"), own.line.readings)
            for own in lines_of(r, guess(r, method), method)
        ]
        for r in (by_check, wide)
    ]
    assert told[0] == told[1] == [("A", "0 150\n8 310"), ("B", "0 140\n8 260")]


def test_metres_become_the_feet_of_the_method():
    rows = [("knife", "fine (m)", "working (m)"), ("A", "3.048", "6-9.144")]
    (own,) = lines_of(rows, guess(rows, TWO_STAGE), TWO_STAGE)
    assert (own.line.text("fine"), own.line.text("working")) == ("10", "19.685-30")


def test_a_total_in_metres_may_miss_its_parts_in_feet_by_its_last_digit_and_no_more():
    # 144 + 87 = 231 ft are 70.41 m; 71.4 m would be a slip
    heads = ("knife", "edge", "fine (ft)", "working (ft)", "total (m)")
    for total, slips in (("70.4", []), ("71.4", ["total"])):
        rows = [heads, ("A", "3", "144", "87", total)]
        (own,) = lines_of(rows, guess(rows, TWO_STAGE), TWO_STAGE)
        found, wrong = next(read_lines([own.line], TWO_STAGE))
        assert [slip.key for slip in wrong] == slips
        if found:
            assert max(at for at, _ in found.log) == 231, "the parts say it more finely"


@given(st.integers(0, 9))
def test_an_undo_of_an_undo_is_in_force(undone):
    said = [
        Start(),
        Cut(amount=4),
        Reading(value=200.0),
        Stop(),
        Strike(target="e2", reason="slip"),
    ]
    said += [Correction(target=f"e{4 + n}", becomes=None) for n in range(undone)]
    log = [BenchEvent(f"e{n}", each, "d", n, 0, 4, "", n + 1) for n, each in enumerate(said)]
    struck = fold(log, force_limit_rope()).checks[0].check.struck
    assert struck == (undone % 2 == 0)
    assert ("e2" in corrected_by(log)) == struck


def test_neighbouring_heads_are_never_joined_into_one_meaning():
    # “Angle” beside “Total” was once a total angle, and silently halved.
    rows = [("knife", "Angle", "Total", "Fine edge ft"), ("A", "15", "225", "140")]
    found = guess(rows, TWO_STAGE)
    assert found.roles == ("blade", "angle_deg", "total", "fine")
    assert found.angle_is == "side"
    (own,) = lines_of(rows, found, TWO_STAGE)
    assert own.facts.side_angle_deg == "15"
    assert changes_of(rows, found, TWO_STAGE) == []


@pytest.mark.parametrize(
    ("text", "name", "unit", "standing", "both"),
    [
        ("Fine edge ft", "fine edge", "ft", None, False),
        ("HRC guess", "hrc", "", "guessed", False),
        ("Angle (incl.)", "angle incl", "", None, True),
        ("Total, m", "total", "m", None, False),
        ("Hardness HRC claimed", "hardness", "", "claimed", False),
    ],
)
def test_a_head_ends_in_its_unit_and_its_standing(text, name, unit, standing, both):
    found = head_of(text)
    assert (found.name, found.unit, found.standing, found.both_sides) == (
        name, unit, standing, both,
    )  # fmt: skip  # one row of the table


def test_every_guess_that_changes_a_value_is_shown_before_and_after():
    rows = [("knife", "angle incl.", "total m", "HRC guess"), ("A", "30", "3,048", "58,5")]
    reading = guess(rows, TWO_STAGE)
    told = {(c.place, c.why): (c.before, c.after) for c in changes_of(rows, reading, TWO_STAGE)}
    assert told == {
        (1, "halved"): ("30", "15"),
        (2, "unit"): ("3,048", "10"),
        (3, "decimal"): ("58,5", "58.5"),
    }
    assert reading.hardness_standing == "guessed"


def test_merged_heads_and_a_row_of_units():
    rows = [
        ("Knife", "Cuts", "", "Force", ""),
        ("", "keen", "dull", "start", "end"),
        ("", "", "", "N", "gf"),
        ("A", "12", "30", "1.5", "410"),
    ]
    found = guess(rows, force_limit_rope())
    assert found.head_rows == 3
    assert found.roles == ("blade", "keen", "dull", "start_gf", "end_gf")
    (own,) = lines_of(rows, found, force_limit_rope())
    assert own.line.text("start_gf") == "152.957"
    assert own.line.text("end_gf") == "410"


def test_a_stop_belongs_to_the_stage_that_its_row_names():
    rows = [("knife", "edge", "stage", "stopped at (ft)"), ("A", "3", "fine", "140"),
            ("A", "3", "working", "85"), ("B", "3", "Fine", "120")]  # fmt: skip
    told = list(lines_of(rows, guess(rows, TWO_STAGE), TWO_STAGE))
    assert [(own.line.text("fine"), own.line.text("working")) for own in told] == [
        ("140", "85"), ("120", ""),
    ]  # fmt: skip  # a run a row


def test_decimal_commas_with_points_for_thousands():
    rows = [("knife", "dull", "start (gf)"), ("A", "1.250,5", "148,5")]
    (own,) = lines_of(rows, guess(rows, force_limit_rope()), force_limit_rope())
    assert (own.line.text("dull"), own.line.text("start_gf")) == ("1250.5", "148.5")

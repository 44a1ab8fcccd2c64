"""Readings as CSV: what goes out comes in again, and files that are wrong are refused by line and column."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from umber_pebble.core.bench.values import METHODS
from umber_pebble.core.errors import OutOfRange
from umber_pebble.formats.readings import ReadingRow, read_readings, write_readings

HEAD = "time,of,temperature,unit,method\n"
NOON = "2031-05-02T12:00:00+01:00"
TIMES = st.datetimes(datetime(2025, 1, 1), datetime(2035, 1, 1), timezones=st.just(UTC))
ROWS = st.lists(
    st.builds(
        ReadingRow,
        st.just(0),
        TIMES,
        st.sampled_from(["cook", "round"]),
        st.integers(0, 99),
        st.floats(-30, 220),
        st.sampled_from(METHODS),
    ),
    max_size=8,
)


@settings(max_examples=100, deadline=None)
@given(ROWS, st.sampled_from(["C", "F"]))
def test_what_goes_out_comes_in_again(rows: list[ReadingRow], unit: str) -> None:
    back = read_readings(write_readings(rows, unit))
    assert [(r.at, r.subject, r.number, r.method) for r in back] == [
        (r.at, r.subject, r.number, r.method) for r in rows
    ]
    assert [r.degc for r in back] == pytest.approx([r.degc for r in rows], abs=0.006)


def test_zones_units_gaps_and_a_byte_order_mark_are_taken() -> None:
    text = (
        "\ufeff"
        + HEAD
        + f"\n{NOON},cook 1,320,F,infrared\n,,,,\n2031-05-02T11:05:00Z, Round 2 ,81.5,c,immersed_swirled\r\n"
    )
    first, second = read_readings(text)
    assert (first.degc, first.at) == (pytest.approx(160.0), datetime(2031, 5, 2, 11, tzinfo=UTC))
    assert (second.subject, second.number, second.at - first.at) == ("round", 1, timedelta(minutes=5))


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "first line"),
        ("temp,when\n", "first line"),
        (HEAD + f"{NOON},cook 1,abc,C,infrared\n", "line 2, temperature: this is no number"),
        (HEAD + f"{NOON},cook 1,,C,infrared\n", "line 2, temperature"),
        (HEAD + f"\n{NOON},cook 1,nan,C,infrared\n", "line 3, temperature: it must be"),
        (HEAD + f"{NOON},cook 1,900,F,infrared\n", "from -30 to 220"),
        (HEAD + f"{NOON},pot,150,C,infrared\n", "line 2, of: say cook, round or batch"),
        (HEAD + f"{NOON},cook 0,150,C,infrared\n", "line 2, of"),
        (HEAD + f"{NOON},cook 1,150,K,infrared\n", "line 2, unit"),
        (HEAD + f"{NOON},cook 1,150,C,guessed\n", "line 2, method"),
        (HEAD + "2031-05-02T12:00:00,cook 1,150,C,infrared\n", "needs its zone"),
        (HEAD + "02/05/2031,cook 1,150,C,infrared\n", "ISO 8601"),
        (HEAD + f'{NOON},"=HYPERLINK(""http://x"")",150,C,infrared\n', "a formula"),
        (HEAD + f"{NOON},cook 1,150,C,@SUM(1)\n", "a formula"),
        (HEAD + f"{NOON},cook 1,150,C\n", "4 cells, not 5"),
        (HEAD + f'{NOON},"cook 1,150,C,infrared\n', "not CSV"),
        (HEAD + "\x00", "UTF-8"),
        (HEAD + "\ufffd", "UTF-8"),
        ("x" * 10_000_001, "too large"),
        (HEAD + f"{NOON},cook 1,150,C,infrared\n" * 20_001, "too many readings"),
    ],
)
def test_what_is_wrong_is_said_by_line_and_column(text: str, words: str) -> None:
    with pytest.raises(OutOfRange, match=words):
        read_readings(text)

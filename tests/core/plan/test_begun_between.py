"""When hands begin to work on castings that were poured one after another, each in a window of its own."""

from hypothesis import given
from hypothesis import strategies as st

from umber_pebble.core.plan.rounds import begun_between_s

seconds = st.floats(0.5, 30.0)


@given(st.floats(0.0, 200.0), st.floats(0.0, 200.0), st.integers(1, 30), seconds, seconds, st.floats(0.0, 600.0))
def test_a_beginning_between_them_finds_every_casting_ready_and_none_too_firm(
    opens: float, wide: float, casts: int, pour_s: float, work_s: float, begins: float
) -> None:
    """Casting by casting: the k-th is poured at k p and worked at s + k w."""
    least, most = begun_between_s((opens, opens + wide), casts, pour_s, work_s)
    waits = [begins + k * (work_s - pour_s) for k in range(casts)]
    if least + 1e-6 < begins < most - 1e-6:
        assert all(opens <= of <= opens + wide for of in waits)
    if begins < least - 1e-6 or begins > most + 1e-6:
        assert not all(opens <= of <= opens + wide for of in waits)

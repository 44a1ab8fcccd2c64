"""A cooling curve as CSV: header `time,temperature,unit`; time in seconds or ISO 8601, unit C or F."""

from datetime import datetime

from umber_pebble.formats.readings import read_table, to_degc, wrong

HEADER = ("time", "temperature", "unit")


def read_curve_csv(text: str) -> tuple[list[float], list[float]]:
    """Seconds and temperatures [degC] of a curve, as they stand in the file.

    Raises: OutOfRange: too large, not UTF-8, another header, or a cell that cannot be; with line and column.
    """
    times, temps = [], []
    for line, (time, temperature, unit) in read_table(text, HEADER):
        if unit.upper() not in ("C", "F"):
            raise wrong(line, "unit", unit, "the unit is C or F")
        times.append(_seconds(line, time))
        temps.append(to_degc(line, temperature, unit.upper()))
    return times, temps


def _seconds(line: int, text: str) -> float:
    try:
        return float(text)
    except ValueError:
        pass
    try:
        return datetime.fromisoformat(text).timestamp()
    except ValueError as error:
        raise wrong(line, "time", text, "neither seconds nor a time in ISO 8601") from error

"""Readings by what they are and where."""

from collections.abc import Iterable

from tropometer.swing.readings.reading import Reading


def by_key(readings: Iterable[Reading]) -> dict[tuple[str, str], Reading]:
    """Readings by their id and their checkpoint, or what they are of."""
    return {(reading.reading, reading.at): reading for reading in readings}

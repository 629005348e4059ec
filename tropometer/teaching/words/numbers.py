"""Numbers as they are said: never finer than their error."""

from __future__ import annotations

import math

from tropometer.swing.readings.reading import Unit
from tropometer.teaching.student import LengthUnit

STEPS = (1.0, 2.0, 5.0, 10.0)
INCH_M, CENTIMETRE_M = 0.0254, 0.01


def said(value: float, u95: float, unit: Unit, lengths: LengthUnit = "cm") -> str:
    """A value in words: "about 4 cm"; "less than 3 cm" where its error is larger than it is."""
    number, error, name, least = _in_words(value, u95, unit, lengths)
    step = max(step_of(error), least)
    if abs(number) < error:
        return f"less than {_number(math.ceil((abs(number) + error) / step) * step, step)}{name}"
    rounded = round(number / step) * step
    about = "about " if error > least / 2 else ""
    return f"{about}{_number(rounded, step)}{name}"


def step_of(error: float) -> float:
    """The largest of 1, 2, 5 times a power of ten that is not above an error; nothing where there is none."""
    if error <= 0 or not math.isfinite(error):
        return 0.0
    power = 10.0 ** math.floor(math.log10(error))
    return max(step * power for step in STEPS if step * power <= error * (1 + 1e-9))


def _in_words(value: float, u95: float, unit: Unit, lengths: LengthUnit) -> tuple[float, float, str, float]:
    """In the unit that people say, with that unit's name and the finest step worth saying."""
    if unit == "m":
        return (
            (value / INCH_M, u95 / INCH_M, " in", 0.5)
            if lengths == "in"
            else (value * 100, u95 * 100, " cm", 0.5)
        )
    if unit == "m_s":
        return value, u95, " m/s", 0.1
    if unit == "s":
        return value * 1000, u95 * 1000, " ms", 5
    if unit == "deg":
        return value, u95, "°", 1
    if unit == "to_one":
        return value, u95, " to 1", 0.1
    return (value * 100, u95 * 100, " %", 1) if unit == "ratio" else (value, u95, "", 0.1)


def _number(value: float, step: float) -> str:
    digits = max(0, -math.floor(math.log10(step) + 1e-9)) if step < 1 else 0
    text = f"{value:.{digits}f}"
    text = text.removesuffix(".0")
    return text.replace("-", "−") if float(text) else text.lstrip("-")

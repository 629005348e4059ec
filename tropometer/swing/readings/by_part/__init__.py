"""The readings, from the floor up, a file a part of the body; importing this enters them all."""

from tropometer.swing.readings.by_part import (  # noqa: F401
    club,
    feet,
    going_back,
    knees,
    pelvis,
    pressure,
    sequence,
    set_up,
    trunk,
)

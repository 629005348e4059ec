"""The readings of marks, from the floor up; importing this registers them all."""

from tropometer.swing.readings.by_part import club, feet, knees, pelvis, set_up, trunk  # noqa: F401

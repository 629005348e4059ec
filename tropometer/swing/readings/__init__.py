"""Every reading, from the floor up; importing this registers them all."""

from tropometer.swing.readings import club, feet, knees, pelvis, set_up, trunk  # noqa: F401

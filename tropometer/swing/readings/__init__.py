"""What is measured: readings of marks, of times, of a pressure plate and of each other.

All of them are in the register once anything is imported from here.
"""

from tropometer.swing.readings import by_part  # noqa: F401  its readings enter themselves

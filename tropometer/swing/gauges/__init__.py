"""The lines of the trade, one file a gauge, and the swing from above.

Placed at address, read wherever their marks are, drawn by the readings. All of them are in the register once
anything is imported from here.
"""

# In the order in which they are offered.
from tropometer.swing.gauges import (  # noqa: F401, I001
    trail_plumb,
    hip_gate,
    post_mark,
    seat_wall,
    hips_way,
    belt_line,
    shoulder_line,
    spine_line,
    neck_line,
    kneecap_level,
    knee_gap,
    lead_leg,
    trail_leg,
    thighs,
    knee_hinge,
    toe_line,
    foot_fan,
    shoe_roll,
    heel_lift,
    stance_tape,
    grip_plumb,
    trail_arm,
    shaft_line,
)

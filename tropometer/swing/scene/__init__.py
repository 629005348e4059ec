"""A swing in the player's own axes: cameras, and where each mark was at each moment, with its error."""

"""What a teacher knows, as plain data: bands, disputes, models, faults, drills, cautions, and their book."""

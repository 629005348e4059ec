"""Drills that a student films at home, checked by a machine alone, and whether it was right."""

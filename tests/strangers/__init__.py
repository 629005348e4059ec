"""Golfers, phones, mats and eyes that the core has not seen, drawn by rules of their own.

Nothing here looks at what the core believes (`swing/usual.py`, `camera/solve.py`) nor at the demo's golfers.
"""

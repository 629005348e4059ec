"""Clocks of different devices, put on one another."""

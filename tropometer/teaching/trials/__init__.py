"""Tries of one studio hour, held against each other."""

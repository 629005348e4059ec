"""Swings over the months: how a golfer scatters, what changed, what is still to be told."""

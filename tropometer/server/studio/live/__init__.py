"""Devices that send while an hour is on: the line, what comes over it, and whose it is."""

"""Frames in and out: probing, the frame-exact proxy, stills. No Django here."""

"""Judging one swing: bands, evidence, findings, strengths, the chain of causes, and what to work on."""

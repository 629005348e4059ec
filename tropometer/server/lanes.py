"""The lanes of the job queue: what people wait for, and the upkeep that must never wait behind it."""

WORK = "default"
UPKEEP = "upkeep"
FIRST = 1000  # the priority of what goes before all that waits

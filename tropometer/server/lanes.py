"""The lanes of the job queue: beside what people wait for, the upkeep that must never wait behind it."""

UPKEEP = "upkeep"
FIRST = 1000  # the priority of what goes before all that waits

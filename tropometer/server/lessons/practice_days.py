"""On which days of the week a drill is practised, from the words of its dose."""

import re

NUMBERS = {"once": 1, "twice": 2, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7}
# As far apart as a week has room for; where a dose names no days, three.
DAYS = {
    1: ["SA"],
    2: ["TU", "SA"],
    3: ["MO", "WE", "FR"],
    4: ["MO", "WE", "FR", "SU"],
    5: ["MO", "TU", "WE", "FR", "SA"],
    6: ["MO", "TU", "WE", "TH", "FR", "SA"],
    7: ["MO", "TU", "WE", "TH", "FR", "SA", "SU"],
}
UNSAID = 3
_DAILY = re.compile(r"\b(a|each|every|per) day\b|\bdaily\b", re.IGNORECASE)
_A_WEEK = re.compile(r"\b(\w+)( days| times)?,? (a|each|every|per) week\b", re.IGNORECASE)


def practice_days(dose: str) -> list[str]:
    """Days as RFC 5545 names them: "ten, three days a week" is three of them, "ten a day" all."""
    weekly = _A_WEEK.search(dose)
    if weekly:
        said = weekly[1].lower()
        times = int(said) if said.isdigit() else NUMBERS.get(said, UNSAID)
        return DAYS[min(max(times, 1), 7)]
    return DAYS[7] if _DAILY.search(dose) else DAYS[UNSAID]

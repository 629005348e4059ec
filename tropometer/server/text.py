"""What people type: one line, or several. No control characters reach either."""

import unicodedata
from collections.abc import Iterable
from typing import Annotated

from pydantic import AfterValidator

KEPT = "\n\r\t"


def trouble_in(text: str) -> str | None:
    """What makes a text unusable in words, or None: control characters, and halves of characters."""
    for each in text:
        if each not in KEPT and unicodedata.category(each) in ("Cc", "Cs"):
            return f"a control character (U+{ord(each):04X}) is in it"
    return None


def _one_line(text: str) -> str:
    if any(each in KEPT for each in text):
        raise ValueError("it must be one line")
    return text


Line = Annotated[str, AfterValidator(_one_line)]


def once(words: Iterable[str]) -> list[str]:
    """Words in their order, each once."""
    return list(dict.fromkeys(words))

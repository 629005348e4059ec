"""The whole answer to a swing, with each thing that a hand does counted."""

from __future__ import annotations

import re
import time
from dataclasses import dataclass

from playwright.sync_api import Locator, Page, expect

from tests.browser.base import StageDriver

# Seconds of a practised hand: Card, Moran and Newell 1980, "The keystroke-level model", Commun. ACM 23:396,
# from memory: a key 0.28, to point 1.1, to press a mouse button 0.2, to a mouse or back 0.4, to think 1.35.
KEY_S, POINT_S, BUTTON_S, HOME_S, THINK_S = 0.28, 1.1, 0.2, 0.4, 1.35
LED_ON = re.compile("look at|see whether|mark the|draw|click|film|^Next:")


@dataclass
class Hand:
    """Does what an instructor does, and counts it."""

    page: Page
    keys: int = 0
    clicks: int = 0

    def press(self, key: str) -> None:
        self.page.keyboard.press(key)
        self.keys += 1

    def click(self, what: Locator) -> None:
        what.click()
        self.clicks += 1

    @property
    def actions(self) -> int:
        return self.keys + self.clicks

    @property
    def hand_s(self) -> float:
        """What the actions take a practised hand, each of them thought about."""
        return self.keys * (THINK_S + KEY_S) + self.clicks * (THINK_S + HOME_S + POINT_S + BUTTON_S)


def answer(page: Page, swing: str, student: str, talk_s: float) -> tuple[Hand, float]:
    """Answer a swing that nobody has touched, as proposed, with a spoken walk, and send it.

    Returns what the hand did, and how long all of it took on this machine, seconds: the talking too.
    """
    hand, began = Hand(page), time.perf_counter()
    page.goto(swing)
    StageDriver(page).wait_drawn()
    now = page.get_by_test_id("next-click")
    expect(now).to_contain_text("Shift N")
    hand.press("Shift+N")
    expect(now).to_contain_text(re.compile("Now:.*peg what is proposed, both views", re.DOTALL))
    hand.press("g")
    expect(now).to_contain_text("say whether both views show one swing")
    hand.click(page.get_by_role("button", name="One swing", exact=True))
    while "look at" in (said := told(now)):
        views = "both views" if "both views" in said else "as proposed"
        taken = page.get_by_role("button", name=re.compile(f"^Take .*{views}")).first
        # What it is led to may change once more while the readings of the last step come in.
        expect(taken.or_(now.filter(has_not_text=said)).first).to_be_visible()
        if not taken.is_visible():
            continue
        hand.press("Shift+Enter")
        expect(now).not_to_have_text(said)
    hand.press("j")
    hand.click(page.get_by_role("button", name="Choose these"))
    expect(page.get_by_role("region", name="The lesson is about")).to_be_visible()
    hand.press("t")
    hand.click(page.get_by_role("button", name="Begin with words"))
    expect(page.get_by_role("button", name=re.compile("^Record"))).to_be_enabled()
    hand.press("Shift+R")
    expect(page.get_by_role("timer")).to_have_text(re.compile(r"0:0[1-9]"))
    page.wait_for_timeout(talk_s * 1000)
    hand.click(page.get_by_role("button", name="End", exact=True))
    hand.click(page.get_by_role("link", name="See it as the student will"))
    expect(page.get_by_label("Opening words")).not_to_have_value("")  # begun from what was found
    hand.click(page.get_by_role("button", name=f"Send to {student}"))
    expect(page.get_by_role("button", name="Take it back")).to_be_visible()
    return hand, time.perf_counter() - began


def told(now: Locator) -> str:
    """What the hand is led to, once the machine has said it."""
    expect(now).to_contain_text(LED_ON)
    return now.text_content() or ""

"""The machine reads first, and says so; then it leads the hand to what is worth looking at most."""

import re

from playwright.sync_api import Locator, expect

from tests.browser.base import WAIT_MS, BrowserCase, StageDriver
from tests.server.seen import put_proposals
from tests.swings import DEMO_CLIPS, truth
from tropometer.server.bench.models import FirstLook, Mark, Peg

FACE, LINE = "tobin_first_face", "tobin_first_line"


class FirstLookTests(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.clip = self.student_clip(DEMO_CLIPS / f"{FACE}.mp4")
        put_proposals(self.clip, FACE)
        self.sign_in()

    def tape(self, reading: str) -> Locator:
        return self.page.get_by_test_id(f"tape-{reading}")

    def next(self) -> Locator:
        return self.page.get_by_test_id("next-click")

    def test_what_nobody_looked_at_is_drawn_broken_and_the_hand_is_led(self) -> None:
        self.page.goto(f"/bench/{self.clip.swing_id}")
        driver = StageDriver(self.page)
        driver.wait_drawn()
        self.page.keyboard.press("r")
        tape = self.tape("stance_ratio-address")
        expect(tape).to_contain_text("provisional")
        expect(tape.locator("line[stroke-dasharray='3 3']")).to_have_count(1)
        expect(self.page.get_by_text("None of it goes into a lesson")).to_be_visible()
        self.assertEqual((Mark.objects.count(), Peg.objects.count()), (0, 0))

        self.page.keyboard.press("Shift+N")
        expect(self.next()).to_contain_text(re.compile(r"Now:\s*peg what is proposed"))
        self.page.keyboard.press("g")
        pegs = truth(FACE)["checkpoints"]
        words = {"look at address": "address", "look at top": "top", "look at impact": "impact"}
        seen: list[str] = []
        for _ in range(2):
            expect(self.next()).to_contain_text(re.compile("|".join(words)))
            at = next(at for said, at in words.items() if said in self.next().inner_text())
            self.assertNotIn(at, seen)
            seen.append(at)
            driver.wait_drawn(pegs[at])  # it leads there by itself
            take = self.page.get_by_role("button", name=re.compile("Take .* as proposed"))
            expect(take).to_be_visible()
            self.page.keyboard.press("Shift+Enter")
            expect(take).to_be_hidden()
            expect(self.next()).not_to_contain_text(f"look at {at}")
        self.page.keyboard.press("Escape")
        expect(self.next()).to_contain_text("Next:")
        taken = Mark.objects.filter(frame=pegs[seen[0]])
        self.assertGreater(taken.count(), 15)
        self.assertEqual(set(taken.values_list("source", flat=True)), {"accepted"})
        self.assertEqual(set(Peg.objects.values_list("accepted", flat=True)), {True})

        self.page.keyboard.press("r")
        looked_at, unseen = (
            f"pelvis_slant-{at}" for at in (seen[0], next(at for at in words.values() if at not in seen))
        )
        self.page.get_by_role("region", name="Readings").locator("select").select_option("all")
        expect(self.tape(looked_at)).not_to_contain_text("provisional")
        expect(self.tape(unseen)).to_contain_text("provisional")

    def test_two_views_are_looked_at_at_once_and_what_stood_beside_comes_back(self) -> None:
        line = self.clip_from(DEMO_CLIPS / f"{LINE}.mp4", self.clip.swing, view="down_the_line")
        put_proposals(line, LINE)
        self.page.goto(f"/bench/{self.clip.swing_id}?station=mark")
        own, other = StageDriver(self.page), StageDriver(self.page, "reference")
        own.wait_drawn()
        expect(other.stage).to_have_count(0)
        expect(self.next()).to_contain_text("Shift N")  # before that there is nothing to be led to
        self.page.keyboard.press("Shift+N")
        expect(self.next()).to_contain_text(re.compile(r"Now:\s*peg what is proposed, both views"))
        other.wait_drawn()
        self.page.keyboard.press("g")
        expect(self.next()).to_contain_text("say whether both views show one swing")
        expect(self.page.get_by_text("Do both views show one swing?")).to_have_count(1)
        self.page.get_by_role("button", name="One swing", exact=True).click()
        expect(self.next()).to_contain_text(re.compile("look at .* both views"))
        at = next(at for at in ("address", "top", "impact") if at in self.next().inner_text())
        frames = {clip: truth(name)["checkpoints"][at] for clip, name in ((self.clip, FACE), (line, LINE))}
        own.wait_drawn(frames[self.clip])
        other.wait_drawn(frames[line])
        expect(self.page.get_by_role("button", name=re.compile("Take .* both views"))).to_be_visible()
        self.page.keyboard.press("Shift+Enter")
        expect(self.next()).not_to_contain_text(f"look at {at}")
        self.saved()
        for clip, frame in frames.items():
            self.assertGreater(Mark.objects.filter(clip=clip, frame=frame, source="accepted").count(), 8)
        self.page.keyboard.press("Control+z")  # one step, as it was one
        for _ in range(WAIT_MS // 100):
            if not Mark.objects.exists():
                break
            self.page.wait_for_timeout(100)
        self.assertEqual(Mark.objects.count(), 0)
        self.page.keyboard.press("r")
        expect(other.stage).to_have_count(0)

    def test_the_inbox_shows_what_stands_out(self) -> None:
        tape = {
            "reading": "pelvis_sway", "at": "top", "unit": "m", "value": -0.064, "u95": 0.021,
            "low": -0.03, "high": 0.02, "standing": "below", "sure": 0.97,
        }  # fmt: skip
        FirstLook.objects.create(swing=self.clip.swing, tapes=[tape])
        self.page.goto("/inbox")
        card = self.page.get_by_role("region", name="First look")
        expect(card).to_contain_text("nobody has looked at it yet")
        expect(card).to_contain_text("−6.4 ± 2.1 cm")
        expect(card).to_contain_text("Below its band: 97 % sure")
        self.page.get_by_role("button", name="in", exact=True).click()
        expect(card).to_contain_text("−2.5 ± 0.8 in")

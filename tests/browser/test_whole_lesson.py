"""From an unanswered swing of two views to a sent lesson with a spoken walk, in few actions."""

from tests.browser.base import BrowserCase
from tests.browser.recording import MICROPHONE
from tests.browser.whole_lesson import answer
from tests.server.seen import put_proposals
from tests.swings import DEMO_CLIPS
from tropometer.server.lessons.models import Lesson
from tropometer.server.walks.models import Walk

MAIL = "tobin@skerrow.example"
MOST_ACTIONS = 30


class WholeLessonTests(BrowserCase):
    def test_thirty_actions_from_an_unanswered_swing_to_sent(self) -> None:
        face, line = "tobin_first_face", "tobin_first_line"
        clip = self.student_clip(DEMO_CLIPS / f"{face}.mp4", email=MAIL)
        put_proposals(clip, face)
        put_proposals(self.clip_from(DEMO_CLIPS / f"{line}.mp4", clip.swing, view="down_the_line"), line)
        self.context.add_init_script(MICROPHONE)
        self.sign_in()
        hand, _ = answer(self.page, f"/bench/{clip.swing_id}?station=mark", MAIL, talk_s=3)
        self.assertLessEqual(hand.actions, MOST_ACTIONS)
        lesson = Lesson.objects.get()
        self.assertIsNotNone(lesson.sent_at)
        first = lesson.sheets.get().document["plan"]["focus"][0]
        self.assertTrue(first["drills"])
        self.assertIsNotNone(first["goal"])
        self.assertGreater(lesson.frames.count(), 0)
        self.assertTrue(Walk.objects.get().cut)

"""What a machine saw where nobody has put anything yet, and what is said to be worth looking at next."""

from collections.abc import Callable
from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.strangers.filming import film
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.names import View
from tropometer.swing.next_look import next_looks
from tropometer.swing.proposals.provisional import PEG_SD_S, SeenClip, corrected, with_proposals
from tropometer.swing.read import read
from tropometer.swing.record.clip import Clip, Mark
from tropometer.swing.record.swing import SwingRecord

OWN_PX, SHARED_PX, HAND_PX = 4.0, 6.0, 1.5
BOTH: tuple[View, ...] = ("face_on", "down_the_line")


def machine(x: float, y: float) -> Mark:
    return Mark(x, y, float(np.hypot(OWN_PX, SHARED_PX)), "proposed", SHARED_PX)


def seen_as(clip: Clip, random: np.random.Generator) -> SeenClip:
    """A machine that errs by one way throughout each mark of a clip, and by another on each frame."""
    marks = {
        name: {
            frame: machine(
                *(
                    np.array([mark.x, mark.y]) + always + random.uniform(-1, 1, 2) * np.sqrt(3) * OWN_PX
                ).tolist()
            )
            for frame, mark in by_frame.items()
        }
        for name, by_frame in clip.marks.items()
        for always in [random.uniform(-1, 1, 2) * np.sqrt(3) * SHARED_PX]
    }
    return SeenClip(pegs=clip.checkpoints, mark=lambda name, frame: marks.get(name, {}).get(frame))


def bare(record: SwingRecord) -> SwingRecord:
    return replace(record, clips=tuple(replace(clip, marks={}, checkpoints={}) for clip in record.clips))


def taken(clip: Clip) -> Clip:
    """All marks of it looked at, and let stand."""
    marks = {
        name: {frame: replace(mark, source="accepted") for frame, mark in by_frame.items()}
        for name, by_frame in clip.marks.items()
    }
    return replace(clip, marks=marks)


class ProvisionalTests(TestCase):
    def setUp(self) -> None:
        self.random = np.random.default_rng(11)
        self.record = film(BOTH, "mat", np.random.default_rng(3), rate_hz=60).record
        self.seen = {clip.id: seen_as(clip, self.random) for clip in self.record.clips}

    def test_what_somebody_put_goes_before_what_a_machine_saw(self) -> None:
        face = self.record.clips[0]
        address, top = face.checkpoints["address"], face.checkpoints["top"]
        by_hand = {"lead_hip": {address: face.marks["lead_hip"][address]}}
        begun = replace(
            face,
            marks=by_hand,
            checkpoints={"top": top},
            hidden={"trail_knee": frozenset([top])},
        )
        late = SeenClip(pegs=face.checkpoints | {"arm_back": top + 5}, mark=self.seen[face.id].mark)
        found = with_proposals(replace(self.record, clips=(begun,)), {face.id: late}).clips[0]
        self.assertEqual(found.marks["lead_hip"][address], by_hand["lead_hip"][address])
        self.assertEqual(found.marks["lead_hip"][top].source, "proposed")
        self.assertNotIn(top, found.marks["trail_knee"])
        self.assertEqual(found.checkpoints["top"], top)
        self.assertNotIn("arm_back", found.checkpoints)  # it would come after the top
        self.assertEqual(found.peg_sd_s["address"], PEG_SD_S["address"])
        self.assertNotIn("top", found.peg_sd_s)
        self.assertEqual(begun.marks, by_hand)  # nothing was put on what there was

    def test_all_that_is_read_off_it_is_provisional_until_it_is_looked_at(self) -> None:
        found = read(with_proposals(bare(self.record), self.seen))
        given = [each for each in found.readings if each.status == "ok" and each.at in ("top", "impact")]
        self.assertGreater(len(given), 50)
        self.assertEqual([each.reading for each in given if not each.provisional], [])
        own = read(self.record)
        unlike = [
            each
            for each in read(with_proposals(self.record, self.seen)).readings
            if (mine := own.given(each.reading, each.at)) and (each.value, each.u95) != (mine.value, mine.u95)
        ]
        self.assertEqual(unlike, [])

    def test_a_hand_s_mark_takes_out_what_a_machine_errs_by_throughout(self) -> None:
        """The machine's errors here are flat, not bell-shaped."""
        held, nearer = [], []
        for _ in range(300):
            always = self.random.uniform(-1, 1, 2) * np.sqrt(3) * SHARED_PX
            marks = {
                frame: machine(*(always + self.random.uniform(-1, 1, 2) * np.sqrt(3) * OWN_PX).tolist())
                for frame in range(4)
            }
            x, y = self.random.normal(0, HAND_PX, 2).tolist()
            hand = {0: Mark(x, y, HAND_PX)}
            better = corrected(lambda name, frame, marks=marks: marks[frame], "lead_knee", hand)
            accepted = {0: replace(hand[0], source="accepted")}
            machine_only = corrected(lambda name, frame, marks=marks: marks[frame], "lead_knee", accepted)
            for frame in (1, 2, 3):
                was, now = marks[frame], better("lead_knee", frame)
                assert now is not None
                self.assertLess(now.sd_px, was.sd_px)
                held += [abs(now.x) < NORMAL_95 * now.sd_px, abs(now.y) < NORMAL_95 * now.sd_px]
                self.assertEqual(machine_only("lead_knee", frame), was)
                nearer.append(np.hypot(now.x, now.y) / np.hypot(was.x, was.y))
        self.assertGreater(np.mean(held), 0.93)
        self.assertLess(float(np.median(nearer)), 0.9)

    def test_what_marks_share_goes_out_of_what_has_changed(self) -> None:
        """And comes back whole as soon as one of them is a hand's, which does not share it."""

        def sway(record: SwingRecord) -> float:
            found = read(record).given("pelvis_sway", "top")
            assert found is not None and found.u95 is not None
            return found.u95

        whole = with_proposals(bare(self.record), self.seen)
        apart = self._with(whole, lambda name, frame, mark: replace(mark, shared_px=0.0))
        self.assertLess(sway(whole), 0.75 * sway(apart))
        top = whole.clips[0].checkpoints["top"]

        def by_hand(name: str, frame: int, mark: Mark) -> Mark:
            true = self.record.clips[0].marks.get(name, {}).get(frame)
            is_hip = name in ("lead_hip", "trail_hip") and frame == top and mark.source == "proposed"
            return true if is_hip and true is not None else mark

        self.assertGreater(sway(self._with(whole, by_hand)), sway(whole))

    def _with(self, record: SwingRecord, change: Callable[[str, int, Mark], Mark]) -> SwingRecord:
        clips = []
        for clip in record.clips:
            marks = {
                name: {frame: change(name, frame, mark) for frame, mark in by_frame.items()}
                for name, by_frame in clip.marks.items()
            }
            clips.append(replace(clip, marks=marks))
        return replace(record, clips=tuple(clips))


class NextLookTests(TestCase):
    def test_the_click_that_is_worth_most_narrows_as_much_as_it_is_said_to(self) -> None:
        """Every mark is tried by reading the swing again with it placed; none beats the one that is named."""
        known = film(("face_on",), "mat", np.random.default_rng(5), rate_hz=60).record
        random = np.random.default_rng(2)
        record = with_proposals(bare(known), {clip.id: seen_as(clip, random) for clip in known.clips})
        record = replace(
            record,
            clips=tuple(
                replace(
                    clip,
                    peg_sd_s={},
                    marks={
                        name: {
                            frame: replace(mark, source="accepted", shared_px=0.0)
                            for frame, mark in by_frame.items()
                        }
                        for name, by_frame in clip.marks.items()
                    },
                )
                for clip in record.clips
            ),
        )
        found = read(record)
        key = ("trail_hip_gap", "top")
        given = found.given(*key)
        assert given is not None and given.value is not None and given.u95 is not None
        edge = given.value + 0.3 * given.u95  # it lies at the edge of its band
        (best,) = next_looks(found, {key: (None, edge)}, {"face_on": HAND_PX}, most=1)
        self.assertEqual((best.need.kind, best.need.view), ("mark", "face_on"))

        def narrowed(name: str, at: str) -> float:
            (clip,) = record.clips
            frame = dict(clip.checkpoints)[at]  # type: ignore[index]
            placed = replace(clip.marks[name][frame], sd_px=HAND_PX, source="hand")
            marks = clip.marks | {name: clip.marks[name] | {frame: placed}}
            again = read(replace(record, clips=(replace(clip, marks=marks),))).given(*key)
            assert again is not None and again.u95 is not None
            return again.u95

        by_reading = {
            (name, at): narrowed(name, at)
            for name in record.clips[0].marks
            for at, frame in record.clips[0].checkpoints.items()
            if at in ("address", "top") and frame in record.clips[0].marks[name]
        }
        tried = min(by_reading.values())
        self.assertAlmostEqual(by_reading[best.need.name, str(best.need.at)], tried, delta=0.01 * tried)
        self.assertLess(tried, 0.95 * given.u95)
        self.assertEqual(best.narrows, ("trail_hip_gap",))

    def test_a_peg_that_was_taken_as_proposed_is_worth_checking_where_it_is_what_is_unsure(self) -> None:
        record = film(BOTH, "mat", np.random.default_rng(8), rate_hz=60).record
        unsure = replace(
            record,
            clips=tuple(replace(clip, peg_sd_s={"impact": PEG_SD_S["impact"]}) for clip in record.clips),
        )
        key = ("pelvis_turn", "impact")

        def u95(of: SwingRecord) -> tuple[float, float]:
            given = read(of).given(*key)
            assert given is not None and given.value is not None and given.u95 is not None
            return given.value, given.u95

        value, wide = u95(unsure)
        edge = {key: (value - 0.3 * wide, None)}
        (best,) = next_looks(read(unsure), edge, {"face_on": HAND_PX, "down_the_line": HAND_PX}, most=1)
        self.assertEqual((best.need.kind, best.need.at), ("check", "impact"))
        checked = replace(
            unsure,
            clips=tuple(
                replace(clip, peg_sd_s={}) if clip.view == best.need.view else clip for clip in unsure.clips
            ),
        )
        self.assertLess(u95(checked)[1], wide)
        self.assertEqual(next_looks(read(record), edge, {"face_on": HAND_PX, "down_the_line": HAND_PX}), [])

    def test_a_frame_is_worth_looking_at_for_what_is_sure_already(self) -> None:
        known = film(BOTH, "mat", np.random.default_rng(8), rate_hz=60).record
        random = np.random.default_rng(4)
        record = with_proposals(bare(known), {clip.id: seen_as(clip, random) for clip in known.clips})
        found = read(record)
        value = found.given("pelvis_sway", "impact")
        assert value is not None and value.value is not None
        sure = {("pelvis_sway", "impact"): (value.value - 0.5, value.value + 0.5)}
        looks = next_looks(found, sure, {"face_on": HAND_PX, "down_the_line": HAND_PX})
        self.assertEqual({each.need.kind for each in looks}, {"look"})
        self.assertEqual({each.need.at for each in looks} - {"address", "impact"}, set())
        self.assertEqual({each.need.view for each in looks}, {None})  # both views are looked at together
        begun = replace(
            record, clips=tuple(taken(clip) if clip.view == "face_on" else clip for clip in record.clips)
        )
        (other,) = {
            each.need.view
            for each in next_looks(read(begun), sure, {"face_on": HAND_PX, "down_the_line": HAND_PX})
        }
        self.assertEqual(other, "down_the_line")
        self.assertEqual(next_looks(read(known), sure, {"face_on": HAND_PX, "down_the_line": HAND_PX}), [])

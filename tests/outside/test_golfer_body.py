"""The made-up golfer against published tables of bodies and swings."""

from unittest import TestCase

import numpy as np

from tests.golfer import bodies
from tests.swings import true_reading, truth
from tropometer.golfer import forces
from tropometer.swing.names import VIEWS

# Drillis and Contini 1966, in Winter, Biomechanics and Motor Control of Human Movement, fig. 4.1:
# fractions of stature (from memory). Joint centres of the mesh, so a share of each is allowed.
WINTER = {
    "thigh": (0.245, 0.02),
    "shank": (0.246, 0.02),
    "foot length": (0.152, 0.025),
    "upper arm": (0.186, 0.045),  # the rig's shoulder joint lies below the acromion the table starts from
    "forearm": (0.146, 0.02),
    "knee height": (0.285, 0.02),
    "hip height": (0.530, 0.02),
}


class ProportionTests(TestCase):
    def test_segments_have_the_published_proportions(self) -> None:
        for stature, man in ((1.65, 0.0), (1.80, 1.0)):
            body = bodies.body(stature, man, 0.0)
            at = body.head

            def between(a: str, b: str, at: dict = at) -> float:
                return float(np.linalg.norm(at[a] - at[b]))

            sole = body.foot["l"]
            found = {
                "thigh": between("thigh_l", "calf_l"),
                "shank": between("calf_l", "foot_l"),
                "foot length": sole.length - 0.02,  # a shoe is longer than its foot
                "upper arm": between("upperarm_l", "lowerarm_l"),
                "forearm": between("lowerarm_l", "hand_l"),
                "knee height": float(at["calf_l"][1]),
                "hip height": float(at["thigh_l"][1]),
            }
            for name, (share, allowed) in WINTER.items():
                with self.subTest(name=name, stature=stature):
                    self.assertAlmostEqual(found[name] / stature, share, delta=allowed)

    def test_segment_masses_sum_to_the_body(self) -> None:
        # de Leva 1996, J Biomech 29:1223, table 4 (from memory): all segments together are the whole
        for sex in (0, 1):
            limbs = 2 * sum(parts[sex] for parts in forces.LIMBS.values())
            self.assertAlmostEqual(limbs + forces.HEAD[sex] + forces.TRUNK[sex], 1.0, delta=0.002)


class PublishedSwingTests(TestCase):
    def test_sound_swings_lie_in_published_ranges(self) -> None:
        for name in ("model_loaded_face", "model_centred_face", "model_lead_face", "model_free_face"):
            with self.subTest(name):
                # About 3:1: Grober and Cholewicki 2008 (from memory)
                self.assertAlmostEqual(true_reading(name, "tempo", "swing"), 3.0, delta=0.4)
                # Hips about 55 degrees, shoulders about 87 at the top: McTeigue et al. 1994 (from memory)
                self.assertTrue(38 <= true_reading(name, "pelvis_turn", "top") <= 58)
                self.assertTrue(78 <= true_reading(name, "shoulder_turn", "top") <= 100)
                # Lower body first: Cheetham et al. 2008; Tinmark et al. 2010 (from memory)
                order = true_reading(name, "start_order", "transition").split(", ")
                self.assertLess(order.index("pelvis_turn"), order.index("chest"))
                # Never outside the trail foot; common practice, no source
                self.assertGreater(true_reading(name, "trail_hip_gap", "top"), 0)

    def test_the_pair_a_month_apart_improved_and_the_small_change_is_small(self) -> None:
        before = true_reading("tobin_first_face", "pelvis_sway", "top")
        after = true_reading("tobin_month_face", "pelvis_sway", "top")
        self.assertGreater(after - before, 0.05)
        change = true_reading("dag_month_face", "pelvis_sway", "top") - true_reading(
            "dag_first_face", "pelvis_sway", "top"
        )
        self.assertLess(abs(change), 0.006)  # less than sway can be measured to

    def test_both_hands_and_all_clubs_are_in_the_set(self) -> None:
        from tropometer.golfer.cast import TAKES

        known = [truth(take.name) for take in TAKES]
        self.assertEqual({k["hand"] for k in known}, {"left", "right"})
        self.assertEqual({k["club"] for k in known}, {"wedge", "mid_iron", "driver"})
        self.assertEqual({k["view"] for k in known}, set(VIEWS))

    def test_ways_of_going_back_are_what_the_swings_were_made_for(self) -> None:
        # trade's words, common practice, no source
        ways = {"tobin_first_face": "pure_sway", "model_loaded_face": "loaded"}
        ways |= {"model_centred_face": "centred", "sunniva_square_face": "empty_turn"}
        for name, way in ways.items():
            self.assertEqual(true_reading(name, "going_back", "top"), way, name)

"""Certainties and changes against closed forms, a reference library, counting, and a published example."""

from typing import Any
from unittest import TestCase

import numpy as np
from scipy.stats import multivariate_normal, norm

from tests.teaching.saying import fault as a_fault
from tests.teaching.saying import judged, only, reading
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.over_time.repeatability import minimal_detectable_change

KEYS = (("pelvis_turn", "top"), ("pelvis_turn", "impact"), ("pelvis_turn", "finish"))
U95 = 1.959964


def certainty(rule: dict[str, Any], mean: np.ndarray, covariance: np.ndarray) -> float:
    """How sure a fault with this rule is, where readings lie so and their errors hang together so."""
    read = [
        reading(name, at, float(value), U95 * float(np.sqrt(variance)))
        for (name, at), value, variance in zip(KEYS, mean, np.diag(covariance), strict=False)
    ]

    def joint(keys: list[Key]) -> np.ndarray:
        rows = [KEYS.index(key) for key in keys]
        return covariance[np.ix_(rows, rows)]

    return judged(read, book=only(a_fault("it", rule)), covariance=joint).findings[0].certainty


def below(limits: np.ndarray) -> dict[str, Any]:
    """The rule that each reading lies below its limit."""
    return {
        "all": [
            {"reading": name, "at": at, "below": float(limit)}
            for (name, at), limit in zip(KEYS, limits, strict=False)
        ]
    }


class JointNormalTest(TestCase):
    """P(a rule of several correlated normals holds)."""

    def test_against_scipy(self) -> None:
        """scipy.stats.multivariate_normal.cdf (Genz's algorithm) on random means and covariances."""
        random = np.random.default_rng(7)
        for _ in range(25):
            root = random.normal(size=(3, 3)) * 3
            covariance = root @ root.T + np.eye(3)
            mean, limits = random.normal(0, 4, 3), random.normal(2, 4, 3)
            expected = multivariate_normal(mean, covariance).cdf(limits)
            self.assertAlmostEqual(certainty(below(limits), mean, covariance), expected, delta=0.012)

    def test_against_the_orthant_formula(self) -> None:
        """P(X < 0, Y < 0) = 1/4 + arcsin(correlation)/2π: Sheppard 1899, Phil Trans R Soc A 192:101."""
        for correlation in (-0.9, -0.5, 0.0, 0.5, 0.9):
            covariance = np.array([[1.0, correlation], [correlation, 1.0]])
            expected = 0.25 + np.arcsin(correlation) / (2 * np.pi)
            found = certainty(below(np.zeros(2)), np.zeros(2), covariance)
            self.assertAlmostEqual(found, expected, delta=0.006)

    def test_against_counting(self) -> None:
        """A quarter of a million plain random draws, for a rule that no closed form has."""
        random = np.random.default_rng(3)
        covariance = np.array([[4.0, 1.5, 0.0], [1.5, 9.0, -2.0], [0.0, -2.0, 1.0]])
        mean = np.array([1.0, -2.0, 0.5])
        drawn = random.multivariate_normal(mean, covariance, 250_000)
        counted = ((drawn[:, 0] < 0) & ((drawn[:, 1] > 0) | (drawn[:, 2] - drawn[:, 0] > 1))).mean()
        rule = {
            "all": [
                {"reading": "pelvis_turn", "at": "top", "below": 0.0},
                {
                    "any": [
                        {"reading": "pelvis_turn", "at": "impact", "above": 0.0},
                        {"reading": "pelvis_turn", "at": "finish", "since": "top", "above": 1.0},
                    ]
                },
            ]
        }
        self.assertAlmostEqual(certainty(rule, mean, covariance), counted, delta=0.01)


class ChangeTest(TestCase):
    def test_the_minimum_difference_of_a_published_example(self) -> None:
        """Weir 2005, J Strength Cond Res 19:231, data set A: 8 people, two trials (numbers from memory).

        The standard error of measurement is √(mean square error) = 7.6 and the minimum difference 20.9 there.
        """
        first = np.array([146, 148, 170, 90, 157, 156, 176, 205])
        second = np.array([140, 152, 152, 99, 145, 153, 167, 218])
        # Two trials: the mean square error of rows and columns is half the variance of the differences.
        sem = np.sqrt((first - second).var(ddof=1) / 2)
        self.assertAlmostEqual(sem, 7.6, delta=0.05)
        self.assertAlmostEqual(minimal_detectable_change(float(sem)), 20.9, delta=0.15)
        self.assertAlmostEqual(minimal_detectable_change(1.0), norm.ppf(0.975) * np.sqrt(2), places=5)

"""What a body keeps: the two hip joints lie as far apart at all moments, and so do the shoulders.

An eye takes a joint for another point, the same way in a whole clip. Seen from both sides, the line between
two such points is then longer when it points one way than when it points another; from how its length changes
as the body turns it follows how far, and which way, the eye misses. A linear Gaussian update of the eye's
errors by the lengths, linearised where the line is (Särkkä 2013, Bayesian Filtering and Smoothing, 4.3 and
5.2; from memory).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tropometer.swing.arrays import Array

# Parts whose two points stay apart, by how much, of stature, and how people differ from that. A tape measures
# hips over the trochanters, 0.187 of stature apart.
APART = {"hip": (0.107, 0.009), "shoulder": (0.215, 0.020)}
OF_HIP_WIDTH, OF_HIP_WIDTH_SD = 0.107 / 0.187, 0.03
LEAST_MOMENTS = 3
STEPS = 2


def apart_m(part: str, tall: float, tall_sd: float, hip_width_m: float | None) -> tuple[float, float]:
    """How far apart a part's two points are, and one standard deviation, metres.

    `tall` is the stature, `tall_sd` its standard deviation; the hips' width over the trochanters says more.
    """
    if part == "hip" and hip_width_m is not None:
        return OF_HIP_WIDTH * hip_width_m, OF_HIP_WIDTH_SD * hip_width_m
    share, differ = APART[part]
    return share * tall, float(np.hypot(differ * tall, share * tall_sd))


@dataclass(frozen=True, eq=False, kw_only=True)
class Pair:
    """Two points at n moments (3, n), and what one standard deviation of the eye's Q errors does (3, Q, n).

    `sd` (3, n) is how unsure the line between them is beside that, the same at no two moments.
    """

    lead: Array
    trail: Array
    lead_eye: Array
    trail_eye: Array
    sd: Array


@dataclass(frozen=True, eq=False, kw_only=True)
class Kept:
    """Where two points are once their line keeps its length, and what what is left of the errors does.

    Places (3, n); effects (3, 2 Q, n) of the same 2 Q errors for both.
    """

    lead: Array
    trail: Array
    lead_eye: Array
    trail_eye: Array


def keep_apart(pair: Pair, known: Array, apart: float, apart_sd: float, stretched: float) -> Kept:
    """The pair with its line as long at the `known` moments (n,) as at each other; `apart` is in metres.

    Either camera may see what it shows too long by `stretched`, a share: along the target line, and across.
    """
    effects = np.concatenate([pair.lead_eye, -pair.trail_eye], axis=1)
    errors = effects.shape[1]
    known_as = np.eye(errors + 3)  # the eye's errors, how far apart, and how either camera stretches
    mean, covariance = np.zeros(errors + 3), known_as
    line = pair.lead - pair.trail
    if known.sum() >= LEAST_MOMENTS:
        # |line - Σ e effect| = apart + d + stretch, in e (the eye's errors), d (how people differ), stretch:
        # linear about `here`, with e ~ N(0, 1), so C = (1 + Dᵀ D / noise)⁻¹ and mean = C Dᵀ seen / noise.
        for _ in range(STEPS):
            here = line - np.einsum("iqn,q->in", effects, mean[:errors])
            long = np.sqrt(np.sum(here**2, axis=0))
            unit = here / long
            slopes = np.einsum("in,iqn->nq", unit, effects)[known]
            # What the length would be with the eye's errors taken out is what people's is.
            along = stretched * (unit * line)[:2, known].T
            design = np.column_stack([slopes, np.full(len(slopes), apart_sd), along])
            seen = (np.sum(unit * line, axis=0) - apart)[known]
            noise = np.sum((unit * pair.sd) ** 2, axis=0)[known]
            covariance = np.linalg.inv(known_as + design.T @ (design / noise[:, None]))
            mean = covariance @ design.T @ (seen / noise)
    left = np.linalg.cholesky(covariance[:errors, :errors])
    by_lead = np.concatenate([pair.lead_eye, np.zeros_like(pair.trail_eye)], axis=1)
    by_trail = np.concatenate([np.zeros_like(pair.lead_eye), pair.trail_eye], axis=1)
    return Kept(
        lead=pair.lead - np.einsum("iqn,q->in", by_lead, mean[:errors]),
        trail=pair.trail - np.einsum("iqn,q->in", by_trail, mean[:errors]),
        lead_eye=np.einsum("iqn,qr->irn", by_lead, left),
        trail_eye=np.einsum("iqn,qr->irn", by_trail, left),
    )

"""What would settle a finding that is open or cannot be seen: the click, peg, side or mat, the best first."""

from __future__ import annotations

import math
from collections.abc import Mapping

import numpy as np
from scipy.special import ndtr, ndtri

from tropometer.swing.error.budget import BUDGET
from tropometer.swing.error.source import HERE
from tropometer.swing.names import CHECKPOINTS, PLANE_OF, USUAL_VIEW, Checkpoint, View
from tropometer.swing.readings.reading import Need, Reading
from tropometer.teaching.judging.evidence import Evidence
from tropometer.teaching.judging.finding import Settles
from tropometer.teaching.judging.holding import limit_of, value_of
from tropometer.teaching.knowledge.band import Band, Key
from tropometer.teaching.knowledge.rule import Condition

MOST = 3
MOST_OF_IT = 0.9  # of its kind of error a mat or a second side takes away
# Of a click's error the marks on four frames to either side take away: a parabola through nine (its middle
# has 0.255 of one's variance).
BY_FRAMES_BESIDE = 0.7
WORTH_IT = 0.02  # a certainty that grows by less is not worth a click
NODES, WEIGHTS = np.polynomial.hermite_e.hermegauss(24)


def settled_by(
    conditions: list[Condition], evidence: Evidence, bands: Mapping[Key, Band], views: frozenset[View]
) -> tuple[Settles, ...]:
    """At most three: first what gives what cannot be seen, then what narrows what is unsure."""
    found: dict[Need, Settles] = {}
    for condition in conditions:
        for key, _ in condition.terms:
            refused = evidence.refused.get(key)
            for need in refused.needs[:1] if refused else ():
                found.setdefault(need, Settles(need=need, reading=key[0], at=key[1], certainty=None))
    narrowed: dict[Need, Settles] = {}
    for condition in conditions:
        for each in _narrowing(condition, evidence, bands, views):
            kept = narrowed.get(each.need)
            if kept is None or (each.certainty or 0) > (kept.certainty or 0):
                narrowed[each.need] = each
    best = sorted(narrowed.values(), key=lambda each: -(each.certainty or 0.0))
    return tuple([*found.values(), *best][:MOST])


def _narrowing(
    condition: Condition, evidence: Evidence, bands: Mapping[Key, Band], views: frozenset[View]
) -> list[Settles]:
    limit, drawn = limit_of(condition, bands), value_of(condition, evidence.draws)
    if limit is None or drawn is None:
        return []
    past = float(np.mean(condition.way * (drawn - limit) > 0))
    now = max(past, 1 - past)
    variance = float(drawn.var())
    found = []
    for key, sign in condition.terms:
        reading = evidence.readings[key]
        for share in reading.budget[:2]:
            need, part = _remedy(share.source, reading, views)
            gone = part * share.share * sign**2 * _variance(reading)
            if need is None or not 0 < gone < variance:
                continue
            after = certain_after(past, gone / variance)
            if after > now + WORTH_IT:
                found.append(Settles(need=need, reading=key[0], at=key[1], certainty=after))
    return found


def certain_after(certainty: float, share: float) -> float:
    """How sure one will be on average, one way or the other, once so much of the variance is gone.

    The margin is normal; what is learnt moves its mean by what is gone and leaves the rest:
    E[max(p, 1 − p)], p = Φ((z + √share x) / √(1 − share)), x standard normal, by Gauss-Hermite.
    """
    z = float(ndtri(min(max(certainty, 1e-6), 1 - 1e-6)))
    p = ndtr((z + math.sqrt(share) * NODES) / math.sqrt(1 - share))
    return float(np.sum(WEIGHTS * np.maximum(p, 1 - p)) / np.sum(WEIGHTS))


def _variance(reading: Reading) -> float:
    return ((reading.u95 or 0.0) / 1.959964) ** 2


def _remedy(source: str, reading: Reading, views: frozenset[View]) -> tuple[Need | None, float]:
    """What takes away how much of a kind of error, where a click or a clip does."""
    if source in (BUDGET["camera"], BUDGET["stand"]):
        return Need("mat"), MOST_OF_IT
    planes = {PLANE_OF[view] for view in views}
    if source == BUDGET["depth"] and len(planes) == 1:
        missing = USUAL_VIEW["sagittal" if "frontal" in planes else "frontal"]
        return Need("view", missing, view=missing), MOST_OF_IT
    most = reading.largest_source
    if source == BUDGET["mark"] and most is not None and most.kind == "mark":
        at = None if most.at == HERE else most.at
        return Need("mark", most.of, at or _checkpoint(reading.at), most.view), BY_FRAMES_BESIDE
    return None, 0.0


def _checkpoint(at: str) -> Checkpoint | None:
    return next((name for name in CHECKPOINTS if name == at), None)

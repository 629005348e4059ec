"""What the API tells of a judged swing."""

from __future__ import annotations

from dataclasses import asdict
from typing import TYPE_CHECKING, Any

from tropometer.server.judging.earlier import Earlier
from tropometer.server.judging.judged import JudgedSwing, judged
from tropometer.server.judging.over_time import told_change
from tropometer.server.judging.plans import phrases_of, plan_for
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judge import SetUpCheck
from tropometer.teaching.judging.finding import Finding, Strength
from tropometer.teaching.judging.goals import Goal, goal_for
from tropometer.teaching.judging.sparing import is_barred, warnings

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing


def judgement_of(swing: Swing, model_id: str, units: str) -> dict[str, Any]:
    """A swing judged by its student's model, or by another one; shaped as `JudgementOut`."""
    found = judged(swing, model_id, units)
    judgement = found.judgement
    phrases, plan = phrases_of(swing.instructor), plan_for(swing)
    return {
        "model": found.model.id,
        "name": found.model.name,
        "club_class": judgement.swung.club,
        "swing_length": judgement.swung.length,
        "strengths": [_strength(each) for each in judgement.strengths],
        "findings": [_finding(found, each, phrases) for each in judgement.findings],
        "links": [asdict(each) for each in judgement.chain.links],
        "roots": [{**asdict(each), "explains": list(each.explains)} for each in judgement.chain.roots],
        "focus": [
            {"fault": each.fault, "why": each.why, "cautions": [warned.text for warned in each.cautions]}
            for each in judgement.plan.focus
        ],
        "left_out": [asdict(each) for each in judgement.plan.left_out],
        "clashes": [clash.text for clash in judgement.asked.clashes],
        "set_up": [_checked(each) for each in judgement.set_up],
        "misses": found.student.misses,
        "earlier": [_earlier(each) for each in found.earlier],
        "plan": plan.document if plan else None,
        "plan_sent": plan is not None and plan.as_sent is not None,
    }


def _finding(found: JudgedSwing, finding: Finding, phrases: dict[str, str]) -> dict[str, Any]:
    fault = found.book.faults[finding.fault]
    decided = found.decided.get(finding.fault)
    goal = goal_for(finding, found.judgement.asked.bands)
    return {
        **asdict(finding),
        "active": finding.is_active,
        "size": finding.sized,
        "name": fault.name,
        "ball": fault.ball,
        **asdict(found.said(finding)),
        "phrase": phrases.get(finding.fault, ""),
        "decided": decided
        and {
            "decision": decided.decision,
            "reason": decided.reason,
            "verdict_then": decided.verdict_then,
            "changed": decided.verdict_then != finding.verdict,
        },
        "drills": list(_offers(found, finding.fault)),
        "goal": goal and _goal(goal),
        "unproved": fault.unproved or "",
    }


def _offers(found: JudgedSwing, fault: str) -> list[dict[str, Any]]:
    """Drills against a fault: first those that may be done as they are, then held ones, then barred ones."""
    offers = []
    for drill in found.book.drills_for(fault):
        warned = warnings(found.book, found.student, drill.loads)
        offers.append(
            {
                "id": drill.id,
                "name": drill.name,
                "dose": drill.steps[0].dose,
                "barred": is_barred(drill, found.student) is not None,
                "held": any(each.held for each in warned),
                "cautions": [each.text for each in warned],
            }
        )
    return sorted(offers, key=lambda each: (each["barred"], each["held"], len(each["cautions"])))


def _goal(goal: Goal) -> dict[str, Any]:
    return {**asdict(goal), "unit": KINDS[goal.reading].unit}


def _earlier(earlier: Earlier) -> dict[str, Any]:
    check = earlier.check
    return {
        **asdict(earlier),
        "goal": earlier.goal and _goal(earlier.goal),
        "state": check.state if check else None,
        "change": told_change(check.change) if check and check.change else None,
    }


def _strength(strength: Strength) -> dict[str, Any]:
    reading, at = strength.band.key if strength.band else ("", "")
    return {"words": strength.words, "certainty": strength.certainty, "reading": reading, "at": at}


def _checked(check: SetUpCheck) -> dict[str, Any]:
    band = check.band
    return {
        "reading": band.reading,
        "unit": KINDS[band.reading].unit,
        "low": band.low,
        "high": band.high,
        "value": check.value,
        "u95": check.u95,
        "standing": check.standing,
        "reason": check.reason,
    }

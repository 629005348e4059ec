"""What the lesson on a swing is about, as the instructor chose it; once sent, in the words of that day."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.db import transaction
from django.http import Http404

from tropometer.server.judging.judged import JudgedSwing, judged
from tropometer.server.judging.models import Plan
from tropometer.server.judging.once import is_new
from tropometer.server.judging.plan_words import ValueThen, in_words
from tropometer.server.judging.sheet_words import beside_the_plan
from tropometer.server.people.body import judged_as
from tropometer.server.teaching.showing import found_or_404, own_of, shown_in_plan, shown_to_instructor
from tropometer.swing.readings.register import KINDS
from tropometer.teaching.judging.sparing import is_barred, warnings
from tropometer.teaching.knowledge.band import Key
from tropometer.teaching.knowledge.book_error import BookError
from tropometer.teaching.knowledge.pages import shipped
from tropometer.teaching.words.sentences import for_student

if TYPE_CHECKING:
    from tropometer.server.bench.models import Swing
    from tropometer.server.judging.schemas import PlanIn
    from tropometer.server.people.models import User
    from tropometer.server.teaching.models import Shown

REMEMBERED = 200  # of an instructor's plans, so many are looked through for phrases of their own


def plan_for(swing: Swing) -> Plan | None:
    """The plan that was chosen for a swing, if one was."""
    return Plan.objects.filter(swing=swing).first()


def choose(swing: Swing, plan: PlanIn | None, id: UUID | None = None) -> None:
    """Keep a plan in place of the one before, or none; BookError names what makes no sense, or must not be.

    `id` is the sender's name for the change.
    """
    document = _kept(plan) if plan else None
    if document:
        _check(judged(swing, "", "cm"), document)
    with transaction.atomic():
        now = Plan.objects.select_for_update().filter(swing=swing).first()
        if now is not None and now.as_sent is not None and not now.reopened:
            raise BookError("plan", "", "the lesson has been sent: its plan can no longer be changed")
        if not is_new(swing, id):
            return
        if document:
            Plan.objects.update_or_create(swing=swing, defaults={"document": document})
        elif now is not None:
            now.delete()


def said_plan(swing: Swing) -> dict[str, Any] | None:
    """The plan for a swing as its student reads it, shaped as `SentPlan`; None where nothing was chosen."""
    plan = plan_for(swing)
    if plan is None:
        return None
    words = None if plan.reopened else plan.as_sent
    return _with_shown(words or _in_words(judged(swing, "", swing.units), plan.document), shown_to_instructor)


def words_sent(swing: Swing) -> dict[str, Any] | None:
    """The plan that went with a sent lesson; what was chosen since is none of the student's."""
    plan = plan_for(swing)
    return plan.as_sent if plan else None


def with_shown(words: Mapping[str, Any], address: Callable[[UUID], str]) -> dict[str, Any]:
    """A sent plan with its drills' pictures at their address for who reads it."""
    return _with_shown(words, address)


def picture_of_plans(shown: Iterable[Mapping[str, Any] | None], id: UUID) -> Shown:
    """A picture or clip of the instructor's own that one of some plans shows; Http404 where none does."""
    if not any(str(id) in pictures_in(words) for words in shown):
        raise Http404("There is no such thing here.")
    return found_or_404(id)


def pictures_in_sent_plans() -> set[str]:
    """The ids of all pictures and clips that sent plans show."""
    documents = Plan.objects.filter(as_sent__isnull=False).values_list("as_sent", flat=True)
    return {picture for document in documents for picture in pictures_in(document)}


def pictures_in(words: Mapping[str, Any] | None) -> set[str]:
    """The ids of the pictures and clips that a plan in words shows."""
    drills = [drill for focus in (words or {"focus": []})["focus"] for drill in focus["drills"]]
    return {drill["picture"] for drill in drills if drill.get("picture")}


def freeze(swing: Swing) -> None:
    """Keep the plan in the words in which it is sent now.

    BookError where it rests on marks that nobody looked at, on what is not found any more, or on a drill that
    must wait or must not be.
    """
    plan = Plan.objects.select_for_update().filter(swing=swing).first()
    if plan is None:
        return
    swing_judged = judged(swing, "", swing.units)
    _check(swing_judged, plan.document)
    for i, focus in enumerate(plan.document["focus"]):
        finding = swing_judged.finding(focus["fault"])
        name = swing_judged.book.faults[focus["fault"]].name
        if finding is None or not finding.is_active:
            why = f"“{name}” is not found in this swing: accept it, or take it out of the focus"
            raise BookError("plan", f"focus[{i}]", why)
        if finding.provisional and finding.decision != "added":
            why = f"“{name}” rests on marks that nobody looked at: look at them first"
            raise BookError("plan", f"focus[{i}]", why)
    plan.as_sent, plan.reopened = _in_words(swing_judged, plan.document), False
    plan.save(update_fields=["as_sent", "reopened"])


def thaw(swing: Swing) -> None:
    """Let a plan be changed again whose lesson was taken back."""
    Plan.objects.filter(swing=swing).update(as_sent=None, reopened=False)


def reopen(swing: Swing) -> None:
    """Let a sent plan be changed for the lesson's next version; the student still has the sent one."""
    Plan.objects.filter(swing=swing, as_sent__isnull=False).update(reopened=True)


def put_back(swing: Swing, words: Mapping[str, Any] | None) -> None:
    """Leave a plan's next version be: it is again as it was sent."""
    plan = Plan.objects.filter(swing=swing).first()
    if words is None:
        Plan.objects.filter(swing=swing).delete()
    elif plan is None:
        document = _document_of(words)
        Plan.objects.create(swing=swing, document=document, as_sent=dict(words))
    else:
        plan.document, plan.as_sent, plan.reopened = _document_of(words), dict(words), False
        plan.save(update_fields=["document", "as_sent", "reopened"])


def _document_of(words: Mapping[str, Any]) -> dict[str, Any]:
    """The choice, as `PlanIn`, behind a plan in words."""
    return {
        "focus": [
            {
                "fault": focus["fault"],
                "words": focus["words"],
                "drills": [{"drill": drill["id"], "dose": drill["dose"]} for drill in focus["drills"]],
                "goal": focus["goal"]
                and {key: focus["goal"].get(key) for key in ("reading", "at", "low", "high", "by")},
            }
            for focus in words["focus"]
        ]
    }


def sent_before(swing: Swing, plan: PlanIn, then: Mapping[str, ValueThen]) -> None:
    """A plan that was sent some time ago, with what was read then of each fault's goal.

    For a practice that brings its past along: each focus has words of the instructor's own.
    """
    student = swing.student
    assert student is not None
    document = _kept(plan)
    goals = {(g["reading"], g["at"]): f["fault"] for f in document["focus"] if (g := f["goal"])}
    as_sent = in_words(
        document,
        shipped(),
        shipped().models[student.teaching_model].name,
        judged_as(student, swing.misses, swing.hurts, swing.units),
        lambda fault: "",
        lambda key: then.get(goals[key]),
    )
    Plan.objects.create(swing=swing, document=document, as_sent=as_sent)


def read_anew(swing: Swing) -> None:
    """Put what is read of a swing now beside a plan of its past: strengths, chain and measures."""
    plan = Plan.objects.get(swing=swing)
    beside = beside_the_plan(judged(swing, "", swing.units), plan.document)
    plan.as_sent = (plan.as_sent or {}) | beside
    plan.save(update_fields=["as_sent"])


def phrases_of(instructor: User) -> dict[str, str]:
    """What an instructor last said to a student of each fault in words of their own."""
    found: dict[str, str] = {}
    theirs = Plan.objects.filter(swing__instructor=instructor, swing__removed_at__isnull=True)
    for document in theirs.values_list("document", flat=True)[:REMEMBERED]:
        for focus in document["focus"]:
            if focus["words"].strip():
                found.setdefault(focus["fault"], focus["words"])
    return found


def _kept(plan: PlanIn) -> dict[str, Any]:
    return plan.model_dump(mode="json")


def _check(swing_judged: JudgedSwing, document: dict[str, Any]) -> None:
    book, student = swing_judged.book, swing_judged.student
    for i, focus in enumerate(document["focus"]):
        where = f"focus[{i}]"
        if focus["fault"] not in book.faults:
            raise BookError("plan", f"{where}.fault", f"there is no fault called {focus['fault']}")
        finding = swing_judged.finding(focus["fault"])
        if finding is not None and finding.decision == "rejected":
            raise BookError("plan", f"{where}.fault", "it was rejected")
        for j, chosen in enumerate(focus["drills"]):
            at = f"{where}.drills[{j}]"
            drill = book.drills.get(chosen["drill"])
            if drill is None:
                raise BookError("plan", at, f"there is no drill called {chosen['drill']}")
            ache = is_barred(drill, student)
            if ache is not None:
                part = (ache.part or "").replace("_", " ")
                raise BookError("plan", at, f"“{drill.name}” is not for a {part} that hurts")
            if any(each.held for each in warnings(book, student, drill.loads)):
                raise BookError(
                    "plan",
                    at,
                    f"“{drill.name}” waits until a physician or physiotherapist has agreed: "
                    "note who and when on the student's card",
                )
        goal = focus["goal"]
        kind = KINDS.get(goal["reading"]) if goal else None
        if goal and (kind is None or goal["at"] not in kind.at):
            raise BookError("plan", f"{where}.goal", "there is no such reading there")


def _with_shown(words: Mapping[str, Any], address: Callable[[UUID], str]) -> dict[str, Any]:
    return {
        **words,
        "focus": [
            {
                **focus,
                "drills": [{**drill, "shown": shown_in_plan(drill, address)} for drill in focus["drills"]],
            }
            for focus in words["focus"]
        ],
    }


def _in_words(swing_judged: JudgedSwing, document: dict[str, Any]) -> dict[str, Any]:
    def said(fault: str) -> str:
        finding = swing_judged.finding(fault)
        name = for_student(swing_judged.book.faults[fault].name, swing_judged.student.hand)
        return swing_judged.said(finding).student if finding else name

    def read(key: Key) -> dict[str, float] | None:
        now = swing_judged.found.given(*key)
        if now is None or now.provisional or now.value is None or now.u95 is None:
            return None
        return {"value": now.value, "u95": now.u95}

    words = in_words(
        document,
        swing_judged.book,
        swing_judged.model.name,
        swing_judged.student,
        said,
        read,
        {drill: str(each.pk) for drill, each in own_of(swing_judged.swing.instructor).items()},
    )
    return {**words, **beside_the_plan(swing_judged, document)}

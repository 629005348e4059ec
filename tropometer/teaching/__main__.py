"""`python -m tropometer.teaching judge RECORD.json --model NAME` prints findings, chain and plan of a swing.

With `--page FILE.toml` also somebody's own model, drill or fault counts, with `--student FILE.toml` what is
known of the player. `check FILE.toml…` says whether pages of a book make sense.
"""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Iterator
from dataclasses import asdict, replace
from pathlib import Path
from typing import Any

from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.formats.swing_record import from_document
from tropometer.swing.formats.whole import load
from tropometer.swing.names import Hand
from tropometer.swing.read import SwingRead, read
from tropometer.teaching.judge import Judgement, judge
from tropometer.teaching.judging.asked import post_of
from tropometer.teaching.judging.population import shipped_population
from tropometer.teaching.knowledge.book import Book
from tropometer.teaching.knowledge.book_error import BookError
from tropometer.teaching.knowledge.checking import check
from tropometer.teaching.knowledge.pages import read_page, schema, shipped
from tropometer.teaching.student import Student
from tropometer.teaching.student_page import read_student
from tropometer.teaching.words.sentences import sentences


def main(arguments: list[str] | None = None) -> int:
    """Run the command; 0 when it was done, 2 when a record or a page is bad."""
    parser = argparse.ArgumentParser(prog="tropo", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)
    judging = commands.add_parser("judge", help="print findings, chain and plan")
    judging.add_argument("record", type=Path)
    judging.add_argument("--model", default="loaded_shift")
    judging.add_argument("--page", type=Path, action="append", default=[], help="a page of one's own")
    judging.add_argument("--student", type=Path, help="what is known of the player")
    judging.add_argument("--flat", action="store_true", help="without a population as prior")
    judging.add_argument("--text", action="store_true", help="for people")
    checking = commands.add_parser("check", help="check pages")
    checking.add_argument("page", type=Path, nargs="+")
    commands.add_parser("schema", help="print the JSON Schema of a page")
    chosen = parser.parse_args(arguments)
    if chosen.command == "schema":
        print(json.dumps(schema(), indent=2, ensure_ascii=False))
        return 0
    try:
        book = with_pages(chosen.page)
        if chosen.command == "check":
            return 0
        if chosen.model not in book.models:
            raise BookError(f"model {chosen.model}", "", f"there is none; there are {', '.join(book.models)}")
        student = read_student(_text_of(chosen.student), chosen.student.name) if chosen.student else Student()
        model = book.models[chosen.model]
        record = from_document(load(chosen.record))
        record = replace(record, post_m=post_of(book, model) or record.post_m)
        found = read(record, curves=True)
        population = None if chosen.flat else shipped_population()
        judged = judge(found, book, model, population=population, student=student)
    except (RecordError, BookError) as error:
        print(error, file=sys.stderr)
        return 2
    if chosen.text:
        print("\n".join(told(judged, book, found, record.hand)))
    else:
        print(json.dumps(document_of(judged, book), indent=2, ensure_ascii=False))
    return 0


def with_pages(paths: list[Path]) -> Book:
    """The shipped book with somebody's own pages; BookError names the field that makes no sense."""
    book = shipped().with_pieces([read_page(_text_of(path), path.name) for path in paths])
    check(book)
    return book


def document_of(judged: Judgement, book: Book) -> dict[str, Any]:
    """A judgement as JSON."""
    return {
        "model": judged.model,
        "club": judged.swung.club,
        "length": judged.swung.length,
        "strengths": [{"words": each.words, "certainty": each.certainty} for each in judged.strengths],
        "findings": [
            {**asdict(each), "name": book.faults[each.fault].name, "sized": each.sized}
            for each in judged.findings
        ],
        "chain": asdict(judged.chain),
        "plan": asdict(judged.plan),
        "clashes": [clash.text for clash in judged.asked.clashes],
        "narrowed": [asdict(each) for each in judged.asked.narrowed],
    }


def told(judged: Judgement, book: Book, found: SwingRead, hand: Hand) -> Iterator[str]:
    """A judgement in words, a line each."""
    readings = {(each.reading, each.at): each for each in found.readings}
    length = judged.swung.length.replace("_", " ")
    yield f"{book.models[judged.model].name}, {judged.swung.club}, {length} swing"
    for strength in judged.strengths:
        yield f"  + {strength.words}"
    active = [each for each in judged.findings if each.is_active]
    if not active:
        yield "  Nothing is wrong by this model."
    for each in active:
        said = sentences(book.faults[each.fault], each, readings, hand, "cm")
        yield f"  {each.verdict:<7} {each.certainty:4.0%}  {each.sized:<7} {said.teacher}"
    for each in judged.findings:
        if each.verdict == "open":
            settles = ", ".join(f"{s.need.kind} {s.need.name}".strip() for s in each.settled_by)
            name = book.faults[each.fault].name
            yield f"  open    {each.certainty:4.0%}  {name} ({settles or 'nothing to do'})"
    for link in judged.chain.links:
        arrow = "makes room for" if link.makes_room else "→"
        yield f"  {book.faults[link.cause].name} {arrow} {book.faults[link.effect].name}"
    for focus in judged.plan.focus:
        yield f"  ! {book.faults[focus.fault].name}: {focus.why}"
        yield from (f"      {book.drills[drill].name}" for drill in focus.drills[:2])
        yield from (f"      caution: {warned.text}" for warned in focus.cautions)
    for left in judged.plan.left_out:
        yield f"  - {book.faults[left.fault].name}: {left.why}"


def _text_of(path: Path) -> str:
    try:
        return path.read_text("utf-8")
    except (OSError, UnicodeDecodeError) as error:
        raise BookError(str(path), "", str(getattr(error, "strerror", None) or "is not UTF-8")) from error


if __name__ == "__main__":
    raise SystemExit(main())

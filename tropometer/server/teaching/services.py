"""The book as an instructor has it: what is shipped, and their own pages."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TYPE_CHECKING, Any

import structlog
from django.db import transaction
from django.http import Http404

from tropometer.server.teaching.models import Page
from tropometer.server.teaching.showing import put_aside
from tropometer.teaching.knowledge.book import NAME_OF, Book
from tropometer.teaching.knowledge.book_error import BookError
from tropometer.teaching.knowledge.checking import check
from tropometer.teaching.knowledge.pages import document_of, from_document, read_page, shipped, written
from tropometer.teaching.knowledge.teaching_model import TeachingModel

if TYPE_CHECKING:
    from tropometer.server.people.models import User

log = structlog.get_logger(__name__)
MOST_PAGES = 200
# What somebody may add to: the rest is what the application itself knows.
OWN_KINDS = ("model", "fault", "drill")


def book_of(instructor: User) -> Book:
    """The shipped book with an instructor's own pages."""
    book = shipped()
    for page in Page.objects.filter(instructor=instructor):
        try:
            book = book.with_pieces([from_document(page.document, str(page))])
        except BookError as error:
            # A newer Tropometer may know a page otherwise, or have one of its id: it stays, and is not used.
            log.warning("page left out", page=str(page.pk), why=str(error))
    return book


def model_of(instructor: User, id: str) -> TeachingModel:
    """One of the models that an instructor may teach by; BookError where there is none of this id."""
    model = shipped().models.get(id) or book_of(instructor).models.get(id)
    if model is None:
        raise BookError("teaching_model", "", f"there is no teaching model called {id}")
    return model


def pages_of(instructor: User) -> list[Page]:
    """An instructor's own pages."""
    return list(Page.objects.filter(instructor=instructor))


@transaction.atomic
def write(instructor: User, text: str | None, document: Mapping[str, Any] | None = None) -> Page:
    """Keep a page in place of one of its kind and id; BookError names the field that makes no sense."""
    piece = read_page(text, "page") if text is not None else from_document(document or {}, "page")
    kind = NAME_OF[type(piece)]
    if kind not in OWN_KINDS:
        raise BookError("page", "kind", f"{kind} cannot be added; {', '.join(OWN_KINDS)} can")
    rows = Page.objects.select_for_update().filter(instructor=instructor)
    others = [page for page in rows if (page.kind, page.piece) != (kind, piece.id)]
    if len(others) >= MOST_PAGES:
        raise BookError("page", "", f"{MOST_PAGES} pages of one's own are the most")
    check(shipped().with_pieces([*(from_document(page.document, str(page)) for page in others), piece]))
    page, _ = Page.objects.update_or_create(
        instructor=instructor, kind=kind, piece=piece.id, defaults={"document": document_of(piece)}
    )
    return page


@transaction.atomic
def remove(instructor: User, kind: str, piece: str) -> None:
    """Take a page out; BookError where another page, or a student, still needs it."""
    rows = list(Page.objects.select_for_update().filter(instructor=instructor))
    page = next((each for each in rows if (each.kind, each.piece) == (kind, piece)), None)
    if page is None:
        raise Http404("There is no such page of yours.")
    if kind == "model" and instructor.students.filter(teaching_model=piece).exists():
        raise BookError(str(page), "", "a student is taught by it: choose another for them first")
    check(shipped().with_pieces(from_document(e.document, str(e)) for e in rows if e.pk != page.pk))
    page.delete()
    if kind == "drill":
        put_aside(instructor, piece)


def page_text(instructor: User, kind: str, piece: str) -> str:
    """A page of an instructor's book as TOML; Http404 where there is none."""
    for each in book_of(instructor).pieces:
        if (NAME_OF[type(each)], each.id) == (kind, piece):
            return written(each)
    raise Http404("There is no such page.")

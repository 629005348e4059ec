"""The book: what there is to teach by, and pages of one's own."""

from typing import Any

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from tropometer.server.access import asking
from tropometer.server.teaching import services
from tropometer.server.teaching.models import Page
from tropometer.teaching.knowledge.pages import LONGEST, shipped

router = Router(tags=["teaching"])


class ModelOut(Schema):
    id: str
    name: str
    about: str
    own: bool


class PageIn(Schema):
    text: str = Field(max_length=LONGEST, description="a page of the book, as TOML")


class PageOut(Schema):
    kind: str
    piece: str
    document: dict[str, Any]


@router.get("/teaching-models", response=list[ModelOut])
def teaching_models(request: HttpRequest) -> list[dict[str, Any]]:
    """The models that one may teach by."""
    return [
        {"id": each.id, "name": each.name, "about": each.about, "own": each.id not in shipped().models}
        for each in services.book_of(asking(request)).models.values()
    ]


@router.get("/book", response=list[dict[str, Any]])
def book(request: HttpRequest) -> list[dict[str, Any]]:
    """Every page of the book, one's own among them (docs/formats/teaching-book.md)."""
    return services.told(services.book_of(asking(request)))


@router.get("/book/pages", response=list[PageOut])
def own_pages(request: HttpRequest) -> list[Page]:
    """One's own pages."""
    return services.pages_of(asking(request))


@router.post("/book/pages", response={201: PageOut})
def write_page(request: HttpRequest, data: PageIn) -> tuple[int, Page]:
    """Keep a page of one's own, in place of one with its kind and id."""
    return 201, services.write(asking(request), data.text)


@router.delete("/book/pages/{kind}/{piece}", response={204: None})
def remove_page(request: HttpRequest, kind: str, piece: str) -> tuple[int, None]:
    """Take a page of one's own out of the book."""
    services.remove(asking(request), kind, piece)
    return 204, None

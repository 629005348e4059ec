"""The book: what there is to teach by, and pages of one's own."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import File, Router
from ninja.files import UploadedFile

from tropometer.server.access import asking, owned
from tropometer.server.teaching import services, showing
from tropometer.server.teaching.models import Page, Shown
from tropometer.server.teaching.schemas import BookOut, ModelOut, PageIn, PageOut, ShownOut
from tropometer.teaching.knowledge.pages import shipped

router = Router(tags=["teaching"])


@router.get("/teaching-models", response=list[ModelOut])
def teaching_models(request: HttpRequest) -> list[dict[str, Any]]:
    """The models that one may teach by."""
    return [
        {"id": each.id, "name": each.name, "about": each.about, "own": each.id not in shipped().models}
        for each in services.book_of(asking(request)).models.values()
    ]


@router.get("/book", response=BookOut)
def book(request: HttpRequest) -> dict[str, Any]:
    """The book, one's own pages among it (docs/formats/teaching-book.md)."""
    instructor = asking(request)
    found = services.book_of(instructor)
    return {
        "standards": found.standards.values(),
        "disputes": found.disputes.values(),
        "clashes": found.clashes.values(),
        "models": found.models.values(),
        "faults": found.faults.values(),
        "drills": found.drills.values(),
        "motions": found.motions.values(),
        "own": [str(page) for page in services.pages_of(instructor)],
        "shown": showing.shown_of_book(instructor, found.drills.values()),
    }


@router.get("/book/pages", response=list[PageOut])
def own_pages(request: HttpRequest) -> list[Page]:
    """One's own pages."""
    return services.pages_of(asking(request))


@router.post("/book/pages", response={201: PageOut})
def write_page(request: HttpRequest, data: PageIn) -> tuple[int, Page]:
    """Keep a page of one's own, in place of one with its kind and id."""
    return 201, services.write(asking(request), data.text, data.document)


@router.get("/book/pages/{kind}/{piece}.toml", include_in_schema=False)
def page_file(request: HttpRequest, kind: str, piece: str) -> HttpResponse:
    """A page of the book as a file, one's own or a shipped one, for another instructor."""
    text = services.page_text(asking(request), kind, piece)
    answer = HttpResponse(text, content_type="application/toml; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{piece}.toml"'
    return answer


@router.delete("/book/pages/{kind}/{piece}", response={204: None})
def remove_page(request: HttpRequest, kind: str, piece: str) -> tuple[int, None]:
    """Take a page of one's own out of the book."""
    services.remove(asking(request), kind, piece)
    return 204, None


@router.post("/book/drills/{piece}/shown", response={201: ShownOut})
def show_drill(request: HttpRequest, piece: str, file: File[UploadedFile]) -> tuple[int, dict[str, Any]]:
    """Show a drill of one's own by a picture or a short clip, in place of the one before."""
    added = showing.show(asking(request), piece, file)
    return 201, {"what": "own", "kind": added.kind, "url": showing.shown_to_instructor(added.pk)}


@router.delete("/book/drills/{piece}/shown", response={204: None})
def unshow_drill(request: HttpRequest, piece: str) -> tuple[int, None]:
    """Delete what shows a drill of one's own, everywhere."""
    showing.unshow(asking(request), piece)
    return 204, None


@router.get("/book/shown/{uuid:id}", include_in_schema=False)
def shown_file(request: HttpRequest, id: UUID) -> HttpResponseBase:
    """A picture or clip of one's own."""
    return showing.file_of(request, owned(Shown.objects.filter(instructor=asking(request)), id))

"""The range models, offered to an instructor whose shelf lacks them."""

from django.http import HttpRequest
from ninja import Router, Schema

from tropometer.server.access import asking
from tropometer.server.demo.drawn import models_for_shelf, put_models_on_shelf

router = Router(tags=["shelf"])


class RangeModel(Schema):
    name: str
    about: str


@router.get("/range-models", response=list[RangeModel])
def range_models(request: HttpRequest) -> list[RangeModel]:
    """The sound swings that come with Tropometer and are not on the shelf yet."""
    return [RangeModel(name=each.name, about=each.about) for each in models_for_shelf(asking(request))]


@router.post("/range-models", response={204: None})
def take_range_models(request: HttpRequest) -> tuple[int, None]:
    """Put them on the shelf, pegged and marked."""
    put_models_on_shelf(asking(request))
    return 204, None

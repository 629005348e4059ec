"""Answers of the API travel compressed; clips and pictures are small already and keep their byte ranges."""

from django.http import HttpRequest
from django.http.response import HttpResponseBase
from django.middleware.gzip import GZipMiddleware


class CompressAnswers(GZipMiddleware):
    """Compresses JSON alone. Random bytes keep its length from telling what is in it (BREACH, 2013)."""

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> HttpResponseBase:
        if not response.headers.get("Content-Type", "").startswith("application/json"):
            return response
        return super().process_response(request, response)

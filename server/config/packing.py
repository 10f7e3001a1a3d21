"""Packed answers, but not those asked for while something is dragged."""

from django.http import HttpRequest
from django.http.response import HttpResponseBase
from django.middleware.gzip import GZipMiddleware

PACKED_ALREADY = ("application/zip", "application/pdf", "audio/")
"""What gzip takes ten seconds for and makes no smaller."""


class PackedLists(GZipMiddleware):
    """gzip for what is read; what is computed sixty times a second would only wait for it."""

    def process_response(
        self, request: HttpRequest, response: HttpResponseBase
    ) -> HttpResponseBase:
        """Pack the answer to a GET."""
        if request.method != "GET" or request.path.startswith("/static/"):
            return response
        if response.headers.get("Content-Type", "").startswith(PACKED_ALREADY):
            return response
        return super().process_response(request, response)

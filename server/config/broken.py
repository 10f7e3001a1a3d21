"""What is answered when something goes wrong that nobody thought of: a problem with its name."""

from django.http import HttpRequest, JsonResponse


def _problem(request: HttpRequest, status: int, title: str, detail: str) -> JsonResponse:
    name = getattr(request, "ringside_id", "")
    body = {
        "type": "about:blank", "title": title, "status": status, "detail": detail, "request": name,
    }  # fmt: skip
    return JsonResponse(body, status=status, content_type="application/problem+json")


def wrong(request: HttpRequest) -> JsonResponse:
    """A fault of ours."""
    words = (
        "Something went wrong here. It is written down; what you sent is still with you. Try again"
        " in a moment."
    )
    return _problem(request, 500, "Something went wrong", words)


def unfit(request: HttpRequest, exception: Exception) -> JsonResponse:
    """A request that is none: a host that is not served, a body that is too large."""
    words = "This request cannot be answered: is the address the one this server is reached by?"
    return _problem(request, 400, "Not understood", words)

"""The application's one page, with the nonce its style sheets must carry."""

from functools import lru_cache

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie

NOT_BUILT = "The screens are not built yet. Run ./ringside up, which builds them."


@lru_cache(maxsize=1)
def _built() -> str:
    page = settings.WEB_DIST / "index.html"
    return page.read_text() if page.is_file() else ""


@ensure_csrf_cookie
def application_page(request: HttpRequest) -> HttpResponse:
    """index.html of the web build; routes inside it belong to the browser."""
    html = _built()
    if not html:
        return HttpResponse(NOT_BUILT, status=503, content_type="text/plain")
    answer = HttpResponse(html.replace("__NONCE__", str(request.csp_nonce)))
    answer["Cache-Control"] = "no-store"
    return answer

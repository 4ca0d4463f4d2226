"""The API, and the page for everything else."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path

from .api import api


def page(request: HttpRequest) -> HttpResponse:  # noqa: ARG001
    """The page's one document; its script finds the view for the address."""
    index = settings.WEB_DIR / "index.html"
    if not index.exists():
        return HttpResponse("The page is not built yet: run `make demo`.", status=503, content_type="text/plain")
    return HttpResponse(index.read_bytes(), headers={"Cache-Control": "no-cache"})


urlpatterns = [path("api/", api.urls), re_path(r"^(?!api/|assets/|static/).*$", page)]

"""The page's files as one piece each: they are small, and what streams them is made for another kind of server, which it warns of."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from whitenoise.middleware import WhiteNoiseMiddleware
from whitenoise.responders import StaticFile


class Assets(WhiteNoiseMiddleware):  # type: ignore[misc]
    @staticmethod
    def serve(static_file: StaticFile, request: HttpRequest) -> HttpResponse:
        answer = static_file.get_response(request.method, request.META)
        body = b""
        if answer.file is not None:
            with answer.file:
                body = answer.file.read()
        response = HttpResponse(body, status=int(answer.status))
        del response["content-type"]
        for key, value in answer.headers:
            response[key] = value
        return response

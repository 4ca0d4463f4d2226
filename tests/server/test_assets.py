"""Files of the page: whole, in the part that was asked for, or only their head; never as a stream, which the server warns of."""

import pytest
from config.assets import Assets
from django.test import RequestFactory
from whitenoise.responders import StaticFile

CONTENT = b"export const one = 1\n"


@pytest.fixture
def known(tmp_path):
    path = tmp_path / "one-1234.js"
    path.write_bytes(CONTENT)
    return StaticFile(str(path), [("Content-Type", "text/javascript"), ("Cache-Control", "max-age=60")])


def test_a_file_is_served_in_one_piece(known):
    answer = Assets.serve(known, RequestFactory().get("/assets/one-1234.js"))
    assert (answer.status_code, answer.content, answer.streaming) == (200, CONTENT, False)
    assert (answer["Content-Type"], answer["Cache-Control"]) == ("text/javascript", "max-age=60")


def test_a_part_of_it_and_its_head_alone(known):
    part = Assets.serve(known, RequestFactory().get("/assets/one-1234.js", headers={"Range": "bytes=7-11"}))
    assert (part.status_code, part.content) == (206, b"const")
    head = Assets.serve(known, RequestFactory().head("/assets/one-1234.js"))
    assert (head.status_code, head.content, head["Content-Length"]) == (200, b"", str(len(CONTENT)))

"""The line that stays open: spoken to by a client of the same library, over loopback."""

import json
import socket
import threading

import pytest
from api.board import routes as board
from api.hand import TAKE_OVER, questions, talk
from api.hand.talk import MOST, MOST_OF_ONE, Held, Talk
from django.contrib.sessions.backends.db import SessionStore
from django.test import RequestFactory
from wsproto.events import (
    AcceptConnection,
    BytesMessage,
    CloseConnection,
    Ping,
    Pong,
    TextMessage,
)

from ops.line import Line
from tests.server.test_access import DOC, ROOM

MOVE = {"mic": "OR", "position_m": [0.41, 0.62, 1.7], "aim": [0, 0, -1], "words": False}
FOLLOW = {"name": "held", "layout": DOC, **MOVE}
EDIT = {"layout": DOC, "edit": {"do": "hand"}}
HERE = {"room": ROOM, "layout": DOC}
PERSON, HOST = 7, "testserver"


def opening(key, host=HOST):
    """The headers of one, as WSGI has them."""
    return {
        "HTTP_HOST": host, "HTTP_ORIGIN": f"http://{host}", "HTTP_UPGRADE": "websocket",
        "HTTP_CONNECTION": "Upgrade", "HTTP_SEC_WEBSOCKET_VERSION": "13",
        "HTTP_SEC_WEBSOCKET_KEY": key,
    }  # fmt: skip


def key_of(line):
    return line.opening.partition(b"Sec-WebSocket-Key: ")[2].partition(b"\r")[0].decode()


def two_ends():
    with socket.create_server(("127.0.0.1", 0)) as door:
        near = socket.create_connection(door.getsockname())
        return near, door.accept()[0]


def held_by(sock, key):
    """The server's end, in a thread of its own as in earnest."""
    request = RequestFactory().get("/api/hand", **opening(key))
    request.session, request.ringside_person = SessionStore("somebody"), PERSON
    assert talk.held.take(PERSON)
    held = threading.Thread(
        target=Talk(sock, talk.opened(request), request, PERSON).hold, daemon=True
    )
    held.start()
    return held


@pytest.fixture
def line(monkeypatch):
    """An open line of a person whose session was found a moment ago."""
    monkeypatch.setattr(talk, "still", lambda session: PERSON)
    near, far = two_ends()
    made = Line(near, HOST)
    held = held_by(far, key_of(made))
    assert isinstance(made.next(), AcceptConnection)
    yield made
    near.close()
    held.join(20)
    assert not held.is_alive()


def test_it_is_opened_as_the_standard_has_it():
    """Key and answer are the example of RFC 6455, 1.3."""
    near, far = two_ends()
    with near:
        held_by(far, "dGhlIHNhbXBsZSBub25jZQ==")
        said = near.recv(4096)
    assert said.startswith(b"HTTP/1.1 101 ")
    assert b"s3pPLMBiTxaQ9kYGzzhZRbK+xOo=" in said


@pytest.mark.parametrize(
    ("path", "asked"), [("/follow", FOLLOW), ("/edit/try", EDIT), ("/room/here", HERE)]
)
def test_it_says_what_a_request_says(line, as_owner, path, asked):
    status, told = as_owner("POST", path, asked)
    assert status == 200
    assert line.ask(3, f"/api{path}", asked) == (3, 200, told)


def test_every_question_that_can_be_asked_so_is_known_here(line):
    assert sorted(questions.QUESTIONS) == ["/api/edit/try", "/api/follow", "/api/room/here"]
    assert line.ask(1, "/api/layouts/1", {}) == (1, 400, None)


def test_answers_come_in_the_order_of_the_questions_and_a_name_is_enough(line):
    named = json.dumps({**MOVE, "name": "held"})
    assert line.ask(1, "/api/follow", {**MOVE, "name": "never heard of"}) == (1, 409, None)
    assert line.ask(2, "/api/follow", FOLLOW)[:2] == (2, 200)
    for number in (900_000_001, 4, 5):
        line.say(TextMessage(f"{number} /api/follow\n{named}"))
    assert [line.told()[:2] for _ in range(3)] == [(900_000_001, 200), (4, 200), (5, 200)]


@pytest.mark.parametrize(
    "body",
    [
        "", "{", "[]", json.dumps({**FOLLOW, "mic": "no such mic"}), "[" * 5000,
        json.dumps({**FOLLOW, "position_m": [float("nan"), 0, 1]}),
        json.dumps({**FOLLOW, "position_m": [1e400, 0, 1]}),
        json.dumps({**FOLLOW, "more": 1}),
    ],
)  # fmt: skip
def test_what_cannot_be_answered_is_said_to_be_and_the_line_stays(line, body):
    line.say(TextMessage(f"8 /api/follow\n{body}"))
    assert line.told() == (8, 400, None)
    assert line.ask(9, "/api/follow", FOLLOW)[:2] == (9, 200)


def test_a_fault_of_ours_is_written_down_and_the_line_stays(line, monkeypatch, caplog):
    def broken(*_, **__):
        raise ZeroDivisionError("on purpose")

    with monkeypatch.context() as patch:
        patch.setattr(board, "follows", broken)
        assert line.ask(1, "/api/follow", FOLLOW) == (1, 500, None)
    assert "on purpose" in caplog.text
    assert line.ask(2, "/api/follow", FOLLOW)[:2] == (2, 200)


def test_who_has_signed_out_is_hung_up_on_and_told_nothing(line, monkeypatch):
    monkeypatch.setattr(talk, "still", lambda session: None)
    assert line.ask(1, "/api/follow", FOLLOW) == 1008


def test_a_session_that_is_somebody_elses_now_is_no_longer_this_persons(line, monkeypatch):
    monkeypatch.setattr(talk, "still", lambda session: PERSON + 1)
    assert line.ask(1, "/api/follow", FOLLOW) == 1008


@pytest.mark.parametrize(
    ("said", "code"),
    [
        (BytesMessage(b"1 /api/follow\n{}"), 1003),
        (TextMessage("/api/follow\n{}"), 1007),
        (TextMessage(f"{10**9} /api/follow\n{{}}"), 1007),
        (TextMessage("1 /api/follow\n" + " " * 2_000_000), 1009),
    ],
)
def test_another_language_is_hung_up_on(line, said, code):
    line.say(said)
    assert line.told() == code


def test_what_is_no_frame_is_hung_up_on(line):
    line.sock.sendall(b"GET / HTTP/1.1\r\n\r\n")
    assert line.told() == 1002


def test_a_ping_and_a_good_bye_are_answered_and_pieces_are_put_together(line):
    line.say(Ping(b"there?"))
    assert line.next() == Pong(b"there?")
    text = f"6 /api/follow\n{json.dumps(FOLLOW)}"
    line.say(TextMessage(text[:20], message_finished=False))
    line.say(TextMessage(text[20:]))
    assert line.told()[:2] == (6, 200)
    line.say(CloseConnection(code=1000))
    assert line.told() == 1000


def test_a_message_of_pieces_without_end_is_hung_up_on(line, monkeypatch):
    monkeypatch.setattr(talk, "PIECE", 200_000)
    for _ in range(11):
        line.say(TextMessage("", message_finished=False))
    assert line.told() == 1009


def test_silence_ends_it(monkeypatch):
    monkeypatch.setattr(talk, "SILENCE_S", 0.2)
    near, far = two_ends()
    made = Line(near, HOST)
    held = held_by(far, key_of(made))
    held.join(20)
    assert not held.is_alive()
    near.close()


def test_so_many_are_held_and_so_many_of_one_person():
    held = Held()
    assert [held.take(1) for _ in range(MOST_OF_ONE + 1)] == [True] * MOST_OF_ONE + [False]
    assert held.take(2)
    held.leave(1)
    assert held.take(1)
    people = range(3, 3 + MOST)
    assert sum(held.take(p) for p in people) == MOST - MOST_OF_ONE - 1


@pytest.fixture
def opened():
    """The headers that open a line, at a server that hands it over, and what was handed over."""
    near, far = two_ends()
    asked = []
    headers = {**opening(key_of(Line(near, HOST))), TAKE_OVER: lambda: asked.append(far) or far}
    with near, far:
        yield headers, asked


@pytest.mark.django_db
@pytest.mark.parametrize(
    ("change", "status"),
    [
        ({}, 101),
        ({"HTTP_UPGRADE": ""}, 426),
        ({TAKE_OVER: None}, 426),
        ({"HTTP_SEC_WEBSOCKET_VERSION": "7"}, 426),
        ({"HTTP_COOKIE_OF_ANOTHER": "x" * 70_000}, 101),
        ({"HTTP_ORIGIN": "http://elsewhere.example"}, 403),
        ({"HTTP_ORIGIN": "https://testserver"}, 403),
        ({"HTTP_ORIGIN": ""}, 403),
    ],
)
def test_only_a_page_of_this_server_opens_one(as_owner, opened, change, status):
    headers, asked = opened
    answer = as_owner.client.get("/api/hand", **{**headers, **change})
    assert answer.status_code == status
    assert len(asked) == (status == 101)


@pytest.mark.django_db
def test_a_stranger_opens_none_and_neither_does_one_too_many(as_owner, opened, monkeypatch, client):
    headers, asked = opened
    assert client.get("/api/hand", **headers).status_code == 401
    monkeypatch.setattr(talk, "MOST", 0)
    assert as_owner.client.get("/api/hand", **headers).status_code == 429
    assert not asked


def lacks_thread(monkeypatch, headers):
    class NoMore(threading.Thread):
        def start(self):
            raise RuntimeError("can't start new thread")

    monkeypatch.setattr(talk.threading, "Thread", NoMore)
    return headers


def lacks_handle(monkeypatch, headers):
    def take_over():
        raise OSError(24, "Too many open files")

    return {**headers, TAKE_OVER: take_over}


@pytest.mark.django_db
@pytest.mark.parametrize("lacks", [lacks_thread, lacks_handle])
def test_a_line_that_cannot_be_held_is_not_counted(as_owner, opened, monkeypatch, lacks):
    headers, asked = opened
    lines = Held()
    monkeypatch.setattr("api.hand.routes.held", lines)
    short = lacks(monkeypatch, headers)
    assert as_owner.client.get("/api/hand", **short).status_code == 429
    assert all(end.fileno() == -1 for end in asked)
    assert all(lines.take(person) for person in range(MOST))

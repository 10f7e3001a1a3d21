"""A connection taken out of waitress: by threads, over loopback, with a small application."""

import socket
import sys
import threading
import time
from contextlib import ExitStack

import pytest
from api.hand import TAKE_OVER
from config.channel import Channel
from waitress import create_server

UPGRADE = b"GET /line HTTP/1.1\r\nHost: x\r\nConnection: Upgrade\r\nUpgrade: echo\r\n\r\n"
PLAIN = b"GET /plain HTTP/1.1\r\nHost: x\r\n\r\n"


def echo(sock):
    with sock:
        sock.sendall(b"open")
        while data := sock.recv(4096):
            sock.sendall(data)


def application(environ, start):
    if environ["PATH_INFO"] == "/line":
        threading.Thread(target=echo, args=(environ[TAKE_OVER](),), daemon=True).start()
        time.sleep(0.02)  # the other end speaks before this request has come to its end
    start("200 OK", [("Content-Type", "text/plain")])
    return [b"said by request"]


@pytest.fixture
def server():
    door = socket.create_server(("127.0.0.1", 0))
    made = create_server(application, sockets=[door], threads=2, channel_request_lookahead=1)
    made.channel_class = Channel
    running = threading.Thread(target=made.run, daemon=True)
    running.start()
    yield made
    made.readable = sys.exit  # from within its own round
    made.pull_trigger()
    running.join(10)
    for left in list(made.active_channels.values()):
        left.handle_close()
    made.close()


def connected(server):
    made = socket.create_connection(("127.0.0.1", server.effective_port))
    made.settimeout(10)
    return made


def read(sock, length):
    got = b""
    while len(got) < length:
        piece = sock.recv(length - len(got))
        assert piece, f"closed after {got!r}"
        got += piece
    return got


def until_said(sock, times):
    got = b""
    while got.count(b"said by request") < times:
        piece = sock.recv(4096)
        assert piece, f"closed after {got!r}"
        got += piece
    return got


def test_all_that_is_said_after_it_is_taken_over_is_its_own_and_no_thread_is_held(server):
    with ExitStack() as ends:
        lines = [ends.enter_context(connected(server)) for _ in range(12)]
        all_is_its_own(server, lines)


def all_is_its_own(server, lines):
    for n, line in enumerate(lines):
        line.sendall(UPGRADE)
        assert read(line, 4) == b"open"
        line.sendall(b"%04d" % n)
    assert [read(line, 4) for line in lines] == [b"%04d" % n for n in range(12)]
    with connected(server) as plain:  # two threads, twelve lines
        for _ in range(3):
            plain.sendall(PLAIN)
            until_said(plain, 1)
        deadline = time.monotonic() + 10
        while len(server.active_channels) > 1 and time.monotonic() < deadline:
            time.sleep(0.02)
        assert len(server.active_channels) == 1  # waitress has put the others down
    for line in lines:
        line.sendall(b"still")
        assert read(line, 5) == b"still"


def test_what_is_not_taken_over_is_served_as_ever(server):
    with connected(server) as plain:
        plain.sendall(PLAIN * 2)
        assert until_said(plain, 2).count(b"200 OK") == 2

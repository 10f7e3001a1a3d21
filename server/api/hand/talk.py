"""One open line: questions come as messages, and each is answered by one, in their order.

A WebSocket (RFC 6455). A question is text: its number, a space, the path of the request that asks
the same, a line's end, and that request's JSON. Its answer is bytes: the number (four, the lowest
first), the status (two), and the JSON where the status is 200.
"""

import contextlib
import logging
import socket
import struct
import threading
from collections import Counter

from django.conf import settings
from django.db import DatabaseError, connections
from django.http import HttpRequest
from wsproto import ConnectionType, WSConnection
from wsproto.events import (
    AcceptConnection,
    CloseConnection,
    Event,
    Message,
    Ping,
    Request,
    TextMessage,
)
from wsproto.frame_protocol import CloseReason
from wsproto.utilities import ProtocolError

from api.hand.questions import answered
from api.kept import still

log = logging.getLogger("ringside.hand")
SILENCE_S = 60.0
MOST, MOST_OF_ONE = 32, 4
"""Lines a web process holds, each with a thread of its own, and of them one person's."""
HEAD = struct.Struct("<IH")
MOST_DIGITS = 9
PIECE = 64
"""What a piece of a message counts for beside its length: nobody sends a million empty ones."""


class Held:
    """How many lines are open, and whose."""

    def __init__(self) -> None:
        self._by: Counter[int] = Counter()
        self._lock = threading.Lock()

    def take(self, person: int) -> bool:
        """Whether one more of this person may be opened; then it counts."""
        with self._lock:
            if self._by.total() >= MOST or self._by[person] >= MOST_OF_ONE:
                return False
            self._by[person] += 1
            return True

    def leave(self, person: int) -> None:
        """One of them is no more."""
        with self._lock:
            self._by[person] -= 1
            if not self._by[person]:
                del self._by[person]


held = Held()


OPENING = frozenset({"Host", "Upgrade", "Connection"})


def opened(request: HttpRequest) -> WSConnection:
    """What has been asked with a request, ready to be accepted; ProtocolError where it is not."""
    made = WSConnection(ConnectionType.SERVER)
    headers = [
        (name.encode("latin-1"), value.encode("latin-1"))
        for name, value in request.headers.items()
        if name in OPENING or name.startswith("Sec-Websocket-")
    ]
    made.initiate_upgrade_connection(headers, request.path)
    return made


class Ended(Exception):
    """The line is closed, for a reason that is told to the other end."""

    def __init__(self, why: CloseReason) -> None:
        super().__init__(why)
        self.why = why


class Talk:
    """What is said over one line."""

    def __init__(
        self, sock: socket.socket, ws: WSConnection, request: HttpRequest, person: int
    ) -> None:
        self._sock = sock
        self._ws = ws
        self._request = request
        self._person = person
        self._session = str(request.session.session_key)
        self._words: list[str] = []
        self._long = 0
        self._open = True
        # Work that is given up where nobody waits asks this; nobody looks while it is done.
        request.META["waitress.client_disconnected"] = lambda: False

    def begin(self) -> None:
        """Hold it in a thread of its own; where none can be started it is shut: RuntimeError."""
        try:
            threading.Thread(target=self.hold, daemon=True).start()
        except RuntimeError:
            self._sock.close()
            raise

    def hold(self) -> None:
        """Until either end has had enough. Runs in a thread of its own."""
        try:
            with self._sock:
                self._held()
        except (OSError, DatabaseError) as fault:
            log.info("an open line ended: %s", fault)
        except Exception:
            log.exception("an open line broke")
        finally:
            held.leave(self._person)
            connections.close_all()

    def _held(self) -> None:
        self._sock.settimeout(SILENCE_S)
        self._sock.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
        try:
            self._events()
            while self._open and (data := self._sock.recv(65536)):
                self._ws.receive_data(data)
                self._events()
        except Ended as end:
            self._say(CloseConnection(code=end.why))
        except ProtocolError:
            self._say(CloseConnection(code=CloseReason.PROTOCOL_ERROR))

    def _events(self) -> None:
        for event in self._ws.events():
            if isinstance(event, Request):
                self._say(AcceptConnection())
            elif isinstance(event, Message):
                self._hear(event)
            elif isinstance(event, Ping):
                self._say(event.response())
            elif isinstance(event, CloseConnection):
                self._open = False
                self._say(event.response())

    def _say(self, event: Event) -> None:
        with contextlib.suppress(ProtocolError):  # it is closed already
            self._sock.sendall(self._ws.send(event))

    def _hear(self, event: Message) -> None:
        if not isinstance(event, TextMessage):
            raise Ended(CloseReason.UNSUPPORTED_DATA)
        self._words.append(event.data)
        self._long += len(event.data) + PIECE
        if self._long > settings.DATA_UPLOAD_MAX_MEMORY_SIZE:
            raise Ended(CloseReason.MESSAGE_TOO_BIG)
        if not event.message_finished:
            return
        text = "".join(self._words)
        self._words, self._long = [], 0
        self._answer(text)

    def _answer(self, text: str) -> None:
        if still(self._session) != self._person:
            raise Ended(CloseReason.POLICY_VIOLATION)
        head, _, body = text.partition("\n")
        number, _, path = head.partition(" ")
        if not number.isdecimal() or len(number) > MOST_DIGITS:
            raise Ended(CloseReason.INVALID_FRAME_PAYLOAD_DATA)
        status, told = answered(self._request, path, body)
        self._say(Message(HEAD.pack(int(number), status) + told))

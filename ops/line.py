"""The other end of a line that stays open, as docs/formats/hand.md has it: for bench and tests."""

import json
import socket
import struct
from typing import Any

from wsproto import ConnectionType, WSConnection
from wsproto.events import AcceptConnection, CloseConnection, Event, Message, Request, TextMessage

HEAD = struct.Struct("<IH")


class Line:
    """What is said and what has come, over a connection that is there."""

    def __init__(
        self, sock: socket.socket, host: str, headers: list[tuple[bytes, bytes]] | None = None
    ) -> None:
        sock.settimeout(20)
        self.sock = sock
        self._came: list[Event] = []
        self._ws = WSConnection(ConnectionType.CLIENT)
        asked = Request(host=host, target="/api/hand", extra_headers=headers or [])
        self.opening = self._ws.send(asked)

    @classmethod
    def opened(cls, port: int, cookies: dict[str, str]) -> "Line":
        """To a server on this machine, by somebody who is signed in."""
        host = f"127.0.0.1:{port}"
        kept = "; ".join(f"{k}={v}" for k, v in cookies.items())
        headers = [(b"Origin", f"http://{host}".encode()), (b"Cookie", kept.encode())]
        made = cls(socket.create_connection(("127.0.0.1", port)), host, headers)
        made.sock.sendall(made.opening)
        said = made.next()
        if not isinstance(said, AcceptConnection):
            raise SystemExit(f"a line was answered with {said}")
        return made

    def say(self, event: Event) -> None:
        """Send it."""
        self.sock.sendall(self._ws.send(event))

    def ask(self, number: int, path: str, body: Any) -> Any:
        """A question and what comes next."""
        self.say(TextMessage(f"{number} {path}\n{json.dumps(body)}"))
        return self.told()

    def told(self) -> Any:
        """Number, status and JSON of the next answer, or the code it was hung up with."""
        message = self.next()
        if isinstance(message, CloseConnection):
            return int(message.code)
        number, status = HEAD.unpack(message[: HEAD.size])
        return number, status, json.loads(message[HEAD.size :] or "null")

    def next(self) -> Any:
        """The next event, or the bytes of the next message."""
        whole = b""
        while True:
            while self._came:
                event = self._came.pop(0)
                if not isinstance(event, Message):
                    return event
                whole += event.data
                if event.message_finished:
                    return whole
            self._ws.receive_data(self.sock.recv(65536) or None)
            self._came += self._ws.events()

"""A connection of waitress that can be taken out of it: for a line that stays open."""

import socket
from typing import Any

from api.hand import TAKE_OVER
from waitress.channel import HTTPChannel
from waitress.task import WSGITask


class _Task(WSGITask):
    def get_environment(self) -> dict[str, Any]:
        environ = super().get_environment()
        environ[TAKE_OVER] = self.channel.taken_over
        return environ


class Channel(HTTPChannel):
    """waitress reads and writes it until it is taken over, and nothing after that."""

    task_class = _Task
    _gone = False

    def taken_over(self) -> socket.socket:
        """The connection itself. What the application answers to this request is not sent.

        It is another handle of the same connection: waitress closes its own when it comes by.
        """
        kept = self.socket.dup()
        kept.setblocking(True)
        self._gone = True
        self.connected = False
        return kept

    def handle_read(self) -> None:
        """Nothing of what is no longer its own, though its turn may have come before it is out."""
        if not self._gone:
            super().handle_read()

    def service(self) -> None:
        """Out of its round at once, not a second later."""
        super().service()
        if self._gone:
            self.server.pull_trigger()

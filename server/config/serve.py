"""One web process: a socket that was opened for it, whole requests only, a fixed set of threads.

waitress reads headers and body of every connection in one loop and hands a request to a thread
only when all of it is there: strangers who send half of one hold no thread, and go after a
minute of silence. It also says when a client has gone, so that long work for it can stop.
A line that stays open is taken out of it (`config.channel`), and holds none of its threads.
"""

import argparse
import gc
import logging
import os
import socket
import threading

THREADS = 24
"""Of which few compute at once (see `api.heavy`); the others wait for those or for the database."""
SILENCE_S = 60
MOST_CONNECTIONS = 400


def settle() -> None:
    """Load all that answers, and leave it out of the search for garbage.

    Some 130,000 containers of code and settings stay until the end. Looking through them holds
    every thread for 80 ms, again and again while it answers: a drag stumbles over each.
    """
    from django.urls import get_resolver

    _ = get_resolver().url_patterns
    gc.collect()
    gc.freeze()


def main() -> None:
    """Serve until told to stop."""
    # Imported here: processes for long answers read this file too, and need none of it.
    os.environ.setdefault("RINGSIDE_DB_POOL", "1")
    os.environ.setdefault("RINGSIDE_HEAVY", "1")
    from waitress import create_server

    from config.channel import Channel
    from config.wsgi import application  # before anything that asks for settings

    from api.heavy.pool import warm  # isort: skip

    parser = argparse.ArgumentParser()
    parser.add_argument("--fd", type=int, required=True, help="a bound socket, inherited")
    args = parser.parse_args()
    threading.Thread(target=warm, daemon=True).start()
    settle()
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    server = create_server(
        application,
        sockets=[socket.socket(fileno=args.fd)],
        threads=THREADS,
        channel_timeout=SILENCE_S,
        cleanup_interval=10,
        connection_limit=MOST_CONNECTIONS,
        channel_request_lookahead=1,
        max_request_body_size=110_000_000,
        ident=None,
        clear_untrusted_proxy_headers=True,
    )
    server.channel_class = Channel
    server.run()


if __name__ == "__main__":
    main()

"""The web process for the studio's own network: HTTPS with a certificate that was made on the spot.

A process of its own, so that what comes from there can neither be taken for this machine's own nor
hold the threads that serve it. hypercorn reads requests in one loop as waitress does, so strangers
who send half of one hold no thread, and speaks TLS, which waitress does not.
"""

import argparse
import asyncio
import os
import threading
from concurrent.futures import ThreadPoolExecutor

from config.serve import THREADS, settle

LONGEST_SILENCE_S = 60
KEPT_OPEN_S = 30
BIGGEST_BODY = 110_000_000


async def _serve(fds: list[int], cert: str, key: str) -> None:
    from hypercorn.asyncio import serve
    from hypercorn.config import Config

    from config.wsgi import application

    config = Config()
    config.bind = [f"fd://{fd}" for fd in fds]
    config.certfile, config.keyfile = cert, key
    # Cookies come in pieces over HTTP/2, and are put together wrongly for an application like ours.
    config.alpn_protocols = ["http/1.1"]
    config.wsgi_max_body_size = BIGGEST_BODY
    config.keep_alive_timeout, config.read_timeout = KEPT_OPEN_S, LONGEST_SILENCE_S
    config.include_server_header = False
    asyncio.get_running_loop().set_default_executor(ThreadPoolExecutor(THREADS))
    await serve(application, config, mode="wsgi")


def main() -> None:
    """Serve until told to stop."""
    os.environ.setdefault("RINGSIDE_DB_POOL", "1")
    os.environ.setdefault("RINGSIDE_HEAVY", "1")
    parser = argparse.ArgumentParser()
    parser.add_argument("--fd", type=int, action="append", required=True, help="a bound socket")
    parser.add_argument("--cert", required=True)
    parser.add_argument("--key", required=True)
    args = parser.parse_args()
    from config.wsgi import application  # noqa: F401 - before anything that asks for settings

    from api.heavy.pool import warm  # isort: skip

    threading.Thread(target=warm, daemon=True).start()
    settle()
    asyncio.run(_serve(args.fd, args.cert, args.key))


if __name__ == "__main__":
    main()

"""Opening Ringside to the studio's own network: at which addresses, under which certificate.

Runs in the Python environment (the command itself has no packages): `ops.lan door FOLDER PORT
[ADDRESS]` prints one line of JSON, `ops.lan code URL` a QR code for the terminal.
"""

import json
import socket
import sys
from dataclasses import asdict, dataclass
from ipaddress import IPv4Address
from pathlib import Path

NOT_A_NETWORK = ("docker", "veth", "br-", "virbr", "lo", "tun", "tap")
"""Interfaces that lead to no phone of the studio."""


@dataclass(frozen=True)
class Door:
    """Where the studio's network reaches this installation."""

    addresses: list[str]
    port: int
    cert: str
    key: str
    fingerprint: str
    renewed: str
    """Why the certificate was made anew; empty when it is the one that phones know."""

    @property
    def urls(self) -> list[str]:
        """The addresses as they are typed."""
        return [f"https://{a}:{self.port}" for a in self.addresses]

    def environment(self) -> dict[str, str]:
        """What every process must know of it."""
        return {"RINGSIDE_LAN_ADDRESSES": ",".join(self.urls)}

    def own_environment(self) -> dict[str, str]:
        """What the process behind it is told beside."""
        return {
            **self.environment(), "RINGSIDE_HOSTS": ",".join(self.addresses),
            "RINGSIDE_HTTPS": "1", "RINGSIDE_HSTS_S": "0",
        }  # fmt: skip

    @staticmethod
    def read(line: str) -> "Door":
        """From its line of JSON."""
        return Door(**json.loads(line))

    def line(self) -> str:
        """As one line of JSON."""
        return json.dumps(asdict(self))


def own_addresses() -> list[str]:
    """This machine's addresses on private networks, the one on the way out first."""
    import psutil

    up = {name for name, stats in psutil.net_if_stats().items() if stats.isup}
    found = [
        a.address
        for name, addresses in psutil.net_if_addrs().items()
        if name in up and not name.startswith(NOT_A_NETWORK)
        for a in addresses
        if a.family == socket.AF_INET and _private(a.address)
    ]
    first = _way_out()
    return sorted(dict.fromkeys(found), key=lambda a: a != first)


def _private(address: str) -> bool:
    """Of a network of one's own (RFC 1918 and its like), which the world does not reach."""
    ip = IPv4Address(address)
    return ip.is_private and not ip.is_loopback and not ip.is_unspecified


def _way_out() -> str:
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as s:
        try:
            s.connect(("198.51.100.1", 9))  # sends nothing; an address kept for examples (RFC 5737)
        except OSError:
            return ""
        return str(s.getsockname()[0])


def opened_door(folder: Path, port: int, asked: str) -> Door:
    """The door for an address that was asked for, or for all of this machine's own."""
    from ops import certificate

    addresses = [asked] if asked else own_addresses()
    if not addresses:
        raise LookupError(
            "this computer has no address on a network of its own. Connect it to the studio's"
            " network, or name the address: ./ringside up --lan ADDRESS"
        )
    for address in addresses:
        with socket.socket() as s:
            try:
                s.bind((address, 0))
            except OSError as fault:
                raise LookupError(f"{address} is no address of this computer ({fault})") from None
    cert, key, why = certificate.kept(folder, addresses)
    return Door(addresses, port, str(cert), str(key), certificate.fingerprint(cert), why)


def code(url: str) -> None:
    """A QR code in the terminal."""
    import segno

    segno.make(url, micro=False).terminal(compact=True, border=2)


def main(args: list[str]) -> int:
    """One of the two."""
    if args[0] == "code":
        code(args[1])
        return 0
    try:
        print(opened_door(Path(args[1]), int(args[2]), args[3] if len(args) > 3 else "").line())
    except (LookupError, ValueError) as fault:
        print(fault)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))

"""Whether a request comes from another machine than the server's own."""

from ipaddress import ip_address

from django.http import HttpRequest
from django.http.request import split_domain_port

OWN_NAMES = {"localhost", "127.0.0.1", "[::1]"}


def from_elsewhere(request: HttpRequest) -> bool:
    """True unless both the connection and the name it asked for are this machine's own.

    Behind a proxy every connection comes from this machine; the name that was asked for tells.
    """
    try:
        own = ip_address(request.META.get("REMOTE_ADDR", "")).is_loopback
    except ValueError:
        own = False
    return not (own and split_domain_port(request.get_host())[0] in OWN_NAMES)

"""Requests to a server under test as a browser makes them: cookies held, the token sent back."""

from http.client import HTTPResponse


def headers(cookies: dict[str, str]) -> dict[str, str]:
    """What goes with every request of somebody who holds these cookies."""
    return {
        "Content-Type": "application/json",
        "X-CSRFToken": cookies.get("csrftoken", ""),
        "Cookie": "; ".join(f"{k}={v}" for k, v in cookies.items()),
    }


def hold(cookies: dict[str, str], answer: HTTPResponse) -> None:
    """Hold the cookies an answer sets."""
    for key, value in answer.getheaders():
        if key.lower() == "set-cookie":
            name, held = value.split(";")[0].split("=", 1)
            cookies[name] = held

"""A signed-in session on the server's API, for stand-in instruments: what a real gateway would do."""

import argparse
import json
import os
import sys
import urllib.error
import urllib.request
from collections.abc import Callable
from http.cookiejar import CookieJar
from typing import Any


class Gateway:
    """Signs in like anybody, then asks and posts."""

    def __init__(self, server: str, username: str, password: str) -> None:
        self.server, self.cookies = server.rstrip("/"), CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.cookies))
        self.opener.open(f"{self.server}/").close()
        self.ask("POST", "/api/session", {"username": username, "password": password})

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        """The content of an answer; a body that is text already is sent as it is."""
        token = next((c.value for c in self.cookies if c.name == "csrftoken"), "") or ""
        headers = {"Content-Type": "application/json", "X-CSRFToken": token, "Referer": f"{self.server}/"}
        data = body.encode() if isinstance(body, str) else None if body is None else json.dumps(body).encode()
        if not self.server.startswith(("http://", "https://")):
            raise ValueError(f"{self.server} is no address of a server. Write http:// or https:// in front.")
        request = urllib.request.Request(f"{self.server}{path}", data=data, headers=headers, method=method)  # noqa: S310
        with self.opener.open(request) as answer:
            text = answer.read()
        return json.loads(text) if text else None

    def job_of(self, line: str) -> dict[str, Any]:
        """The open job of a line."""
        job_id = next((row["job"]["id"] for row in self.ask("GET", "/api/jobs") if row["name"] == line and row["job"]), None)
        if job_id is None:
            raise SystemExit(f"{line} has no open job.")
        job: dict[str, Any] = self.ask("GET", f"/api/jobs/{job_id}")
        return job


def arguments(name: str, about: str, line: str) -> argparse.ArgumentParser:
    """What every stand-in instrument can be told."""
    parser = argparse.ArgumentParser(prog=f"./anvil {name}", description=about)
    parser.add_argument("--line", default=line, help="line it is set up on")
    parser.add_argument("--server", default="http://127.0.0.1:8017", help="where the app runs")
    parser.add_argument("--name", default="millwright", help="account it signs in with")
    return parser


def run(given: argparse.Namespace, work: Callable[[Gateway], None]) -> None:
    """Sign in and work; what goes wrong is said in a sentence."""
    password = os.environ.get("ANVIL_PASSWORD")
    if not password:
        raise SystemExit("Set ANVIL_PASSWORD to the account's password; that of the demo stands on the start line.")
    try:
        work(Gateway(given.server, given.name, password))
    except urllib.error.HTTPError as refused:
        raise SystemExit(f"The server says {refused.code}: {refused.read().decode()[:300]}") from None
    except urllib.error.URLError:
        raise SystemExit(f"Nothing answers at {given.server}. Start it first: ./anvil start") from None
    except KeyboardInterrupt:
        print("Put away.", file=sys.stderr)

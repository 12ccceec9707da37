"""./anvil test nonsense: the API is given nonsense for minutes; it answers as its description says, and never with 5xx."""

import json
import re
import subprocess
import sys
from collections.abc import Mapping
from http.client import HTTPConnection
from urllib.parse import urlsplit

from tests.own import ROOT, cluster_of_its_own, server_on, session_of

CHECKS = "not_a_server_error,status_code_conformance"
MINUTES = 5
TOKEN = "n" * 32
FAULT = 500
LEFT_OUT = (
    "session_sign_out",  # whoever knocks would be out
    "job_live",  # goes on for as long as somebody listens
    "stream_append",  # lines of JSON, which are not generated
)


def main() -> int:
    """On a cluster of its own, signed in as the lead, who may do most."""
    with cluster_of_its_own() as (cluster, folder), server_on(cluster) as server:
        cookie = f"sessionid={session_of('lead')['value']}; csrftoken={TOKEN}"
        command = [
            str(ROOT / ".anvil" / "venv" / "bin" / "schemathesis"),
            "run",
            str(ROOT / "docs" / "openapi.json"),
            *(
                "--url",
                server.at,
                "--checks",
                CHECKS,
                "--max-time",
                f"{MINUTES * 60}",
                "--workers",
                "2",
                "--continue-on-failure",
            ),
            *("--header", f"Cookie: {cookie}", "--header", f"X-CSRFToken: {TOKEN}"),
            *(part for id in LEFT_OUT for part in ("--exclude-operation-id", id)),
        ]
        generated = subprocess.run(command, check=False, cwd=folder).returncode
        faults = dictionary(server.at, {"Cookie": cookie, "X-CSRFToken": TOKEN})
        for fault in faults:
            print(fault)
        return generated or int(bool(faults))


# Texts that no sheet sends and no database takes; each made a fault of the server once.
NUL, DEEP, LONG = "\x00", "[" * 100_000 + "]" * 100_000, "9" * 5_000
TEXTS = (
    DEEP,
    LONG,
    f'{{"id": {LONG}}}',
    f'{{"name": "a{NUL}b", "device": "a{NUL}b", "reason": "a\\u0000b"}}',
    json.dumps({"typed": {"readings.0.value_mm": "9" * 400 + "/1"}, "inputs": {}, "step": "set.gap", "kind": "reading"}),
    json.dumps({"format": "young-anvil job", "version": 3, "entries": [{"asked": {"bench": {}}}]}),
    f"at,wear_mm\n2026-03-31,{'1' * 200_000}\n",
    "at,wear_mm\n0001-01-01T00:00:00+14:00,40\n",
    f"clock,value_mm\n0,{NUL}\n",
    "",
)
ADDRESSES = ("%00", "..%2F..", "9" * 400, "00000000-0000-4000-8000-000000000000", "%F0%9F%94%A9")


def dictionary(at: str, headers: Mapping[str, str]) -> list[str]:
    """Each of them to every operation, as its body and in its address; what was answered with 5xx."""
    held = json.loads((ROOT / "docs" / "openapi.json").read_text())
    operations = [
        (method.upper(), path)
        for path, known in held["paths"].items()
        for method, operation in known.items()
        if operation.get("operationId") not in ("session_sign_out", "job_live")
    ]
    address, faults, calls = urlsplit(at), [], 0
    for method, path in operations:
        for text in TEXTS if method != "GET" else ADDRESSES:
            for filled in ADDRESSES if "{" in path else ("",):
                where = re.sub(r"\{[^}]*\}", filled, path) + (
                    "" if method != "GET" else f"?unit={text}&months={text}&after={text}"
                )
                asked = HTTPConnection(address.hostname or "", address.port, timeout=60)
                asked.request(
                    method, where, text.encode() if method != "GET" else None, {**headers, "Content-Type": "application/json"}
                )
                status = asked.getresponse().status
                asked.close()
                calls += 1
                if status >= FAULT:
                    faults.append(f"{status} {method} {where[:80]} {text[:60]!r}")
    print(f"dictionary: {calls} calls, {len(faults)} answered with a fault")
    return faults


if __name__ == "__main__":
    sys.exit(main())

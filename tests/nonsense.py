"""./anvil test nonsense: the API is given nonsense for minutes; it answers as its description says, and never with 5xx."""

import subprocess
import sys

from tests.own import ROOT, cluster_of_its_own, server_on, session_of

CHECKS = "not_a_server_error,status_code_conformance"
MINUTES = 5
TOKEN = "n" * 32
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
        return subprocess.run(command, check=False, cwd=folder).returncode


if __name__ == "__main__":
    sys.exit(main())

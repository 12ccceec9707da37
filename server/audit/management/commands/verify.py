"""Walks everything that was entered, and says whether what is stored is that."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from millwright.errors import UnusableInput
from server.audit.broken import NOTHING_SEALED, Broken, Sealed
from server.audit.jobs import walk_all
from server.audit.journals import verify_journals
from server.audit.seal import read_seal


class Command(BaseCommand):
    """./anvil verify [--seal FILE]"""

    help = "Walks every chain and journal: exit code 1, and what and where, where something was changed behind the app."

    def add_arguments(self, parser: CommandParser) -> None:
        """The seal that the chains are held against."""
        parser.add_argument("--seal", type=Path, help="a file that ./anvil seal wrote")

    def handle(self, *args: Any, seal: Path | None = None, **options: Any) -> None:
        """Every job, every journal, and how many jobs were walked."""
        sealed = _read(seal) if seal else NOTHING_SEALED
        walked = walk_all(sealed)
        jobs, broken = len(walked.ids), list(walked.broken)
        broken += verify_journals(sealed)
        broken += [Broken(where=f"job {key}", what=f"it is not there any more; the seal of {sealed.day} has it")
                   for key in sealed.jobs if key not in walked.ids]  # fmt: skip
        for one in broken:
            self.stderr.write(str(one))
        if broken:
            raise CommandError(f"{len(broken)} places in {jobs} jobs and the journals are not what was entered.")
        against = f", and as the seal of {sealed.day} has it" if seal else ""
        self.stdout.write(f"{jobs} jobs: every entry and signature is what was entered{against}.")


def _read(path: Path) -> Sealed:
    try:
        return read_seal(path.read_text())
    except OSError as error:
        raise CommandError(f"{path} cannot be read: {error.strerror}.") from None
    except UnusableInput as refused:
        raise CommandError(" ".join(problem.message for problem in refused.problems)) from None

"""Writes today's seal."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from django.utils import timezone

from server.audit.seal import write_seal


class Command(BaseCommand):
    """./anvil seal [--folder FOLDER]"""

    help = "Writes how far every chain has come today into a file, sealed with a key that is not in the database."

    def add_arguments(self, parser: CommandParser) -> None:
        """Where seals are kept."""
        parser.add_argument("--folder", type=Path, default=Path(settings.SEAL_FOLDER))

    def handle(self, *args: Any, folder: Path, **options: Any) -> None:
        """The seal of today, once a day."""
        self.stdout.write(str(write_seal(folder, timezone.now())))

"""Walks the chain of every job and says whether what is stored is what was entered."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError

from ...chain import verify_all


class Command(BaseCommand):
    """./anvil verify"""

    help = "Walks the chain of every job: exit code 1 and its number where something was changed behind the app."

    def handle(self, *args: Any, **options: Any) -> None:
        """Every job, and how many links were walked."""
        jobs, broken = 0, []
        for job, wrong in verify_all():
            jobs += 1
            if wrong is not None:
                broken.append(f"{job.site.name}, {job.line.name}, job {job.number}: number {wrong.number}: {wrong.what}")
        for line in broken:
            self.stderr.write(line)
        if broken:
            raise CommandError(f"{len(broken)} of {jobs} jobs are not what was entered.")
        self.stdout.write(f"{jobs} jobs: every entry and signature is what was entered.")
